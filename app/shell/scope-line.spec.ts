import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { addFolder, editDocument, moveDocuments } from '@core/commands/documents';
import { addSet } from '@core/commands/sets';
import { workAs } from '@core/commands/study';
import { Bench } from '@core/testing/make';
import { ShownHereList } from '../state/shown-here';
import { selectQueryScope, selectScopedDocuments } from '../state/study.selectors';
import { drawn, type Drawn } from '../testing/component-with-study';
import { ScopeLine } from './scope-line';

describe('the scope sentence', () => {
  let line: Drawn<ScopeLine>;
  const left = () => line.find('[data-scope-left]').textContent;
  const parts = () => line.texts('.part');
  const scoped = () =>
    TestBed.inject(Store)
      .selectSignal(selectScopedDocuments)()
      .map((one) => one.title);
  const choose = async (part: string, entry: string) => {
    await line.click(line.button(part));
    await line.click(line.button(entry));
  };

  beforeEach(async () => {
    const bench = new Bench();
    const [one, two, three] = ['Interview 1', 'Interview 2', 'Minutes'].map((title) => bench.addDocument(title, ['Words.']));
    bench.run(editDocument(three!.id, { kind: 'public document' }));
    bench.run(addFolder('Winter', null));
    bench.run(addFolder('January', Object.keys(bench.state.tables.folder)[0]!));
    const [winter, january] = Object.values(bench.state.tables.folder);
    bench.run(moveDocuments([one!.id], winter!.id));
    bench.run(moveDocuments([two!.id], january!.id));
    bench.run(addSet('document', 'Night talk', [two!.id, three!.id]));
    bench.run(workAs('Jon'));
    line = await drawn(ScopeLine, bench, {}, [], { width: 900, height: 40 });
  });

  it('says what is looked at, and what that leaves', () => {
    expect(parts()).toEqual(['all documents', 'any folder', 'in any set or none', 'all coders']);
    expect(left()).toBe('3 of 3 documents');
  });

  it('narrows by kind, and by folder with what lies in its folders', async () => {
    await choose('all documents', 'public documents');
    expect([parts()[0], left()]).toEqual(['public documents', '1 of 3 documents']);
    await line.click(line.button('look at all'));
    expect(left()).toBe('3 of 3 documents');
    await choose('any folder', 'Winter');
    expect(scoped()).toEqual(['Interview 2', 'Interview 1']);
    await choose('Winter', 'January');
    expect(scoped()).toEqual(['Interview 2']);
  });

  it('narrows by a set and by a coder, for queries too', async () => {
    await choose('in any set or none', 'Night talk');
    expect(scoped().sort()).toEqual(['Interview 2', 'Minutes']);
    await choose('all coders', 'Ada');
    const scope = TestBed.inject(Store).selectSignal(selectQueryScope)();
    expect(scope.documentIds.size).toBe(2);
    expect(scope.coderId).not.toBeNull();
    await line.click(line.button('look at all'));
    expect(parts()).toEqual(['all documents', 'any folder', 'in any set or none', 'all coders']);
  });

  it('names what else is on where one is, each a click from off', async () => {
    let off = 0;
    TestBed.inject(ShownHereList).parts.set([{ words: 'coded words dimmed', off: () => off++ }]);
    await line.settle();
    await line.click(line.button('coded words dimmed: end this'));
    expect(off).toBe(1);
  });
});

import { TestBed } from '@angular/core/testing';
import { useRatings } from '@core/commands/study';
import type { Id } from '@core/model/ids';
import { unpackPassages } from '@core/passages/columns';
import { Bench } from '@core/testing/make';
import { Store } from '@ngrx/store';
import { Notices } from '../../state/notices';
import { selectMemos, selectPassages } from '../../state/study.selectors';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { PassagePanel } from './passage-panel';

describe('the chosen passage', () => {
  let panel: Drawn<PassagePanel>;
  const ids: Record<string, Id> = {};
  const passages = () => Object.values(TestBed.inject(Store).selectSignal(selectPassages)()).flatMap((columns) => unpackPassages(columns));
  const follow = async () => {
    panel.fixture.componentRef.setInput(
      'passage',
      passages().find((one) => one.id === panel.fixture.componentInstance.passage().id),
    );
    await panel.settle();
  };
  const comment = async (text: string) => {
    await panel.type('textarea', text);
    panel.find('textarea').dispatchEvent(new Event('change', { bubbles: true }));
    await follow();
  };
  const codes = () => panel.texts('.codings .name');

  beforeEach(async () => {
    const bench = new Bench();
    ids['Help'] = bench.addCode('Help');
    ids['Waiting'] = bench.addCode('Waiting');
    const document = bench.addDocument('Interview 03', ['Shona: They held the boat. We waited at the pier.'], ['Shona']);
    bench.code(document, 7, 26, ids['Help'], ids['Waiting']);
    bench.code(document, 12, 20, ids['Waiting']);
    bench.run(useRatings(5));
    const [passage, inner] = unpackPassages(bench.state.passages[document.id]!);
    panel = await drawn(PassagePanel, bench, {
      passage,
      document: bench.state.tables.document[document.id],
      text: bench.texts.get(document.id),
      memos: [],
      alsoHere: [inner],
    });
  });
  afterEach(() => TestBed.inject(Notices).dismiss());

  it('says its words, who speaks, its codes and who gave them', () => {
    expect(panel.find('blockquote').textContent).toBe('They held the boat.');
    expect(panel.find('header').textContent).toContain('Shona');
    expect(codes()).toEqual(['Help', 'Waiting']);
    expect(panel.texts('.who')[0]).toContain('Ada');
    expect(panel.find('summary').textContent).toBe('1 more passage shares these words');
  });

  it('loses one code at a time, and can be rated', async () => {
    await panel.type('[aria-label="Rating of Help"]', '4', 'change');
    await follow();
    expect(passages()[0]!.codings[0]!.rating).toBe(4);
    await panel.type('[aria-label="Rating of Help"]', '', 'change');
    await follow();
    expect(passages()[0]!.codings[0]!.rating).toBeUndefined();
    await panel.click(panel.button('Take off Help'));
    await follow();
    expect(codes()).toEqual(['Waiting']);
  });

  it('keeps a comment when it is left, asks to come back to it, and makes a memo of it', async () => {
    await comment('why so late?');
    expect(passages()[0]!.comment).toBe('why so late?');
    await panel.click(panel.button('Come back to it'));
    await follow();
    expect(passages()[0]!.open).toBeTrue();
    await panel.click(panel.button('Answered'));
    await follow();
    expect(passages()[0]!.open).toBeUndefined();
    await panel.click(panel.button('Make a memo of it'));
    await follow();
    expect(passages()[0]!.comment).toBe('');
    expect(Object.values(TestBed.inject(Store).selectSignal(selectMemos)())[0]!.entries[0]!.text).toContain('why so late?');
    const before = panel.session.done.length;
    await comment('');
    expect(panel.session.done.length).toBe(before);
  });

  it('gives all passages of the document another code in the place of one, by its name', async () => {
    panel.answers.text = 'no such code';
    await panel.click(panel.button('Change Waiting'));
    await panel.click(panel.button('The same for all in this document'));
    expect(panel.answers.refusals[0]).toContain('There is no code “no such code”.');
    panel.answers.text = 'help';
    await panel.click(panel.button('Change Waiting'));
    await panel.click(panel.button('The same for all in this document'));
    expect(passages().map((one) => one.codings.map((coding) => coding.codeId))).toEqual([[ids['Help']!], [ids['Help']!]]);
  });

  it('is removed as one step, and closed', async () => {
    let closed = 0;
    panel.fixture.componentInstance.closed.subscribe(() => closed++);
    await panel.click(panel.button('Remove'));
    expect(passages().length).toBe(1);
    expect(closed).toBe(1);
    panel.session.undo();
    expect(passages().length).toBe(2);
  });
});

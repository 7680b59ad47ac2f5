import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { correctTexts } from '@core/commands/correct-text';
import { unpackPassages } from '@core/passages/columns';
import { Bench } from '@core/testing/make';
import { selectData } from '../../../state/study.selectors';
import { TextCache } from '../../../state/text-cache';
import { analysisHere } from '../../../testing/analysis-here';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { Swept } from './swept';
import { Words } from './words';
import { WordsDraft } from '../../../state/words-draft';
import { sweep } from '@core/commands/sweep';

/** A study with two interviews, one code on one of the hits. */
function study(): Bench {
  const bench = new Bench();
  const waiting = bench.addCode('Waiting');
  bench.addCode('Night');
  const one = bench.addDocument('One', ['Ann: We waited all night. The boat came late.', 'Bob: Which boat?'], ['Ann', 'Bob']);
  bench.addDocument('Two', ['No boat at night. We had waited for nothing.']);
  bench.code(one, 5, 25, waiting);
  return bench;
}

describe('looking for words', () => {
  let words: Drawn<Words>;
  const type = async (typed: string) => {
    await words.type('input[type=search]', typed);
    // the search rests a moment after the last key
    await new Promise((resolve) => setTimeout(resolve, 200));
    await words.settle();
  };
  const shown = () => words.texts('[role=listitem] mark');

  beforeEach(async () => {
    const bench = study();
    words = await drawn(Words, bench, {}, [analysisHere], { width: 1100, height: 700 });
    for (const text of bench.texts.values()) TestBed.inject(TextCache).put(text, null);
    TestBed.inject(WordsDraft).search.set({ typed: '', match: 'whole words', capitals: false, accents: false, unit: 'words' });
    TestBed.inject(WordsDraft).onlyUncoded.set(false);
    TestBed.inject(WordsDraft).where.set('texts');
    await words.settle();
  });

  it('shows what is found lined up on it, with what stands around, who says it, and the codes that are there', async () => {
    await type('waited');
    expect(words.find('[data-summary]').textContent).toBe('2 hits in 2 documents');
    expect(shown()).toEqual(['waited', 'waited']);
    expect(words.texts('.before')).toEqual(['We ', 'No boat at night. We had '].map((one) => one.trim()));
    expect(words.texts('.where')[0]).toMatch(/^One\s*· Ann$/);
    expect(words.all('.hits [role=listitem]')[0]!.querySelectorAll('fl-swatch').length).toBe(1);
  });

  it('counts hits by document, case and speaker, and looks at one of these', async () => {
    await type('boat');
    expect(words.texts('aside [role=listitem]')).toEqual(['One2', 'Two1']);
    await words.click(words.button('One2'));
    expect([shown().length, words.find('[data-summary]').textContent]).toEqual([2, '2 hits in 1 document']);
    await words.click(words.button('document'));
    await words.click(words.button('speaker'));
    expect(words.texts('aside [role=listitem]')).toEqual(['Ann1', 'Bob1', 'nobody named1']);
    expect(shown().length).toBe(3);
    await words.click(words.button('Bob1'));
    await type('waited');
    // another search is looked at whole
    expect(shown().length).toBe(2);
  });

  it('keeps a search, and says the next time what is new', async () => {
    await type('boat');
    words.answers.text = 'Boats';
    await words.click(words.button('Keep'));
    await words.click(words.button('All seen'));
    expect(words.find('header').textContent).toContain('nothing new since');
    const documents = Object.values(TestBed.inject(Store).selectSignal(selectData)()!.tables.document);
    const [text] = await words.session.textsOf([documents.find((one) => one.title === 'Two')!.id]);
    words.session.run(
      correctTexts([{ text: text!, edits: [{ from: text!.text.length, to: text!.text.length, insert: ' Then one boat went.' }] }]),
    );
    await type('night');
    await words.click(words.button('Kept searches'));
    await words.click(words.button('Boats'));
    await type('boat');
    expect(words.find('header').textContent).toMatch(/1 new, 0 gone since/);
    await words.click(words.button('Show the new'));
    expect(words.texts('[role=listitem] .rest').map((one) => one.slice(0, 9))).toEqual(['boat went']);
  });

  it('looks for regular expressions, says what is none, and looks into what is written beside the texts', async () => {
    await words.click(words.button('whole words'));
    await words.click(words.button('a regular expression'));
    await type('n\\w+ht');
    expect(shown()).toEqual(['night', 'night']);
    await type('(');
    expect(words.find('[role=alert]').textContent).toContain('This is no regular expression');
    await words.click(words.button('in the texts'));
    await words.click(words.button('in memos, comments and codes'));
    await type('^night');
    expect(words.texts('.elsewhere li')).toEqual(['code Night Night']);
  });

  it('says what is wrong with what is typed, and what is found nowhere', async () => {
    await type('(boat');
    expect(words.find('[role=alert]').textContent).toBe('A parenthesis is not closed.');
    await type('submarine');
    expect(words.find('.empty').textContent).toContain('Nothing in scope holds these words');
    await type('');
    expect(words.find('.empty').textContent).toContain('Find words');
  });

  it('sorts by what stands before and after, shows whole units, and leaves out what is coded', async () => {
    await type('boat');
    expect(words.texts('.rest').map((one) => one.slice(0, 8))).toEqual(['boat cam', 'boat?', 'boat at ']);
    words.fixture.componentInstance['order'].set('by what stands before');
    await words.settle();
    expect(words.texts('.before').map((one) => one.split(' ').at(-1))).toEqual(['No', 'The', 'Which']);
    TestBed.inject(WordsDraft).search.update((search) => ({ ...search, typed: 'waited', unit: 'sentence' }));
    TestBed.inject(WordsDraft).onlyUncoded.set(true);
    await type('waited');
    expect(words.texts('[role=listitem] p')).toEqual(['We had waited for nothing.']);
  });

  it('sweeps what is chosen and shown, as one step, marked to be looked at', async () => {
    await type('boat');
    await words.click(words.button('Choose all'));
    expect(words.find('.bar').textContent).toContain('3 chosen');
    const chosen = words.all('[role=listitem] input:checked');
    expect(chosen.length).toBe(3);
    await type('late');
    // another search, other hits: nothing of them is chosen
    expect(words.find('.bar').textContent).toContain('Choose all');
  });
});

describe('going through what was swept', () => {
  let swept: Drawn<Swept>;
  const state = () => TestBed.inject(Store).selectSignal(selectData)()!;
  const coded = () =>
    Object.values(state().passages)
      .flatMap(unpackPassages)
      .filter((one) => one.codings.some((coding) => state().tables.code[coding.codeId]!.name === 'Night'))
      .map((one) => [one.start, one.end, one.codings.some((coding) => coding.swept)]);
  const key = async (name: string) => {
    window.dispatchEvent(new KeyboardEvent('keydown', { key: name }));
    await swept.settle();
  };

  beforeEach(async () => {
    const bench = study();
    const [one, two] = Object.keys(bench.state.tables.document) as [string, string];
    const night = Object.values(bench.state.tables.code).find((code) => code.name === 'Night')!.id;
    bench.run(
      sweep(
        [
          { documentId: one, places: [{ start: 26, end: 45 }] },
          { documentId: two, places: [{ start: 0, end: 17 }] },
        ],
        { codeIds: [night] },
      ),
    );
    swept = await drawn(Swept, bench, {}, [analysisHere], { width: 1100, height: 700 });
    for (const text of bench.texts.values()) TestBed.inject(TextCache).put(text, null);
    await swept.settle();
  });

  it('shows each in its text and says how many are left; keys keep, lengthen and drop', async () => {
    expect(swept.find('[data-summary]').textContent).toBe('2 passages left to be looked at');
    expect(swept.texts('mark')).toEqual(['The boat came late.']);
    await key('k');
    expect(swept.find('[data-summary]').textContent).toBe('1 passage left to be looked at');
    expect(swept.texts('mark')).toEqual(['No boat at night.']);
    await key('l');
    expect(swept.texts('mark')).toEqual(['No boat at night. We had waited for nothing.']);
    await key('s');
    expect(swept.texts('mark')).toEqual(['No boat at night.']);
    expect(coded()).toEqual([
      [26, 45, false],
      [0, 17, true],
    ]);
    await key('d');
    expect(coded()).toEqual([[26, 45, false]]);
    expect(swept.find('.empty').textContent).toContain('Nothing waits to be looked at');
  });

  it('goes on and back without changing anything, and keeps all that are left in one step', async () => {
    await key('ArrowRight');
    expect(swept.texts('mark')).toEqual(['No boat at night.']);
    await key('ArrowRight');
    await key('ArrowLeft');
    expect(swept.texts('mark')).toEqual(['The boat came late.']);
    await swept.click(swept.button('Keep all that are left'));
    expect(coded().map(([, , waits]) => waits)).toEqual([false, false]);
  });
});

import type { Text } from '../model/document';
import type { Id } from '../model/ids';
import { addCase, editSpeaker } from '../commands/cases';
import { correctTexts } from '../commands/correct-text';
import { EVERYTHING, type Scope } from '../model/scope';
import type { WordSearch } from '../model/word-search';
import { Bench } from '../testing/make';
import type { FoundHit } from '../words/found-hit';
import { analysisOf, type Analysis } from './analysis';
import type { Told } from './messages';

describe('the analysis of an open study', () => {
  let bench: Bench;
  let analysis: Analysis;
  /** What the disk has, and how often it was asked. */
  let disk: Map<Id, Text>;
  let reads: number;
  /** Readers that wait for the disk, where it is slow. */
  let waiting: (() => void)[] | null;
  let code: Id;
  /** The number of the request asked last. */
  let asked = 0;
  const told = (fields: Partial<Told> = {}): Told => ({
    studyId: bench.state.study.id,
    anew: false,
    changed: Object.values(bench.state.passages),
    gone: [],
    tables: bench.state.tables,
    language: 'en',
    texts: [],
    ...fields,
  });
  const words = async () => (await analysis.codeUse(++asked, () => undefined, EVERYTHING, true))?.get(code)?.words;

  beforeEach(() => {
    bench = new Bench();
    const document = bench.addDocument('One', ['We waited at the pier all night.']);
    code = bench.addCode('Waiting');
    bench.code(document, 0, 21, code);
    disk = new Map(bench.texts);
    reads = 0;
    waiting = null;
    analysis = analysisOf(async (_, ids) => {
      reads++;
      const queue = waiting;
      if (queue) await new Promise<void>((resolve) => queue.push(resolve));
      return ids.flatMap((id) => disk.get(id) ?? []);
    });
    analysis.update(told());
  });

  it('counts words of texts from disk, and reads each once', async () => {
    expect(await words()).toBe(5);
    expect(await words()).toBe(5);
    expect(reads).toBe(1);
  });

  it('never reads a text older than the study it was told of', async () => {
    await words();
    const [text] = [...bench.texts.values()];
    const action = bench.do(correctTexts([{ text: text!, edits: [{ from: 3, to: 9, insert: 'stood and waited' }] }]))!;
    const change = action.change.find((one) => one.type === 'text')!;
    // the disk still has the text before, and another document is told meanwhile
    analysis.update(told({ texts: [change.after as Text] }));
    expect(await words()).toBe(7);
    analysis.update(told());
    expect(await words()).toBe(7);
    // read anew, the disk is what counts
    analysis.update(told({ anew: true }));
    await words();
    expect(reads).toBe(2);
  });

  it('ends an older question of a kind when a newer one comes', async () => {
    const queue: (() => void)[] = [];
    waiting = queue;
    const older = words();
    const newer = words();
    for (const release of queue) release();
    expect(await older).toBeUndefined();
    expect(await newer).toBe(5);
  });

  it('ends a question by its number', async () => {
    const queue: (() => void)[] = [];
    waiting = queue;
    const ended = words();
    analysis.end(asked);
    for (const release of queue) release();
    expect(await ended).toBeUndefined();
  });

  it('forgets one study for another', async () => {
    await words();
    const codes = { codeIds: [code], setIds: [], withUnder: false };
    const question = { all: [{ carries: 'any' as const, codes, reach: 'passage' as const }] };
    const order = Object.keys(bench.state.tables.document);
    const hits = async () => (await analysis.ask(++asked, () => undefined, question, EVERYTHING, order))?.hits.length;
    expect(await hits()).toBe(1);
    analysis.update(told({ studyId: bench.newId(), changed: [], tables: { document: {} } }));
    expect(await hits()).toBe(0);
    expect(await words()).toBeUndefined();
  });

  describe('looking for words', () => {
    const plain: WordSearch = { typed: 'waited', match: 'whole words', capitals: false, accents: false, unit: 'words' };
    const look = async (search: Partial<WordSearch>, onlyUncoded = false, scope: Scope = EVERYTHING) => {
      const shown: FoundHit[] = [];
      const order = Object.keys(bench.state.tables.document);
      const show = (hits: readonly FoundHit[]) => shown.push(...hits);
      const answer = await analysis.findWords(++asked, () => undefined, show, { ...plain, ...search }, scope, order, onlyUncoded);
      return { answer, shown };
    };

    it('shows hits with what stands around them and the codes that are there, and those without if asked to', async () => {
      const { answer, shown } = await look({});
      expect(answer).toEqual({ hits: 1 });
      expect(shown.map(({ before, said, after, codeIds }) => [before, said, after, codeIds])).toEqual([
        ['We ', 'waited', ' at the pier all night.', [code]],
      ]);
      expect((await look({}, true)).answer).toEqual({ hits: 0 });
      expect((await look({ typed: 'night' }, true)).shown.length).toBe(1);
    });

    it('finds in a scope what is said there, and shows the codes that are looked at', async () => {
      const talk = bench.addDocument('Talk', ['Q: Waited long?', 'Ann: We waited.'], ['Q', 'Ann']);
      const [first] = talk.speakers;
      const asking = [{ ...first!, interviewer: true }, ...talk.speakers.slice(1)];
      bench.state = {
        ...bench.state,
        tables: { ...bench.state.tables, document: { ...bench.state.tables.document, [talk.id]: { ...talk, speakers: asking } } },
      };
      disk.set(talk.id, bench.texts.get(talk.id)!);
      analysis.update(told());
      const others: Scope = {
        parts: [{ spokenBy: 'others', caseIds: [], names: [] }, { liesIn: { documentIds: [talk.id], folderIds: [], setIds: [] } }],
      };
      expect((await look({}, false, others)).shown.map((hit) => [hit.speaker, hit.before])).toEqual([['Ann', 'We ']]);
      // a whole text is found where one of the words is said by who is looked at
      expect((await look({ unit: 'document' }, false, others)).shown.map((hit) => hit.documentId)).toEqual([talk.id]);
      expect((await look({ typed: 'long', unit: 'document' }, false, others)).shown).toEqual([]);
      const nobody: Scope = { parts: [], given: { coderIds: [bench.newId()] } };
      expect((await look({}, false, nobody)).shown.map((hit) => hit.codeIds)).toEqual([[], [], []]);
      expect(await analysis.leaves(++asked, [EVERYTHING, others, nobody])).toEqual([
        { documents: 2, cases: 0, passages: 1 },
        { documents: 1, cases: 0, passages: 0 },
        { documents: 2, cases: 0, passages: 0 },
      ]);
      expect((await analysis.spoken([talk.id])).get(talk.id)?.paragraphs.map((one) => one.speaker)).toEqual([0, 1]);
    });

    it('says what is wrong with what is typed, in place of hits', async () => {
      expect((await look({ typed: '(' })).answer).toEqual({ hits: 0, trouble: 'A word is missing at the end.' });
    });

    it('finds words in a text as it is now, before the disk has it', async () => {
      await look({});
      const [text] = [...bench.texts.values()];
      const action = bench.do(correctTexts([{ text: text!, edits: [{ from: 3, to: 9, insert: 'stood' }] }]))!;
      analysis.update(told({ texts: [action.change.find((one) => one.type === 'text')!.after as Text] }));
      expect((await look({})).answer).toEqual({ hits: 0 });
      expect((await look({ typed: 'stood' })).answer).toEqual({ hits: 1 });
    });

    it('does not read texts again because a document was renamed', async () => {
      await look({});
      const [document] = Object.values(bench.state.tables.document);
      analysis.update(told({ tables: { document: { [document!.id]: { ...document!, title: 'Renamed', readTo: 5 } } } }));
      await look({});
      expect(reads).toBe(1);
    });

    it('stops where there are more than anybody looks through, and says so', async () => {
      const many = bench.addDocument('Many', [Array(120_000).fill('boat').join(' ')]);
      disk.set(many.id, bench.texts.get(many.id)!);
      bench.addDocument('After', ['A boat.']);
      analysis.update(told());
      expect((await look({ typed: 'boat' })).answer).toEqual({ hits: 100_000, more: true });
    });
  });

  it('looks through what is written beside the texts, by words and by regular expressions', async () => {
    const code1 = bench.state.tables.code[code]!;
    analysis.update(
      told({ tables: { code: { [code]: { ...code1, definition: 'Nights at the pier.' } }, document: bench.state.tables.document } }),
    );
    const plain = { capitals: false, accents: false, unit: 'words' as const };
    const found = (typed: string, match: WordSearch['match']) =>
      analysis
        .findElsewhere(++asked, () => undefined, { ...plain, typed, match })
        .then((all) => all!.places.map((one) => [one.of, one.said]));
    expect(await found('pier', 'whole words')).toEqual([['code', 'pier']]);
    expect(await found('n\\w+s', 'regular expression')).toEqual([['code', 'Nights']]);
    expect(await found('(', 'regular expression')).toEqual([]);
  });

  it('holds a proposition against the cases, by who speaks', async () => {
    const talk = bench.addDocument('Talk', ['Ann: We waited.', 'Bob: We did not.'], ['Ann', 'Bob']);
    disk.set(talk.id, bench.texts.get(talk.id)!);
    for (const name of ['Ann', 'Bob']) bench.run(addCase(name));
    const [ann, bob] = Object.keys(bench.state.tables.case) as [Id, Id];
    bench.run(editSpeaker(talk.id, 0, { caseId: ann }));
    bench.run(editSpeaker(talk.id, 1, { caseId: bob }));
    bench.code(talk, 8, 14, code);
    analysis.update(told());
    const carries = { carries: 'any' as const, codes: { codeIds: [code], setIds: [], withUnder: false }, reach: 'passage' as const };
    const says = await analysis.proposition(++asked, () => undefined, { where: [], then: [{ has: true, that: carries }] }, EVERYTHING);
    expect(says!.map((one) => [one.caseId, one.verdict])).toEqual([
      [ann, 'for'],
      [bob, 'against'],
    ]);
  });

  it('answers one question for several groups, each by itself', async () => {
    const any = { carries: 'any' as const, codes: { codeIds: [code], setIds: [], withUnder: false }, reach: 'passage' as const };
    const order = Object.keys(bench.state.tables.document);
    const groups = [{ kinds: ['interview' as const] }, { kinds: ['article' as const] }];
    const answers = await analysis.sideBySide(++asked, { all: [any] }, groups, EVERYTHING, order);
    expect(answers!.map((hits) => hits.length)).toEqual([1, 0]);
  });

  it('gathers what is to be coded around hits, by document', async () => {
    const [documentId] = Object.keys(bench.state.tables.document) as [Id];
    const documents = await analysis.contexts(++asked, new Map([[documentId, [{ start: 3, end: 9 }]]]), { unit: 'sentence', around: 0 });
    expect(documents).toEqual([{ documentId, places: [{ start: 0, end: 32 }] }]);
  });
});

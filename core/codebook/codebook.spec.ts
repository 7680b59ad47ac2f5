import { EMPTY_HISTORY, advance, type JournalEntry } from '../change/journal';
import type { Command } from '../change/command';
import { addMemo } from '../commands/memos';
import { editCode, deleteCode, moveCode } from '../commands/codes';
import { codePlace } from '../commands/passages';
import { retireCodes } from '../commands/codebook-work';
import { joinCodes } from '../commands/join-codes';
import { touchesOf } from '../change/touches';
import { countCodes } from '../passages/counting';
import { CaseFinder } from '../passages/case-finder';
import { CodeUseCounter } from '../passages/code-use';
import { packPassages } from '../passages/columns';
import { Bench } from '../testing/make';
import { checkCodebook, withinOneEdit, type Finding } from './checks';
import { CodePageBuilder } from './code-page';
import { codesMeeting, conditionsSentence, type CodeFacts } from './conditions';
import { renamed } from './rename';
import { inTreeOrder } from './tree';
import { codebookBefore, compareCodebooks, historyOf } from './versions';

const LINE = 'We waited at the pier and the boat did not come.';

describe('the tree of codes', () => {
  it('is walked in order, with levels, whatever was made first', () => {
    const bench = new Bench();
    const b = bench.addCode('B');
    const a = bench.addCode('A');
    const child = bench.addCode('Child', a);
    bench.run(moveCode(a, null, 0));
    expect(inTreeOrder(bench.state.tables.code).map(({ code, level, hasChildren }) => [code.id, level, hasChildren])).toEqual([
      [a, 0, true],
      [child, 1, false],
      [b, 0, false],
    ]);
  });
});

describe('the use of codes', () => {
  const bench = new Bench();
  const document = bench.addDocument(
    'Talk',
    ['I: And you?', 'Ann: We waited at the pier.', 'Bob: The boat did not come.'],
    ['I', 'Ann', 'Bob'],
  );
  const [ann, bob] = ['Ann', 'Bob'].map((name) => ({
    id: bench.newId(),
    name,
    description: '',
    documentIds: [],
    stretches: [],
    values: {},
  }));
  const cases = { [ann!.id]: ann!, [bob!.id]: bob! };
  const speakers = document.speakers.map((one) => ({
    ...one,
    interviewer: one.name === 'I',
    caseId: one.name === 'Ann' ? ann!.id : one.name === 'Bob' ? bob!.id : null,
  }));
  const spoken = { ...document, speakers };
  const text = bench.texts.get(document.id)!;
  const top = bench.addCode('Sea');
  const wait = bench.addCode('Waiting', top);
  const boat = bench.addCode('Boat', top);
  const at = (words: string) => ({ start: text.text.indexOf(words), end: text.text.indexOf(words) + words.length });
  const code = (words: string, ...ids: string[]) => bench.run(codePlace({ documentId: document.id, place: at(words), codeIds: ids }));
  code('We waited', wait);
  code('waited at the pier', wait);
  code('The boat', boat, wait);
  const columns = bench.state.passages[document.id]!;

  it('counts cases by speaker, and words in the union of passages', () => {
    const counter = new CodeUseCounter(bench.state.tables.code, new CaseFinder(cases), true);
    counter.add(columns, spoken, text);
    const use = counter.result();
    expect(use.get(wait)).toEqual(jasmine.objectContaining({ cases: 2, words: 7 }));
    expect(use.get(boat)).toEqual(jasmine.objectContaining({ cases: 1, words: 2 }));
    expect(use.get(top)).toEqual(jasmine.objectContaining({ cases: 0, casesWithUnder: 2, words: 0, wordsWithUnder: 7 }));
  });

  it('measures recordings in milliseconds and pictures by the share that is covered, each in the union of its passages', () => {
    const counter = new CodeUseCounter(bench.state.tables.code, new CaseFinder({}), true);
    const media = { sha256: 'a'.repeat(64), bytes: 9, type: 'audio/wav' };
    const at = { id: bench.newId(), coderId: bench.coderId, createdAt: 1, comment: '' };
    const carrying = (...ids: string[]) => ids.map((codeId) => ({ codeId, coderId: bench.coderId, createdAt: 1 }));
    const tape = { ...document, ground: { of: 'time', milliseconds: 9_000, media } as const, characters: 0 };
    const spans = [
      { ...at, documentId: document.id, start: 0, end: 1_000, codings: carrying(wait) },
      { ...at, id: bench.newId(), documentId: document.id, start: 500, end: 2_000, codings: carrying(wait, boat) },
    ];
    counter.add(packPassages(document.id, spans, 'time'), tape, null);
    const plan = { ...document, ground: { of: 'picture', width: 10, height: 10, media } as const, characters: 0 };
    const area = (x: number, width: number) => ({ shape: 'rectangle', x, y: 0, width, height: 5 }) as const;
    const areas = [area(0, 4), area(2, 4)].map((one) => ({
      ...at,
      id: bench.newId(),
      documentId: document.id,
      start: 0,
      end: 5,
      area: one,
      codings: carrying(boat),
    }));
    counter.add(packPassages(document.id, areas, 'picture'), plan, null);
    const use = counter.result();
    expect(use.get(wait)).toEqual(jasmine.objectContaining({ words: 0, milliseconds: 2_000, area: null }));
    // six columns of five rows, of ten by ten
    expect(use.get(boat)).toEqual(jasmine.objectContaining({ milliseconds: 1_500, area: 0.3 }));
    expect(use.get(top)).toEqual(
      jasmine.objectContaining({ milliseconds: 0, millisecondsWithUnder: 2_000, area: null, areaWithUnder: 0.3 }),
    );
  });

  it('shows of one code where it is, who says it, and which codes it meets', () => {
    const page = new CodePageBuilder(bench.state.tables.code, wait, false, new CaseFinder(cases));
    page.add(columns, spoken, text);
    const { documents, speakers: said, meets, passages } = page.result();
    expect(documents).toEqual([{ of: document.id, count: 3 }]);
    expect(said).toEqual([
      { of: 'Ann', count: 2 },
      { of: 'Bob', count: 1 },
    ]);
    // the passage that carries both is one pair with itself
    expect(meets).toEqual([{ of: boat, count: 1 }]);
    expect(passages.length).toBe(3);
  });
});

describe('conditions on codes', () => {
  const bench = new Bench();
  const document = bench.addDocument('One', [LINE]);
  const used = bench.addCode('Used');
  const bare = bench.addCode('Bare');
  const under = bench.addCode('Under', used);
  for (const start of [0, 3, 10]) bench.code(document, start, start + 2, used);
  bench.run(editCode(used, { definition: 'x' }));
  bench.run(addMemo({ title: 'm', kind: 'analytic', about: { type: 'code', id: bare }, text: '' }));
  const { state } = bench;
  const facts: CodeFacts = {
    state,
    counts: countCodes(Object.values(state.passages), state.tables.code),
    cases: new Map([[used, { cases: 2 }]]),
    now: 1_000_000,
  };
  const names = (...conditions: Parameters<typeof codesMeeting>[1]) =>
    codesMeeting(facts, conditions).map((id) => state.tables.code[id]!.name);

  it('find codes, and with the opposite all others', () => {
    expect(names({ about: 'passages fewer than', number: 3, opposite: false })).toEqual(['Bare', 'Under']);
    expect(names({ about: 'passages fewer than', number: 3, opposite: true })).toEqual(['Used']);
    expect(names({ about: 'without definition', opposite: false }, { about: 'without memo', opposite: false })).toEqual(['Under']);
    expect(names({ about: 'cases fewer than', number: 2, opposite: true })).toEqual(['Used']);
    expect(names({ about: 'under', id: used, opposite: false })).toEqual([state.tables.code[under]!.name]);
    expect(names({ about: 'made in the last days', number: 1, opposite: true })).toEqual([]);
    expect(names({ about: 'at the top', opposite: false }, { about: 'retired', opposite: true })).toEqual(['Used', 'Bare']);
  });

  it('are said in words', () => {
    const said = conditionsSentence(
      [
        { about: 'passages fewer than', number: 1, opposite: false },
        { about: 'without definition', opposite: true },
        { about: 'under', id: used, opposite: false },
      ],
      { codes: state.tables.code, folders: {} },
    );
    expect(said).toBe('used in fewer than 1 passage and with a definition and under Used');
  });
});

describe('checks of a codebook', () => {
  it('find what may be wrong, and pass over structure and what is retired', () => {
    const bench = new Bench();
    const document = bench.addDocument(
      'One',
      Array.from({ length: 30 }, () => LINE),
    );
    const [fare, fares, twin, wide, structure] = ['Paying the fare', 'Paying fares the', 'Twin', 'Wide', 'Structure'].map((name) =>
      bench.addCode(name),
    ) as [string, string, string, string, string];
    const only = bench.addCode('Only child', structure);
    const old = bench.addCode('Old');
    bench.run(retireCodes([old], true));
    for (let line = 0; line < 30; line++) {
      const start = line * (LINE.length + 1);
      bench.code(document, start, start + 9, wide);
      if (line < 10) bench.code(document, start + 10, start + 40, fare);
      if (line < 9) bench.code(document, start + 10, start + 38, twin);
      if (line > 20) bench.code(document, start + 12, start + 20, only);
    }
    const { state } = bench;
    const documents = Object.values(state.passages);
    const findings = checkCodebook(state.tables.code, documents, countCodes(documents, state.tables.code), { overlap: 0.8, broad: 0.5 });
    const of = (kind: Finding['kind']) => findings.filter((one) => one.kind === kind).map((one) => [...one.codeIds].sort());
    expect(of('never used')).toEqual([[fares]]);
    expect(of('similar names')).toEqual([[fare, fares].sort()]);
    expect(of('similar passages')).toEqual([[fare, twin].sort()]);
    // 9 passages of 28 characters within 10 of 30: 252 in both of 300 in either
    expect(findings.find((one) => one.kind === 'similar passages')).toEqual(jasmine.objectContaining({ share: 252 / 300 }));
    expect(of('too broad')).toEqual([[wide]]);
    expect(of('one child')).toEqual([[structure, only].sort()]);
  });

  it('know names that one slip of the hand makes of each other', () => {
    expect(
      ['worry|wory', 'worry|worri', 'worry|xworry', 'worry|worry'].map((pair) => withinOneEdit(...(pair.split('|') as [string, string]))),
    ).toEqual([true, true, true, true]);
    expect(['worry|wrory', 'worry|wo', 'abcde|axcdx'].map((pair) => withinOneEdit(...(pair.split('|') as [string, string])))).toEqual([
      false,
      false,
      false,
    ]);
  });
});

describe('changing names', () => {
  const bench = new Bench();
  const ids = ['EC: fare', 'EC: Boat (old)', 'Grief'].map((name) => bench.addCode(name));
  const codes = ids.map((id) => bench.state.tables.code[id]!);
  const after = (renaming: Parameters<typeof renamed>[1]) => [...renamed(codes, renaming).values()];

  it('replaces, adds and strips, signs taken literally, and never leaves an empty name', () => {
    expect(after({ how: 'replace', find: '(OLD)', instead: '$&', matchCase: false })).toEqual(['EC: Boat $&']);
    expect(after({ how: 'replace', find: '(OLD)', instead: 'x', matchCase: true })).toEqual([]);
    expect(after({ how: 'replace', find: 'Grief', instead: '', matchCase: true })).toEqual([]);
    expect(after({ how: 'prefix', add: 'EC: ' })).toEqual(['EC: Grief']);
    expect(after({ how: 'strip', strip: 'EC: ' })).toEqual(['fare', 'Boat (old)']);
  });
});

describe('the history of a codebook', () => {
  const bench = new Bench();
  const journal: JournalEntry[] = [];
  let history = EMPTY_HISTORY;
  const run = (command: Command) => {
    const action = bench.run(command)!;
    const entry: JournalEntry = {
      seq: history.seq + 1,
      at: journal.length,
      coderId: bench.coderId,
      kind: 'act',
      of: null,
      sentence: action.sentence,
      change: action.change,
    };
    journal.push(entry);
    history = advance(history, entry);
    return action;
  };
  const document = bench.addDocument('One', [LINE]);
  const feelings = bench.addCode('Feelings');
  const start = bench.state.tables.code;
  run(codePlace({ documentId: document.id, place: { start: 0, end: 9 }, codeIds: [], newCodes: [{ name: 'Longing' }] }));
  const code = Object.values(bench.state.tables.code).find((one) => one.name === 'Longing')!.id;
  run(editCode(code, { name: 'Missing the boat' }));
  run(editCode(code, { definition: 'Longing for the ferry.' }));
  run(moveCode(code, feelings, 0));
  const other = bench.addCode('Nostalgia');
  run(joinCodes(code, [other]));
  const done = bench.state;
  const events = historyOf(code, journal, (id) => bench.state.tables.code[id]!.name);

  it('of one code tells from which passage it was made, and every step since', () => {
    expect(events.map((one) => one.words)).toEqual([
      'made as “Longing”, from a passage',
      'renamed from “Longing” to “Missing the boat”',
      'defined anew',
      'moved under Feelings',
      'Nostalgia joined into it',
    ]);
    expect(events[0]!.passage!.documentId).toBe(document.id);
    expect(events[2]!.definition).toBe('Longing for the ferry.');
  });

  it('brings back the codebook of any time, and says what became of it', () => {
    const past = codebookBefore(done.tables.code, [...journal].reverse());
    expect(
      Object.values(past)
        .map((one) => one.name)
        .sort(),
    ).toEqual(['Feelings', 'Nostalgia']);
    expect(past[feelings]).toEqual(start[feelings]!);
    const middle = codebookBefore(done.tables.code, [...journal].reverse().slice(0, 4));
    const differences = compareCodebooks(middle, done.tables.code);
    expect(differences.map((one) => [one.kind, (one.after ?? one.before)!.name])).toEqual([
      ['renamed', 'Missing the boat'],
      ['moved', 'Missing the boat'],
      ['redefined', 'Missing the boat'],
      ['removed', 'Nostalgia'],
    ]);
  });

  it('is found by what an entry touches', () => {
    const touched = touchesOf(journal[0]!);
    expect(touched).toContain(`code:${code}`);
    expect(touched).toContain(`coding:${code}`);
    expect(touched).toContain(`document:${document.id}`);
    expect(touched.filter((one) => one === 'codebook').length).toBe(1);
    const gone = bench.run(deleteCode(code))!;
    expect(touchesOf(gone)).toEqual(
      jasmine.arrayWithExactContents([`code:${code}`, 'codebook', `coding:${code}`, `document:${document.id}`]),
    );
  });
});

import { Bench } from '../testing/make';
import fc from 'fast-check';
import { somePassages } from '../testing/make';
import type { Code } from '../model/code';
import type { Id } from '../model/ids';
import { packPassages } from './columns';
import { countCodes, tally, Tallying } from './counting';
import { coverage } from './coverage';
import { columnsLeft } from './left-in';

describe('counting passages by code', () => {
  it('counts a passage once for a category, however many codes under it it carries', () => {
    const bench = new Bench();
    const document = bench.addDocument('One', ['We waited at the pier and the boat did not come.']);
    const category = bench.addCode('Getting across');
    const queue = bench.addCode('Queue', category);
    const weather = bench.addCode('Weather', category);
    bench.code(document, 0, 9, queue, weather);
    bench.code(document, 10, 20, queue);
    const counts = countCodes(Object.values(bench.state.passages), bench.state.tables.code);
    expect(counts.own.get(queue)).toBe(2);
    expect(counts.own.get(category)).toBeUndefined();
    expect(counts.withUnder.get(category)).toBe(2);
    expect(counts.withUnder.get(weather)).toBe(1);
  });

  it('counts several coders on one passage once, and one coder alone when asked', () => {
    const bench = new Bench();
    const document = bench.addDocument('One', ['We waited at the pier.']);
    const code = bench.addCode('Queue');
    bench.code(document, 0, 9, code);
    const [passage] = Object.values(bench.state.passages).flatMap((columns) => [columns]);
    expect(passage!.codingRow.length).toBe(1);
    const of = (coderId: Id) => columnsLeft(passage!, { rows: null, coderIds: new Set([coderId]), from: -Infinity, until: Infinity });
    expect(of(bench.newId())).toBeNull();
    expect(countCodes([of(bench.coderId)!], bench.state.tables.code).own.get(code)).toBe(1);
  });
});

describe('a tally', () => {
  it('counts after any change as if from nothing', () => {
    const passages = somePassages('00000000-0000-4000-8000-00000000000d');
    fc.assert(
      fc.property(
        fc.array(passages, { minLength: 1, maxLength: 5 }),
        fc.array(passages, { maxLength: 3 }),
        fc.nat(4),
        (first, added, gone) => {
          const pack = (some: (typeof first)[number]) => packPassages('00000000-0000-4000-8000-00000000000d', some);
          const before = first.map(pack);
          const after = [...before.filter((_, at) => at !== gone), ...added.map(pack)];
          const codes = {};
          const next = tally(after, codes, tally(before, codes));
          expect(next.counts).toEqual(countCodes(after, codes));
        },
      ),
    );
  });
});

describe('a tally when codes are moved', () => {
  const documentId = '00000000-0000-4000-8000-00000000000d';
  /** A tree from a list of parents: the code n lies under the code parents[n], if that is a smaller number. */
  const tree = (parents: readonly number[]): Record<Id, Code> =>
    Object.fromEntries(
      parents.map((parent, n) => {
        const id = codeId(n);
        return [id, { id, name: String(n), parentId: parent < n ? codeId(parent) : null, order: n } as Code];
      }),
    );
  const codeId = (n: number): Id => `000000a0-0000-4000-8000-${String(n).padStart(12, '0')}`;
  const parents = fc.array(fc.nat(6), { minLength: 5, maxLength: 5 });

  it('counts as if from nothing, with the sums over the tree, the documents and any change of passages', () => {
    const passages = somePassages(documentId);
    fc.assert(
      fc.property(
        fc.array(passages, { minLength: 1, maxLength: 4 }),
        passages,
        parents,
        parents,
        fc.boolean(),
        (first, more, one, two, swap) => {
          const documents = first.map((some) => packPassages(documentId, some));
          const after = swap ? [...documents.slice(1), packPassages(documentId, more)] : documents;
          const next = tally(after, tree(two), tally(documents, tree(one)));
          expect(next.counts).toEqual(countCodes(after, tree(two)));
        },
      ),
    );
  });

  it('counts the same some codings at a time, and says how many are left', () => {
    fc.assert(
      fc.property(
        fc.array(somePassages(documentId), { minLength: 1, maxLength: 4 }),
        somePassages(documentId),
        parents,
        parents,
        (first, more, one, two) => {
          const documents = first.map((some) => packPassages(documentId, some));
          const after = [...documents.slice(1), packPassages(documentId, more)];
          const work = new Tallying(after, tree(two), tally(documents, tree(one)));
          for (let size = work.size; work.step(1); size = work.size) expect(work.size).toBeLessThanOrEqual(size);
          expect(work.size).toBe(0);
          expect(work.result().counts).toEqual(countCodes(after, tree(two)));
        },
      ),
    );
  });

  it('a category has at least as many passages with what is under it as its largest child, and at most the sum', () => {
    fc.assert(
      fc.property(somePassages(documentId), parents, (some, line) => {
        const codes = tree(line);
        const { own, withUnder } = countCodes([packPassages(documentId, some)], codes);
        for (const code of Object.values(codes)) {
          const parts = Object.values(codes)
            .filter((child) => child.parentId === code.id)
            .map((child) => withUnder.get(child.id) ?? 0);
          const sum = parts.reduce((a, b) => a + b, own.get(code.id) ?? 0);
          expect(withUnder.get(code.id) ?? 0).toBeGreaterThanOrEqual(Math.max(0, own.get(code.id) ?? 0, ...parts));
          expect(withUnder.get(code.id) ?? 0).toBeLessThanOrEqual(sum);
        }
      }),
    );
  });
});

describe('coverage', () => {
  const bench = new Bench();
  const document = bench.addDocument(
    'One',
    ['Interviewer: Where were you?', 'Moira: At the pier, waiting for him.'],
    ['Interviewer', 'Moira'],
  );
  const text = bench.texts.get(document.id)!;
  const at = (words: string) => ({ start: text.text.indexOf(words), end: text.text.indexOf(words) + words.length });

  it('counts words in the union of passages, speaker labels left out', () => {
    expect(document.words).toBe(9);
    expect(coverage(text, [at('At the pier'), at('the pier, waiting')])).toEqual({ words: 9, covered: 4 });
  });

  it('can leave the interviewer’s turns out', () => {
    expect(coverage(text, [at('Where'), at('waiting for him')], (speaker) => !document.speakers[speaker]?.interviewer)).toEqual({
      words: 6,
      covered: 3,
    });
  });

  it('is nothing of nothing for a text without words', () => {
    expect(coverage({ id: '', text: '', paragraphs: [], emphasis: [], marks: [] }, [])).toEqual({ words: 0, covered: 0 });
  });
});

import assert from 'node:assert/strict';
import fc from 'fast-check';
import { Narrowing } from '../queries/narrowing';
import { EVERYTHING } from '../model/scope';
import { studyToAsk } from '../testing/study-to-ask';
import { foundAxisOf } from './found-axis';
import { placed, segmentsOf, weaveOf } from './weave';

describe('a weave', () => {
  const { bench, documents, asked, someStudy, studyOf } = studyToAsk();
  const [talk, note, tape, plan] = documents;
  const { tables } = bench.state;
  const textOf = (id: string) => bench.texts.get(id) ?? null;
  const rows = { of: 'codes', codeIds: null, withUnder: false } as const;
  const segments = (id: string, by: 'position' | 'paragraph' | 'turn' | 'second' | 'question') =>
    segmentsOf(tables.document[id]!, textOf(id), by, asked.questions, 'en');

  it('lays stretches out by position, or with units each as wide as the others: worked out by hand', () => {
    const length = note.characters;
    expect(placed({ start: 0, end: length }, segments(note.id, 'position')).map(({ from, to }) => [from, to])).toEqual([[0, 1]]);
    const [first, second] = textOf(note.id)!.paragraphs;
    // the second of four paragraphs, and from the middle of the first to the end of the second
    expect(placed(second!, segments(note.id, 'paragraph')).map(({ from, to }) => [from, to])).toEqual([[0.25, 0.5]]);
    const middle = { start: first!.end / 2, end: second!.end };
    expect(placed(middle, segments(note.id, 'paragraph')).map(({ from, to }) => [from, to])).toEqual([[0.125, 0.5]]);
    // what Ann answers lies where its question does, and nothing else does
    expect(
      placed({ start: 0, end: talk.characters }, segments(talk.id, 'question')).map(({ start, end, from, to }) => [start, end, from, to]),
    ).toEqual([[3, 30, 0, 1]]);
    expect(placed({ start: 40, end: 50 }, segments(talk.id, 'question'))).toEqual([]);
  });

  it('has a thread for whatever is found, every passage on it, and says where no thread lies', () => {
    fc.assert(
      fc.property(someStudy(), (state) => {
        const study = studyOf(state);
        const narrowing = new Narrowing(EVERYTHING, study);
        for (const document of [talk, note, tape]) {
          const here = state.tables.document[document.id]!;
          const columns = state.passages[document.id]!;
          const weave = weaveOf(
            foundAxisOf(rows, study),
            narrowing.leftOf(columns, here, textOf(here.id)),
            here,
            textOf(here.id),
            'position',
            [],
            'en',
          )!;
          for (const { entry, passages, pieces } of weave.threads) {
            const carrying = columns.codes.indexOf(entry.key);
            const expected = new Set([...columns.codingRow].filter((_, at) => columns.codingCode[at] === carrying));
            assert.equal(passages, expected.size);
            assert.equal(new Set(pieces.map((piece) => piece.passageId)).size, expected.size);
          }
          const length = document.ground.of === 'time' ? 60 : document.characters;
          const coded = new Set<number>();
          for (const row of columns.codingRow) for (let at = columns.starts[row]!; at < columns.ends[row]!; at++) coded.add(at);
          const open = weave.open.reduce((sum, { start, end }) => sum + end - start, 0);
          assert.equal(open, length - coded.size);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('shows who speaks, and makes none of a picture', () => {
    const study = studyOf(bench.state);
    const weave = weaveOf(foundAxisOf(rows, study), null, tables.document[talk.id]!, textOf(talk.id), 'turn', [], 'en')!;
    // three turns: Ann has the first and the last, Bob, after his label, the one between
    const reach = weave.speakers.map(({ name, interviewer, pieces }) => {
      const [from, to] = [pieces[0]!.from, pieces.at(-1)!.to].map((x) => Math.floor(x * 3 + 1e-9));
      return [name, interviewer, from, to];
    });
    expect(reach).toEqual([
      ['Ann', false, 0, 3],
      ['Bob', true, 1, 2],
    ]);
    expect(weaveOf(foundAxisOf(rows, study), null, plan, null, 'position', [], 'en')).toBeNull();
  });
});

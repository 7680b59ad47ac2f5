import fc from 'fast-check';
import { Bench } from '../testing/make';
import { addCode } from '../commands/codes';
import { advance, changeOf, EMPTY_HISTORY, type History, type JournalEntry } from './journal';
import { JournalEntrySchema } from './journal-schema';

const entry = (seq: number, kind: JournalEntry['kind'], of: number | null = null) => ({ seq, kind, of });

describe('the history', () => {
  it('goes back and forth as undo and redo are entered, and notes leave it as it is', () => {
    let history: History = EMPTY_HISTORY;
    for (const next of [entry(1, 'act'), entry(2, 'act'), entry(3, 'note'), entry(4, 'undo', 2)]) history = advance(history, next);
    expect(history).toEqual({ seq: 4, undo: [1], redo: [2] });
    expect(advance(history, entry(5, 'redo', 2))).toEqual({ seq: 5, undo: [1, 2], redo: [] });
    expect(advance(history, entry(5, 'act'))).toEqual({ seq: 5, undo: [1, 5], redo: [] });
  });

  it('refuses an entry that does not follow', () => {
    expect(() => advance(EMPTY_HISTORY, entry(2, 'act'))).toThrowError(RangeError);
  });

  it('holds every act once, in undo or in redo, until a new act ends the redo', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('act', 'undo', 'redo'), { maxLength: 40 }), (wishes) => {
        let history: History = EMPTY_HISTORY;
        for (const wish of wishes) {
          const of = wish === 'undo' ? history.undo.at(-1) : wish === 'redo' ? history.redo.at(-1) : undefined;
          if (wish !== 'act' && of === undefined) continue;
          history = advance(history, entry(history.seq + 1, wish as 'act', of ?? null));
        }
        const all = [...history.undo, ...history.redo];
        expect(new Set(all).size).toBe(all.length);
        expect([...history.undo].sort((a, b) => a - b)).toEqual([...history.undo]);
      }),
    );
  });
});

describe('journal entries', () => {
  it('are parsed with every record in them, and refused with a record that does not fit', () => {
    const bench = new Bench();
    const action = bench.run(addCode({ name: 'Worry' }))!;
    const made: JournalEntry = {
      seq: 1,
      at: 5,
      coderId: bench.coderId,
      kind: 'act',
      of: null,
      sentence: action.sentence,
      change: action.change,
    };
    expect(JournalEntrySchema.parse(JSON.parse(JSON.stringify(made)))).toEqual(made);
    const broken = JSON.parse(JSON.stringify(made)) as { change: { after: { colour: number } }[] };
    broken.change[0]!.after.colour = 999;
    expect(JournalEntrySchema.safeParse(broken).success).toBeFalse();
    expect(changeOf(made, 'undo')[0]!.after).toBeNull();
  });
});

import fc from 'fast-check';
import { rowsOf } from '../model/area';
import type { Passage } from '../model/passage';
import type { PassageColumns } from '../model/passage-columns';
import { someArea, somePassages } from '../testing/make';
import { packPassages, placeOfRow } from './columns';
import { eachPairThatMeets, Meetings } from './meetings';
import { overlaps } from './relations';

const DOCUMENT = '00000000-0000-4000-8000-00000000000d';

/** Passages of any ground: those of a picture have areas in the place of stretches. */
const someColumns = (): fc.Arbitrary<PassageColumns> =>
  fc.oneof(
    somePassages(DOCUMENT).map((passages) => packPassages(DOCUMENT, passages)),
    somePassages(DOCUMENT).map((passages) => packPassages(DOCUMENT, passages, 'time')),
    fc.tuple(somePassages(DOCUMENT), fc.array(someArea(), { minLength: 25, maxLength: 25 })).map(([passages, areas]) => {
      const drawn = passages.flatMap((passage, at): Passage[] => {
        const { start, end } = rowsOf(areas[at]!);
        return start < end ? [{ ...passage, start, end, area: areas[at]! }] : [];
      });
      return packPassages(DOCUMENT, drawn, 'picture');
    }),
  );

describe('passages that meet', () => {
  it('are those that overlap, found one by one or all at once, whatever they stand in', () => {
    fc.assert(
      fc.property(someColumns(), (columns) => {
        const rows = Array.from(columns.starts, (_, row) => row);
        const places = rows.map((row) => placeOfRow(columns, row));
        const wanted = rows.map((row) => rows.filter((other) => other === row || overlaps(places[row]!, places[other]!)));
        const meetings = new Meetings(columns);
        expect(rows.map((row) => meetings.of(row))).toEqual(wanted);
        const pairs: string[] = [];
        eachPairThatMeets(columns, (first, second) => pairs.push(`${first} ${second}`));
        const naive = rows.flatMap((row) => wanted[row]!.filter((other) => other > row).map((other) => `${row} ${other}`));
        expect(pairs.sort()).toEqual(naive.sort());
      }),
      { numRuns: 500 },
    );
  });
});

import { added, updated, type Change } from '../change/change';
import { CommandError, counted, found, short, type Command } from '../change/command';
import type { Id } from '../model/ids';
import type { Passage } from '../model/passage';
import type { PassageColumns } from '../model/passage-columns';
import type { Stretch } from '../model/stretch';
import type { StudyState } from '../model/study-state';
import { passagesCarrying, passagesInRows } from '../passages/columns';
import { standsIn } from '../passages/standing';
import type { PassageAt } from './move-codings';
import { codesWanted, passageById, type WantedCodes } from './passages';

/** Stretches of a document that are to be coded. */
export interface SweptDocument {
  readonly documentId: Id;
  readonly places: readonly Stretch[];
}

/**
 * Gives a code to many places at once, as one step. What lies within a passage that carries the code already, by
 * whomever, is let be: nothing is coded twice. The codings are marked as swept until somebody has looked at them.
 */
export function sweep(documents: readonly SweptDocument[], wanted: WantedCodes): Command {
  return (state, context) => {
    const { codes, made } = codesWanted(state, context, wanted);
    const [code] = codes;
    if (!code || codes.length > 1) throw new CommandError('A sweep gives one code.');
    const coding = { codeId: code.id, coderId: context.coderId, createdAt: context.now, swept: true as const };
    const change: Change[number][] = made.map((one) => added('code', one));
    let [coded, known] = [0, 0];
    for (const { documentId, places } of documents) {
      const document = found(state.tables.document[documentId], 'document');
      const columns = state.passages[documentId];
      const carrying = columns ? passagesCarrying(columns, new Set([code.id])) : [];
      const own = columns ? ownPassagesAt(columns, places, context.coderId) : null;
      for (const { start, end } of places) {
        if (!standsIn(document, { start, end }))
          throw new CommandError(`A text was changed meanwhile. Search again in ${short(document.title)}.`);
        if (carrying.some((one) => one.start <= start && end <= one.end)) {
          known++;
          continue;
        }
        coded++;
        const there = own?.get(keyOf({ start, end }));
        if (there) change.push(updated('passage', there, { codings: [...there.codings, coding] }));
        else {
          const passage: Passage = {
            id: context.newId(),
            documentId,
            start,
            end,
            comment: '',
            coderId: context.coderId,
            createdAt: context.now,
            codings: [coding],
          };
          change.push(added('passage', passage));
        }
      }
    }
    if (coded === 0) return null;
    const rest = known > 0 ? `; ${counted(known, 'place')} carried it already` : '';
    return { change, sentence: `swept ${short(code.name)} over ${counted(coded, 'place')}${rest}`.slice(0, 500) };
  };
}

const keyOf = ({ start, end }: Stretch): string => `${start} ${end}`;

/** Passages of a coder at some places, by place: looked up once for a document, however many places there are. */
function ownPassagesAt(columns: PassageColumns, places: readonly Stretch[], coderId: Id): ReadonlyMap<string, Passage> {
  const wanted = new Set(places.map(keyOf));
  const there = passagesInRows(columns, (row) => wanted.has(keyOf({ start: columns.starts[row]!, end: columns.ends[row]! })));
  // of several at one place the first takes the code
  return new Map(there.flatMap((one) => (one.coderId === coderId ? [[keyOf(one), one] as const] : [])).reverse());
}

/** Keeps codings of a code that a sweep gave: they were looked at. */
export function keepSwept(places: readonly PassageAt[], codeId: Id): Command {
  return (state) => {
    const change = places.flatMap(({ documentId, passageId }) => {
      const passage = passageById(state, documentId, passageId);
      if (!passage.codings.some((one) => one.codeId === codeId && one.swept)) return [];
      const codings = passage.codings.map((one) => {
        if (one.codeId !== codeId || !one.swept) return one;
        const { swept: _, ...kept } = one;
        return kept;
      });
      return [updated('passage', passage, { codings })];
    });
    if (change.length === 0) return null;
    return {
      change,
      sentence: `looked at ${counted(change.length, 'swept passage')} of ${short(state.tables.code[codeId]?.name ?? 'a code')}`,
    };
  };
}

/** How many swept codings of each code wait to be looked at. */
export function sweptByCode(passages: Iterable<PassageColumns>): ReadonlyMap<Id, number> {
  const counts = new Map<Id, number>();
  for (const { ratings, codes, codingCode } of passages)
    for (const { at, swept } of ratings ?? []) {
      const id = codes[codingCode[at]!]!;
      if (swept) counts.set(id, (counts.get(id) ?? 0) + 1);
    }
  return counts;
}

/** Passages with swept codings of a code that nobody has looked at yet, in the order of the documents given. */
export function sweptLeft(state: Pick<StudyState, 'passages'>, codeId: Id, documentIds: readonly Id[]): Passage[] {
  return documentIds.flatMap((id) => {
    const columns = state.passages[id];
    if (!columns?.ratings?.some((one) => one.swept)) return [];
    return passagesCarrying(columns, new Set([codeId])).filter((one) =>
      one.codings.some((coding) => coding.codeId === codeId && coding.swept),
    );
  });
}

import { codesMeeting } from '../codebook/conditions';
import { NOTHING_ANSWERED, type Answered } from '../model/answered';
import type { CodeSet } from '../model/code-set';
import { heldIn, type Moves } from '../model/references';
import type { RecordType } from '../model/records';
import type { MemberSet } from '../model/set';
import type { StudyState } from '../model/study-state';
import { caseFinderOf } from '../passages/case-finder';
import { CodeUseCounter } from '../passages/code-use';
import { countCodes } from '../passages/counting';
import { isKnown, membersOf } from '../sets/members';
import { quoted } from '../text/quoted';
import { updated, type Change } from '../change/change';
import { CommandError, short } from '../change/command';

/**
 * Live sets that ask for something that goes, as sets filled by hand with what is in them now: a condition that is
 * left out would let in what was never meant.
 * @param now milliseconds since 1970, for conditions that count back from today
 * @param answered what the kept queries find that sets ask for
 * @throws CommandError where that is not known and would have to be
 */
export function setsSettled(state: StudyState, moves: Moves, now: number, answered?: Answered): Change {
  return [
    ...Object.values(state.tables.set).flatMap((set) => (asksForGone('set', set, moves) ? [settledSet(state, set, answered)] : [])),
    ...Object.values(state.tables.codeSet).flatMap((set) => (asksForGone('codeSet', set, moves) ? [settledCodeSet(state, set, now)] : [])),
  ];
}

/** The set filled by hand with its members of now. @throws CommandError where they are not known yet */
export function settledSet({ tables }: StudyState, set: MemberSet, answered: Answered = NOTHING_ANSWERED) {
  const sets = { tables, answered };
  if (!isKnown(sets, set))
    throw new CommandError(
      `What is in the set ${quoted(short(set.name))} is still being worked out. Try again in a moment. Nothing was changed.`,
    );
  return updated('set', set, { condition: null, memberIds: membersOf(sets, set) });
}

function settledCodeSet(state: StudyState, set: CodeSet, now: number) {
  const columns = Object.values(state.passages);
  const counter = new CodeUseCounter(state.tables.code, caseFinderOf(state.tables.case), false);
  for (const some of columns) counter.add(some, state.tables.document[some.documentId]!, null);
  const counts = countCodes(columns, state.tables.code);
  const codeIds = codesMeeting({ state, counts, cases: counter.result(), now }, set.conditions ?? []);
  return updated('codeSet', set, { conditions: null, codeIds });
}

function asksForGone(type: 'set' | 'codeSet', record: MemberSet | CodeSet, { records = {} }: Moves): boolean {
  return heldIn(type, record as never).points.some(({ of, id, whenGone }) => {
    const heir = records[of as RecordType]?.get(id);
    // what lay in a folder goes up to the one above it, where other things lie as well
    return whenGone === 'settled' && heir !== undefined && (heir === null || of === 'folder');
  });
}

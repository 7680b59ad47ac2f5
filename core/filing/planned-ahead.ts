import { checkChange } from '../change/check-change';
import type { Change } from '../change/change';
import type { Table } from '../formats/table/table';
import { planTable, type TableChoices, type TablePlan } from '../material/plan-table';
import { randomId, type Id } from '../model/ids';
import type { StudyState } from '../model/study-state';

interface Planned {
  readonly table: Table;
  readonly asked: string;
  readonly plan: TablePlan;
  checked: boolean;
}

/** Records that are checked in one go. */
const CHECKED_AT_ONCE = 400;

/** The table that is being looked at, planned and checked ahead: storing it then has that behind it, if nothing has changed. */
export class PlannedAhead {
  private planned: Planned | null = null;

  /** Plans a table for a study, and keeps the plan. @param seq the last entry of its journal @throws RangeError as {@link planTable} */
  plan(table: Table, choices: TableChoices, state: StudyState, seq: number): TablePlan {
    this.planned = null;
    const plan = planTable(table, choices, state, randomId, 0);
    this.planned = { table, asked: asking(choices, state.study.id, seq), plan, checked: false };
    return plan;
  }

  /** Checks what was planned, some records at a time, so that what is asked for meanwhile is answered. */
  async check(): Promise<void> {
    const { planned } = this;
    if (!planned) return;
    for (let at = 0; at < planned.plan.change.length; at += CHECKED_AT_ONCE) {
      await new Promise((resolve) => setTimeout(resolve));
      if (this.planned !== planned) return;
      try {
        checkChange(planned.plan.change.slice(at, at + CHECKED_AT_ONCE));
      } catch {
        // what is wrong is said when it is to be stored
        return;
      }
    }
    planned.checked = true;
  }

  /** The plan as it is to be stored, made now if it was not made for this very question. */
  take(table: Table, choices: TableChoices, state: StudyState, seq: number, now: number): { plan: TablePlan; checked: boolean } {
    const { planned } = this;
    this.planned = null;
    if (planned?.table !== table || planned.asked !== asking(choices, state.study.id, seq))
      return { plan: planTable(table, choices, state, randomId, now), checked: false };
    return { plan: { ...planned.plan, change: madeAt(planned.plan.change, now) }, checked: planned.checked };
  }

  clear(): void {
    this.planned = null;
  }
}

/** All that a plan depends on beside the table: what was decided, and the moment of which study. */
const asking = (choices: TableChoices, studyId: Id, seq: number): string =>
  JSON.stringify({ ...choices, keep: [...choices.keep].sort(), studyId, seq });

/** Documents come in when they are stored, not when they were planned. */
const madeAt = (change: Change, now: number): Change =>
  change.map((one) =>
    one.type === 'document' && one.before === null && one.after ? { ...one, after: { ...one.after, createdAt: now } } : one,
  );

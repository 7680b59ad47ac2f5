import { applyChange } from '@core/change/apply';
import { EMPTY_HISTORY } from '@core/change/journal';
import { addCode } from '@core/commands/codes';
import type { Id } from '@core/model/ids';
import { sequentialIds } from '@core/model/ids';
import { emptyState } from '@core/model/study-state';
import type { OpenedStudy } from '../storage/study-storage';

/** A study with these codes, `name` or `name:category`, as it is after opening; and the codes' ids by name. */
export function openedStudy(names: readonly string[] = []): { opened: OpenedStudy; codes: Record<string, Id>; coderId: Id } {
  const newId = sequentialIds(11);
  const coderId = newId();
  const base = emptyState({
    id: newId(),
    title: 'A study',
    description: '',
    language: 'en',
    caseWord: 'participant',
    createdAt: 0,
    currentCoderId: coderId,
  });
  let state = { ...base, tables: { ...base.tables, coder: { [coderId]: { id: coderId, name: 'Ada' } } } };
  const codes: Record<string, Id> = {};
  for (const name of names) {
    const [own = '', category] = name.split(':');
    const action = addCode({ name: own, parentId: category ? codes[category]! : null })(state, { coderId, now: 1, newId })!;
    state = applyChange(state, action.change) as typeof state;
    codes[own] = action.change[0]!.after!.id;
  }
  return { opened: { state, history: EMPTY_HISTORY, backup: null }, codes, coderId };
}

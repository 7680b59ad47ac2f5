import { standingOn } from '@core/integrity/standing-on';
import type { Id } from '@core/model/ids';
import type { TableType } from '@core/model/records';
import type { StudyState } from '@core/model/study-state';
import type { Ask } from './ask';

/**
 * Asks before something goes that other things stand on, naming them; what nothing stands on goes without a question,
 * since it can be undone.
 */
export async function mayGo(ask: Ask, state: StudyState, type: TableType, id: Id, title: string): Promise<boolean> {
  const lines = standingOn(state, type, [id]);
  return lines.length === 0 || ask.confirm({ title, lines: [...lines, 'It can be undone.'], yes: 'Delete', danger: true });
}

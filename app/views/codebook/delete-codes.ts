import { quoted } from '@core/text/quoted';
import { standingOn } from '@core/integrity/standing-on';
import { withDescendants } from '@core/codebook/tree';
import { deleteCode, deleteCodes, deletionToll } from '@core/commands/codes';
import type { Id } from '@core/model/ids';
import type { StudyState } from '@core/model/study-state';
import { counted } from '@core/text/counted';
import { listed } from '@core/text/listed';
import type { StudySession } from '../../state/study-session';
import type { Ask } from '../../ui/dialogs/ask';

/** Deletes codes after naming them and what goes with them. @returns whether it was done */
export async function deleteAfterAsking(ask: Ask, session: StudySession, data: StudyState, ids: readonly Id[]): Promise<boolean> {
  if (ids.length === 0) return false;
  const toll = deletionToll(data, ...ids);
  const names = ids.map((id) => data.tables.code[id]?.name ?? '');
  const under = toll.codes - ids.length;
  const goOn = await ask.confirm({
    title: ids.length === 1 ? `Delete ${quoted(names[0] ?? '')}?` : `Delete ${ids.length} codes?`,
    lines: [
      ...(ids.length > 1 ? [listed(names)] : []),
      under > 0 ? `With it go the ${counted(under, 'code')} under it.` : 'No code lies under it.',
      `This takes away ${counted(toll.codings, 'coding')} in ${counted(toll.documents, 'document')}${toll.passages > 0 ? `; ${counted(toll.passages, 'passage')} carrying nothing else ${toll.passages === 1 ? 'goes' : 'go'} too` : ''}.`,
      ...standingOn(data, 'code', [...new Set(ids.flatMap((id) => withDescendants(data.tables.code, id)))]),
      'It can be undone.',
    ],
    yes: ids.length === 1 ? 'Delete the code' : 'Delete the codes',
    danger: true,
  });
  return goOn && session.run(ids.length === 1 ? deleteCode(ids[0]!) : deleteCodes(ids)) !== null;
}

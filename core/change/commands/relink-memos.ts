import { relinked } from '../../memos/references';
import type { MemoSubject } from '../../model/memo';
import type { StudyState } from '../../model/study-state';
import { updated, type Change } from '../change';

/** The memos that are linked to what has moved or gone, linked to what has become of it; each memo once. See {@link relinked}. */
export const relinkMemos = (state: StudyState, to: (subject: MemoSubject) => MemoSubject | null): Change =>
  Object.values(state.tables.memo).flatMap((memo) => {
    const links = relinked(memo, to);
    return links ? [updated('memo', memo, links)] : [];
  });

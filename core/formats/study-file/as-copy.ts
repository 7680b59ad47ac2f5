import type { Id } from '../../model/ids';
import type { StudyBundle } from './bundle';

/** The same study under another id and title, to lie beside the one it is a copy of. */
export function asCopy(bundle: StudyBundle, id: Id): StudyBundle {
  const title = `${bundle.state.study.title} (copy)`.slice(0, 500);
  return { ...bundle, state: { ...bundle.state, study: { ...bundle.state.study, id, title } } };
}

import type { Id } from '../../model/ids';
import type { StudyBundle } from './bundle';

/**
 * The same study under another id and title, to lie beside the one it is a copy of.
 * @param titles of the studies that are there: each copy is numbered, so that they can be told apart
 */
export function asCopy(bundle: StudyBundle, id: Id, titles: ReadonlySet<string>): StudyBundle {
  const base = bundle.state.study.title.replace(/ \(copy(?: \d+)?\)$/, '').slice(0, 480);
  let title = `${base} (copy)`;
  for (let number = 2; titles.has(title); number++) title = `${base} (copy ${number})`;
  return { ...bundle, state: { ...bundle.state, study: { ...bundle.state.study, id, title } } };
}

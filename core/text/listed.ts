import { shortened } from './shortened';

/** Names in a row, the first few and how many more: what a command is about, before it takes anything away. */
export function listed(names: readonly string[], most = 8): string {
  const shown = names.slice(0, most).map((name) => shortened(name, 60));
  const more = names.length - shown.length;
  return shown.join(', ') + (more > 0 ? ` and ${more.toLocaleString('en')} more` : '');
}

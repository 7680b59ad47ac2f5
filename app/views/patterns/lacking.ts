import type { AskedPattern } from '@core/model/pattern';

/** What a study has none of yet, without which a pattern shows nothing whatever its settings. */
export type Lacking = 'documents' | 'codes';

/** What has to come first, if anything. @param has what there is any of */
export function lackingFor(asked: AskedPattern, has: Readonly<Record<Lacking, boolean>>): Lacking | null {
  // attributes are facts of cases as well, and can come before any document
  if (asked.pattern === 'attributes') return null;
  if (!has.documents) return 'documents';
  // speakers and words are there without a code, and kept queries need not ask for one
  if (asked.pattern === 'words' || asked.pattern === 'weave') return null;
  if ('rows' in asked && asked.rows.of === 'queries') return null;
  return has.codes ? null : 'codes';
}

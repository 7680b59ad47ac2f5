import type { Gloss } from '../../model/gloss';
import type { Coder } from '../../model/study';
import type { Table } from '../../model/study-state';
import { naturalOrder } from '../../text/natural-order';
import { writeCsv } from './write-csv';

/** The glossary as a table, one row a word in natural order. @param coders who defined them, by id */
export const writeGlossaryCsv = (glosses: readonly Gloss[], coders: Table<Coder>): string =>
  writeCsv([
    ['word', 'other forms', 'meaning', 'defined by'],
    ...naturalOrder(glosses, (gloss) => gloss.term).map((gloss) => [
      gloss.term,
      gloss.forms.join('; '),
      gloss.meaning,
      coders[gloss.coderId]?.name ?? '',
    ]),
  ]);

import { guessType, type TypeGuess } from '../../attributes/guess-type';
import { isMissing } from '../../attributes/missing';
import type { Attribute } from '../../model/case';
import type { Table } from './table';

/** What a column of a table is brought in as. */
export const COLUMN_ROLES = ['title', 'identifier', 'question', 'attribute', 'folder', 'date', 'ignored'] as const;
export type ColumnRole = (typeof COLUMN_ROLES)[number];

/** A column with its role; the guess explains itself. */
export interface Column {
  readonly name: string;
  readonly role: ColumnRole;
  /** For an attribute, its type. */
  readonly type: Attribute['type'];
  readonly because: string;
  /** What else than the common signs says that a cell has no value, as the researcher named it. */
  readonly missing?: readonly string[];
  /** It is no question of the study in other words, as the researcher said. */
  readonly ownQuestion?: boolean;
}

const IDENTIFIER = /(^|[_\s-])(id|nr|no|number|code|key|case|participant|respondent|response)([_\s-]?(id|nr|no|number))?$/i;
const NAME = /^(name|participant|pseudonym|respondent|title|full[_ ]?name|person|case)$/i;
const FOLDER = /^(folder|group|wave|site)$/i;
/** The day of the interview or the answer; a date of birth is none. */
const DATE =
  /^(date|day|when|time)$|(interview|survey|response|answered|submitted|completed|started|finished|recorded|received|timestamp)/i;

/** The type of each column, guessed from its cells. */
export const typesOf = (table: Table): TypeGuess[] => table.header.map((_, at) => guessType(table.rows.map((row) => row[at]!)));

/**
 * Guesses the role of each column: long texts and question marks make a question, few distinct values a choice,
 * a column without repetition an identifier, and so on.
 * @param types what {@link typesOf} said of the same table, where it was asked already
 * @param asDocuments whether rows become documents; for a list of cases there are no questions, folders or dates
 */
export function guessRoles(table: Table, asDocuments = true, types = typesOf(table)): Column[] {
  let titled = false;
  let identified = false;
  let dated = false;
  return table.header.map((name, at): Column => {
    const cells = table.rows.map((row) => row[at]!);
    const filled = cells.filter((cell) => cell && !isMissing(cell));
    const { type, because } = types[at]!;
    const average = filled.reduce((sum, cell) => sum + cell.length, 0) / Math.max(1, filled.length);
    const distinct = new Set(filled).size === filled.length && filled.length === cells.length;
    if (filled.length === 0) return { name, role: 'ignored', type, because: 'it is empty' };
    if (asDocuments && type !== 'number' && type !== 'date' && (name.trim().endsWith('?') || average > 60)) {
      const why = name.trim().endsWith('?')
        ? 'its name ends in a question mark'
        : `its cells are long (${Math.round(average)} characters on average)`;
      return { name, role: 'question', type: 'text', because: why };
    }
    if (!identified && distinct && IDENTIFIER.test(name)) {
      identified = true;
      return { name, role: 'identifier', type: 'text', because: 'every row has its own value, and the name says so' };
    }
    if (!titled && NAME.test(name) && type !== 'number' && type !== 'date') {
      titled = true;
      return { name, role: 'title', type: 'text', because: 'its name says who or what the row is about' };
    }
    if (asDocuments && !dated && type === 'date' && DATE.test(name)) {
      dated = true;
      return { name, role: 'date', type, because: `${because}, and the name says so` };
    }
    if (asDocuments && FOLDER.test(name) && type === 'choice') return { name, role: 'folder', type, because: 'its name says so' };
    return { name, role: 'attribute', type, because };
  });
}

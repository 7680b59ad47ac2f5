import { NOTHING_ANSWERED, type Answered } from '@core/model/answered';
import type { Document } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Scope } from '@core/model/scope';
import { NO_TABLES, type StudyState, type Table } from '@core/model/study-state';
import { AskedStudy } from '@core/queries/asked-study';
import { Narrowing } from '@core/queries/narrowing';
import type { Spoken } from '@core/text/paragraphs';

type Tables = StudyState['tables'];

/** What a scope depends on: what is in a set may depend on documents, nothing else does. */
export type ScopeTables = Pick<Tables, 'attribute' | 'case' | 'folder' | 'set'>;

/** What kept queries find that live sets ask for. */
export interface AnsweredHere {
  /** The study it was worked out from: what is shown of an older one is as good as known, what is done needs the one of now. */
  readonly of: StudyState | null;
  /** Told apart from other answers of the analysis. */
  readonly sign: string;
  readonly found: Answered;
}

interface Made extends ScopeTables {
  readonly scope: Scope;
  readonly documents: Table<Document> | null;
  readonly answered: Answered;
  readonly narrowing: Narrowing;
}

/** The last ones made: that of the scope one looks at, and that of one which is being chosen. */
let made: readonly Made[] = [];

/**
 * A scope made ready for the open study. Asked again, it is the same, with all that was worked out, as long as nothing
 * changed that it depends on: so what is left of a large study can be sorted out before it is shown.
 */
export function narrowingOf(scope: Scope, tables: ScopeTables, documents: Table<Document>, found: Answered): Narrowing {
  const [needed, answered] = asksForSets(scope) ? [documents, found] : [null, NOTHING_ANSWERED];
  const { attribute, case: cases, folder, set } = tables;
  const known = made.find(
    (one) =>
      one.scope === scope &&
      one.documents === needed &&
      one.answered === answered &&
      one.attribute === attribute &&
      one.case === cases &&
      one.folder === folder &&
      one.set === set,
  );
  if (known) return known.narrowing;
  const study = new AskedStudy(
    { ...NO_TABLES, attribute, case: cases, folder, set, document: needed ?? NO_TABLES.document },
    () => [],
    // what needs a language or a day is nothing that a scope can ask
    'en',
    Date.now,
    null,
    answered,
  );
  const narrowing = new Narrowing(scope, study);
  made = [{ scope, attribute, case: cases, folder, set, documents: needed, answered, narrowing }, ...made].slice(0, 2);
  return narrowing;
}

const asksForSets = ({ parts }: Scope): boolean =>
  parts.some((part) => ('liesIn' in part && part.liesIn.setIds.length > 0) || ('placed' in part && part.placed === 'in a set'));

/** Who speaks where, of the documents of which it is known. */
export type SpokenHere = Readonly<Record<Id, Spoken>>;

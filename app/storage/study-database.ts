import Dexie, { type EntityTable, type Table } from 'dexie';
import type { JournalEntry } from '@core/change/journal';
import { touchesOf } from '@core/change/touches';
import { TABLE_TYPES, type RecordShapes, type TableType } from '@core/model/records';
import { SCHEMA_VERSION } from '@core/model/schema-version';
import type { Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { LogDigest } from '@core/log/digest';
import type { PassageColumns } from '@core/model/passage-columns';

/** Rows of the `meta` table, by key. */
export interface MetaRow {
  readonly key: 'study' | 'history' | 'dataVersion' | 'backup';
  readonly value: unknown;
}

/** A recording or a picture, as it was brought in. The browser keeps a blob as a file: it is not in memory until it is read. */
export interface MediaRow {
  readonly sha256: string;
  readonly blob: Blob;
}

/** A journal entry with what it touches, by which it is found. Record changes of a large one lie in it as JSON, some at a time. */
export type JournalRow = JournalEntry & { readonly touches: readonly string[]; readonly packed?: readonly string[] };

/** Record changes from which on an entry is packed: copying so many objects would hold the interface up. */
const LARGE_ENTRY = 1_000;
/** Record changes that are packed between two breaths. */
const PACKED_AT_ONCE = 400;

/** An entry as it is stored. */
export const toRow = (entry: JournalEntry): JournalRow => ({ ...entry, touches: touchesOf(entry) });

/** An entry as it is stored; a large one is packed bit by bit, so that the interface goes on meanwhile. */
export async function toRowInTurns(entry: JournalEntry): Promise<JournalRow> {
  if (entry.change.length < LARGE_ENTRY) return toRow(entry);
  const packed: string[] = [];
  const touches = new Set<string>();
  for (let at = 0; at < entry.change.length; at += PACKED_AT_ONCE) {
    await new Promise((resolve) => setTimeout(resolve));
    const change = entry.change.slice(at, at + PACKED_AT_ONCE);
    packed.push(JSON.stringify(change));
    for (const touched of touchesOf({ change })) touches.add(touched);
  }
  return { ...entry, change: [], packed, touches: [...touches] };
}

/** A stored row as the entry it holds. */
export function fromRow({ touches: _, packed, ...entry }: JournalRow): JournalEntry {
  return packed ? { ...entry, change: packed.flatMap((some) => JSON.parse(some) as JournalEntry['change']) } : entry;
}

/** Raised where what is looked up by changes, within one data version; under 10. */
const INDEXES = 0;

/** Databases of studies carry this in front of the study's id. */
export const DATABASE_PREFIX = 'filum-study-';

/**
 * The database of one study. Each study has its own, so that deleting one cannot touch another. Small records
 * are a row each; the passages of a document are one packed row; texts are apart and read when needed.
 */
export class StudyDatabase extends Dexie {
  declare readonly meta: EntityTable<MetaRow, 'key'>;
  declare readonly text: EntityTable<Text, 'id'>;
  declare readonly passages: EntityTable<PassageColumns, 'documentId'>;
  declare readonly media: EntityTable<MediaRow, 'sha256'>;
  declare readonly journal: EntityTable<JournalRow, 'seq'>;
  /** Made from the journal to find in it; not part of the study. */
  declare readonly logDigest: EntityTable<LogDigest, 'block'>;

  constructor(readonly studyId: Id) {
    // strict: a transaction counts as done when it is on disk, not when it is on its way there
    super(DATABASE_PREFIX + studyId, { chromeTransactionDurability: 'strict' });
    // one version says it all: what an older one lacks is added, and what it holds stays. The records' own shapes have
    // their version in `meta`
    this.version(SCHEMA_VERSION * 10 + INDEXES).stores({
      meta: 'key',
      text: 'id',
      passages: 'documentId',
      media: 'sha256',
      // entries are looked up by when, and by what they touch
      journal: 'seq, at, *touches',
      logDigest: 'block',
      ...Object.fromEntries(TABLE_TYPES.map((type) => [type, 'id'])),
    });
  }

  /** The table of small records of one type. */
  records<K extends TableType>(type: K): Table<RecordShapes[K], Id> {
    return this.table(type);
  }
}

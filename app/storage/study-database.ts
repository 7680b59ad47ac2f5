import Dexie, { type EntityTable, type Table } from 'dexie';
import type { JournalEntry } from '@core/change/journal';
import { touchesOf } from '@core/change/touches';
import { TABLE_TYPES, type RecordShapes, type TableType } from '@core/model/records';
import { SCHEMA_VERSION } from '@core/model/schema-version';
import type { Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { LogDigest } from '@core/log/digest';
import type { PassageColumns } from '@core/model/passage-columns';
import type { Loudness } from '@core/sound/loudness';
import type { PackedRow, PackRow } from './packs';

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

/** Where a file lies that the study does not keep: a way to it that the browser keeps, and when it was last changed as it was known. */
export interface LinkRow {
  readonly sha256: string;
  readonly handle: FileSystemFileHandle;
  readonly changedAt: number;
}

/** How loud a recording is, measured once. */
export interface LoudnessRow extends Loudness {
  readonly sha256: string;
}

/** A journal entry with what it touches, by which it is found. Record changes of a large one lie in it as JSON, some at a time. */
export type JournalRow = JournalEntry & { readonly touches: readonly string[]; readonly packed?: readonly string[] };

/** What an entry touches that touches too much to be looked up by each. */
export interface TouchedRow {
  readonly seq: number;
  readonly words: readonly string[];
}

/** Record changes from which on an entry is packed: copying so many objects would hold the interface up. */
const LARGE_ENTRY = 1_000;
/** Record changes that are packed between two breaths. */
const PACKED_AT_ONCE = 400;
/** What an entry may touch and be looked up by each: more takes longer to note than all else that is stored with it. */
const MOST_TOUCHES = 300;

/** An entry as it is stored. */
export const toRow = (entry: JournalEntry): JournalRow => ({ ...entry, touches: touchesOf(entry) });

/**
 * An entry as it is stored; a large one is packed bit by bit, so that the interface goes on meanwhile.
 * @returns it, and apart what it touches where that is too much to be looked up by each
 */
export async function toRowInTurns(entry: JournalEntry): Promise<{ readonly row: JournalRow; readonly touched: TouchedRow | null }> {
  if (entry.change.length < LARGE_ENTRY) return { row: toRow(entry), touched: null };
  const packed: string[] = [];
  const touches = new Set<string>();
  for (let at = 0; at < entry.change.length; at += PACKED_AT_ONCE) {
    // in a worker there is no interface to hold up
    if (typeof document !== 'undefined') await new Promise((resolve) => setTimeout(resolve));
    const change = entry.change.slice(at, at + PACKED_AT_ONCE);
    packed.push(JSON.stringify(change));
    for (const touched of touchesOf({ change })) touches.add(touched);
  }
  const words = [...touches];
  const many = words.length > MOST_TOUCHES;
  const row = { ...entry, change: [], packed, touches: many ? words.filter((word) => !word.includes(':')) : words };
  return { row, touched: many ? { seq: entry.seq, words } : null };
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
 * are a row each, but for those that came in many at a time (see `Packs`); the passages of a document are one packed row;
 * texts are apart and read when needed.
 */
export class StudyDatabase extends Dexie {
  declare readonly meta: EntityTable<MetaRow, 'key'>;
  declare readonly text: EntityTable<Text, 'id'>;
  declare readonly passages: EntityTable<PassageColumns, 'documentId'>;
  declare readonly media: EntityTable<MediaRow, 'sha256'>;
  /** Ways to files that are not kept, and what was measured of recordings: of this browser, and no part of the study. */
  declare readonly links: EntityTable<LinkRow, 'sha256'>;
  declare readonly loudness: EntityTable<LoudnessRow, 'sha256'>;
  declare readonly touched: EntityTable<TouchedRow, 'seq'>;
  declare readonly packs: EntityTable<PackRow, 'pack'>;
  declare readonly packed: EntityTable<PackedRow, 'pack'>;
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
      links: 'sha256',
      loudness: 'sha256',
      packs: '++pack, type',
      packed: 'pack',
      // entries are looked up by when, and by what they touch
      journal: 'seq, at, *touches',
      touched: 'seq',
      logDigest: 'block',
      ...Object.fromEntries(TABLE_TYPES.map((type) => [type, 'id'])),
    });
  }

  /** The table of small records of one type. */
  records<K extends TableType>(type: K): Table<RecordShapes[K], Id> {
    return this.table(type);
  }
}

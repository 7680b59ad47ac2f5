import { blockOf, digestOf, DIGEST_SPAN, mayHold, type LogDigest } from '@core/log/digest';
import type { LogWish } from '@core/log/wish';
import { fromRow, type JournalRow, type StudyDatabase } from './study-database';

/** Entries of the journal from one number up to, not including, another. */
export interface Stretch {
  readonly start: number;
  readonly end: number;
}

/** Digests made between two breaths. */
const BLOCKS_AT_ONCE = 4;

const known = new WeakMap<StudyDatabase, Promise<LogDigests>>();

/**
 * The digests of a study's journal, read once and kept in memory; 1 kB for 128 entries. They are made where the
 * journal is walked without them, and kept on disk beside it. Losing them loses nothing: they are made again.
 */
export class LogDigests {
  private readonly blocks = new Map<number, LogDigest>();
  private made: LogDigest[] = [];

  private constructor(private readonly db: StudyDatabase) {}

  static of(db: StudyDatabase): Promise<LogDigests> {
    let digests = known.get(db);
    if (!digests) known.set(db, (digests = LogDigests.read(db)));
    return digests;
  }

  private static async read(db: StudyDatabase): Promise<LogDigests> {
    const digests = new LogDigests(db);
    for (const digest of await db.logDigest.toArray()) digests.blocks.set(digest.block, digest);
    return digests;
  }

  /**
   * The next stretches to read when going back from an entry, the newest first, of about `count` entries together,
   * past all blocks in which nothing wanted can be. Empty where nothing wanted can be left.
   * @param from nothing made before this moment is wanted, and nothing from `to` on; ms since 1970
   */
  stretchesBefore(end: number, count: number, wish: LogWish, from: number, to = Infinity): Stretch[] {
    const stretches: Stretch[] = [];
    const mayBeIn = mayHold(wish);
    let left = count;
    for (let block = blockOf(end - 1); block >= 0 && left > 0; block--) {
      const digest = this.blocks.get(block);
      if (digest && digest.to < from) break;
      if (digest && (digest.from >= to || !mayBeIn(digest))) continue;
      const stretch = { start: block * DIGEST_SPAN + 1, end: Math.min(end, (block + 1) * DIGEST_SPAN + 1) };
      const last = stretches.at(-1);
      if (last?.start === stretch.end) stretches[stretches.length - 1] = { start: stretch.start, end: last.end };
      else stretches.push(stretch);
      left -= stretch.end - stretch.start;
    }
    return stretches;
  }

  /** Makes the digests of the whole blocks among some rows, which come in the order of their numbers without a gap. */
  learn(rows: readonly JournalRow[]): void {
    const first = rows[0]?.seq ?? 0;
    for (let block = blockOf(first + DIGEST_SPAN - 1); (block + 1) * DIGEST_SPAN < first + rows.length; block++) {
      if (this.blocks.has(block)) continue;
      const at = block * DIGEST_SPAN + 1 - first;
      const some = rows.slice(at, at + DIGEST_SPAN);
      if (some.length < DIGEST_SPAN || some[0]!.seq !== block * DIGEST_SPAN + 1 || some.at(-1)!.seq !== (block + 1) * DIGEST_SPAN) continue;
      const digest = digestOf(block, some.map(fromRow));
      this.blocks.set(block, digest);
      this.made.push(digest);
    }
  }

  /** Puts what was made on disk. Where that fails the digests are made again another time. */
  async keep(): Promise<void> {
    const made = this.made;
    this.made = [];
    if (made.length > 0) await this.db.logDigest.bulkPut(made).catch(() => undefined);
  }

  /** Makes the digests that are missing, the newest first, with a breath after each. @param goOn asked before each */
  async complete(lastSeq: number, goOn: () => boolean): Promise<void> {
    for (let end = blockOf(lastSeq + 1); end > 0 && goOn(); end -= BLOCKS_AT_ONCE) {
      const start = Math.max(0, end - BLOCKS_AT_ONCE);
      if (Array.from({ length: end - start }, (_, at) => start + at).every((block) => this.blocks.has(block))) continue;
      const rows = this.db.journal.where('seq').between(start * DIGEST_SPAN + 1, end * DIGEST_SPAN + 1);
      this.learn(await rows.toArray());
      if (this.made.length >= 64) await this.keep();
      await new Promise((resolve) => setTimeout(resolve));
    }
    await this.keep();
  }
}

import type { Table } from 'dexie';
import { idOf, type RecordChange } from '@core/change/change';
import type { Id } from '@core/model/ids';
import type { StudyDatabase } from './study-database';

/** Which records lie in a pack: small, so that all of them can be looked through. */
export interface PackRow {
  readonly pack: number;
  /** The type of its records. */
  readonly type: string;
  /** Ids of its records in their order; null for one that has a row of its own since, or is gone. */
  readonly ids: readonly (Id | null)[];
}

/** The records of a pack, as JSON in the order of their ids. */
export interface PackedRow {
  readonly pack: number;
  readonly records: string;
}

/** New records of one type from which on they are packed: a row each costs more than all else that is done with them. */
const MANY = 500;
/** Records of a pack. */
const IN_A_PACK = 100;
/** The longest record that is packed, characters of JSON: a long text is read alone, and not with a hundred others. */
const LARGEST = 8_000;

/**
 * Records that came in many at a time, of a survey for instance, packed a hundred to a row. One that is changed gets a row
 * of its own, in the table of its type, and its place in the pack is crossed out.
 */
export class Packs {
  /** Where packed records lie, by their type, as it was when it was last looked at: rows of their own say more. */
  private readonly places = new Map<string, ReadonlyMap<Id, number>>();

  constructor(private readonly db: StudyDatabase) {}

  /** All records of some types that lie in packs, by their type. */
  async of(types: readonly string[]): Promise<Map<string, unknown[]>> {
    const rows = (await this.db.packs.toArray()).filter((row) => types.includes(row.type));
    const packed = await this.db.packed.bulkGet(rows.map((row) => row.pack));
    const found = new Map<string, unknown[]>();
    rows.forEach((row, at) => {
      const some = found.get(row.type) ?? [];
      some.push(...alive(row, packed[at]!));
      found.set(row.type, some);
    });
    return found;
  }

  /** How many records of a type lie in packs. */
  async count(type: string): Promise<number> {
    const rows = await this.db.packs.where('type').equals(type).toArray();
    return rows.reduce((sum, { ids }) => sum + ids.filter((id) => id !== null).length, 0);
  }

  /** The records of a type with these ids that lie in packs, by id. */
  async find<T>(type: string, ids: readonly Id[]): Promise<Map<Id, T>> {
    const places = this.places.get(type);
    const found = places ? await this.take<T>(ids, places) : new Map<Id, T>();
    // another tab may have packed more since, or packed again what was taken back
    return found.size === ids.length ? found : this.take(ids, await this.look(type));
  }

  private async take<T>(ids: readonly Id[], places: ReadonlyMap<Id, number>): Promise<Map<Id, T>> {
    const wanted = new Set(ids);
    const packs = [...new Set(ids.flatMap((id) => places.get(id) ?? []))];
    if (packs.length === 0) return new Map();
    const [rows, packed] = await Promise.all([this.db.packs.bulkGet(packs), this.db.packed.bulkGet(packs)]);
    const found = rows.flatMap((row, at) => (row && packed[at] ? (alive(row, packed[at], wanted) as (T & { readonly id: Id })[]) : []));
    return new Map(found.map((record) => [record.id, record]));
  }

  private async look(type: string): Promise<ReadonlyMap<Id, number>> {
    const rows = await this.db.packs.where('type').equals(type).toArray();
    const places = new Map(rows.flatMap(({ pack, ids }) => ids.flatMap((id) => (id === null ? [] : [[id, pack] as const]))));
    this.places.set(type, places);
    return places;
  }

  /**
   * Packs those of some changes of one type that bring many new records, and crosses out what is changed or gone; in the
   * transaction that stores the entry.
   * @returns the changes that are left for rows of their own
   */
  async write(type: string, some: readonly RecordChange[]): Promise<readonly RecordChange[]> {
    const fresh = some.filter((change) => change.before === null && change.after !== null);
    const before = some.length === fresh.length ? [] : some.filter((change) => change.before !== null);
    const packedBefore = before.length > 0 ? await this.crossOut(type, new Set(before.map(idOf))) : new Set<Id>();
    // what goes and was packed has no row of its own
    const known = before.filter((change) => change.after !== null || !packedBefore.has(idOf(change)));
    if (fresh.length < MANY) return [...known, ...fresh];
    const large: RecordChange[] = [];
    const packs: { readonly type: string; readonly ids: Id[] }[] = [];
    const packed: string[][] = [];
    for (const change of fresh) {
      const record = JSON.stringify(change.after);
      if (record.length > LARGEST) {
        large.push(change);
        continue;
      }
      if (packs.length === 0 || packs.at(-1)!.ids.length === IN_A_PACK) {
        packs.push({ type, ids: [] });
        packed.push([]);
      }
      packs.at(-1)!.ids.push(idOf(change));
      packed.at(-1)!.push(record);
    }
    const numbers = await (this.db.packs as unknown as Table<Omit<PackRow, 'pack'>, number>).bulkAdd(packs, { allKeys: true });
    await this.db.packed.bulkAdd(packed.map((records, at) => ({ pack: numbers[at]!, records: `[${records.join()}]` })));
    return [...known, ...large];
  }

  /** @returns those that were packed */
  private async crossOut(type: string, ids: ReadonlySet<Id>): Promise<ReadonlySet<Id>> {
    const rows = await this.db.packs.where('type').equals(type).toArray();
    const touched = rows.filter((row) => row.ids.some((id) => id !== null && ids.has(id)));
    const crossed = new Set(touched.flatMap((row) => row.ids.filter((id) => id !== null && ids.has(id)) as Id[]));
    if (touched.length === 0) return crossed;
    const left = touched.map((row) => ({ ...row, ids: row.ids.map((id) => (id !== null && ids.has(id) ? null : id)) }));
    const empty = left.filter((row) => row.ids.every((id) => id === null)).map((row) => row.pack);
    await this.db.packs.bulkPut(left.filter((row) => !empty.includes(row.pack)));
    if (empty.length > 0) {
      await this.db.packs.bulkDelete(empty);
      await this.db.packed.bulkDelete(empty);
    }
    return crossed;
  }

  /** Gives every packed record a row of its own, as bringing a study to another version wants them. */
  async unpackAll(): Promise<void> {
    for (const row of await this.db.packs.toArray()) {
      const packed = await this.db.packed.get(row.pack);
      if (packed) await this.db.table(row.type).bulkPut(alive(row, packed));
    }
    await this.db.packs.clear();
    await this.db.packed.clear();
    this.places.clear();
  }
}

/** The records of a pack that are not crossed out. @param wanted only these */
function alive({ ids }: PackRow, { records }: PackedRow, wanted?: ReadonlySet<Id>): unknown[] {
  const all = JSON.parse(records) as unknown[];
  return all.filter((_, at) => {
    const id = ids[at];
    return id !== null && id !== undefined && (!wanted || wanted.has(id));
  });
}

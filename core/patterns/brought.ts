import type { PassageColumns } from '../model/passage-columns';

/** What documents bring to running sums. Whatever was brought is remembered with its passages, and taken away as it was. */
export class Brought<Part> {
  private readonly parts = new WeakMap<PassageColumns, Part>();
  /** The documents that are in the sums. */
  private readonly added = new Set<PassageColumns>();

  /** @param change adds a part to the sums, or takes it away */
  constructor(private readonly change: (part: Part, by: 1 | -1) => void) {}

  knows(columns: PassageColumns): boolean {
    return this.parts.has(columns);
  }

  bring(columns: PassageColumns, part: Part): void {
    this.parts.set(columns, part);
    this.add(columns, part);
  }

  /** Makes the sums those of some documents. @returns what these brought; nothing of those that never did */
  only(documents: Iterable<PassageColumns>): Part[] {
    const asked = new Set(documents);
    for (const columns of this.added)
      if (!asked.has(columns)) {
        this.added.delete(columns);
        this.change(this.parts.get(columns)!, -1);
      }
    const parts: Part[] = [];
    for (const columns of asked) {
      const part = this.parts.get(columns);
      if (part === undefined) continue;
      if (!this.added.has(columns)) this.add(columns, part);
      parts.push(part);
    }
    return parts;
  }

  /** What some documents brought, whether or not it is in the sums. */
  of(documents: Iterable<PassageColumns>): Part[] {
    return [...documents].flatMap((columns) => this.parts.get(columns) ?? []);
  }

  private add(columns: PassageColumns, part: Part): void {
    this.added.add(columns);
    this.change(part, 1);
  }
}

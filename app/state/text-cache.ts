import { Injectable, signal } from '@angular/core';
import type { Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { StudyStorage } from '../storage/study-storage';

/** Characters of text kept in memory at most, beyond those not yet on disk. */
const LIMIT = 8_000_000;

/** Texts of the open study, read when first asked for and forgotten when many others have been asked for since. */
@Injectable({ providedIn: 'root' })
export class TextCache {
  private storage: StudyStorage | null = null;
  private readonly texts = new Map<Id, Text>();
  private size = 0;
  /** How often everything was forgotten, and how often the text of a document has changed since. */
  private era = 0;
  private readonly editions = new Map<Id, number>();
  /** Which edition a text that was given out is. */
  private readonly given = new WeakMap<Text, string>();
  private readonly count = signal(0);
  /** Goes up whenever a text was changed, by whomever: who shows one asks for it again. */
  readonly changes = this.count.asReadonly();

  /** Forgets everything and reads from this storage from now on. */
  use(storage: StudyStorage | null): void {
    this.storage = storage;
    this.texts.clear();
    this.size = 0;
    this.era++;
    this.count.update((count) => count + 1);
  }

  /** A text comes in or goes with a change, before the disk knows. */
  put(after: Text | null, before: Text | null): void {
    const id = (after ?? before)?.id;
    if (id === undefined) return;
    this.editions.set(id, (this.editions.get(id) ?? 0) + 1);
    this.forget(id);
    if (after) this.keep(after);
    this.count.update((count) => count + 1);
  }

  /** Whether a text that was given out is still the one of its document. */
  isCurrent(text: Text): boolean {
    const given = this.given.get(text);
    return given === undefined ? (this.texts.get(text.id)?.text ?? text.text) === text.text : given === this.edition(text.id);
  }

  private edition(id: Id): string {
    return `${this.era} ${this.editions.get(id) ?? 0}`;
  }

  /** The text of a document if it is in memory: there is no need to wait for it then. */
  peek(documentId: Id): Text | undefined {
    return this.texts.get(documentId);
  }

  /** The text of a document, or null if there is none. */
  async get(documentId: Id): Promise<Text | null> {
    const known = this.texts.get(documentId);
    if (known) {
      this.texts.delete(documentId);
      this.texts.set(documentId, known);
      return known;
    }
    const edition = this.edition(documentId);
    const text = await this.storage?.text(documentId);
    // it was changed while it was read: what came from disk is the text before
    if (edition !== this.edition(documentId)) return this.get(documentId);
    if (text) {
      this.keep(text);
      this.makeRoom(text.id);
    }
    return text ?? null;
  }

  private keep(text: Text): void {
    this.forget(text.id);
    this.texts.set(text.id, text);
    this.given.set(text, this.edition(text.id));
    this.size += text.text.length;
  }

  /** Only what was read from disk makes room, so that nothing goes that is not there yet. */
  private makeRoom(keptId: Id): void {
    for (const [id] of this.texts) {
      if (this.size <= LIMIT || id === keptId) break;
      this.forget(id);
    }
  }

  private forget(id: Id): void {
    this.size -= this.texts.get(id)?.text.length ?? 0;
    this.texts.delete(id);
  }
}

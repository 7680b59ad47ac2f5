import { Injectable } from '@angular/core';
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

  /** Forgets everything and reads from this storage from now on. */
  use(storage: StudyStorage | null): void {
    this.storage = storage;
    this.texts.clear();
    this.size = 0;
  }

  /** A text comes in or goes with a change, before the disk knows. */
  put(after: Text | null, before: Text | null): void {
    if (before) this.forget(before.id);
    if (after) this.keep(after);
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
    const text = await this.storage?.text(documentId);
    if (text) {
      this.keep(text);
      this.makeRoom(text.id);
    }
    return text ?? null;
  }

  private keep(text: Text): void {
    this.forget(text.id);
    this.texts.set(text.id, text);
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

import type { Text } from '../model/document';
import type { Id } from '../model/ids';

/** Texts at hand, the ones that came first forgotten where there are too many. */
export class KeptTexts {
  private readonly texts = new Map<Id, Text>();
  private characters = 0;

  /** @param most characters that are kept; the words found in them take about twice as much beside */
  constructor(private readonly most: number) {}

  has(id: Id): boolean {
    return this.texts.has(id);
  }

  get(id: Id): Text | undefined {
    return this.texts.get(id);
  }

  put(text: Text): void {
    this.delete(text.id);
    this.texts.set(text.id, text);
    this.characters += text.text.length;
  }

  delete(id: Id): void {
    const text = this.texts.get(id);
    if (text && this.texts.delete(id)) this.characters -= text.text.length;
  }

  clear(): void {
    this.texts.clear();
    this.characters = 0;
  }

  /** Forgets what is too much. To be called once what was read is in use. */
  trim(): void {
    for (const id of this.texts.keys()) {
      if (this.characters <= this.most) return;
      this.delete(id);
    }
  }
}

import type { Gloss } from '../model/gloss';
import { asWholeWords, literally } from '../text/find-replace';
import type { Stretch } from '../model/stretch';

/** A place where a defined word stands. */
export interface GlossHit extends Stretch {
  readonly gloss: Gloss;
}

/**
 * Finds defined words in texts: whole words, capitals and small letters alike, in any form the researcher lists;
 * of forms that begin alike the longest. One pattern for all words, so that many glosses cost little more than one.
 */
export class GlossFinder {
  private readonly byForm = new Map<string, Gloss>();
  private readonly pattern: RegExp | null;

  constructor(glosses: readonly Gloss[]) {
    for (const gloss of glosses) for (const form of [gloss.term, ...gloss.forms]) this.byForm.set(key(form), gloss);
    // as they were written: a capital letter may have a small one of another length
    const forms = [...glosses].flatMap((gloss) => [gloss.term, ...gloss.forms]).map((form) => form.normalize('NFC').replace(/\s+/g, ' '));
    forms.sort((a, b) => b.length - a.length);
    const source = forms.map((form) => literally(form).replace(/ /g, String.raw`\s+`)).join('|');
    this.pattern = forms.length === 0 ? null : new RegExp(asWholeWords(source), 'giu');
  }

  /** Where defined words stand in a text, ascending. @param offset what is added to the positions found */
  in(text: string, offset = 0): GlossHit[] {
    if (!this.pattern) return [];
    return Array.from(text.matchAll(this.pattern)).flatMap((match): GlossHit[] => {
      const gloss = this.byForm.get(key(match[0]));
      return gloss ? [{ gloss, start: offset + match.index, end: offset + match.index + match[0].length }] : [];
    });
  }
}

const key = (form: string): string => form.normalize('NFC').replace(/\s+/g, ' ').toLowerCase();

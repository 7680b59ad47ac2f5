import type { Gloss } from '../model/gloss';
import type { Id } from '../model/ids';
import { tidyLine } from '../text/normalise';
import { added, removed, updated } from '../change/change';
import { CommandError, found, short, type Command } from '../change/command';

/** What a gloss says: a word, its other forms, and what it means. */
export type GlossFields = Pick<Gloss, 'term' | 'forms' | 'meaning'>;

function tidied({ term, forms, meaning }: GlossFields): GlossFields {
  const word = tidyLine(term);
  if (!word) throw new CommandError('A gloss needs a word.');
  const others = [...new Set(forms.map(tidyLine).filter((form) => form && form !== word))];
  return { term: word, forms: others, meaning: meaning.trim() };
}

/** Defines a word. @throws CommandError if the word is defined already, under this or another form */
export function addGloss(fields: GlossFields): Command {
  return (state, context) => {
    const next = tidied(fields);
    checkFree(Object.values(state.tables.gloss), next, null);
    const gloss: Gloss = { id: context.newId(), ...next, coderId: context.coderId, createdAt: context.now };
    return { change: [added('gloss', gloss)], sentence: `defined the word ${short(gloss.term)}` };
  };
}

/** Changes a gloss. */
export function editGloss(glossId: Id, fields: GlossFields): Command {
  return (state) => {
    const gloss = found(state.tables.gloss[glossId], 'gloss');
    const next = tidied(fields);
    checkFree(Object.values(state.tables.gloss), next, glossId);
    if (next.term === gloss.term && next.meaning === gloss.meaning && next.forms.join('\n') === gloss.forms.join('\n')) return null;
    return { change: [updated('gloss', gloss, next)], sentence: `changed the gloss of ${short(next.term)}` };
  };
}

/** Deletes a gloss. The word stays in the texts, of course. */
export function deleteGloss(glossId: Id): Command {
  return (state) => {
    const gloss = found(state.tables.gloss[glossId], 'gloss');
    return { change: [removed('gloss', gloss)], sentence: `deleted the gloss of ${short(gloss.term)}` };
  };
}

function checkFree(glosses: readonly Gloss[], { term, forms }: GlossFields, ownId: Id | null): void {
  const wanted = new Set([term, ...forms].map((form) => form.toLocaleLowerCase()));
  for (const gloss of glosses) {
    if (gloss.id === ownId) continue;
    const taken = [gloss.term, ...gloss.forms].find((form) => wanted.has(form.toLocaleLowerCase()));
    if (taken !== undefined) throw new CommandError(`“${taken}” is defined already, with ${short(gloss.term)}.`);
  }
}

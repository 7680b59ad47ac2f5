import type { Id } from './ids';
import type { MemoSubject } from './memo';

/** What a memo can speak of in its text: what it can be about, and other memos. */
export type Reference = MemoSubject | { readonly type: 'memo'; readonly id: Id };

const ADDRESS = /^filum:(code|document|case|query|memo|passage)\/([0-9a-f-]{36})(?:\/([0-9a-f-]{36}))?$/;

/** A reference as the address of a Markdown link: `filum:code/ID`, `filum:passage/DOCUMENT/ID`. */
export const addressOf = (reference: Reference): string =>
  reference.type === 'passage' ? `filum:passage/${reference.documentId}/${reference.id}` : `filum:${reference.type}/${reference.id}`;

/** The reference that an address stands for, or null where it is another address. */
export function referenceOf(address: string): Reference | null {
  const [, type, id = '', second] = ADDRESS.exec(address) ?? [];
  if (!type) return null;
  if (type === 'passage') return second ? { type, documentId: id, id: second } : null;
  return { type: type as Exclude<Reference['type'], 'passage'>, id };
}

/** References in a memo's text, each once. */
export function referencesIn(markdown: string): Reference[] {
  const found = new Map<string, Reference>();
  for (const [, address = ''] of markdown.matchAll(LINK)) {
    const reference = referenceOf(address);
    if (reference) found.set(address, reference);
  }
  return [...found.values()];
}

/** The same text with its references as they are now. @param now what a reference has become; the same where nothing became of it */
export const withReferences = (markdown: string, now: (reference: Reference) => Reference): string =>
  markdown.replace(LINK, (link, address: string) => {
    const reference = referenceOf(address);
    return reference ? `](${addressOf(now(reference))})` : link;
  });

const LINK = /\]\((filum:[^)\s]+)\)/g;

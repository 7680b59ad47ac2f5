import type { JournalEntry } from './journal-schema';

/**
 * What an entry touches, as words to look it up by: `code:ID` where the record of a code changed, `codebook` where
 * any did, `coding:ID` where a code was given or taken, `document:ID` for passages and texts in it, and `memo`,
 * `case`… for other records. Each word once.
 */
export function touchesOf(entry: Pick<JournalEntry, 'change'>): string[] {
  const touched = new Set<string>();
  for (const one of entry.change) {
    const record = (one.after ?? one.before)!;
    switch (one.type) {
      case 'code':
        touched.add('codebook').add(`code:${record.id}`);
        break;
      case 'document':
      case 'text':
        touched.add(`document:${record.id}`);
        break;
      case 'passage': {
        for (const side of [one.before, one.after]) if (side) touched.add(`document:${side.documentId}`);
        const before = new Set(one.before?.codings.map((coding) => coding.codeId));
        const after = new Set(one.after?.codings.map((coding) => coding.codeId));
        for (const id of before) if (!after.has(id)) touched.add(`coding:${id}`);
        for (const id of after) if (!before.has(id)) touched.add(`coding:${id}`);
        break;
      }
      default:
        touched.add(one.type);
    }
  }
  return [...touched];
}

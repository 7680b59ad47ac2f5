import { quoted } from '../text/quoted';
import { readMarkdown } from '../formats/markdown/read-markdown';
import type { Id } from '../model/ids';
import { composeText } from '../text/draft-text';
import { labelsOf } from '../text/speakers';
import { added, updated } from '../change/change';
import { CommandError, found, short, type Command } from '../change/command';

/** Makes a document of a memo, to be coded itself. Its description says where it came from. */
export function memoToDocument(memoId: Id): Command {
  return (state, context) => {
    const memo = found(state.tables.memo[memoId], 'memo');
    if (memo.entries.length === 0) throw new CommandError('There is nothing written in this memo yet.');
    const id = context.newId();
    const day = (time: number): string => new Date(time).toISOString().slice(0, 10);
    const markdown = memo.entries
      .map((entry) => `## ${day(entry.writtenAt)}\n\n${entry.text.replace(/\]\(filum:[^)]*\)/g, '](#)')}`)
      .join('\n\n');
    const composed = composeText(id, readMarkdown(markdown).paragraphs, labelsOf(new Set()));
    return {
      change: [
        added('document', {
          id,
          title: memo.title,
          ground: { of: 'text' },
          kind: 'field note',
          date: day(memo.createdAt),
          folderId: null,
          description: `From the memo ${quoted(memo.title)}, as it was on ${day(context.now)}.`,
          speakers: composed.speakers,
          characters: composed.text.text.length,
          words: composed.words,
          source: null,
          values: {},
          answers: [],
          createdAt: context.now,
        }),
        added('text', composed.text),
        updated('memo', memo, { also: [...(memo.also ?? []), { type: 'document', id }] }),
      ],
      sentence: `made a document of the memo ${short(memo.title)}`,
    };
  };
}

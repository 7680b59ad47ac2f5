import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Text } from '../core/model/document';
import type { WordSearch } from '../core/model/word-search';
import { WordFinder } from '../core/words/find-words';
import { IndexedWords } from '../core/words/vocabulary';
import { applyChange } from '../core/change/apply';
import { invert, type Change } from '../core/change/change';
import { carryOut } from '../core/commands/carry-out';
import { sweep } from '../core/commands/sweep';
import { sequentialIds, type Id } from '../core/model/ids';
import type { StudyState } from '../core/model/study-state';
import { report } from './report';
import { time } from './timing';

/** Words in the texts of the large study, beside `grep -F` on the same text in one file. */
export function benchWords(texts: readonly Text[], state: StudyState): void {
  const folder = mkdtempSync(join(tmpdir(), 'words-'));
  const file = join(folder, 'texts.txt');
  writeFileSync(file, texts.map((text) => text.text).join('\n'));
  const words = new IndexedWords();
  const plain: WordSearch = { typed: '', match: 'whole words', capitals: true, accents: true, unit: 'words' };
  const [, first = '', second = ''] = /([a-z]+) ([a-z]+)/.exec(texts[3]!.text.slice(400)) ?? [];
  const find = (search: WordSearch): number => {
    const finder = new WordFinder(search, words.vocabulary, 'en');
    let hits = 0;
    for (const text of texts) hits += finder.in(text, words.of(text)).length;
    return hits;
  };
  const phrase = { ...plain, typed: `"${first} ${second}"` };
  const cold = time(1, () => find(phrase));
  report({ what: 'a phrase over 8 million words, the first time: every word is numbered', value: cold, unit: 'ms' });
  const warm = time(7, () => find(phrase));
  const grep = time(7, () => execFileSync('grep', ['-F', '-c', `${first} ${second}`, file]));
  report({
    what: 'the same phrase again',
    value: warm,
    unit: 'ms',
    beside: { what: 'grep -F -c on the same text in one file', value: grep },
    promise: { words: 'at most 1.5 ×', kept: warm <= 1.5 * grep },
  });
  for (const [what, search] of [
    ['in all forms', { ...plain, typed: first, match: 'all forms', capitals: false }],
    ['near each other', { ...plain, typed: `${first} within 5 of ${second}`, capitals: false }],
    ['with a wildcard', { ...plain, typed: `${first.slice(0, 3)}*`, capitals: false }],
  ] as const) {
    const took = time(3, () => find(search));
    report({ what: `words ${what} over 8 million words`, value: took, unit: 'ms', promise: { words: 'under 1 s', kept: took < 1_000 } });
  }
  sweepOf(state);
  rmSync(folder, { recursive: true });
}

/** Ten thousand hits swept with a code as one step, and that taken back. */
function sweepOf(state: StudyState): void {
  const documents = Object.values(state.tables.document);
  const perDocument = Math.ceil(10_000 / documents.length);
  const swept = documents.map(({ id, characters }) => ({
    documentId: id,
    places: Array.from({ length: perDocument }, (_, at) => {
      const start = Math.floor(((at + 0.3) * characters) / (perDocument + 1));
      return { start, end: start + 9 };
    }),
  }));
  const newId = sequentialIds(900);
  const [coderId] = Object.keys(state.tables.coder) as [Id];
  const wanted = { codeIds: Object.keys(state.tables.code).slice(0, 1) };
  let change: Change = [];
  let after = state;
  const doing = time(3, () => {
    const action = carryOut(sweep(swept, wanted), state, { coderId, now: 1, newId })!;
    change = action.change;
    after = applyChange(state, change);
  });
  report({ what: 'sweeping 10,000 hits, one step', value: doing, unit: 'ms', promise: { words: 'under 1 s', kept: doing < 1_000 } });
  const undoing = time(3, () => applyChange(after, invert(change)));
  report({ what: 'and taking it back', value: undoing, unit: 'ms', promise: { words: 'under 1 s', kept: undoing < 1_000 } });
}

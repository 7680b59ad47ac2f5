import assert from 'node:assert/strict';
import fc from 'fast-check';
import { addWordList } from '../commands/word-lists';
import type { GroupsAsked, WordTableAsked } from '../model/pattern';
import { EVERYTHING, type Scope } from '../model/scope';
import { Narrowing } from '../queries/narrowing';
import { someScope } from '../testing/some-conditions';
import { studyToAsk } from '../testing/study-to-ask';
import { speakerAt } from '../text/paragraphs';
import { IndexedWords } from '../words/vocabulary';
import { groupAxisOf } from './group-axis';
import { wordRows, WordTableCounter } from './word-table';

describe('a table of words', () => {
  const { bench, documents, asked, studyOf } = studyToAsk();
  bench.do(addWordList({ name: 'weather', words: ['rain', 'wind'] }));
  const [listId] = Object.keys(bench.state.tables.wordList) as [string];
  const [talk, note] = documents;
  const study = studyOf(bench.state);
  const plain: WordTableAsked = { typed: [], wordListIds: [], groups: { by: 'document' }, as: 'as they are' };

  function count(asking: Partial<WordTableAsked>, scope: Scope = EVERYTHING, forms = false) {
    const table = { ...plain, ...asking };
    const narrowing = new Narrowing(scope, study);
    const all = Object.values(bench.state.tables.document).filter((one) => narrowing.holds(one, bench.texts.get(one.id) ?? null));
    const axis = groupAxisOf(table.groups, study, all);
    const rows = wordRows(table, bench.state.tables, ['late', 'we']);
    const counter = new WordTableCounter(rows, axis, study, narrowing, new IndexedWords(), forms);
    for (const document of all) counter.add(document, bench.texts.get(document.id) ?? null);
    const result = counter.result();
    return {
      ...result,
      at: (words: string, column: string | null): number => {
        const row = result.rows.findIndex((one) => one.entry.path[0] === words);
        const at = column === null ? result.columns.length : result.columns.findIndex((one) => one.key === column);
        assert.ok(row >= 0, words);
        return at < 0 ? 0 : result.counts[row * (result.columns.length + 1) + at]!;
      },
      hits: (words: string, column: string | null) => {
        const one = new WordTableCounter(
          [rows.find((row) => row.entry.path[0] === words)!],
          axis,
          study,
          narrowing,
          new IndexedWords(),
          forms,
        );
        return all.flatMap((document) => {
          const text = bench.texts.get(document.id);
          return text ? one.hitsIn(document, text, column).map((hit) => text.text.slice(hit.start, hit.end)) : [];
        });
      },
    };
  }

  it('counts each place where a word, a phrase or any of a list stands; worked out by hand', () => {
    const table = count({ typed: ['late', '"it was"', 'no*'], wordListIds: [listId] });
    expect(table.rows.map((one) => one.entry.path[0])).toEqual(['weather', 'late', '"it was"', 'no*']);
    expect([talk.id, note.id, null].map((at) => table.at('late', at))).toEqual([3, 0, 3]);
    expect(table.at('weather', note.id)).toBe(3);
    expect(table.hits('weather', note.id)).toEqual(['Rain', 'rain', 'wind']);
    expect(table.at('"it was"', talk.id)).toBe(1);
    expect(table.at('no*', null)).toBe(1);
    expect(table.sizes.at(-1)!.words).toBe(talk.words + note.words);
  });

  it('is of the words that are given, where none are named', () => {
    const table = count({});
    expect(table.rows.map((one) => one.entry.path[0])).toEqual(['late', 'we']);
    expect(table.at('we', null)).toBe(2);
  });

  it('takes forms of a word as one where that is asked', () => {
    expect(count({ typed: ['waiting'] }).at('waiting', null)).toBe(0);
    expect(count({ typed: ['waiting'] }, EVERYTHING, true).at('waiting', null)).toBe(1);
  });

  it('says what cannot be looked for, and counts the rest', () => {
    const table = count({ typed: ['(late', 'rain', '[gone]', '...'] });
    expect(table.rows.map((one) => one.entry.path[0])).toEqual(['rain']);
    expect(table.troubles.length).toBe(3);
    expect(table.troubles[0]).toContain('parenthesis');
  });

  it('counts in any scope and group what a walk over the words counts', () => {
    const groups: GroupsAsked[] = [{ by: 'document' }, { by: 'speaker' }, { by: 'case' }, { by: 'everything' }];
    fc.assert(
      fc.property(fc.constantFrom(...groups), someScope(asked), (by, scope) => {
        const table = count({ typed: ['late', 'rain'], groups: by }, scope);
        const narrowing = new Narrowing(scope, study);
        const found: { word: string; groups: readonly string[] }[] = [];
        for (const document of Object.values(bench.state.tables.document)) {
          const text = bench.texts.get(document.id);
          if (!text || !narrowing.holds(document, text)) continue;
          for (const { body, end } of text.paragraphs)
            for (const match of text.text.slice(body, end).matchAll(/[a-z]+/gi)) {
              const place = { start: body + match.index, end: body + match.index + match[0].length };
              if (!narrowing.keeps(document, text, [place])(0)) continue;
              const speaker = speakerAt(document, text, place.start);
              const cases = study.finder.of(document, text, place);
              const groupsHere = {
                document: [document.id],
                speaker: [speaker ? `=${speaker.name}` : ''],
                case: cases.length > 0 ? cases : [''],
                everything: ['all'],
              }[(by as { by: 'document' }).by];
              found.push({ word: match[0].toLowerCase(), groups: groupsHere });
            }
        }
        for (const word of ['late', 'rain'])
          for (const column of [...table.columns.map((one) => one.key), null]) {
            const wanted = found.filter((one) => one.word === word && (column === null || one.groups.includes(column))).length;
            assert.equal(table.at(word, column), wanted);
            assert.equal(table.hits(word, column).length, wanted);
          }
      }),
      { numRuns: 100 },
    );
  });
});

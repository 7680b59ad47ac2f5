import assert from 'node:assert/strict';
import fc from 'fast-check';
import type { Id } from '../model/ids';
import type { Passage } from '../model/passage';
import { CODERS_COUNT, COUNTED, GROUPED_BY, type GroupsAsked, type RowsAsked } from '../model/pattern';
import { EVERYTHING, type Scope } from '../model/scope';
import type { StudyState } from '../model/study-state';
import { withDescendants } from '../codebook/tree';
import { addSet } from '../commands/sets';
import { caseFinderOf } from '../passages/case-finder';
import { unpackPassages } from '../passages/columns';
import { overlaps } from '../passages/relations';
import { AskedStudy } from '../queries/asked-study';
import { Evaluation } from '../queries/evaluate';
import { Narrowing } from '../queries/narrowing';
import { findWords } from '../text/words';
import { speakerAt } from '../text/paragraphs';
import { Bench } from '../testing/make';
import { someScope } from '../testing/some-conditions';
import { studyToAsk } from '../testing/study-to-ask';
import { cellQuestion } from './cell-question';
import { CrossCounter } from './cross-table';
import type { CountedTable } from './table-measure';

describe('a cross-table', () => {
  const { bench, documents, asked, packed, someStudy, studyOf } = studyToAsk();
  const [talk, note, tape] = documents;
  const [ann] = asked.cases as [Id, Id];
  const [sea, waiting] = asked.codes as [Id, Id];
  const [age, place] = asked.attributes as [Id, Id];

  function count(state: StudyState, table: CountedTable, scope: Scope = EVERYTHING) {
    const study = studyOf(state);
    const narrowing = new Narrowing(scope, study);
    const inScope = Object.values(state.tables.document).filter((one) => narrowing.holds(one, bench.texts.get(one.id) ?? null));
    const counter = new CrossCounter(table, study, narrowing, inScope);
    const textOf = (id: Id) => bench.texts.get(id) ?? null;
    for (const document of inScope) counter.add(state.passages[document.id] ?? null, document, textOf(document.id));
    const result = counter.result(Object.values(state.passages));
    const width = result.columns.length + 1;
    return {
      ...result,
      at: (row: string | null, column: string | null): number => {
        const r = row === null ? result.rows.length : result.rows.findIndex((one) => one.key === row);
        const c = column === null ? width - 1 : result.columns.findIndex((one) => one.key === column);
        assert.ok(r >= 0, `row ${row}`);
        return c < 0 ? 0 : result.counts[r * width + c]!;
      },
      evidence: (row: number, column: number) =>
        inScope.flatMap((document) => {
          const columns = state.passages[document.id];
          if (!columns) return [];
          const evidence = counter.evidenceIn(columns, document, textOf(document.id), { row, column });
          // whoever asks leaves out documents of which this is said before their texts are read
          assert.ok(evidence.hits.length === 0 || counter.mayConcern(document, { row, column }), `${document.title} may concern the cell`);
          return [evidence];
        }),
      groups: counter.groups.entries,
    };
  }

  const passage = (documentId: Id, start: number, end: number, ...codings: [codeId: Id, coder: number][]): Passage => ({
    ...{ id: bench.newId(), documentId, start, end, comment: '', coderId: asked.coders[0]!, createdAt: 1 },
    codings: codings.map(([codeId, coder]) => ({ codeId, coderId: asked.coders[coder]!, createdAt: 1 })),
  });
  const plain: CountedTable = {
    rows: { of: 'codes', codeIds: null, withUnder: false },
    columns: { by: 'document' },
    counting: 'passages',
    coders: 'together',
  };

  it('counts passages, codings, cases, documents and words: worked out by hand', () => {
    // Talk: Ann (a case) 0–29, Bob asks, Ann again; two coders mark nearly the same words
    const state = packed([
      [
        passage(talk.id, 5, 15, [waiting, 0]),
        passage(talk.id, 5, 20, [waiting, 1]),
        passage(talk.id, 6, 9, [waiting, 0]),
        passage(talk.id, 60, 66, [waiting, 0], [sea, 0]),
      ],
      [passage(note.id, 0, 8, [sea, 0])],
      [passage(tape.id, 0, 30, [sea, 0]), passage(tape.id, 20, 50, [sea, 0])],
      [],
    ]);
    const of = (counting: CountedTable['counting'], coders: CountedTable['coders'] = 'together') =>
      count(state, { ...plain, counting, coders });
    // the three that two coders marked over each other count once; the fourth stands apart
    expect(of('passages').at(waiting, talk.id)).toBe(2);
    expect(of('passages', 'each passage').at(waiting, talk.id)).toBe(4);
    expect(of('passages').severalCoders).toBeTrue();
    // one coder’s overlapping passages stay two
    expect(of('passages').at(sea, tape.id)).toBe(2);
    expect(of('codings').at(waiting, talk.id)).toBe(4);
    expect(of('codings').at(null, null)).toBe(8);
    expect(of('cases').at(sea, null)).toBe(2);
    expect(of('documents').at(sea, null)).toBe(3);
    expect(of('words').at(waiting, talk.id)).toBe(findWords(bench.texts.get(talk.id)!.text.slice(5, 20)).length + 1);
    expect(of('seconds').at(sea, tape.id)).toBe(50);
    const under = count(state, { ...plain, rows: { of: 'top codes' } });
    expect(under.at(sea, talk.id)).toBe(2);
    expect(under.rows.map((one) => one.path)).toEqual([['Sea'], ['Help'], ['Calm']]);
  });

  it('nests attributes, keeps the unknown apart and says how large groups are', () => {
    const state = packed([
      [passage(talk.id, 5, 15, [waiting, 0])],
      [passage(note.id, 0, 8, [sea, 0])],
      [passage(tape.id, 0, 30, [sea, 0])],
      [],
    ]);
    const table = count(state, { ...plain, columns: { nested: [{ attributeId: place }, { attributeId: age, cuts: [40] }] } });
    const named = table.columns.map((one) => one.path.join(' / '));
    expect(named).toEqual(['Saltpans / 40 and over', 'not known / 40 and over', 'not known / not known']);
    expect(named.map((_, at) => table.counts[at + (named.length + 1) * table.rows.findIndex((one) => one.key === sea)])).toEqual([1, 0, 1]);
    expect(table.sizes.map((one) => one.cases)).toEqual([1, 1, 1, 2]);
    // words of the groups do not divide the text of the whole study twice
    expect(table.sizes.at(-1)!.words).toBe(talk.words + note.words);
  });

  it('counts a document in every set that it is in, and once in all', () => {
    const own = new Bench();
    const code = own.addCode('Sea');
    const [one, other] = [own.addDocument('One', ['The sea was calm.']), own.addDocument('Other', ['No sea here.'])];
    own.code(one, 4, 7, code);
    own.code(one, 8, 11, code);
    own.code(other, 3, 6, code);
    own.run(addSet('document', 'First', [one.id]));
    own.run(addSet('document', 'Second', [one.id, other.id]));
    own.run(addSet('document', 'Third', [one.id]));
    for (const counting of ['passages', 'codings'] as const) {
      const study = new AskedStudy(
        own.state.tables,
        () => Object.values(own.state.passages),
        'en',
        () => 0,
      );
      const counter = new CrossCounter({ ...plain, columns: { by: 'set' }, counting }, study, new Narrowing(EVERYTHING, study), [
        one,
        other,
      ]);
      for (const document of [one, other]) counter.add(own.state.passages[document.id]!, document, own.texts.get(document.id)!);
      expect([...counter.result(Object.values(own.state.passages)).counts]).toEqual([2, 3, 2, 3, 2, 3, 2, 3]);
      // taken away again from every one of them
      expect([...counter.result([own.state.passages[other.id]!]).counts]).toEqual([0, 1, 0, 1, 0, 1, 0, 1]);
    }
  });

  const someRows: fc.Arbitrary<RowsAsked> = fc.constantFrom<RowsAsked>(
    { of: 'codes', codeIds: null, withUnder: false },
    { of: 'codes', codeIds: asked.codes.slice(0, 3), withUnder: true },
    { of: 'top codes' },
    { of: 'code sets', setIds: null },
    { of: 'queries', queryIds: null },
  );
  const someColumns: fc.Arbitrary<GroupsAsked> = fc.constantFrom<GroupsAsked>(
    ...GROUPED_BY.map((by) => ({ by })),
    { nested: [{ attributeId: age }] },
    { nested: [{ attributeId: place }, { attributeId: age, cuts: [30, 50] }] },
  );

  const someTable: fc.Arbitrary<CountedTable> = fc.record({
    rows: someRows,
    columns: someColumns,
    counting: fc.constantFrom(...COUNTED),
    coders: fc.constantFrom(...CODERS_COUNT),
  });

  it('is what counting passage by passage says, of all rows, columns and scopes', () => {
    fc.assert(
      fc.property(someStudy(), someTable, fc.oneof(fc.constant(EVERYTHING), someScope(asked)), (state, asking, scope) => {
        const counted = count(state, asking, scope);
        const naive = naiveCells(state, asking, scope);
        for (const row of [...counted.rows.map((one) => one.key), null])
          for (const column of [...counted.columns.map((one) => one.key), null])
            assert.equal(counted.at(row, column), naive(row, column), `${row} × ${column}`);
        // what was left out of the columns holds nothing
        for (const { key } of counted.groups) if (!counted.columns.some((one) => one.key === key)) assert.equal(naive(null, key), 0);
      }),
      { numRuns: 400 },
    );
  });

  it('opens each cell to as many passages as it counts', () => {
    fc.assert(
      fc.property(someStudy(), someRows, someColumns, fc.constantFrom(...CODERS_COUNT), (state, rows, columns, coders) => {
        const table = count(state, { rows, columns, coders, counting: 'passages' });
        const cases = count(state, { rows, columns, coders, counting: 'cases' });
        for (let row = 0; row <= table.rows.length; row++)
          for (const column of [...table.columns, null]) {
            const at = column === null ? table.groups.length : table.groups.findIndex((one) => one.key === column.key);
            const found = table.evidence(row, at);
            const key = table.rows[row]?.key ?? null;
            assert.equal(
              found.reduce((sum, one) => sum + one.places, 0),
              table.at(key, column?.key ?? null),
            );
            if (coders === 'each passage') assert.equal(found.flatMap((one) => one.hits).length, table.at(key, column?.key ?? null));
            assert.equal(new Set(found.flatMap((one) => one.cases)).size, cases.at(key, column?.key ?? null));
          }
      }),
      { numRuns: 150 },
    );
  });

  it('is asked as a question that finds the very passages of the cell, where there is such a question', () => {
    fc.assert(
      fc.property(someStudy(), someRows, someColumns, (state, rows, columns) => {
        const table = count(state, { rows, columns, coders: 'each passage', counting: 'passages' });
        const study = studyOf(state);
        for (let row = 0; row <= table.rows.length; row++)
          for (const column of [...table.columns, null]) {
            const question = cellQuestion(state, rows, columns, { row: table.rows[row]?.key ?? null, column: column?.key ?? null });
            if (!question) continue;
            const at = column === null ? table.groups.length : table.groups.findIndex((one) => one.key === column.key);
            const evaluation = new Evaluation(question, study, new Narrowing(EVERYTHING, study));
            const answer = Object.values(state.passages).flatMap((some) =>
              evaluation.hitsIn(some, state.tables.document[some.documentId]!, bench.texts.get(some.documentId) ?? null),
            );
            assert.deepEqual(
              new Set(answer.map((hit) => hit.passageId)),
              new Set(table.evidence(row, at).flatMap((one) => one.hits.map((hit) => hit.passageId))),
            );
          }
      }),
      { numRuns: 100 },
    );
  });

  it('adds what changed and takes away what was, so that it is what counting all anew says', () => {
    fc.assert(
      fc.property(someStudy(), someStudy(), someTable, (before, after, table) => {
        const study = studyOf(before);
        const inScope = Object.values(before.tables.document);
        const counter = new CrossCounter(table, study, new Narrowing(EVERYTHING, study), inScope);
        const changed = { ...before, passages: { ...before.passages, [talk.id]: after.passages[talk.id]! } };
        const emptied = { ...changed, passages: { [talk.id]: changed.passages[talk.id]!, [tape.id]: changed.passages[tape.id]! } };
        for (const state of [before, changed, emptied, changed, before]) {
          for (const document of inScope) {
            const columns = state.passages[document.id] ?? null;
            if (!counter.knows(columns, document)) counter.add(columns, document, bench.texts.get(document.id) ?? null);
          }
          // sets and queries may hold others after a change, and are made ready anew
          if (table.rows.of === 'queries' || table.rows.of === 'code sets') continue;
          assert.deepEqual([...counter.result(Object.values(state.passages)).counts], [...count(state, table).counts]);
        }
      }),
      { numRuns: 100 },
    );
  });

  /** The definition, cell by cell: every passage is asked whether it belongs there. */
  function naiveCells(state: StudyState, { rows, columns, counting, coders }: CountedTable, scope: Scope) {
    const study = studyOf(state);
    const narrowing = new Narrowing(scope, study);
    const textOf = (id: Id) => bench.texts.get(id) ?? null;
    const { tables } = state;
    const finder = caseFinderOf(tables.case);
    const left = Object.values(state.passages).flatMap((some) => {
      const of = narrowing.leftOf(some, tables.document[some.documentId]!, textOf(some.documentId));
      return of ? unpackPassages(of) : [];
    });
    const codesOf = (row: string | null): ReadonlySet<Id> | null => {
      if (rows.of === 'queries') return null;
      if (row === null) {
        const chosen = rows.of === 'codes' ? (rows.codeIds ?? asked.codes) : null;
        if (rows.of === 'code sets') return new Set(tables.codeSet[asked.codeSets[0]!]!.codeIds);
        return new Set(
          (chosen ?? asked.codes).flatMap((id) => (rows.of === 'codes' && rows.withUnder ? withDescendants(tables.code, id) : [id])),
        );
      }
      if (rows.of === 'code sets') return new Set(tables.codeSet[row]!.codeIds);
      return new Set(rows.of === 'top codes' || rows.withUnder ? withDescendants(tables.code, row) : [row]);
    };
    const inRow = (one: Passage, row: string | null): Passage['codings'] | null => {
      const codes = codesOf(row);
      // the one kept query asks for Waiting
      const holds = codes ? one.codings.some(({ codeId }) => codes.has(codeId)) : one.codings.some(({ codeId }) => codeId === waiting);
      return holds ? one.codings.filter(({ codeId }) => !codes || codes.has(codeId)) : null;
    };
    const casesOf = (one: Passage): readonly Id[] => finder.of(tables.document[one.documentId]!, textOf(one.documentId), one);
    const fact = (
      document: Id,
      caseId: Id | null,
      { attributeId, cuts }: { attributeId: Id; cuts?: readonly (number | string)[] },
    ): string => {
      if (attributeId === place)
        return tables.document[document]!.values[place] === undefined ? '?' : `=${String(tables.document[document]!.values[place])}`;
      if (caseId === null) return '';
      const value = tables.case[caseId]!.values[age];
      if (value === undefined) return '?';
      return cuts ? `#${cuts.filter((cut) => Number(cut) <= Number(value)).length}` : `=${String(value)}`;
    };
    /** Groups of a passage as one of a case, or of nobody. */
    const groupsAs = (one: Passage, caseId: Id | null, codings: Passage['codings']): string[] => {
      const document = tables.document[one.documentId]!;
      if ('nested' in columns) return [JSON.stringify(columns.nested.map((level) => fact(document.id, caseId, level)))];
      switch (columns.by) {
        case 'everything':
          return ['all'];
        case 'document':
          return [document.id];
        case 'folder':
          return [document.folderId ?? ''];
        case 'month':
          return [document.id === talk.id ? '2025-02' : ''];
        case 'kind':
          return [document.kind];
        case 'coder':
          return codings.map(({ coderId }) => coderId);
        case 'case':
          return [caseId ?? ''];
        case 'speaker': {
          const speaker = speakerAt(document, textOf(document.id), one.start);
          return [speaker ? `=${speaker.name}` : ''];
        }
        case 'question':
          return document.ground.of === 'text' && document.answers.some((answer) => overlaps(answer, one)) ? [asked.questions[0]!] : [''];
        case 'set': {
          const [notes, women] = asked.sets as [Id, Id];
          const sets = [...(document.id === note.id ? [notes] : []), ...(caseId === ann ? [women] : [])];
          return sets.length > 0 ? sets : [''];
        }
      }
    };
    const groupsOf = (one: Passage, codings: Passage['codings']): Set<string> => {
      const cases = casesOf(one);
      return new Set((cases.length > 0 ? cases : [null]).flatMap((id) => groupsAs(one, id, codings)));
    };
    return (row: string | null, column: string | null): number => {
      const found = left.flatMap((one) => {
        const codings = inRow(one, row);
        return codings ? [{ one, codings }] : [];
      });
      const here = found.filter(({ one, codings }) => column === null || groupsOf(one, codings).has(column));
      switch (counting) {
        case 'passages': {
          const byCoder = 'by' in columns && columns.by === 'coder' && column !== null;
          if (coders === 'each passage' || byCoder) return here.length;
          // grown together from each in turn, until nothing more joins
          const groups: (typeof found)[] = [];
          const waitingFor = new Set(found);
          for (const first of found) {
            if (!waitingFor.delete(first)) continue;
            const group = [first];
            for (const member of group)
              for (const other of [...waitingFor])
                if (
                  other.one.documentId === member.one.documentId &&
                  overlaps(other.one, member.one) &&
                  other.codings.some((a) => member.codings.some((b) => a.coderId !== b.coderId))
                ) {
                  waitingFor.delete(other);
                  group.push(other);
                }
            groups.push(group);
          }
          return groups.filter((group) => group.some((one) => here.includes(one))).length;
        }
        case 'codings':
          return here.reduce(
            (sum, { codings }) =>
              sum +
              ('by' in columns && columns.by === 'coder' && column !== null
                ? codings.filter((one) => one.coderId === column).length
                : codings.length),
            0,
          );
        case 'documents':
          return new Set(here.map(({ one }) => one.documentId)).size;
        case 'cases':
          return new Set(
            found.flatMap(({ one, codings }) =>
              casesOf(one).filter((id) => column === null || groupsAs(one, id, codings).includes(column)),
            ),
          ).size;
        case 'words':
        case 'seconds': {
          let sum = 0;
          for (const document of documents) {
            const own = here.filter(({ one }) => one.documentId === document.id);
            const text = textOf(document.id);
            if (counting === 'seconds' && document.ground.of === 'time')
              for (let at = 0; at < 60; at++) sum += Number(own.some(({ one }) => one.start <= at && at < one.end));
            if (counting === 'words' && text)
              for (const { body, end } of text.paragraphs)
                for (const word of findWords(text.text.slice(body, end)))
                  sum += Number(own.some(({ one }) => one.start < body + word.end && body + word.start < one.end));
          }
          return sum;
        }
      }
    };
  }
});

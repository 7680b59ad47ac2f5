import { readFileSync } from 'node:fs';
import { added } from '../change/change';
import { addDocuments, belongTo } from '../commands/documents';
import { addSet, changeMembers } from '../commands/sets';
import { codePlace } from '../commands/passages';
import { addMemo, linkMemo } from '../commands/memos';
import { ownDocuments, ownStretch } from '../commands/cases';
import { keepPattern } from '../commands/patterns';
import { noteAbsence } from '../commands/absences';
import { addProposition, noteOnCase, seeProposition } from '../commands/propositions';
import { keepScope } from '../commands/scopes';
import { keepSearch } from '../commands/searches';
import { addWordList } from '../commands/word-lists';
import type { StudyBundle } from '../formats/study-file/bundle';
import { readStudyFile } from '../formats/study-file/read-study-file';
import { addressOf } from '../model/address';
import { rowsOf, type Area } from '../model/area';
import type { Id } from '../model/ids';
import type { Place } from '../model/stretch';
import { unpackPassages } from '../passages/columns';
import { Bench } from './make';

/** A study file of a data version, as that version wrote it. From version 5 on it holds a record of every type. */
export const studyFileOf = (version: number): Promise<StudyBundle> =>
  readStudyFile(new Blob([readFileSync(`core/formats/study-file/fixtures/version-${version}.filum`)]));

/** A bench with records of every type that point at each other in every way there is, over documents of every ground. */
export async function benchWithEverything(): Promise<Bench> {
  const bundle = await studyFileOf(6);
  const bench = new Bench(15);
  const [coderId] = Object.keys(bundle.state.tables.coder) as [Id];
  bench.state = bundle.state;
  bench.coderId = coderId;
  for (const [id, text] of bundle.texts) bench.texts.set(id, text);
  const first = Object.values(bench.state.tables.document)[0]!;
  const [caseId] = Object.keys(bench.state.tables.case) as [Id];
  const byHand = Object.values(bench.state.tables.set).find((set) => !set.condition)!;
  const codes = Object.keys(bench.state.tables.code);
  bench.do(() => ({ change: [added('question', { id: bench.newId(), text: 'And the bridge?', order: 1 })], sentence: 'asked' }));
  for (const title of ['Field note', 'Letter']) {
    const made = bench.draft(title, ['The pier was empty.', 'Nobody spoke of the bridge.', 'We waited until the light went.']);
    bench.do(addDocuments([{ document: { ...made.document, folderId: first.folderId }, text: made.text }]));
    const { id } = made.document;
    bench.do(changeMembers(byHand.id, [id], true));
    bench.do(ownDocuments(caseId, [id], true));
    bench.do(ownStretch(caseId, { documentId: id, start: 10, end: 40 }, true));
    for (const [at, codeId] of codes.entries())
      bench.do(codePlace({ documentId: id, place: { start: at * 9, end: at * 9 + 25 }, codeIds: [codeId] }));
  }
  const tape = bench.record('Ferry horn', 60);
  const plan = bench.draw('Plan of the pier', 40, 30);
  const ground = (id: Id, at: number): Place => {
    const area: Area = { shape: 'ellipse', x: 3 * at, y: 2 * at, width: 12, height: 9 };
    return id === plan.id ? { ...rowsOf(area), area } : { start: at * 9, end: at * 9 + 25 };
  };
  for (const id of [tape.id, plan.id])
    for (const [at, codeId] of codes.entries()) bench.do(codePlace({ documentId: id, place: ground(id, at), codeIds: [codeId] }));
  const [setId] = Object.keys(bench.state.tables.set) as [Id];
  const [attributeId] = Object.keys(bench.state.tables.attribute) as [Id];
  bench.do(
    keepScope('Some', {
      parts: [
        { liesIn: { documentIds: [first.id], folderIds: Object.keys(bench.state.tables.folder), setIds: [setId] } },
        { ofCases: [caseId] },
        { spokenBy: 'these', caseIds: [caseId], names: ['Ann'] },
        { answers: Object.keys(bench.state.tables.question) },
        { attributeId, comparison: 'is', values: ['44'] },
        { dated: { from: '2025-01-01' } },
        { placed: 'of a case' },
      ],
      given: { coderIds: [coderId] },
    }),
  );
  bench.do(addWordList({ name: 'ferry', words: ['boat', 'last ferry'] }));
  bench.do(keepSearch('Ferries', { typed: '[ferry] not late', match: 'whole words', capitals: false, accents: false, unit: 'turn' }));
  const carries = (codeId: Id) => ({
    carries: 'any' as const,
    codes: { codeIds: [codeId], setIds: [], withUnder: false },
    reach: 'passage' as const,
  });
  const waiting = {
    name: 'Who waits also worries',
    where: [{ has: true, that: { standing: 'overlaps' as const, to: carries(codes[0]!) } }],
    then: [{ has: false, that: { all: [carries(codes[1]!), { attributeId, comparison: 'is' as const, values: ['44'] }] } }],
  };
  bench.do(addProposition(waiting));
  const [propositionId] = Object.keys(bench.state.tables.proposition) as [Id];
  bench.do(noteOnCase(propositionId, caseId, 'She never waited.'));
  bench.do(seeProposition(propositionId, [caseId], []));
  const scope = { parts: [{ ofCases: [caseId] }, { liesIn: { documentIds: [first.id], folderIds: [], setIds: [] } }] };
  const rows = { of: 'codes' as const, codeIds: codes, withUnder: false };
  bench.do(
    keepPattern(
      'Who talks of what',
      {
        ...{ pattern: 'cross-table', rows, columns: { nested: [{ attributeId, cuts: [40] }] }, counting: 'passages', coders: 'together' },
        ...{ as: 'per case', turned: false, empty: 'all' },
      },
      scope,
    ),
  );
  bench.do(keepPattern('The thread of one', { pattern: 'weave', documentIds: [first.id, plan.id], rows, by: 'position' }, scope));
  bench.do(
    keepPattern(
      'Who is like whom',
      {
        ...{ pattern: 'similarity', compared: 'cases', rows, occurring: 'documents', by: 'presence', coders: 'together' },
        ...{ attributeIds: [attributeId], clusters: 2 },
      },
      scope,
    ),
  );
  bench.do(keepPattern('How old', { pattern: 'attributes', of: { attributeId }, against: null, as: 'as they are' }, { parts: [] }));
  bench.do(keepPattern('Who begins', { pattern: 'taking-up', rows, groups: { by: 'speaker' }, apart: 3, shown: 'who takes it on' }, scope));
  bench.do(
    keepPattern(
      'What leads to what',
      {
        ...{ pattern: 'together', rows, by: 'near', within: { count: 1, unit: 'turn' }, coders: 'together', as: 'counts' },
        ...{ shown: 'flow', to: { of: 'codes', codeIds: [codes[1]!], withUnder: true } },
      },
      scope,
    ),
  );
  const [wordListId] = Object.keys(bench.state.tables.wordList) as [Id];
  bench.do(
    keepPattern(
      'Where ferries are spoken of',
      {
        ...{ pattern: 'words', run: 1, forms: false, withoutStopWords: true, kept: [], left: [], minimum: 2, shown: 'table' },
        table: { typed: ['late'], wordListIds: [wordListId], groups: { nested: [{ attributeId }] }, as: 'per 1,000 words' },
      },
      scope,
    ),
  );
  const asks = { what: { queryId: Object.keys(bench.state.tables.query)[0]! }, comparison: 'is' as const, value: true };
  bench.do(addSet('case', 'Who is found', [], [asks]));
  const absent = { all: [carries(codes[0]!), { ofCases: [caseId] }] };
  bench.do(noteAbsence({ question: absent, scope, title: 'Not found: Speed · Ellen', note: 'She would have spoken of it.' }));
  bench.do(belongTo([first.id], tape.id));
  bench.do(ownStretch(caseId, { documentId: tape.id, start: 10, end: 40 }, true));
  // a memo that is linked to everything there is, and speaks of it in its text
  const subjects = [
    ...Object.values(bench.state.passages).flatMap((columns) =>
      unpackPassages(columns).map(({ id, documentId }) => ({ type: 'passage' as const, id, documentId })),
    ),
    ...codes.map((id) => ({ type: 'code' as const, id })),
    ...(['document', 'case', 'query'] as const).flatMap((type) => Object.keys(bench.state.tables[type]).map((id) => ({ type, id }))),
  ];
  const text = subjects.map((subject) => `[it](${addressOf(subject)})`).join(' ');
  bench.do(addMemo({ title: 'Of everything', kind: 'analytic', about: null, text }));
  const memo = Object.values(bench.state.tables.memo).find((one) => one.title === 'Of everything')!;
  for (const subject of subjects) bench.do(linkMemo(memo.id, subject, true));
  return bench;
}

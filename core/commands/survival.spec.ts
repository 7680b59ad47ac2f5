import fc from 'fast-check';
import { checkStudy, danglingIn } from '../integrity/check-study';
import { rowsOf, type Area } from '../model/area';
import type { Document, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { Place } from '../model/stretch';
import type { StudyState } from '../model/study-state';
import { unpackPassages } from '../passages/columns';
import { ACTS_OF_PATTERNS } from '../testing/acts-of-patterns';
import type { Bench } from '../testing/make';
import { named, one, type Acts } from '../testing/picking';
import { benchWithEverything } from '../testing/everything';
import { applyChange } from '../change/apply';
import { invert, type Change } from '../change/change';
import { checkChange } from '../change/check-change';
import { CommandError, type Action } from '../change/command';
import { changeType, deleteAttribute, joinChoices } from './attributes';
import { deleteCases } from './cases';
import { addCodeSet, deleteCodeSet } from './code-sets';
import { anchorPassages, copyCode, moveCodes, retireCodes } from './codebook-work';
import { deleteCodes } from './codes';
import { correctTexts } from './correct-text';
import { addFolder, belongTo, deleteDocuments, markRead, moveDocuments, removeFolder } from './documents';
import { acceptProposal, declineProposal, proposeCode } from './freeze';
import { joinCodes } from './join-codes';
import { deleteMemos } from './memos';
import { moveCodings } from './move-codings';
import { codePlace, removeCoding, removePassage } from './passages';
import { joinQuestions, removeQuestion } from './questions';
import { addRelation, deleteRelation } from './relations';
import { codePage } from './pages';
import { resizePicture, showPicture } from './pictures';
import { beginTranscript, setTime } from './recordings';
import { movePassage, recode } from './reshape-passages';
import { addSet, deleteSet } from './sets';
import { addSorting, deleteSorting, groupsToCategories } from './sortings';
import { joinDocuments, splitDocument } from './split-join';
import { noteAbsence, takeAbsenceBack } from './absences';
import { deletePattern } from './patterns';
import { addProposition, deleteProposition, noteOnCase, seeProposition } from './propositions';
import { deleteQuery, saveQuery } from './queries';
import { deleteScope, keepScope } from './scopes';
import { deleteSearch, keepSearch } from './searches';
import { addWordList, deleteWordList, editWordList } from './word-lists';

const somePassage = (state: StudyState, at: number) => {
  const all = Object.values(state.passages).flatMap(unpackPassages);
  return all[at % Math.max(1, all.length)]!;
};
/** A place of a document of any ground, mostly within it. */
function somePlace(state: StudyState, documentId: Id, at: number, size: number): Place {
  const document = state.tables.document[documentId]!;
  if (document.ground.of !== 'picture') return { start: at % 30, end: (at % 30) + 1 + (size % 40) };
  const area: Area =
    size % 3 === 0
      ? { shape: 'polygon', corners: [at, at + size, size].map((one) => ({ x: one % 40, y: (one * 7) % 30 })) }
      : { shape: size % 3 === 1 ? 'rectangle' : 'ellipse', x: at % 30, y: size % 25, width: 1 + (size % 12), height: 1 + (at % 8) };
  return { ...rowsOf(area), area };
}
const text = (bench: Bench, at: number): Text => {
  const texts = Object.values(bench.state.tables.document).flatMap((document) => bench.texts.get(document.id) ?? []);
  return texts[at % Math.max(1, texts.length)] ?? nothingWritten();
};
function nothingWritten(): never {
  throw new CommandError('There is no text left.');
}

/** Everything that joins, deletes, divides, moves and makes, on whatever the numbers choose. */
const ACTS: Acts = {
  'delete a code': ({ state }, [a]) => deleteCodes([one(state, 'code', a)]),
  'join codes': ({ state }, [a, b]) => joinCodes(one(state, 'code', a), [one(state, 'code', b)]),
  'move a code': ({ state }, [a, b]) => moveCodes([one(state, 'code', a)], b % 3 === 0 ? null : one(state, 'code', b)),
  'copy a code': ({ state }, [a, b]) => copyCode(one(state, 'code', a), `Copy ${b}`, true),
  'retire a code': ({ state }, [a]) => retireCodes([one(state, 'code', a)], true),
  'give a code': ({ state }, [a, b, c]) =>
    codePlace({
      documentId: one(state, 'document', a),
      place: somePlace(state, one(state, 'document', a), b, c),
      codeIds: [one(state, 'code', c)],
    }),
  'take a code off': ({ state }, [a]) => {
    const passage = somePassage(state, a);
    return removeCoding(passage.documentId, passage.id, passage.codings[0]?.codeId ?? '');
  },
  'move codings': ({ state }, [a, b]) => {
    const passage = somePassage(state, a);
    const at = [{ documentId: passage.documentId, passageId: passage.id }];
    return moveCodings(passage.codings[0]?.codeId ?? '', at, { codeIds: [one(state, 'code', b)] });
  },
  'put a code instead': ({ state }, [a, b]) => {
    const passage = somePassage(state, a);
    return recode(passage.documentId, passage.id, passage.codings[0]?.codeId ?? '', { codeIds: [one(state, 'code', b)] });
  },
  'remove a passage': ({ state }, [a]) => removePassage(somePassage(state, a).documentId, somePassage(state, a).id),
  'move a passage': ({ state }, [a, b, c]) => {
    const passage = somePassage(state, a);
    const there = somePassage(state, b);
    const place = c % 2 === 0 && there.documentId === passage.documentId ? there : somePlace(state, passage.documentId, b, c);
    return movePassage(passage.documentId, passage.id, place);
  },
  'anchor a passage': ({ state }, [a, b]) => {
    const passage = somePassage(state, a);
    return anchorPassages(one(state, 'code', b), [{ documentId: passage.documentId, passageId: passage.id }], true);
  },
  'let a document belong': ({ state }, [a, b]) => belongTo([one(state, 'document', a)], b % 4 === 0 ? null : one(state, 'document', b)),
  'mark how far it is read': ({ state }, [a, b]) => markRead(one(state, 'document', a), b),
  'divide a document': (bench, [a, b]) => splitDocument(text(bench, a), b % Math.max(1, text(bench, a).text.length), `Rest ${b}`),
  'put documents together': (bench, [a, b]) => joinDocuments(text(bench, a), text(bench, b)),
  'delete a document': (bench, [a]) => deleteDocuments([one(bench.state, 'document', a)], [...bench.texts.values()]),
  'correct a text': (bench, [a, b, c]) => {
    const from = b % Math.max(1, text(bench, a).text.length);
    const to = Math.min(text(bench, a).text.length, from + (c % 30));
    return correctTexts([{ text: text(bench, a), edits: [{ from, to, insert: 'x '.repeat(c % 3) }] }]);
  },
  'type what is heard': (bench, [a, b, c]) => {
    const typed = text(bench, a);
    const at = b % Math.max(1, typed.text.length);
    const times = [
      { at, value: c },
      { at: typed.text.length, value: c + b },
    ];
    return correctTexts([
      { text: typed, edits: [{ from: at, to: at, insert: '\nEllen: so ' }], heard: { times, speakers: new Set(['Ellen', 'I']) } },
    ]);
  },
  'note a time': (bench, [a, b, c]) => setTime(text(bench, a), b % Math.max(1, text(bench, a).text.length), c % 5 === 0 ? null : c),
  'begin a transcript': (bench, [a, b]) => beginTranscript(one(bench.state, 'document', a), `Transcript ${b}`, bench.newId()),
  'show a picture otherwise': ({ state }, [a, b, c]) =>
    showPicture(
      one(state, 'document', a),
      (['turn', 'mirror', 'whole', { crop: { left: b % 30, top: c % 20, right: (b % 30) + 5, bottom: (c % 20) + 5 } }] as const)[b % 4]!,
    ),
  'make a picture smaller': ({ state }, [a, b, c]) => {
    const documentId = one(state, 'document', a);
    const { ground } = state.tables.document[documentId]!;
    // never smaller than the places that are made above reach
    const size = ground.of === 'picture' ? { width: ground.width + (b % 9), height: ground.height + (c % 9) } : { width: 1, height: 1 };
    return resizePicture(documentId, { sha256: 'c'.repeat(64), bytes: 1, type: 'image/png' }, size.width, size.height);
  },
  'code a page': ({ state }, [a, b, c]) => {
    const documentId = one(state, 'document', a);
    const original = state.tables.document[documentId]!;
    if (original.ground.of !== 'text' || original.belongsTo !== undefined) throw new CommandError('It has no pages.');
    const media = { sha256: 'd'.repeat(64), bytes: 1, type: 'application/pdf' };
    const number = String(b).padStart(4, '0').slice(-4);
    const page: Document = {
      ...original,
      ...{ id: `dddddddd-0000-4000-8000-00000000${number}`, belongsTo: documentId, kind: 'picture', characters: 0, words: 0 },
      ...{ ground: { of: 'picture', width: 40, height: 30, media, page: 1 }, speakers: [], answers: [] },
    };
    const { readTo: _readTo, units: _units, ...bare } = page;
    const area: Area = { shape: 'rectangle', x: b % 30, y: c % 20, width: 5, height: 5 };
    return codePage(bare, { place: { ...rowsOf(area), area }, codeIds: [one(state, 'code', c)] });
  },
  'make a folder': ({ state }, [a, b]) => addFolder(`Folder ${a}`, b % 2 ? one(state, 'folder', b) || null : null),
  'move a document': ({ state }, [a, b]) => moveDocuments([one(state, 'document', a)], b % 2 ? one(state, 'folder', b) || null : null),
  'remove a folder': ({ state }, [a]) => removeFolder(one(state, 'folder', a)),
  'delete a case': ({ state }, [a]) => deleteCases([one(state, 'case', a)]),
  'delete an attribute': ({ state }, [a]) => deleteAttribute(one(state, 'attribute', a)),
  'change a type': ({ state }, [a, b]) => changeType(one(state, 'attribute', a), (['text', 'choice', 'number'] as const)[b % 3]!),
  'join values': ({ state }, [a]) => joinChoices(one(state, 'attribute', a), ['44', 'x'], 'older'),
  'remove a question': ({ state }, [a]) => removeQuestion(one(state, 'question', a)),
  'join questions': ({ state }, [a, b]) => joinQuestions(one(state, 'question', a), [one(state, 'question', b)]),
  'keep a query': ({ state }, [a, b, c]) =>
    saveQuery(
      `Query ${a}`,
      {
        all: [
          {
            carries: 'any',
            codes: { codeIds: [one(state, 'code', a)], setIds: named(state, 'codeSet', b), withUnder: false },
            reach: 'passage',
          },
          {
            standing: 'near',
            to: {
              any: [
                {
                  liesIn: {
                    documentIds: [one(state, 'document', a)],
                    folderIds: named(state, 'folder', b),
                    setIds: named(state, 'set', c),
                  },
                },
              ],
            },
          },
          { spokenBy: 'these', caseIds: named(state, 'case', a), names: [] },
          { none: [{ answers: named(state, 'question', b) }, ...named(state, 'query', c).map((queryId) => ({ queryId }))] },
          ...named(state, 'attribute', c).map((attributeId) => ({ attributeId, comparison: 'is' as const, values: ['44'] })),
        ],
      },
      true,
    ),
  'keep a scope': ({ state }, [a, b, c]) =>
    keepScope(`Scope ${a}`, {
      parts: [
        { liesIn: { documentIds: [one(state, 'document', a)], folderIds: named(state, 'folder', b), setIds: named(state, 'set', c) } },
        { ofCases: named(state, 'case', b) },
        { answers: named(state, 'question', a) },
        ...named(state, 'attribute', c).map((attributeId) => ({ attributeId, comparison: 'is' as const, values: ['44'] })),
      ],
    }),
  'delete a scope': ({ state }, [a]) => deleteScope(one(state, 'scope', a)),
  'make a word list': (_, [a]) => addWordList({ name: `List ${a}`, words: ['boat'] }),
  'rename a word list': ({ state }, [a, b]) => editWordList(one(state, 'wordList', a), { name: `Words ${b}`, words: ['ferry'] }),
  'delete a word list': ({ state }, [a]) => deleteWordList(one(state, 'wordList', a)),
  'keep a search': (_, [a]) =>
    keepSearch(`Search ${a}`, { typed: `boat [List ${a}]`, match: 'all forms', capitals: false, accents: false, unit: 'words' }, true),
  'delete a search': ({ state }, [a]) => deleteSearch(one(state, 'search', a)),
  ...ACTS_OF_PATTERNS,
  'say that something is absent': ({ state }, [a, b, c]) =>
    noteAbsence({
      question: {
        all: [
          { carries: 'any', codes: { codeIds: [one(state, 'code', a)], setIds: [], withUnder: true }, reach: 'passage' },
          { liesIn: { documentIds: [one(state, 'document', b)], folderIds: [], setIds: named(state, 'set', c) } },
        ],
      },
      scope: { parts: [{ ofCases: named(state, 'case', c) }] },
      title: `Absent ${a}`,
      note: 'It was expected.',
    }),
  'take an absence back': ({ state }, [a]) => takeAbsenceBack(one(state, 'absence', a)),
  'delete a pattern': ({ state }, [a]) => deletePattern(one(state, 'pattern', a)),
  'see a proposition': ({ state }, [a, b, c]) =>
    seeProposition(one(state, 'proposition', a), named(state, 'case', b), named(state, 'case', c)),
  'make a proposition': ({ state }, [a, b]) =>
    addProposition({
      name: `Proposition ${a}`,
      where: [{ has: true, that: { ofCases: named(state, 'case', b) } }],
      then: [{ has: false, that: { any: named(state, 'query', a).map((queryId) => ({ queryId })) } }],
    }),
  'note on a case': ({ state }, [a, b]) => noteOnCase(one(state, 'proposition', a), one(state, 'case', b), `note ${b}`),
  'delete a proposition': ({ state }, [a]) => deleteProposition(one(state, 'proposition', a)),
  'delete a query': ({ state }, [a]) => deleteQuery(one(state, 'query', a)),
  'make a set': ({ state }, [a, b]) => addSet('document', `Set ${a}`, [one(state, 'document', a), one(state, 'document', b)]),
  'make a live set of what a query finds': ({ state }, [a, b, c]) => {
    const asks = { what: { queryId: one(state, 'query', b) }, comparison: 'is' as const, value: c % 3 > 0 };
    const known = named(state, 'attribute', c).map((attributeId) => ({
      what: { attributeId },
      comparison: 'is known' as const,
      value: '',
    }));
    return addSet('case', `Found ${a}`, [], [asks, ...known]);
  },
  'make a live set': ({ state }, [a, b]) =>
    addSet('document', `Live ${a}`, [], [{ what: 'folder', comparison: 'is', value: one(state, 'folder', b) }]),
  'delete a set': ({ state }, [a]) => deleteSet(one(state, 'set', a)),
  'make a set of codes': ({ state }, [a, b]) =>
    a % 2
      ? addCodeSet(`Under ${a}`, [], [{ about: 'under', id: one(state, 'code', b), opposite: false }])
      : addCodeSet(`Codes ${a}`, [one(state, 'code', b)]),
  'delete a set of codes': ({ state }, [a]) => deleteCodeSet(one(state, 'codeSet', a)),
  'relate codes': ({ state }, [a, b]) => addRelation(one(state, 'code', a), one(state, 'code', b), 'leads to'),
  'delete a relation': ({ state }, [a]) => deleteRelation(one(state, 'relation', a)),
  'make a sorting table': ({ state }, [a]) => addSorting(`Table ${a}`, [one(state, 'code', a)]),
  'make categories': ({ state }, [a]) => groupsToCategories(one(state, 'sorting', a)),
  'delete a sorting table': ({ state }, [a]) => deleteSorting(one(state, 'sorting', a)),
  'propose a code': ({ state }, [a, b]) => {
    const passage = somePassage(state, a);
    const at = { documentId: passage.documentId, passageId: passage.id };
    return proposeCode({ name: `Wish ${a}`, parentId: one(state, 'code', b) }, [at]);
  },
  'accept a proposal': ({ state }, [a]) => acceptProposal(one(state, 'proposal', a)),
  'decline a proposal': ({ state }, [a]) => declineProposal(one(state, 'proposal', a)),
  'delete a memo': ({ state }, [a]) => deleteMemos([one(state, 'memo', a)]),
};

/** Whether there is anything for an act to choose from; those that make need codes, documents and passages. */
const mayAct = ({ state }: Bench): boolean =>
  Object.keys(state.passages).length > 0 && Object.keys(state.tables.document).length > 0 && Object.keys(state.tables.code).length > 0;

/** What a command did; null where it found nothing to do or refused. */
function attempted(act: () => Action | null): Action | null {
  try {
    return act();
  } catch (error) {
    if (error instanceof CommandError) return null;
    throw error;
  }
}

/** All of a study but the order in which things lie in it. */
const contentOf = ({ study, tables, passages }: StudyState) => ({
  study,
  tables,
  passages: Object.fromEntries(Object.entries(passages).map(([id, columns]) => [id, unpackPassages(columns)])),
});

describe('whatever points at something', () => {
  let start: Bench;
  beforeAll(async () => {
    start = await benchWithEverything();
  });

  it('survives what happens to it: nothing dangles, every place is in its document, and undo restores the study', () => {
    const begun = start.state;
    const texts = new Map(start.texts);
    expect(checkStudy(begun, texts)).toEqual([]);
    const numbers = fc.tuple(fc.nat(999), fc.nat(999), fc.nat(999));
    const acts = fc.array(fc.tuple(fc.constantFrom(...Object.keys(ACTS)), numbers), { minLength: 1, maxLength: 14 });
    const done = new Set<string>();
    fc.assert(
      fc.property(acts, (chosen) => {
        start.state = begun;
        start.texts.clear();
        for (const [id, one] of texts) start.texts.set(id, one);
        const changes: Change[] = [];
        for (const [name, choice] of chosen) {
          if (!mayAct(start)) break;
          const action = attempted(() => start.do(ACTS[name]!(start, choice)));
          if (!action) continue;
          checkChange(action.change);
          changes.push(action.change);
          done.add(name);
          expect(danglingIn(start.state)).withContext(name).toEqual([]);
          expect(checkStudy(start.state, start.texts)).withContext(name).toEqual([]);
        }
        let back = start.state;
        for (const change of [...changes].reverse()) back = applyChange(back, invert(change));
        expect(contentOf(back)).toEqual(contentOf(begun));
        for (const change of changes) back = applyChange(back, change);
        expect(contentOf(back)).toEqual(contentOf(start.state));
      }),
      { numRuns: 1000 },
    );
    // an act that never finds anything to do would be no test of it
    expect(Object.keys(ACTS).filter((name) => !done.has(name))).toEqual([]);
  });
});

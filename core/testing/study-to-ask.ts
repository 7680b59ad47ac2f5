import fc from 'fast-check';
import { addAttribute } from '../commands/attributes';
import { saveQuery } from '../commands/queries';
import { rowsOf } from '../model/area';
import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { Passage } from '../model/passage';
import type { Carries } from '../model/passage-condition';
import type { StudyState } from '../model/study-state';
import { packPassages } from '../passages/columns';
import { pixelsCovered } from '../passages/pixels';
import { AskedStudy } from '../queries/asked-study';
import { SearchedWords } from '../words/searched-words';
import { Bench, someArea, somePassages } from './make';

/** A study with a document of every ground, two coders, speakers, cases, attributes, sets and a kept query; its passages come at random. */
export function studyToAsk() {
  const bench = new Bench(21);
  const other = bench.newId();
  bench.state = {
    ...bench.state,
    tables: { ...bench.state.tables, coder: { ...bench.state.tables.coder, [other]: { id: other, name: 'Ben' } } },
  };
  const top = bench.addCode('Sea');
  const codes = [top, bench.addCode('Waiting', top), bench.addCode('Boat', top), bench.addCode('Help'), bench.addCode('Calm')];
  const talk = bench.addDocument(
    'Talk',
    ['Ann: We waited. It was late.', 'Bob: How late?', 'Bob: Go on.', 'Ann: Late. Very.'],
    ['Ann', 'Bob'],
  );
  const note = bench.addDocument('Note', ['The pier was empty. Nobody spoke.', 'We left.', 'Rain.', 'More rain. And wind.']);
  const tape = bench.record('Tape', 60);
  const plan = bench.draw('Plan', 40, 30);
  bench.do(addAttribute('case', 'age', 'number'));
  bench.do(addAttribute('document', 'place', 'text'));
  const [age, place] = Object.keys(bench.state.tables.attribute) as [Id, Id];
  const ann = {
    id: bench.newId(),
    name: 'Ann',
    description: '',
    documentIds: [note.id],
    stretches: [{ documentId: note.id, start: 0, end: 22 }],
    values: { [age]: 41 },
  };
  const tom = { ...ann, id: bench.newId(), name: 'Tom', documentIds: [tape.id], stretches: [], values: {} };
  const question = bench.newId();
  const speakers = talk.speakers.map((one) => ({ ...one, interviewer: one.name === 'Bob', caseId: one.name === 'Ann' ? ann.id : null }));
  const [north, pier] = [bench.newId(), bench.newId()];
  const folder = {
    [north]: { id: north, name: 'North', parentId: null },
    [pier]: { id: pier, name: 'Pier', parentId: north },
  };
  const asked: Document = {
    ...talk,
    speakers,
    date: '2025-02-28',
    folderId: north,
    answers: [{ questionId: question, asked: null, start: 3, end: 30 }],
  };
  const byHand = { id: bench.newId(), name: 'Notes', of: 'document' as const, memberIds: [note.id], condition: null };
  const cases = { id: bench.newId(), name: 'Women', of: 'case' as const, memberIds: [ann.id], condition: null };
  const codeSet = { id: bench.newId(), name: 'Quiet', codeIds: [codes[3]!, codes[4]!], conditions: null, createdAt: 1 };
  bench.state = {
    ...bench.state,
    tables: {
      ...bench.state.tables,
      document: {
        ...bench.state.tables.document,
        [talk.id]: asked,
        [note.id]: { ...note, values: { [place]: 'Saltpans' }, folderId: pier },
      },
      folder,
      case: { [ann.id]: ann, [tom.id]: tom },
      question: { [question]: { id: question, text: 'How late?', order: 1 } },
      set: { [byHand.id]: byHand, [cases.id]: cases },
      codeSet: { [codeSet.id]: codeSet },
    },
  };
  // the note is the transcript of something: its marks say when its words are spoken
  const text = bench.texts.get(note.id)!;
  bench.texts.set(note.id, {
    ...text,
    marks: [
      { at: 0, kind: 'time', value: 0 },
      { at: 40, kind: 'time', value: 9_000 },
    ],
  });
  const waiting: Carries = { carries: 'any', codes: { codeIds: [codes[1]!], setIds: [], withUnder: false }, reach: 'passage' };
  bench.do(saveQuery('Waiting', { all: [waiting] }));
  const documents = [talk, note, tape, plan] as const;
  const coders = [bench.coderId, other] as const;
  const lengths = new Map([...documents].map((one) => [one.id, one.ground.of === 'text' ? one.characters : 60]));

  /** Passages of every document, with codes of the study. */
  const somePassagesOf = (document: Document): fc.Arbitrary<Passage[]> =>
    fc
      .tuple(
        somePassages(document.id, lengths.get(document.id)!),
        fc.array(
          someArea().filter((area) => pixelsCovered([area]) > 0),
          { minLength: 25, maxLength: 25 },
        ),
      )
      .map(([made, areas]) =>
        made.map((passage, at): Passage => {
          const named = passage.codings.map((coding, nth) => ({
            codeId: codes[Number(coding.codeId.slice(-2)) % codes.length]!,
            coderId: coders[Number(coding.coderId.slice(-1))]!,
            createdAt: coding.createdAt,
            ...(nth % 2 ? { rating: 1 + (nth % 3) } : {}),
            ...(nth % 3 === 1 ? { swept: true as const } : {}),
          }));
          const area = document.ground.of === 'picture' ? { area: areas[at]!, ...rowsOf(areas[at]!) } : {};
          return {
            ...passage,
            ...area,
            id: `${document.id.slice(-8)}${passage.id.slice(8)}`,
            coderId: coders[Number(passage.coderId.slice(-1))]!,
            codings: named,
            ...(passage.comment && at % 2 ? { open: true } : {}),
          };
        }),
      );

  const packed = (all: readonly (readonly Passage[])[]): StudyState => ({
    ...bench.state,
    passages: Object.fromEntries(documents.map((document, at) => [document.id, packPassages(document.id, all[at]!, document.ground.of)])),
  });

  /** The study with passages at random in every document. */
  const someStudy = (): fc.Arbitrary<StudyState> => fc.tuple(...documents.map(somePassagesOf)).map(packed);

  const studyOf = (state: StudyState): AskedStudy =>
    new AskedStudy(
      state.tables,
      () => Object.values(state.passages),
      'en',
      () => 0,
      new SearchedWords(),
    );
  return {
    bench,
    documents,
    somePassagesOf,
    packed,
    someStudy,
    studyOf,
    coders,
    asked: {
      codes,
      codeSets: [codeSet.id],
      coders: [bench.coderId, other],
      cases: [ann.id, tom.id],
      documents: [talk.id, note.id, tape.id],
      sets: [byHand.id, cases.id],
      attributes: [age, place],
      questions: [question],
      queries: Object.keys(bench.state.tables.query),
    },
  };
}

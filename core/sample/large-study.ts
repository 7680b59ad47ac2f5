import { EMPTY_HISTORY } from '../change/journal';
import type { StudyBundle } from '../formats/study-file/bundle';
import { PALETTE_SIZE, type Code } from '../model/code';
import type { Attribute, Case } from '../model/case';
import type { Document, Paragraph, Text } from '../model/document';
import { sequentialIds, type Id } from '../model/ids';
import type { Passage } from '../model/passage';
import { emptyState } from '../model/study-state';
import { packPassages } from '../passages/columns';
import type { PassageColumns } from '../model/passage-columns';

/** How large a synthetic study is. Totals; they are spread evenly over the documents. */
export interface StudySize {
  readonly documents: number;
  readonly words: number;
  readonly passages: number;
  readonly codings: number;
  readonly codes: number;
  readonly cases: number;
  readonly attributes: number;
}

/** The size every speed is promised for. */
export const LARGE: StudySize = {
  documents: 1_000,
  words: 8_000_000,
  passages: 200_000,
  codings: 300_000,
  codes: 500,
  cases: 1_000,
  attributes: 12,
};

/** One very long document, densely coded. */
export const LONG_DOCUMENT: StudySize = {
  documents: 1,
  words: 137_000,
  passages: 4_000,
  codings: 6_000,
  codes: 500,
  cases: 10,
  attributes: 12,
};

/** A random number generator with a seed (mulberry32): numbers in [0, 1), the same in every run. */
export function seededRandom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

const SYLLABLES = [
  'ba',
  'con',
  'der',
  'fi',
  'gor',
  'hal',
  'in',
  'ko',
  'lam',
  'mer',
  'no',
  'pel',
  'qua',
  'ri',
  'ses',
  'ta',
  'ul',
  'ver',
  'wen',
  'zo',
];

/** Builds a synthetic study of a size, with interviewer and respondent taking turns. Names say that it is synthetic. */
export function buildLargeStudy(size: StudySize, seed = 1): StudyBundle {
  const random = seededRandom(seed);
  const newId = sequentialIds(0x5e0000 + seed);
  const pick = (count: number): number => Math.floor(random() * count);
  const coders = ['Coder one', 'Coder two'].map((name) => ({ id: newId(), name }));
  const codes = makeCodes(size.codes, newId, coders[0]!.id, pick);
  const attributes = Array.from({ length: size.attributes }, (_, at): Attribute => ({
    id: newId(),
    name: `Attribute ${at + 1}`,
    of: 'case',
    type: at % 2 ? 'number' : 'choice',
    choices: at % 2 ? [] : ['low', 'middle', 'high'],
    order: at,
  }));
  const cases = Array.from({ length: size.cases }, (_, at): Case => ({
    id: newId(),
    name: `Case ${at + 1}`,
    description: '',
    documentIds: [],
    stretches: [],
    values: Object.fromEntries(
      attributes.map((attribute) => [attribute.id, attribute.type === 'number' ? pick(90) : attribute.choices[pick(3)]!]),
    ),
  }));
  const words = Array.from({ length: 4_000 }, () => Array.from({ length: 1 + pick(4) }, () => SYLLABLES[pick(SYLLABLES.length)]!).join(''));
  const documents: Document[] = [];
  const texts = new Map<Id, Text>();
  const passages: Record<Id, PassageColumns> = {};
  for (let at = 0; at < size.documents; at++) {
    const id = newId();
    const share = (total: number): number => Math.floor((total * (at + 1)) / size.documents) - Math.floor((total * at) / size.documents);
    const text = makeText(id, share(size.words), words, pick);
    const owner = cases[at % Math.max(1, cases.length)];
    owner?.documentIds.push(id);
    texts.set(id, text);
    documents.push({
      id,
      title: `Synthetic interview ${at + 1}`,
      ground: { of: 'text' },
      kind: 'interview',
      date: null,
      folderId: null,
      description: '',
      speakers: [
        { name: 'Interviewer', interviewer: true, caseId: null },
        { name: 'Respondent', interviewer: false, caseId: owner?.id ?? null },
      ],
      characters: text.text.length,
      words: share(size.words),
      source: null,
      values: {},
      answers: [],
      createdAt: at,
    });
    const marked = makePassages(
      text,
      share(size.passages),
      share(size.codings),
      codes,
      coders.map((coder) => coder.id),
      newId,
      pick,
    );
    if (marked.length > 0) passages[id] = packPassages(id, marked);
  }
  const base = emptyState({
    id: newId(),
    title: `Synthetic study, ${size.documents} documents`,
    description: 'Made by a program to measure speed.',
    language: 'en',
    caseWord: 'participant',
    createdAt: 0,
    currentCoderId: coders[0]!.id,
  });
  const byId = <T extends { id: Id }>(records: readonly T[]): Record<Id, T> =>
    Object.fromEntries(records.map((record) => [record.id, record]));
  return {
    state: {
      ...base,
      tables: {
        ...base.tables,
        coder: byId(coders),
        document: byId(documents),
        case: byId(cases),
        attribute: byId(attributes),
        code: byId(codes),
      },
      passages,
    },
    texts,
    media: new Map(),
    journal: [],
    history: EMPTY_HISTORY,
  };
}

/** A tree: about one code in ten is a category at the top, the others lie under one of them. */
function makeCodes(count: number, newId: () => Id, coderId: Id, pick: (count: number) => number): Code[] {
  const tops = Math.max(1, Math.floor(count / 10));
  const codes: Code[] = [];
  for (let at = 0; at < count; at++) {
    const parentId = at < tops ? null : codes[pick(Math.min(at, tops * 2))]!.id;
    codes.push({
      id: newId(),
      name: `Synthetic code ${at + 1}`,
      mark: `${at + 1}`,
      colour: at % PALETTE_SIZE,
      parentId,
      order: at,
      definition: `Made for measuring, number ${at + 1}.`,
      useWhen: '',
      doNotUseWhen: '',
      example: '',
      createdAt: 0,
      coderId,
    });
  }
  return codes;
}

function makeText(id: Id, wordCount: number, words: readonly string[], pick: (count: number) => number): Text {
  const lines: string[] = [];
  const paragraphs: Paragraph[] = [];
  let left = wordCount;
  let start = 0;
  for (let turn = 0; left > 0; turn++) {
    const speaker = turn % 2;
    const length = Math.min(left, speaker === 0 ? 5 + pick(15) : 30 + pick(120));
    left -= length;
    const label = speaker === 0 ? 'Interviewer: ' : 'Respondent: ';
    const spoken: string[] = [];
    for (let at = 0; at < length; at++)
      spoken.push(words[Math.floor((pick(1_000) * pick(1_000) * words.length) / 1_000_000)]! + (at % 13 === 12 ? '.' : ''));
    const line = label + spoken.join(' ');
    paragraphs.push({ start, body: start + label.length, end: start + line.length, speaker, style: 'body' });
    lines.push(line);
    start += line.length + 1;
  }
  return { id, text: lines.join('\n'), paragraphs, emphasis: [], marks: [] };
}

function makePassages(
  text: Text,
  count: number,
  codingCount: number,
  codes: readonly Code[],
  coderIds: readonly Id[],
  newId: () => Id,
  pick: (count: number) => number,
): Passage[] {
  const spoken = text.paragraphs.filter((paragraph) => paragraph.speaker === 1 && paragraph.end > paragraph.body);
  if (spoken.length === 0) return [];
  return Array.from({ length: count }, (_, at): Passage => {
    const paragraph = spoken[pick(spoken.length)]!;
    const length = paragraph.end - paragraph.body;
    const start = paragraph.body + pick(length);
    const coderId = coderIds[pick(coderIds.length)]!;
    const many = Math.floor((codingCount * (at + 1)) / count) - Math.floor((codingCount * at) / count);
    const chosen = new Set(Array.from({ length: many }, () => codes[pick(codes.length)]!.id));
    return {
      id: newId(),
      documentId: text.id,
      start,
      end: Math.min(paragraph.end, start + 1 + pick(300)),
      comment: '',
      coderId,
      createdAt: at,
      codings: [...chosen].map((codeId) => ({ codeId, coderId, createdAt: at })),
    };
  });
}

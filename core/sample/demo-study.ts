import { quoted } from '../text/quoted';
import Papa from 'papaparse';
import { EMPTY_HISTORY } from '../change/journal';
import type { StudyBundle } from '../formats/study-file/bundle';
import { plainParagraph } from '../formats/plain-text/read-plain-text';
import type { AskedQuestion } from '../model/asked-question';
import type { Attribute, AttributeValue, Case } from '../model/case';
import { answersIn } from '../questions/answers';
import { findQuestions, type FoundQuestion } from '../questions/find-questions';
import { FAMILY_SIZE, type Code } from '../model/code';
import type { Answer, Document, DocumentKind, Speaker, Text } from '../model/document';
import { sequentialIds, type Id, type NewId } from '../model/ids';
import { markFor } from '../model/mark';
import type { Memo, MemoSubject } from '../model/memo';
import type { Passage } from '../model/passage';
import type { Coder, Folder } from '../model/study';
import { emptyState, type StudyState } from '../model/study-state';
import { packPassages } from '../passages/columns';
import { composeText, type DraftParagraph } from '../text/draft-text';
import { labelsOf, speakersIn } from '../text/speakers';
import { DEMO_STUDY_ID } from './demo-study-id';
import { addCodings, addStretches, type CodingRow, type StretchRow } from './demo-codings';
import { demoKept } from './demo-kept';
import { addMedia, demoMediaFiles, type DemoSoFar } from './demo-media';
import { readMarked, type MarkedSource } from './marked-text';

/** Files the demo study is built from, below `demo/`. */
export const DEMO_SOURCES = {
  marked: [
    '01-moira-tennant',
    '02-iain-corrie',
    '03-shona-adair',
    '04-callum-rigg',
    '05-edith-marr',
    '06-tomasz-wilk',
    '07-jean-harrow',
    '08-peter-loam',
    '09-ana-duarte',
    '10-hamish-brock',
    '11-kirsty-vane',
    '12-rory-tennant',
    '13-moira-tennant-october',
    '14-iain-corrie-october',
    '15-kirsty-vane-october',
    '16-focus-group-parents',
    '17-focus-group-harbour',
    '18-field-note-queue',
    '19-field-note-council-evening',
    '20-field-note-last-crossing',
    '21-council-minutes',
    '22-newsletter-editorial',
    '23-letter-to-the-newsletter',
  ].map((name) => `marked/${name}.txt`),
  secondCoder: ['marked/03-shona-adair.second-coder.txt', 'marked/16-focus-group-parents.second-coder.txt'],
  structured: ['01', '02', '03', '04', '05', '06'].map((number) => `structured/pier-${number}.txt`),
  tables: ['codebook.csv', 'participants.csv', 'survey.csv', 'codings.csv', 'stretches.csv'],
  memos: ['memos.json'],
  media: ['media/media.json', 'media/pier-01.vtt'],
} as const;

/** Paths of all sources. */
export const demoSourcePaths = (): string[] => Object.values(DEMO_SOURCES).flat();

/** Recordings and pictures of the demo study, below `demo/`, by the SHA-256 of their bytes. */
export const demoMedia = (sources: ReadonlyMap<string, string>): ReturnType<typeof demoMediaFiles> =>
  demoMediaFiles(sources.get('media/media.json')!);

const FOLDERS: Readonly<Record<string, DocumentKind>> = {
  Interviews: 'interview',
  'Focus groups': 'focus group',
  'Field notes': 'field note',
  'Public documents': 'public document',
  'Pier interviews': 'interview',
  Survey: 'survey answers',
};
const BEGUN = Date.UTC(2025, 0, 10, 9);
const MINUTE = 60_000;

/**
 * Builds *The Last Ferry* from its sources: the same study every time, ids included. The bytes of its recordings and
 * pictures ({@link demoMedia}) are for whoever stores it to add.
 * @param sources text of each file of {@link demoSourcePaths}
 */
export function buildDemoStudy(sources: ReadonlyMap<string, string>): StudyBundle {
  return new DemoBuilder(sources).build();
}

type Row = Readonly<Record<string, string>>;

class DemoBuilder {
  private readonly newId: NewId = sequentialIds(0xf11f0001);
  private readonly mara: Coder = { id: this.newId(), name: 'Mara' };
  private readonly jon: Coder = { id: this.newId(), name: 'Jon' };
  private readonly folders = new Map(
    Object.keys(FOLDERS).map((name): [string, Folder] => [name, { id: this.newId(), name, parentId: null }]),
  );
  private readonly codeByKey = new Map<string, Code>();
  private readonly codes: Code[] = [];
  private readonly attributes = new Map<string, Attribute>();
  private readonly cases: Case[] = [];
  private readonly questions: AskedQuestion[] = [];
  private readonly documents: Document[] = [];
  private readonly texts = new Map<Id, Text>();
  private readonly passages = new Map<Id, Passage[]>();

  constructor(private readonly sources: ReadonlyMap<string, string>) {}

  build(): StudyBundle {
    this.buildCodebook();
    this.buildParticipants();
    for (const path of DEMO_SOURCES.marked) this.buildMarked(path);
    for (const path of DEMO_SOURCES.structured) this.buildStructured(path);
    this.buildSurvey();
    const pictures: Folder = { id: this.newId(), name: 'Pictures', parentId: null };
    this.folders.set(pictures.name, pictures);
    const soFar: DemoSoFar = {
      newId: this.newId,
      coderId: this.mara.id,
      documents: this.documents,
      texts: this.texts,
      passages: this.passages,
      source: (path) => this.source(path),
      codeOf: (key) => this.keyed(key).id,
    };
    addMedia(soFar, pictures.id);
    const memos = this.buildMemos();
    addCodings({ ...soFar, coders: [this.mara, this.jon] }, this.table('codings.csv') as readonly CodingRow[]);
    addStretches(soFar, this.cases, this.table('stretches.csv') as readonly StretchRow[]);
    const kept = demoKept({
      newId: this.newId,
      code: soFar.codeOf,
      category: (name) => this.codes.find((one) => one.name === name && one.parentId === null)!.id,
      attribute: (name) => this.attributes.get(name)!.id,
    });
    const base = emptyState({
      id: DEMO_STUDY_ID,
      title: 'The Last Ferry',
      description:
        'What the people of Tamsay expect to gain and to lose with the bridge; how that differs by role, age and years on the island; how talk of safety and health goes together with talk of belonging. An invented island.',
      language: 'en',
      caseWord: 'participant',
      createdAt: BEGUN,
      currentCoderId: this.mara.id,
    });
    const state: StudyState = {
      ...base,
      tables: {
        ...base.tables,
        coder: byId([this.mara, this.jon]),
        folder: byId([...this.folders.values()]),
        document: byId(this.documents),
        case: byId(this.cases),
        question: byId(this.questions),
        attribute: byId([...this.attributes.values()]),
        code: byId(this.codes),
        memo: byId(memos),
        search: byId(kept.searches),
        query: byId(kept.queries),
        pattern: byId(kept.patterns),
      },
      passages: Object.fromEntries(
        [...this.passages].map(([id, passages]) => [
          id,
          packPassages(id, passages, this.documents.find((document) => document.id === id)!.ground.of),
        ]),
      ),
    };
    return { state, texts: this.texts, media: new Map(), journal: [], history: EMPTY_HISTORY };
  }

  private source(path: string): string {
    const text = this.sources.get(path);
    if (text === undefined) throw new Error(`The demo study’s source ${path} is missing.`);
    return text;
  }

  private table(path: string): Row[] {
    return Papa.parse<Row>(this.source(path).replace(/^\uFEFF/, ''), { header: true, skipEmptyLines: true }).data;
  }

  private buildCodebook(): void {
    const marks = new Set<string>();
    let family = -1;
    let member = 0;
    let category: Code | null = null;
    for (const row of this.table('codebook.csv')) {
      const isCategory = !row['key'];
      if (isCategory) family++;
      member = isCategory ? 0 : member + 1;
      const name = row['name']!;
      const mark = markFor(name, marks);
      marks.add(mark);
      const code: Code = {
        id: this.newId(),
        name,
        mark,
        colour: family * FAMILY_SIZE + (member % FAMILY_SIZE),
        parentId: isCategory ? null : category!.id,
        order: this.codes.length,
        definition: row['definition'] ?? '',
        useWhen: row['use_when'] ?? '',
        doNotUseWhen: row['do_not_use_when'] ?? '',
        example: row['example'] ?? '',
        createdAt: BEGUN,
        coderId: this.mara.id,
      };
      if (isCategory) category = code;
      else this.codeByKey.set(row['key']!, code);
      this.codes.push(code);
    }
  }

  private attribute(name: string, type: Attribute['type']): Attribute {
    let attribute = this.attributes.get(name);
    if (!attribute)
      this.attributes.set(name, (attribute = { id: this.newId(), name, of: 'case', type, choices: [], order: this.attributes.size }));
    return attribute;
  }

  /** Reads a row's values; what does not fit the type stays out, as "not known". */
  private values(row: Row, columns: Readonly<Record<string, [string, Attribute['type']]>>): Record<Id, AttributeValue> {
    const values: Record<Id, AttributeValue> = {};
    for (const [column, [name, type]] of Object.entries(columns)) {
      const raw = row[column]?.trim();
      const attribute = this.attribute(name, type);
      if (!raw || (type === 'number' && !/^-?\d+(\.\d+)?$/.test(raw)) || (type === 'date' && !/^\d{4}-\d\d-\d\d$/.test(raw))) continue;
      values[attribute.id] = type === 'number' ? Number(raw) : raw;
      if (type === 'choice' && !attribute.choices.includes(raw)) attribute.choices.push(raw);
    }
    return values;
  }

  private addCase(name: string, values: Record<Id, AttributeValue>, description = ''): Case {
    const one: Case = { id: this.newId(), name, description, documentIds: [], stretches: [], values };
    this.cases.push(one);
    return one;
  }

  private buildParticipants(): void {
    for (const row of this.table('participants.csv')) {
      this.addCase(
        row['name']!,
        this.values(row, {
          age: ['age', 'number'],
          gender: ['gender', 'choice'],
          home: ['home', 'choice'],
          role: ['role', 'text'],
          years_on_island: ['years on the island', 'number'],
          crossings_per_month: ['crossings a month', 'number'],
          consent_form: ['consent form', 'choice'],
          consent_date: ['consent date', 'date'],
          second_interview: ['second interview', 'date'],
        }),
      );
    }
  }

  private addDocument(
    folder: string,
    title: string,
    date: string | null,
    paragraphs: readonly DraftParagraph[],
    caseOf: (speaker: Speaker) => Case | undefined,
  ): Document {
    const id = this.newId();
    const names = new Set(speakersIn(paragraphs));
    const { text, speakers, words } = composeText(id, paragraphs, labelsOf(names));
    for (const speaker of speakers) speaker.caseId = caseOf(speaker)?.id ?? null;
    const document: Document = {
      id,
      title,
      ground: { of: 'text' },
      kind: FOLDERS[folder]!,
      date,
      folderId: this.folders.get(folder)!.id,
      description: '',
      speakers,
      characters: text.text.length,
      words,
      source: null,
      values: {},
      answers: [],
      createdAt: date ? Date.parse(date) + 18 * 60 * MINUTE : BEGUN,
    };
    this.documents.push(document);
    this.texts.set(id, text);
    return document;
  }

  private buildMarked(path: string): void {
    const source = readMarked(this.source(path));
    const { title = path, kind = 'interview', date = null, participants = '' } = source.header;
    const present = participants
      .split(';')
      .map((name) => name.trim())
      .filter(Boolean);
    const folder = Object.keys(FOLDERS).find((name) => FOLDERS[name] === kind)!;
    const cases = this.cases.filter((one) => present.includes(one.name));
    const document = this.addDocument(folder, title, date, source.paragraphs.map(plainParagraph), (speaker) =>
      cases.find((one) => one.name.split(' ')[0] === speaker.name),
    );
    if (kind === 'interview') for (const one of cases) one.documentIds.push(document.id);
    this.addPassages(document, source, this.mara);
    const second = DEMO_SOURCES.secondCoder.find((other) => other === path.replace('.txt', '.second-coder.txt'));
    if (!second) return;
    const other = readMarked(this.source(second));
    if (other.paragraphs.join('\n') !== source.paragraphs.join('\n')) throw new Error(`${second} does not have the words of ${path}.`);
    this.addPassages(document, other, this.jon);
  }

  private addPassages(document: Document, source: MarkedSource, coder: Coder): void {
    const begun = document.createdAt + (coder === this.jon ? 20 : 1) * 24 * 60 * MINUTE;
    const passages = source.marks.map(({ start, end, keys }, at): Passage => {
      const createdAt = begun + at * MINUTE;
      const codings = keys.map((key) => {
        return { codeId: this.keyed(key).id, coderId: coder.id, createdAt };
      });
      return { id: this.newId(), documentId: document.id, start, end, comment: '', coderId: coder.id, createdAt, codings };
    });
    this.passages.set(document.id, [...(this.passages.get(document.id) ?? []), ...passages]);
  }

  private keyed(key: string): Code {
    const code = this.codeByKey.get(key);
    if (!code) throw new Error(`Something is coded with ${quoted(key)}, which the codebook does not have.`);
    return code;
  }

  private buildStructured(path: string): void {
    const [first = '', ...blocks] = this.source(path)
      .trim()
      .split(/\n{2,}/);
    const [name = path, age = '', home = ''] = first.replace(/^Respondent:\s*/, '').split(/,\s*/);
    const respondent = this.addCase(`${name} (pier)`, this.values({ age, home }, { age: ['age', 'number'], home: ['home', 'choice'] }));
    const paragraphs = blocks.map((block) => plainParagraph(block.replace(/\n/g, ' ')));
    const document = this.addDocument('Pier interviews', `At the pier – ${name}`, null, paragraphs, (speaker) =>
      speaker.name === 'A' ? respondent : undefined,
    );
    for (const speaker of document.speakers) speaker.name = speaker.name === 'A' ? name : 'Interviewer';
    respondent.documentIds.push(document.id);
    const found = findQuestions(paragraphs, { question: { kind: 'label', name: 'Q' }, answer: { kind: 'label', name: 'A' } });
    document.answers = this.answersTo(this.texts.get(document.id)!, found);
  }

  private answersTo(text: Text, found: readonly FoundQuestion[]): Answer[] {
    return answersIn(text, found, (row) => this.question(found[row]!.text).id);
  }

  private question(text: string): AskedQuestion {
    let question = this.questions.find((one) => one.text === text);
    if (!question) this.questions.push((question = { id: this.newId(), text, order: this.questions.length }));
    return question;
  }

  private buildSurvey(): void {
    const rows = this.table('survey.csv');
    const questions = Object.keys(rows[0] ?? {}).filter((column) => column.endsWith('?'));
    for (const row of rows) {
      const pseudonym = row['pseudonym']?.trim();
      const respondent = this.addCase(
        `${row['response_id']}${pseudonym ? ` ${pseudonym}` : ''}`,
        this.values(row, {
          age: ['age', 'number'],
          gender: ['gender', 'choice'],
          home: ['home', 'choice'],
          years_on_island: ['years on the island', 'number'],
          crossings_per_month: ['crossings a month', 'number'],
        }),
      );
      const paragraphs = questions.flatMap((question): DraftParagraph[] => {
        const answer = (row[question] ?? '')
          .split('\n')
          .map((line) => line.trim())
          .filter(Boolean);
        return [{ text: question, style: 'heading3', emphasis: [] }, ...answer.map(plainParagraph)];
      });
      const id = this.newId();
      const { text, words } = composeText(id, paragraphs, () => null);
      const found = findQuestions(paragraphs, { question: { kind: 'heading' }, answer: null });
      this.documents.push({
        id,
        title: `Survey ${row['response_id']}`,
        ground: { of: 'text' },
        kind: 'survey answers',
        date: row['started_at']?.slice(0, 10) || null,
        folderId: this.folders.get('Survey')!.id,
        description: '',
        speakers: [],
        characters: text.text.length,
        words,
        source: null,
        values: {},
        answers: this.answersTo(text, found),
        createdAt: BEGUN,
      });
      this.texts.set(id, text);
      respondent.documentIds.push(id);
    }
  }

  private buildMemos(): Memo[] {
    interface Source {
      title: string;
      kind: string;
      about: { code?: string; document?: string } | null;
      entries: { date: string; text: string }[];
    }
    return (JSON.parse(this.source('memos.json')) as Source[]).map(({ title, kind, about, entries }): Memo => ({
      id: this.newId(),
      title,
      kind,
      about: this.subjectOf(about),
      entries: entries.map(({ date, text }) => ({
        id: this.newId(),
        writtenAt: Date.parse(date) + 20 * 60 * MINUTE,
        coderId: this.mara.id,
        text,
      })),
      createdAt: Date.parse(entries[0]?.date ?? '2025-01-10'),
    }));
  }

  private subjectOf(about: { code?: string; document?: string } | null): MemoSubject | null {
    const code = about?.code === undefined ? undefined : this.codeByKey.get(about.code);
    const document = this.documents.find((one) => one.title === about?.document);
    if (about && !code && !document) throw new Error(`A memo is about ${JSON.stringify(about)}, which is not there.`);
    return code ? { type: 'code', id: code.id } : document ? { type: 'document', id: document.id } : null;
  }
}

const byId = <T extends { id: Id }>(records: readonly T[]): Record<Id, T> =>
  Object.fromEntries(records.map((record) => [record.id, record]));

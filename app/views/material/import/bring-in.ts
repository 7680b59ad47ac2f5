import { quoted } from '@core/text/quoted';
import { counted } from '@core/text/counted';
import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { parseValue } from '@core/attributes/values';
import { attributesOf } from '@core/commands/attributes';
import { correctTexts } from '@core/commands/correct-text';
import { questionsOf } from '@core/commands/questions';
import { added, updated, type Change } from '@core/change/change';
import type { SpeakerChoice } from '@core/material/compose-import';
import type { TableChoices } from '@core/material/plan-table';
import { folderFor, type MediaToStore, type TextToStore } from '@core/material/store-request';
import type { AskedQuestion } from '@core/model/asked-question';
import { MOST_CHOICES, type Attribute, type AttributeValue, type Case } from '@core/model/case';
import { randomId, type Id } from '@core/model/ids';
import type { Folder } from '@core/model/study';
import type { StudyState, Table } from '@core/model/study-state';
import type { LineUp } from '@core/questions/line-up';
import { diffEdits } from '@core/text/diff-edits';
import { tidyLine } from '@core/text/normalise';
import { MediaFiles } from '../../../state/media-files';
import { StudySession } from '../../../state/study-session';
import { selectData } from '../../../state/study.selectors';
import { FilesService } from '../../../workers/files-service';
import { choicesOf, contentOf, type ImportItem } from './import-item';
import { takenFor, type Decisions } from './question-decisions';

/** What was decided for all files together. */
export interface BringInChoices {
  readonly folderId: Id | null;
  readonly subfolders: boolean;
  readonly asAttributes: boolean;
  /** Names of what files say of themselves that does not come in. */
  readonly factsLeft: ReadonlySet<string>;
  readonly cases: Table<Case>;
  readonly lineUp: LineUp;
  readonly structuredKeys: readonly number[];
  readonly decisions: Decisions;
  /** What a text is a transcript or a description of: its id, or `file KEY` of one that comes in with it. */
  readonly originalOf: (item: ImportItem) => string | null;
}

/** What is said of every document that comes in, whatever it consists of. */
type CommonFields = Omit<MediaToStore['document'], 'ground'>;

/** Stores what the researcher agreed to: texts together as one step, each table as one. */
@Injectable()
export class BringIn {
  private readonly session = inject(StudySession);
  private readonly files = inject(FilesService);
  private readonly mediaFiles = inject(MediaFiles);
  private readonly data = inject(Store).selectSignal(selectData);

  /** How a table is planned and stored. */
  tableChoices(item: ImportItem, folderId: Id | null): TableChoices {
    const { columns, rowsBecome, kind, keep, table, fileName } = item;
    return { columns, rowsBecome, kind, folderId, keep, source: table && !item.pasted ? { fileName, sha256: table.sha256 } : null };
  }

  /** @returns what came in, in a sentence, or null if nothing did */
  async run(items: readonly ImportItem[], choices: BringInChoices): Promise<string | null> {
    const said: string[] = [];
    const replaced = items.filter((item) => item.text && item.ifKnown === 'replace' && item.sameAs?.id);
    const documents = items.filter((item) => (item.text ?? item.recording ?? item.picture) && !replaced.includes(item));
    if (documents.length > 0) {
      if (!(await this.storeDocuments(documents, choices))) return null;
      said.push(
        documents.length === 1
          ? `${quoted(documents[0]!.title)} is in.`
          : `${counted(documents.length, 'document is', 'documents are')} in.`,
      );
    }
    if (replaced.length > 0) said.push(await this.replaceTexts(replaced));
    for (const item of items.filter((one) => one.table)) {
      const before = this.data()!;
      const sentence = `brought in the table ${item.title}`.slice(0, 500);
      const tableChoices = this.tableChoices(item, choices.folderId);
      const entry = await this.session.runAway((place) => this.files.storeTable(place, item.key, tableChoices, before, sentence));
      if (!entry) return said.length > 0 ? said.join(' ') : null;
      const made = (type: 'document' | 'case'): number => entry.change.filter((one) => one.type === type && one.before === null).length;
      const changed = entry.change.filter((one) => one.type === 'case' && one.before !== null).length;
      said.push(
        `${item.title}: ${counted(made('document'), 'document')}, ${made('case').toLocaleString()} new and ${counted(changed, `changed ${before.study.caseWord}`)}.`,
      );
      const answers = await this.files.answersUpdated();
      if (answers > 0) said.push(`${counted(answers, 'answer')} updated; passages stayed on the words that stayed.`);
    }
    return said.join(' ');
  }

  private async storeDocuments(items: readonly ImportItem[], choices: BringInChoices): Promise<boolean> {
    const state = this.data()!;
    const extra = new Extra(state, choices);
    const taken = takenFor(choices.lineUp, choices.structuredKeys, choices.decisions);
    const ids = new Map(items.map((item) => [item.key, randomId()]));
    const common = (item: ImportItem): CommonFields => {
      const id = ids.get(item.key)!;
      if (item.caseId) extra.own(item.caseId, id);
      return {
        id,
        title: tidyLine(item.title) || 'Untitled',
        kind: item.kind,
        date: item.date || null,
        folderId: choices.subfolders && item.path ? extra.folder(item.path) : choices.folderId,
        values: { ...(choices.asAttributes ? extra.fileFacts(item) : {}), ...extra.ownFacts(item) },
        source: item.pasted ? null : { fileName: item.fileName.slice(0, 1000), sha256: contentOf(item)!.sha256 },
      };
    };
    const media = items.flatMap((item): MediaToStore[] => {
      if (item.picture) return [pictureToStore(item, common(item))];
      if (!item.recording) return [];
      const { sha256, bytes, type, milliseconds } = item.recording;
      const outside = item.stays ? { outside: { name: item.fileName.slice(0, 1000) } } : {};
      const document = { ...common(item), ground: { of: 'time' as const, milliseconds, media: { sha256, bytes, type, ...outside } } };
      return [{ document, file: item.stays ? null : item.file.slice(0, item.file.size, type) }];
    });
    const toStore = items
      .filter((item) => item.text)
      .map((item): TextToStore => {
        const original = choices.originalOf(item);
        const owner = original?.startsWith('file ') ? ids.get(Number(original.slice(5))) : (original ?? undefined);
        const speakers: Record<string, SpeakerChoice> = Object.fromEntries(
          Object.entries(item.speakers).map(([label, choice]) => [
            label,
            { ...choice, caseId: choice.caseId && extra.caseOf(choice.caseId) },
          ]),
        );
        const row = choices.structuredKeys.indexOf(item.key);
        return {
          key: item.key,
          document: { ...common(item), ...(owner !== undefined && { belongsTo: owner }), ...seenOf(item) },
          ...(isSeen(item) && { file: item.file.slice(0, item.file.size, PDF) }),
          choices: { ...choicesOf(item), speakers },
          questionIds: item.markers && row >= 0 ? taken.files[row]!.map((one) => extra.question(taken.list[one.row]!)) : [],
        };
      });
    const sentence = items.length === 1 ? `brought in ${items[0]!.title}` : `brought in ${items.length} documents`;
    const entry = await this.session.runAway((place) =>
      this.files.storeMaterial(place, toStore, media, extra.change(), sentence.slice(0, 500)),
    );
    if (!entry) return false;
    for (const { recording, stays, file, handle } of items)
      if (recording && stays) await this.mediaFiles.link(recording.sha256, { file: file as File, handle: handle ?? undefined });
    return true;
  }

  /** Puts the words of a file in the place of a document's; passages stay where the words are the same. */
  private async replaceTexts(items: readonly ImportItem[]): Promise<string> {
    const texts = await this.session.textsOf(items.map((item) => item.sameAs!.id!));
    const corrections = await Promise.all(
      items.map(async (item) => {
        const text = texts.find((one) => one.id === item.sameAs!.id)!;
        return { text, edits: diffEdits(text.text, await this.files.words(item.key, choicesOf(item))) };
      }),
    );
    const done = this.session.run(
      correctTexts(corrections, `replaced the text of ${counted(items.length, 'document')} from the same file`),
    );
    return done
      ? `${items.length} replaced; passages stayed where the words are the same.`
      : 'Nothing was replaced: the words are the same.';
  }
}

const PDF = 'application/pdf';

/** Whether the file of a text is kept, so that its pages can be seen. */
const isSeen = ({ text, keepPages }: ImportItem): boolean => text?.pages !== undefined && (keepPages || text.total === 0);

const seenOf = (item: ImportItem): Pick<TextToStore['document'], 'seen'> =>
  isSeen(item) ? { seen: { media: { sha256: item.text!.sha256, bytes: item.file.size, type: PDF }, pages: item.text!.pages! } } : {};

/** A picture as it is kept: without what the camera wrote into it, unless that is wanted. */
function pictureToStore({ picture, file, withMetadata }: ImportItem, common: CommonFields): MediaToStore {
  const { width, height, type, sha256, bytes, bare, bareSha256 } = picture!;
  // a drawing is always kept as it was made safe
  const asItCame = withMetadata && type !== 'image/svg+xml';
  const media = asItCame ? { sha256, bytes, type } : { sha256: bareSha256, bytes: bare.size, type };
  return {
    document: { ...common, ground: { of: 'picture', width, height, media } },
    file: asItCame ? file.slice(0, file.size, type) : bare,
  };
}

/** Records that come in beside the texts: cases, folders, questions and attributes made on the way. */
class Extra {
  private readonly newCases = new Map<string, Case>();
  private readonly owned = new Map<Id, Id[]>();
  private readonly folders: Folder[] = [];
  private readonly questions: AskedQuestion[] = [];
  private readonly attributes: Attribute[] = [];
  /** Choices of known attributes that have come to offer more. */
  private readonly offered = new Map<Id, ReadonlySet<string>>();

  constructor(
    private readonly state: StudyState,
    private readonly choices: BringInChoices,
  ) {}

  /** The case behind a choice: one that is there, or `new NAME`, made once a name. */
  caseOf(choice: string): Id {
    if (!choice.startsWith('new ')) return choice;
    const name = tidyLine(choice.slice(4)) || 'Unnamed';
    const there = Object.values(this.choices.cases).find((one) => one.name === name);
    if (there) return there.id;
    let one = this.newCases.get(name);
    if (!one) this.newCases.set(name, (one = { id: randomId(), name, description: '', documentIds: [], stretches: [], values: {} }));
    return one.id;
  }

  own(choice: string, documentId: Id): void {
    const id = this.caseOf(choice);
    this.owned.set(id, [...(this.owned.get(id) ?? []), documentId]);
  }

  folder(path: string): Id | null {
    return folderFor(path, this.choices.folderId, Object.values(this.state.tables.folder), this.folders, randomId);
  }

  question(text: string): Id {
    const known = questionsOf(this.state);
    const there = [...known, ...this.questions].find((one) => one.text === text);
    if (there) return there.id;
    const order = known.reduce((most, one) => Math.max(most, one.order + 1), 0) + this.questions.length;
    const made = { id: randomId(), text: text.slice(0, 5_000), order };
    this.questions.push(made);
    return made.id;
  }

  /** Where a file lay and when it was last changed, as attributes of the document. */
  fileFacts(item: ImportItem): Record<Id, AttributeValue> {
    if (item.changedAt === null) return {};
    return {
      [this.attribute('file location', 'text')]: `${item.path ? `${item.path}/` : ''}${item.fileName}`,
      [this.attribute('file date', 'date')]: new Date(item.changedAt).toISOString().slice(0, 10),
    };
  }

  /** What the file says of itself, as attributes of the document. */
  ownFacts({ text, picture, factsWanted }: ImportItem): Record<Id, AttributeValue> {
    return Object.fromEntries(
      (text?.facts ?? (factsWanted ? picture?.facts : undefined) ?? [])
        .filter((fact) => !this.choices.factsLeft.has(fact.name))
        .map(({ name, value }) => {
          const there = this.known().find((one) => one.name.toLocaleLowerCase() === name.toLocaleLowerCase());
          const ofType = (['date', 'number'] as const).find((type) => parseValue(value, type) !== null) ?? 'text';
          const id = there && this.fits(there, value) ? there.id : this.attribute(name, there ? 'text' : ofType);
          return [id, this.asValue(id, value)];
        }),
    );
  }

  /** Whether a value can be one of an attribute's. */
  private fits({ id, type, choices }: Attribute, raw: string): boolean {
    const value = parseValue(raw, type);
    if (value === null || value === undefined) return false;
    const offered = this.offered.get(id) ?? new Set(choices);
    return type !== 'choice' || offered.has(String(value)) || offered.size < MOST_CHOICES;
  }

  private known(): Attribute[] {
    return [...attributesOf(this.state, 'document'), ...this.attributes];
  }

  /** A value in the type of its attribute; a choice that was not on offer is from now on. */
  private asValue(id: Id, raw: string): AttributeValue {
    const attribute = this.known().find((one) => one.id === id)!;
    const value = parseValue(raw, attribute.type) ?? raw;
    if (attribute.type === 'choice' && !attribute.choices.includes(String(value)))
      this.offered.set(id, new Set([...(this.offered.get(id) ?? attribute.choices), String(value)]));
    return value;
  }

  private attribute(name: string, type: Attribute['type']): Id {
    const all = this.known();
    const there = all.find((one) => one.name === name && one.type === type);
    if (there) return there.id;
    const made: Attribute = { id: randomId(), name, of: 'document', type, choices: [], order: all.length };
    this.attributes.push(made);
    return made.id;
  }

  change(): Change {
    return [
      ...this.attributes.map((one) => added('attribute', one)),
      ...[...this.offered].map(([id, choices]) => updated('attribute', this.state.tables.attribute[id]!, { choices: [...choices] })),
      ...this.folders.map((one) => added('folder', one)),
      ...this.questions.map((one) => added('question', one)),
      ...[...this.newCases.values()].map((one) => added('case', { ...one, documentIds: this.owned.get(one.id) ?? [] })),
      ...[...this.owned].flatMap(([id, documentIds]) => {
        const known = this.state.tables.case[id];
        return known ? [updated('case', known, { documentIds: [...known.documentIds, ...documentIds] })] : [];
      }),
    ];
  }
}

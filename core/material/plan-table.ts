import { isMissing } from '../attributes/missing';
import { parseValue } from '../attributes/values';
import { attributesOf } from '../commands/attributes';
import { questionsOf } from '../commands/questions';
import type { Column } from '../formats/table/guess-roles';
import type { Table } from '../formats/table/table';
import type { AskedQuestion } from '../model/asked-question';
import type { Attribute, AttributeValue, Case } from '../model/case';
import type { Document, DocumentKind, Text } from '../model/document';
import type { Id, NewId } from '../model/ids';
import type { StudyState } from '../model/study-state';
import type { Folder } from '../model/study';
import { added, updated, type Change, type RecordChange } from '../change/change';
import { lineUp } from '../questions/line-up';
import { tidyLine } from '../text/normalise';
import { linesOf, rowText, type AnswerInRow } from './row-text';

/** What rows become: documents with their answers, documents by question, or cases only. */
export type RowsBecome = 'a document each' | 'a document for each question' | 'cases only';

/** How a table is brought in. */
export interface TableChoices {
  readonly columns: readonly Column[];
  readonly rowsBecome: RowsBecome;
  readonly kind: DocumentKind;
  readonly folderId: Id | null;
  /** Name of the file and the SHA-256 of its bytes. */
  readonly source: Document['source'];
  /** Ids of known cases whose differing values are not taken over. */
  readonly keep: ReadonlySet<Id>;
}

/** A cell that does not fit the type of its column. */
export interface Misfit {
  /** Row of the file, from 1. */
  readonly row: number;
  readonly column: string;
  readonly value: string;
  readonly type: Attribute['type'];
}

/** A value of a known case that the table has otherwise. */
export interface Difference {
  readonly caseId: Id;
  readonly caseName: string;
  readonly attribute: string;
  readonly before: AttributeValue | undefined;
  readonly after: AttributeValue;
}

/** A row whose document came in earlier. */
export interface KnownRow {
  readonly documentId: Id;
  readonly caseId: Id;
  readonly caseName: string;
  /** Questions with the answer's lines, none where it is blank. */
  readonly answers: readonly { readonly question: AskedQuestion; readonly lines: readonly string[] }[];
}

/** What bringing a table in would do: shown first, then done as one step. */
export interface TablePlan {
  readonly change: Change;
  readonly newDocuments: number;
  readonly newCases: number;
  readonly newAttributes: readonly string[];
  readonly newQuestions: readonly string[];
  /** Columns that are taken for a known question though they word it otherwise. */
  readonly similar: readonly { readonly column: number; readonly known: string }[];
  readonly differences: readonly Difference[];
  /** Known cases of which the table says nothing new. */
  readonly unchanged: number;
  readonly misfits: readonly Misfit[];
  /** Answers left blank. They stay visible as unanswered. */
  readonly unanswered: number;
  /** Rows whose document is there already, with what they answer. */
  readonly known: readonly KnownRow[];
  /** For each column its cells that say by a sign that there is no value. */
  readonly missing: readonly number[];
  /** Rows left out, with the reason. */
  readonly leftOut: readonly { readonly row: number; readonly why: string }[];
}

/**
 * Plans bringing in a table. A row is matched to a known case by its identifier (an attribute of the
 * identifier column's name with the same value), else by name; a matched row updates what the table says otherwise.
 * Texts are not touched here: rows whose document is there already are told, for {@link answerUpdates}.
 * @throws RangeError if no column is the title or identifier
 */
export function planTable(table: Table, choices: TableChoices, state: StudyState, newId: NewId, now: number): TablePlan {
  return new Planner(table, choices, state, newId, now).plan();
}

class Planner {
  private readonly change: RecordChange[] = [];
  private readonly attributes = new Map<number, Attribute>();
  private readonly newAttributes: Attribute[] = [];
  private readonly questions = new Map<number, AskedQuestion>();
  private readonly newQuestions: AskedQuestion[] = [];
  private readonly folders: Folder[];
  private readonly misfits: Misfit[] = [];
  private readonly differences: Difference[] = [];
  private readonly leftOut: { row: number; why: string }[] = [];
  private readonly fresh: Case[] = [];
  private readonly ownedBy = new Map<Id, Id[]>();
  private readonly documents: { document: Document; text: Text }[] = [];
  private readonly matched = new Map<Id, Case>();
  private readonly changed = new Map<Id, Case>();
  private readonly similar: { column: number; known: string }[] = [];
  private unanswered = 0;
  private readonly missing: number[];
  private readonly at: { title: number; identifier: number; date: number; folder: number };
  private readonly questionColumns: number[];
  private readonly byIdentifier = new Map<string, Case>();
  private readonly byName = new Map<string, Case>();
  private readonly titles: Map<string, Id>;
  private readonly known: KnownRow[] = [];
  private readonly newCases = new Set<Case>();

  constructor(
    private readonly table: Table,
    private readonly choices: TableChoices,
    private readonly state: StudyState,
    private readonly newId: NewId,
    private readonly now: number,
  ) {
    const columnOf = (role: Column['role']): number => choices.columns.findIndex((column) => column.role === role);
    this.at = { title: columnOf('title'), identifier: columnOf('identifier'), date: columnOf('date'), folder: columnOf('folder') };
    if (this.at.title < 0 && this.at.identifier < 0)
      throw new RangeError('No column says who or what a row is about: make one the title or the identifier.');
    this.questionColumns =
      choices.rowsBecome === 'cases only' ? [] : choices.columns.flatMap((column, at) => (column.role === 'question' ? [at] : []));
    this.missing = choices.columns.map(() => 0);
    this.folders = Object.values(state.tables.folder);
    this.titles = new Map(Object.values(state.tables.document).map((document) => [document.title, document.id]));
  }

  plan(): TablePlan {
    this.prepareAttributes();
    this.prepareQuestions();
    this.indexCases();
    this.table.rows.forEach((row, at) => this.row(this.withoutSigns(row), this.table.rowNumbers[at]!));
    const attributes = this.newAttributes.map((attribute) => added('attribute', attribute));
    const choices = [...this.attributes.values()].flatMap((attribute) => {
      const known = this.state.tables.attribute[attribute.id];
      return known && known.choices.length !== attribute.choices.length
        ? [updated('attribute', known, { choices: attribute.choices })]
        : [];
    });
    const cases = [
      ...this.fresh.map((one) => added('case', { ...one, documentIds: this.ownedBy.get(one.id) ?? [] })),
      ...[...this.matched.values()].flatMap((one) => {
        const next = this.changed.get(one.id) ?? one;
        const owned = this.ownedBy.get(one.id) ?? [];
        return next === one && owned.length === 0
          ? []
          : [updated('case', one, { values: next.values, documentIds: [...one.documentIds, ...owned] })];
      }),
    ];
    const differing = new Set(this.differences.map((one) => one.caseId));
    return {
      change: [
        ...attributes,
        ...choices,
        ...this.newQuestions.map((question) => added('question', question)),
        ...this.change,
        ...this.documents.flatMap(({ document, text }) => [added('document', document), added('text', text)]),
        ...cases,
      ],
      newDocuments: this.documents.length,
      newCases: this.fresh.length,
      newAttributes: this.newAttributes.map((attribute) => attribute.name),
      newQuestions: this.newQuestions.map((question) => question.text),
      similar: this.similar,
      differences: this.differences,
      unchanged: [...this.matched.keys()].filter((id) => !differing.has(id)).length,
      misfits: this.misfits,
      unanswered: this.unanswered,
      known: this.known,
      missing: this.missing,
      leftOut: this.leftOut,
    };
  }

  private prepareAttributes(): void {
    const known = attributesOf(this.state, 'case');
    let order = known.reduce((most, one) => Math.max(most, one.order + 1), 0);
    this.choices.columns.forEach((column, at) => {
      if (column.role !== 'attribute' && column.role !== 'identifier') return;
      if (column.role === 'identifier' && this.at.title < 0) return;
      const type = column.role === 'identifier' ? 'text' : column.type;
      const there = known.find((one) => one.name.toLocaleLowerCase() === column.name.toLocaleLowerCase());
      const attribute: Attribute = there
        ? { ...there, choices: [...there.choices] }
        : { id: this.newId(), name: column.name, of: 'case', type, choices: [], order: order++ };
      if (!there) this.newAttributes.push(attribute);
      this.attributes.set(at, attribute);
    });
  }

  private prepareQuestions(): void {
    const known = questionsOf(this.state);
    let order = known.reduce((most, one) => Math.max(most, one.order + 1), 0);
    const { list, files } = lineUp(
      [this.questionColumns.map((at) => this.choices.columns[at]!.name)],
      known.map((one) => one.text),
    );
    this.questionColumns.forEach((at, place) => {
      const { wording, row, likeness } = files[0]![place]!;
      const own = likeness === 'similar' && this.choices.columns[at]!.ownQuestion === true;
      const there = own ? undefined : known[row];
      if (there && likeness === 'similar') this.similar.push({ column: at, known: list[row]! });
      const question = there ?? { id: this.newId(), text: wording, order: order++ };
      if (!there) this.newQuestions.push(question);
      this.questions.set(at, question);
    });
  }

  private indexCases(): void {
    const identifier = this.attributes.get(this.at.identifier);
    for (const one of Object.values(this.state.tables.case)) {
      this.byName.set(one.name.toLocaleLowerCase(), one);
      const value = identifier && one.values[identifier.id];
      if (value !== undefined) this.byIdentifier.set(String(value), one);
    }
  }

  /** A row in which what says that there is no value is empty. */
  private withoutSigns(row: readonly string[]): readonly string[] {
    return row.map((cell, at) => {
      const column = this.choices.columns[at];
      if (!column || column.role === 'ignored' || !isMissing(cell, column.missing)) return cell;
      this.missing[at]!++;
      return '';
    });
  }

  private row(row: readonly string[], number: number): void {
    const identifier = this.at.identifier < 0 ? '' : tidyLine(row[this.at.identifier]!);
    const name = (this.at.title < 0 ? '' : tidyLine(row[this.at.title]!)) || identifier;
    if (!name) {
      this.leftOut.push({ row: number, why: 'it names nobody' });
      return;
    }
    const values: Record<Id, AttributeValue> = {};
    for (const [at, attribute] of this.attributes) {
      const raw = row[at]!;
      const value = parseValue(raw, attribute.type);
      if (value === null) this.misfits.push({ row: number, column: this.choices.columns[at]!.name, value: raw, type: attribute.type });
      if (value === null || value === undefined) continue;
      values[attribute.id] = value;
      if (attribute.type === 'choice' && !attribute.choices.includes(String(value))) attribute.choices.push(String(value));
    }
    const known =
      (identifier && this.byIdentifier.get(identifier)) ||
      (this.at.title < 0 || !identifier ? this.byName.get(name.toLocaleLowerCase()) : undefined);
    const owner = known ?? this.newCase(name, identifier, values);
    if (known) this.match(known, values);
    if (this.questionColumns.length > 0) this.makeDocuments(row, owner, name, identifier);
  }

  private newCase(name: string, identifier: string, values: Record<Id, AttributeValue>): Case {
    // two people may have one name: the identifier tells them apart
    const shown = this.byName.has(name.toLocaleLowerCase()) && identifier ? tidyLine(`${name} (${identifier})`) : name;
    const one: Case = { id: this.newId(), name: shown, description: '', documentIds: [], stretches: [], values };
    this.fresh.push(one);
    this.newCases.add(one);
    if (identifier) this.byIdentifier.set(identifier, one);
    this.byName.set(shown.toLocaleLowerCase(), one);
    return one;
  }

  private match(known: Case, values: Readonly<Record<Id, AttributeValue>>): void {
    if (this.newCases.has(known)) {
      Object.assign(known.values, values);
      return;
    }
    this.matched.set(known.id, known);
    let next = this.changed.get(known.id) ?? known;
    for (const [id, value] of Object.entries(values)) {
      const before = known.values[id];
      if (before === value) continue;
      const attribute = [...this.attributes.values()].find((one) => one.id === id)!;
      this.differences.push({ caseId: known.id, caseName: known.name, attribute: attribute.name, before, after: value });
      if (!this.choices.keep.has(known.id)) next = { ...next, values: { ...next.values, [id]: value } };
    }
    if (next !== known) this.changed.set(known.id, next);
  }

  private makeDocuments(row: readonly string[], owner: Case, name: string, identifier: string): void {
    const each = this.choices.rowsBecome === 'a document for each question';
    const base = identifier && identifier !== name ? tidyLine(`${identifier} ${name}`) : name;
    for (const columns of each ? this.questionColumns.map((at) => [at]) : [this.questionColumns]) {
      const title = each ? tidyLine(`${base} – ${this.choices.columns[columns[0]!]!.name}`) : base;
      const there = this.answeredBefore(owner, columns) ?? this.titles.get(title);
      if (there !== undefined) {
        if (Object.hasOwn(this.state.tables.document, there)) this.known.push(this.knownRow(row, columns, there, owner));
        continue;
      }
      this.documents.push(this.document(row, columns, title));
      const id = this.documents.at(-1)!.document.id;
      this.titles.set(title, id);
      this.ownedBy.set(owner.id, [...(this.ownedBy.get(owner.id) ?? []), id]);
    }
  }

  /** The document of a known case in which these questions were answered before, whatever it is called now. */
  private answeredBefore(owner: Case, columns: readonly number[]): Id | undefined {
    const asked = columns.map((at) => this.questions.get(at)!.id);
    return owner.documentIds.find((id) => {
      const answers = this.state.tables.document[id]?.answers ?? [];
      return asked.every((questionId) => answers.some((answer) => answer.questionId === questionId));
    });
  }

  private knownRow(row: readonly string[], columns: readonly number[], documentId: Id, owner: Case): KnownRow {
    const answers = columns.map((at) => ({ question: this.questions.get(at)!, lines: linesOf(row[at]!) }));
    return { documentId, caseId: owner.id, caseName: owner.name, answers };
  }

  private document(row: readonly string[], columns: readonly number[], title: string): { document: Document; text: Text } {
    const id = this.newId();
    const asked = columns.map((at): AnswerInRow => ({
      questionId: this.questions.get(at)!.id,
      wording: tidyLine(this.choices.columns[at]!.name),
      lines: linesOf(row[at]!),
    }));
    this.unanswered += asked.filter((one) => one.lines.length === 0).length;
    const { text, words, answers } = rowText(id, asked);
    const raw = this.at.date < 0 ? undefined : parseValue(row[this.at.date]!, 'date');
    return {
      text,
      document: {
        id,
        title,
        ground: { of: 'text' },
        kind: this.choices.kind,
        date: typeof raw === 'string' ? raw : null,
        folderId: this.folderOf(row),
        description: '',
        speakers: [],
        characters: text.text.length,
        words,
        source: this.choices.source,
        values: {},
        answers,
        createdAt: this.now,
      },
    };
  }

  private folderOf(row: readonly string[]): Id | null {
    const name = this.at.folder < 0 ? '' : tidyLine(row[this.at.folder]!);
    if (!name) return this.choices.folderId;
    let folder = this.folders.find((one) => one.name === name && one.parentId === this.choices.folderId);
    if (!folder) {
      folder = { id: this.newId(), name, parentId: this.choices.folderId };
      this.folders.push(folder);
      this.change.push(added('folder', folder));
    }
    return folder.id;
  }
}

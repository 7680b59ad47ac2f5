import { quoted } from '../text/quoted';
import { hasText, lengthOf, type Document, type Text } from '../model/document';
import type { HeldStretch } from '../model/holding';
import type { Id } from '../model/ids';
import { heldIn, isThere, POINTING_TYPES, type Pointed } from '../model/references';
import { entryOf, nameOfRecord, RECORDS, type RecordShapes, type RecordType, type TableType } from '../model/records';
import type { StudyState, Table } from '../model/study-state';
import { idOfRow, passageCount, placeOfRow } from '../passages/columns';
import { standsIn } from '../passages/standing';

/**
 * Whether a study holds together: whatever a record type says it points at is there, every place lies in its
 * document, the codebook and the folders are trees. Used after reading a study file and by the safety tests.
 * @param texts the texts by document id, or null to check without them
 * @returns what is wrong, in words; empty for a sound study
 */
export function checkStudy(state: StudyState, texts: ReadonlyMap<Id, Text> | null): string[] {
  return [
    ...danglingIn(state).map(faultOf),
    ...loopsIn(state.tables.code, 'code'),
    ...loopsIn(state.tables.folder, 'folder'),
    ...Object.values(state.tables.document).flatMap((document) => [
      ...checkBelonging(document, state.tables.document),
      ...checkDocument(document, texts),
    ]),
    ...Object.keys(state.passages).flatMap((documentId) => checkPassages(state, documentId)),
  ];
}

/** Something a record points at that is not there, or a part of a document that it has not. */
export interface Dangling {
  readonly type: RecordType;
  readonly record: RecordShapes[RecordType];
  readonly point: Pointed | { readonly of: 'stretch'; readonly documentId: Id };
}

/** Everything that records point at and that is not there, but for what keeps its place by name. Passages are checked apart. */
export function danglingIn(state: StudyState): Dangling[] {
  const found: Dangling[] = [];
  const look = <K extends RecordType>(type: K, record: RecordShapes[K]): void => {
    const { points, stretches } = heldIn(type, record);
    for (const point of points) if (point.whenGone !== 'placeholder' && !isThere(state, point)) found.push({ type, record, point });
    for (const stretch of stretches)
      if (!isPart(state, stretch)) found.push({ type, record, point: { of: 'stretch', documentId: stretch.documentId } });
  };
  look('study', state.study);
  for (const type of POINTING_TYPES)
    if (RECORDS[type].kept === 'row') for (const record of Object.values(state.tables[type as TableType])) look(type, record);
  return found;
}

/** Whether a part of a document is one: the document is there, and the part stands in it. */
export function isPart({ tables }: Pick<StudyState, 'tables'>, { documentId, start, end }: HeldStretch): boolean {
  const document = tables.document[documentId];
  return document !== undefined && standsIn(document, { start, end });
}

function faultOf({ type, record, point }: Dangling): string {
  const name = nameOfRecord(record);
  const who = `The ${entryOf(type).called}${name ? ` ${quoted(name)}` : ''}`;
  if (point.of === 'stretch') return `${who} owns a part of a document that is not there.`;
  return `${who} points at a ${entryOf(point.of as RecordType).called} that is missing.`;
}

function loopsIn(table: Readonly<Record<Id, { readonly name: string; readonly parentId: Id | null }>>, called: string): string[] {
  /** Records that are known to lead to the top. */
  const sound = new Set<Id>();
  return Object.entries(table).flatMap(([id, { name }]) => {
    const seen = new Set<Id>();
    let at: Id | null = id;
    while (at !== null && !seen.has(at) && !sound.has(at)) {
      seen.add(at);
      at = table[at]?.parentId ?? null;
    }
    if (at !== null && !sound.has(at)) return [`The ${called} ${quoted(name)} lies under itself.`];
    for (const one of seen) sound.add(one);
    return [];
  });
}

function checkBelonging(document: Document, documents: Table<Document>): string[] {
  const to = document.belongsTo === undefined ? undefined : documents[document.belongsTo];
  return to && (to.belongsTo !== undefined || to.id === document.id)
    ? [`${quoted(document.title)} belongs to ${quoted(to.title)}, which belongs to another itself.`]
    : [];
}

function checkDocument(document: Document, texts: ReadonlyMap<Id, Text> | null): string[] {
  const { title, characters, answers, readTo = 0, units = [] } = document;
  const faults: string[] = [];
  const expect = (there: boolean, fault: string): void => {
    if (!there) faults.push(fault);
  };
  for (const { start, end, asked } of answers)
    expect(
      0 <= start &&
        start <= end &&
        end <= characters &&
        (!asked || (0 <= asked.start && asked.start < asked.end && asked.end <= characters)),
      `An answer in ${quoted(title)} lies outside its text.`,
    );
  expect(readTo <= lengthOf(document), `${quoted(title)} is marked as read beyond its end.`);
  expect(hasText(document) || document.characters + document.words === 0, `${quoted(title)} has no text and counts words all the same.`);
  expect(
    units.every((start, at) => (at === 0 ? start === 0 : start > units[at - 1]!) && start <= characters),
    `The idea-units of ${quoted(title)} are out of order or lie outside its text.`,
  );
  if (!texts) return faults;
  const text = texts.get(document.id);
  if (!hasText(document)) return text ? [...faults, `${quoted(title)} has a text it cannot have.`] : faults;
  expect(text?.text.length === characters, `The text of ${quoted(title)} is missing or of another length.`);
  for (const { start, body, end, speaker } of text?.paragraphs ?? [])
    expect(
      start <= body && body <= end && end <= characters && speaker < document.speakers.length,
      `A paragraph of ${quoted(title)} lies outside its text.`,
    );
  return faults;
}

function checkPassages(state: StudyState, documentId: Id): string[] {
  const document = state.tables.document[documentId];
  if (!document) return [`There are passages of a document that is missing (${documentId}).`];
  const columns = state.passages[documentId]!;
  if (columns.ground !== document.ground.of) return [`The passages of ${quoted(document.title)} stand in another ground than it has.`];
  const faults: string[] = [];
  const seen = new Set<Id>();
  for (let row = 0; row < passageCount(columns); row++) {
    const id = idOfRow(columns, row);
    if (seen.has(id)) faults.push(`${quoted(document.title)} has the same passage twice.`);
    seen.add(id);
    if (!standsIn(document, placeOfRow(columns, row)))
      faults.push(
        `A passage of ${quoted(document.title)} lies outside its ${document.ground.of === 'time' ? 'recording' : document.ground.of}.`,
      );
  }
  for (const number of new Set(columns.codingCode))
    if (!Object.hasOwn(state.tables.code, columns.codes[number]!))
      faults.push(`A passage of ${quoted(document.title)} carries a code that is missing.`);
  for (const number of new Set([...columns.codingCoder, ...columns.markedBy]))
    if (!Object.hasOwn(state.tables.coder, columns.coders[number]!))
      faults.push(`A passage of ${quoted(document.title)} was coded by an unknown coder.`);
  return faults;
}

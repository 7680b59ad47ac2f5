import { applyChange } from '../change/apply';
import { isPictureEnding } from '../formats/picture/picture-endings';
import { readPicture } from '../formats/picture/read-picture';
import { readFile } from '../formats/read-file';
import { endingOf, TABLE_ENDINGS } from '../formats/readable-endings';
import { UnreadableFileError } from '../formats/reading';
import { readRecording } from '../formats/recording/read-recording';
import { isRecordingEnding } from '../formats/recording/recording-endings';
import { guessRoles } from '../formats/table/guess-roles';
import { readTable } from '../formats/table/read-table';
import { checkStudy } from '../integrity/check-study';
import { composeImport, speakersAsWritten } from '../material/compose-import';
import { planTable } from '../material/plan-table';
import { changeOfMedia, changeOfTexts } from '../material/store-request';
import type { Change } from '../change/change';
import type { Text } from '../model/document';
import { schemaOf } from '../model/records';
import { guessMarkers } from '../questions/find-questions';
import { nobodyIn } from '../text/draft-text';
import { namesTaken } from '../text/speakers';
import { Bench } from './make';

/** Words that a library says, and no researcher understands. */
const PROGRAMMERS =
  /undefined|\bnull\b|TypeError|RangeError|SyntaxError|not a function|call stack|unexpected token|invalid (zip|array|code)|mammoth|\bat .*\.[jt]s:/i;

/**
 * What becomes of a file that is brought in: it is read, and what would be stored of it passes the schemas and the
 * check of a whole study; or it is refused in words.
 * @throws Error where it is neither: that is a fault of Filum's
 */
export async function outcomeOf(name: string, bytes: Uint8Array): Promise<'read' | 'refused'> {
  let change: Change;
  const bench = new Bench();
  try {
    const ending = endingOf(name);
    change = (TABLE_ENDINGS as readonly string[]).includes(ending)
      ? await ofTable(name, bytes, bench)
      : isRecordingEnding(ending) || isPictureEnding(ending)
        ? await ofMedia(name, bytes, bench)
        : await ofText(name, bytes, bench);
  } catch (error) {
    if (!(error instanceof UnreadableFileError)) throw error;
    if (error.message.length < 15 || PROGRAMMERS.test(error.message))
      throw new Error(`refused in words that say nothing: ${error.message}`);
    return 'refused';
  }
  for (const { type, after } of change) {
    const fits = schemaOf(type).safeParse(after);
    if (!fits.success)
      throw new Error(`a ${type} that no study takes: ${fits.error.issues[0]?.path.join('.')} ${fits.error.issues[0]?.message}`);
  }
  const texts = new Map(change.flatMap((one) => (one.type === 'text' && one.after ? [[one.after.id, one.after] as [string, Text]] : [])));
  const faults = checkStudy(applyChange(bench.state, change), texts);
  if (faults.length > 0) throw new Error(`a study that is not sound: ${faults[0]}`);
  return 'read';
}

async function ofText(name: string, bytes: Uint8Array, bench: Bench): Promise<Change> {
  const read = await readFile(name, bytes);
  const choices = {
    speakers: speakersAsWritten(namesTaken(read.speakers)),
    nobody: nobodyIn(read.paragraphs),
    markers: guessMarkers(read.paragraphs)[0] ?? null,
  };
  const { questions } = composeImport('', read.paragraphs, choices);
  const document = {
    id: bench.newId(),
    title: read.title,
    kind: 'interview',
    date: null,
    folderId: null,
    values: {},
    source: null,
  } as const;
  return changeOfTexts([{ key: 1, document, choices, questionIds: questions.map(() => null) }], () => read.paragraphs, 1);
}

async function ofMedia(name: string, bytes: Uint8Array, bench: Bench): Promise<Change> {
  const ending = endingOf(name);
  const file = new Blob([new Uint8Array(bytes)]);
  const common = { id: bench.newId(), title: name, date: null, folderId: null, values: {}, source: null } as const;
  if (isRecordingEnding(ending)) {
    const { milliseconds, sha256, type } = await readRecording(ending, file);
    const ground = { of: 'time', milliseconds, media: { sha256, bytes: file.size, type } } as const;
    return changeOfMedia([{ document: { ...common, kind: 'recording', ground }, file }], 1);
  }
  const { width, height, sha256, type, bare, date } = await readPicture(ending, file);
  const ground = { of: 'picture', width, height, media: { sha256, bytes: bare.size, type } } as const;
  return changeOfMedia([{ document: { ...common, kind: 'picture', date, ground }, file: bare }], 1);
}

async function ofTable(name: string, bytes: Uint8Array, bench: Bench): Promise<Change> {
  const table = await readTable(name, bytes);
  const columns = guessRoles(table, true);
  // a table in which nothing names its rows asks the researcher; here the first column does
  const named = columns.some(({ role }) => role === 'title' || role === 'identifier');
  const roles = named ? columns : columns.map((column, at) => (at === 0 ? { ...column, role: 'title' as const } : column));
  const choices = {
    columns: roles,
    rowsBecome: 'a document each',
    kind: 'survey answers',
    folderId: null,
    source: null,
    keep: new Set<string>(),
  } as const;
  return planTable(table, choices, bench.state, bench.newId, 1).change;
}

import { added, updated } from '../change/change';
import { CommandError, found, short, type Command } from '../change/command';
import { hasText, type Document, type PlaceMark, type Text } from '../model/document';
import type { Id } from '../model/ids';
import type { StudyState } from '../model/study-state';
import type { Stretch } from '../model/stretch';
import { clock } from '../text/clock';
import { normaliseText, tidyLine } from '../text/normalise';
import { FIRST_SHORT_FORMS, type ShortForm } from '../text/short-forms';

/** Begins a transcript of a recording, or the description of a picture: an empty text that belongs to it. @param id of the text */
export function beginTranscript(originalId: Id, title: string, id: Id): Command {
  return (state, context) => {
    const original = found(state.tables.document[originalId], 'document');
    if (hasText(original)) throw new CommandError(`${short(original.title)} is no recording and no picture.`);
    standsByItself(original, state);
    const what = original.ground.of === 'time' ? 'transcript' : 'description';
    const name = tidyLine(title);
    if (!name) throw new CommandError(`A ${what} needs a title.`);
    const document = transcriptOf(original, name, id, context.now);
    const text: Text = { id, text: '', paragraphs: [{ start: 0, body: 0, end: 0, speaker: -1, style: 'body' }], emphasis: [], marks: [] };
    return { change: [added('document', document), added('text', text)], sentence: `began a ${what} of ${short(original.title)}` };
  };
}

/** Takes in a transcript that a service made. @param by the service, as it is shown wherever its words are */
export function addTranscript(
  recordingId: Id,
  title: string,
  { text, speakers, words }: { readonly text: Text; readonly speakers: Document['speakers']; readonly words: number },
  { by, simulated }: { readonly by: string; readonly simulated: boolean },
): Command {
  return (state, context) => {
    const recording = recordingOf(state.tables.document[recordingId]);
    standsByItself(recording, state);
    const document: Document = {
      ...transcriptOf(recording, tidyLine(title), text.id, context.now),
      speakers,
      characters: text.text.length,
      words,
      transcribed: { by, ...(simulated && { simulated: true as const }) },
    };
    return { change: [added('document', document), added('text', text)], sentence: `had ${short(recording.title)} transcribed by ${by}` };
  };
}

/** A text of a recording or a picture as it begins: of its day, and where it lies. */
const transcriptOf = (original: Document, title: string, id: Id, now: number): Document => ({
  id,
  title,
  ground: { of: 'text' },
  belongsTo: original.id,
  kind: original.ground.of === 'time' ? 'interview' : 'field note',
  date: original.date,
  folderId: original.folderId,
  description: '',
  speakers: [],
  characters: 0,
  words: 0,
  source: null,
  values: {},
  answers: [],
  createdAt: now,
});

/**
 * Moves a time mark of a transcript to another moment of the recording.
 * @param at position of the mark in the text
 * @param value milliseconds; not before the mark in front of it, not behind the one after
 */
export function moveTimeMark(text: Text, at: number, value: number): Command {
  return (state) => {
    const document = found(state.tables.document[text.id], 'document');
    const times = text.marks.filter((mark) => mark.kind === 'time');
    const row = times.findIndex((mark) => mark.at === at);
    const mark = found(times[row], 'time');
    const next = Math.round(value);
    const [least, most] = [times[row - 1]?.value ?? 0, times[row + 1]?.value ?? Infinity];
    if (next < least || next > most) throw new CommandError('A time lies between the one before it and the one after it.');
    if (next === mark.value) return null;
    return {
      change: [updated('text', text, { marks: text.marks.map((one) => (one === mark ? { ...one, value: next } : one)) })],
      sentence: `moved a time of ${short(document.title)} from ${clock(mark.value)} to ${clock(next)}`,
    };
  };
}

/** Notes when a position of a transcript is reached, in the place of a time that is there. @param value milliseconds, or null to take it away */
export function setTime(text: Text, at: number, value: number | null): Command {
  return (state) => {
    const document = found(state.tables.document[text.id], 'document');
    const others = text.marks.filter((mark) => mark.kind !== 'time' || mark.at !== at);
    const mark: PlaceMark[] = value === null ? [] : [{ at, kind: 'time', value: Math.round(value) }];
    const marks = [...others, ...mark].sort((a, b) => a.at - b.at);
    if (marks.length === text.marks.length && value === null) return null;
    const title = short(document.title);
    return {
      change: [updated('text', text, { marks })],
      sentence: value === null ? `took a time off ${title}` : `noted the time ${clock(value)} in ${title}`,
    };
  };
}

/** Words that a service was not sure of were listened to, and are right as they stand. @param words as the text has them */
export function wordsAreRight(text: Text, words: readonly Stretch[]): Command {
  return (state) => {
    const document = found(state.tables.document[text.id], 'document');
    const right = (one: Stretch): boolean => words.some(({ start, end }) => start === one.start && end === one.end);
    const { unsure = [], ...rest } = text;
    const left = unsure.filter((one) => !right(one));
    const decided = unsure.length - left.length;
    if (decided === 0) return null;
    return {
      change: [{ type: 'text', before: text, after: left.length > 0 ? { ...rest, unsure: left } : rest }],
      sentence: `heard ${decided === 1 ? 'a word' : `${decided} words`} of ${short(document.title)} as written`,
    };
  };
}

/** What is typed for what while transcribing, line by line: `short = long`. */
export function setShortForms(raw: string): Command {
  return ({ study }) => {
    const forms = readShortForms(raw);
    const { shortForms: before = FIRST_SHORT_FORMS, ...rest } = study;
    if (JSON.stringify(before) === JSON.stringify(forms)) return null;
    return {
      change: [{ type: 'study', before: study, after: { ...rest, shortForms: forms } }],
      sentence: `changed the short forms: ${forms.map((form) => form.short).join(', ')}`.slice(0, 500),
    };
  };
}

/** @throws CommandError naming the line that is none */
function readShortForms(raw: string): ShortForm[] {
  const forms = new Map<string, string>();
  for (const line of normaliseText(raw)
    .split('\n')
    .filter((one) => one.trim())) {
    const match = /^\s*(\S{1,40})\s*=\s*(\S.{0,499})$/.exec(line.trimEnd());
    if (!match)
      throw new CommandError(`“${line.trim().slice(0, 60)}” is no short form: write “short = long”, with no blank in what is typed.`);
    if (forms.has(match[1]!)) throw new CommandError(`“${match[1]!}” stands there twice.`);
    forms.set(match[1]!, match[2]!);
  }
  return Array.from(forms, ([short, long]) => ({ short, long }));
}

/** What something belongs to belongs to nothing itself. @throws CommandError */
function standsByItself({ title, belongsTo }: Document, state: StudyState): void {
  if (belongsTo !== undefined)
    throw new CommandError(
      `${short(title)} belongs to ${short(state.tables.document[belongsTo]!.title)} itself. Let it stand by itself first.`,
    );
}

/** @throws CommandError */
function recordingOf(document: Document | undefined): Document {
  const recording = found(document, 'recording');
  if (recording.ground.of !== 'time') throw new CommandError(`${short(recording.title)} is no recording.`);
  return recording;
}

import type { Code } from '../../model/code';
import type { Document, Text } from '../../model/document';
import type { Id } from '../../model/ids';
import type { Passage } from '../../model/passage';
import type { Stretch } from '../../model/stretch';
import type { Table } from '../../model/study-state';
import { wordsOfPlace } from '../../text/citation';
import { isTimed, spanOf, wordsSpoken } from '../../text/timeline';
import { writeCsv } from '../csv/write-csv';

/** A passage as it is heard: where in which recording, what is said, and what it is coded with. */
export interface Clip {
  readonly recording: Document;
  /** In milliseconds. */
  readonly span: Stretch;
  readonly words: string;
  /** Names of its codes, in the order of the codebook. */
  readonly codes: readonly string[];
  readonly comment: string;
}

/**
 * A passage as a clip: a span of a recording, or words of a transcript whose time is known.
 * @param text of the passage's document; of a span, a transcript of its recording, if there is one
 * @returns null for what is not heard
 */
export function clipOf(passage: Passage, documents: Table<Document>, codes: Table<Code>, text: Text | null): Clip | null {
  const document = documents[passage.documentId];
  const recording = document?.ground.of === 'time' ? document : documents[document?.belongsTo ?? ''];
  if (!document || recording?.ground.of !== 'time') return null;
  const own = document === recording;
  if (!own && (!text || !isTimed(text))) return null;
  const length = recording.ground.milliseconds;
  const { start, end } = own ? passage : spanOf(text!, passage);
  const said = own ? text && wordsSpoken(text, passage) : passage;
  return {
    recording,
    span: { start: Math.min(start, length - 1), end: Math.min(Math.max(end, start + 1), length) },
    words: text && said ? wordsOfPlace(text, said) : '',
    codes: [...new Set(passage.codings.map((coding) => coding.codeId))]
      .flatMap((id: Id) => codes[id] ?? [])
      .sort((a, b) => a.order - b.order)
      .map((code) => code.name),
    comment: passage.comment,
  };
}

/** Clips by recording and time. */
export const inOrder = (clips: readonly Clip[]): Clip[] =>
  [...clips].sort((a, b) => a.recording.title.localeCompare(b.recording.title) || a.span.start - b.span.start || a.span.end - b.span.end);

/** Seconds with milliseconds, as spreadsheets and editing programs take them. */
const seconds = (milliseconds: number): string => (milliseconds / 1000).toFixed(3);

/**
 * Clips as a table: recording, start and end in seconds, length, codes, words, comment.
 * @param within where each clip is in one sound of all of them, if there is one
 */
export const clipsCsv = (clips: readonly Clip[], within: readonly Stretch[] = []): string =>
  writeCsv([
    ['recording', 'start (s)', 'end (s)', 'length (s)', 'codes', 'words', 'comment', ...(within.length > 0 ? ['from (s)', 'to (s)'] : [])],
    ...clips.map(({ recording, span, words, codes, comment }, at) => [
      recording.title,
      seconds(span.start),
      seconds(span.end),
      seconds(span.end - span.start),
      codes.join('; '),
      words,
      comment,
      ...(within[at] ? [seconds(within[at].start), seconds(within[at].end)] : []),
    ]),
  ]);

const clockOf = (milliseconds: number): string => {
  const two = (value: number): string => String(value).padStart(2, '0');
  const whole = Math.floor(milliseconds / 1000);
  return `${two(Math.floor(whole / 3600))}:${two(Math.floor(whole / 60) % 60)}:${two(whole % 60)}.${String(milliseconds % 1000).padStart(3, '0')}`;
};

/** What stands in a cue may hold neither tags nor an arrow (WebVTT, W3C, section 4.1). */
const cueText = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/\s+/g, ' ').trim();

/** Clips of one recording as subtitles that say what is coded: WebVTT (W3C), a cue for each clip. */
export const codesVtt = (clips: readonly Clip[]): string =>
  `WEBVTT\n\n${[...clips]
    .sort((a, b) => a.span.start - b.span.start || b.span.end - a.span.end)
    .map(({ span, codes, words }, at) => {
      const lines = [codes.length > 0 ? `[${codes.join(', ')}]` : '', words].map(cueText).filter(Boolean);
      return `${at + 1}\n${clockOf(span.start)} --> ${clockOf(span.end)}\n${lines.join('\n') || '[no code yet]'}\n`;
    })
    .join('\n')}`;

/** A name for the file of a clip: recording and times, with no sign that a system refuses. */
export const clipFileName = ({ recording, span }: Clip, at: number): string =>
  `${String(at + 1).padStart(3, '0')} ${recording.title.replace(/[\\/:*?"<>|\p{Cc}]/gu, '-').slice(0, 80)} ${clockOf(span.start).replace(/[:.]/g, '-')}.wav`;

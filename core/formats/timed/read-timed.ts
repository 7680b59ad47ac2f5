import type { PlaceMark } from '../../model/document';
import { normaliseText, tidyLine } from '../../text/normalise';
import type { DraftParagraph } from '../../text/draft-text';
import { UnreadableFileError, type Reading } from '../reading';

const TIMES = /^\s*((?:\d+:)?\d{1,2}:\d{2}[.,]\d{1,3})\s+-->\s+((?:\d+:)?\d{1,2}:\d{2}[.,]\d{1,3})/;

/** What one caption says, and when; milliseconds from the start of the recording. */
interface Cue {
  readonly start: number;
  readonly end: number;
  readonly speaker: string;
  readonly text: string;
}

/** A pause of this many milliseconds ends a paragraph. */
const PAUSE = 2_500;
/** A paragraph of this many characters ends with its sentence. */
const LONG = 400;

/**
 * Reads subtitles: WebVTT (W3C) and SubRip (`.srt`). Captions break where the picture needs it, not where
 * speech does, so they are joined into paragraphs by speaker, sentence and pause; each keeps its time as a mark.
 * @throws UnreadableFileError
 */
export function readTimed(raw: string): Reading {
  const cues = readCues(normaliseText(raw));
  if (cues.length === 0)
    throw new UnreadableFileError('There are no captions in this file: no line looks like “00:00:01.000 --> 00:00:04.000”.');
  const paragraphs: DraftParagraph[] = [];
  let text = '';
  let marks: PlaceMark[] = [];
  let last: Cue | null = null;
  const end = (): void => {
    if (text) paragraphs.push({ text, style: 'body', emphasis: [], marks });
    text = '';
    marks = [];
  };
  for (const cue of cues) {
    const goesOn =
      last !== null &&
      cue.speaker === last.speaker &&
      cue.start - last.end < PAUSE &&
      !(text.length > LONG && /[.!?…]["”’)]?$/.test(text)) &&
      !/^[-–]\s/.test(cue.text);
    if (!goesOn) {
      end();
      text = cue.speaker ? `${cue.speaker}: ` : '';
    } else text += ' ';
    marks.push({ at: text.length, kind: 'time', value: cue.start });
    text += cue.text;
    last = cue;
  }
  end();
  return { title: null, paragraphs, notes: [`${cues.length} captions joined into ${paragraphs.length} paragraphs, their times kept`] };
}

function readCues(text: string): Cue[] {
  const cues: Cue[] = [];
  for (const block of text.split(/\n[ \t]*\n+/)) {
    const lines = block.split('\n');
    const at = lines.findIndex((line) => TIMES.test(line));
    if (at < 0 || /^(NOTE|STYLE|REGION)\b/.test(lines[0] ?? '')) continue;
    const [, from = '', to = ''] = TIMES.exec(lines[at]!)!;
    const said = lines.slice(at + 1).join(' ');
    const speaker = tidyLine(/<v(?:\.[^ >]*)?\s+([^>]+)>/.exec(said)?.[1] ?? '');
    const words = tidyLine(decodeSigns(said.replace(/<[^>]*>|\{\\[^}]*\}/g, '')));
    if (words) cues.push({ start: milliseconds(from), end: milliseconds(to), speaker, text: words });
  }
  return cues;
}

const SIGNS: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', nbsp: ' ', lrm: '\u200e', rlm: '\u200f' };
const decodeSigns = (text: string): string => text.replace(/&(amp|lt|gt|nbsp|lrm|rlm);/g, (_, name: string) => SIGNS[name]!);

/** `1:02:03.456` in milliseconds. */
function milliseconds(time: string): number {
  const [clock = '', fraction = '0'] = time.split(/[.,]/);
  const seconds = clock.split(':').reduce((sum, part) => sum * 60 + Number(part), 0);
  return seconds * 1000 + Number(fraction.padEnd(3, '0').slice(0, 3));
}

import type { PlaceMark } from '../../model/document';
import { normaliseText } from '../../text/normalise';
import type { DraftParagraph } from '../../text/draft-text';
import { readLabel } from '../../text/speakers';
import { UnreadableFileError, type Reading } from '../reading';
import { readCaptions } from './captions';

/** A name as it is written before what is said: with a colon, or in brackets where it would not be read as a name otherwise. */
function labelled(name: string): string {
  const written = `${name}: `;
  return readLabel({ text: `${written}x`, style: 'body', emphasis: [] })?.name === name ? written : `[${name.slice(0, 40)}] `;
}

/** A pause of this many milliseconds ends a paragraph. */
const PAUSE = 2_500;
/** A paragraph of this many characters ends with its sentence. */
const LONG = 400;

/**
 * Reads subtitles: WebVTT (W3C) and SubRip (`.srt`). Captions break where the picture needs it, not where
 * speech does, so they are joined into paragraphs by speaker, sentence and pause; each keeps its time as a mark. Who
 * speaks is told by a tag, by a name and a colon, or by a dash or arrows for a change: where the one who begins then is
 * not named, but others are, the paragraph is given to nobody rather than to whoever spoke before.
 * @throws UnreadableFileError
 */
export function readTimed(raw: string): Reading {
  const { captions, tagged } = readCaptions(normaliseText(raw));
  if (captions.length === 0)
    throw new UnreadableFileError('There are no captions in this file: no line looks like “00:00:01.000 --> 00:00:04.000”.');
  const named = captions.some((caption) => caption.said.some((one) => one.speaker));
  const paragraphs: DraftParagraph[] = [];
  let text = '';
  let marks: PlaceMark[] = [];
  let lastEnd = -Infinity;
  /** Who speaks; null for somebody who is not named. */
  let speaker: string | null = '';
  const end = (): void => {
    if (text)
      paragraphs.push({
        text,
        style: 'body',
        emphasis: [],
        marks,
        ...(named && !speaker && { nobody: true }),
        ...(tagged && speaker && { named: true }),
      });
    text = '';
    marks = [];
  };
  for (const caption of captions) {
    for (const one of caption.said) {
      // by tags every caption says who speaks, and none means nobody; by labels, whoever spoke goes on
      const who: string | null = one.speaker || (one.changes ? null : tagged ? '' : speaker);
      const full = text.length > LONG && /[.!?…]["”’)]?$/.test(text);
      if (one.changes || who !== speaker || caption.start - lastEnd >= PAUSE || full) {
        end();
        speaker = who;
        text = who ? labelled(who) : '';
      } else if (text) text += ' ';
      marks.push({ at: text.length, kind: 'time', value: caption.start });
      text += one.words;
      lastEnd = caption.end;
    }
  }
  end();
  return {
    title: null,
    paragraphs,
    notes: [`${captions.length} captions joined into ${paragraphs.length} paragraphs, their times kept`],
  };
}

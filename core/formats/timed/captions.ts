import { tidyLine } from '../../text/normalise';
import { plainParagraph } from '../plain-text/read-plain-text';
import { readLabel } from '../../text/speakers';

/** Words of one voice within a caption. */
export interface Said {
  /** Who says it, where the caption names somebody; empty where it does not. */
  readonly speaker: string;
  /** A dash or an arrow says that somebody else begins here. */
  readonly changes: boolean;
  readonly words: string;
}

/** What one caption says, and when; milliseconds from the start of the recording. */
export interface Caption {
  readonly start: number;
  readonly end: number;
  readonly said: readonly Said[];
}

const TIMES = /^[ \t]*((?:\d{1,4}:)?\d{1,2}:\d{2}[.,]\d{1,3})[ \t]+-->[ \t]+((?:\d{1,4}:)?\d{1,2}:\d{2}[.,]\d{1,3})/;
/** The tag of a voice, `<v Name>` or `<v.loud Name>`, and its end. What it may hold is bounded, so that a broken one costs nothing. */
const VOICE = /<v(?:\.[^\s<>]{0,60})?[ \t]{1,9}([^<>]{1,200})>|<\/v>/g;
const TAGS = /<[^<>]{0,200}>|\{\\[^{}]{0,200}\}/g;
/** What says that another speaker begins: a dash and a blank, or arrows. */
const CHANGE = /^(?:[-–—][ \t]+|>{2,3}[ \t]*)(?=\S)/;
/** A dash right before the words: only where the lines of a caption all begin so. */
const DASH = /^[-–—](?=[^\s\d-])/;

interface Line {
  readonly words: string;
  readonly changes: boolean;
  /** Named by a tag; null where no tag says anything. */
  readonly voice: string | null;
  /** Whether the line begins here, and not in the middle by a tag. */
  readonly begins: boolean;
}

/**
 * The captions of a text of subtitles, WebVTT or SubRip; those without words are left out.
 * @returns them, and whether tags say who speaks
 */
export function readCaptions(text: string): { readonly captions: Caption[]; readonly tagged: boolean } {
  const cues: { start: number; end: number; lines: Line[] }[] = [];
  for (const block of text.split(/\n[ \t]*\n/)) {
    const lines = block.split('\n');
    const at = lines.findIndex((line) => TIMES.test(line));
    if (at < 0 || /^(NOTE|STYLE|REGION)\b/.test(lines[0] ?? '')) continue;
    const [, from = '', to = ''] = TIMES.exec(lines[at]!)!;
    const said = linesOf(lines.slice(at + 1).filter((line) => line.trim()));
    if (said.length > 0) cues.push({ start: milliseconds(from), end: milliseconds(to), lines: said });
  }
  const names = namesIn(cues.map((cue) => cue.lines));
  return {
    captions: cues.map(({ start, end, lines }) => ({ start, end, said: saidIn(lines, names) })),
    tagged: cues.some(({ lines }) => lines.some((line) => line.voice !== null)),
  };
}

/** The lines of a caption, divided where a tag gives the word to another voice. */
function linesOf(raw: readonly string[]): Line[] {
  const lines: Line[] = [];
  const dashed = raw.length > 1 && raw.every((line) => DASH.test(line.replace(TAGS, '').trimStart()));
  let voice: string | null = null;
  for (const line of raw) {
    let from = 0;
    let begins = true;
    const add = (until: number): void => {
      const words = tidyLine(decodeSigns(line.slice(from, until).replace(TAGS, '')));
      if (!words) return;
      const sign = CHANGE.exec(words) ?? (dashed && begins ? DASH.exec(words) : null);
      lines.push({ words: words.slice(sign?.[0].length ?? 0).trim(), changes: sign !== null, voice, begins });
      begins = false;
    };
    for (const tag of line.matchAll(VOICE)) {
      add(tag.index);
      from = tag.index + tag[0].length;
      voice = tag[1] === undefined ? null : tidyLine(decodeSigns(tag[1])) || null;
    }
    add(line.length);
  }
  return lines;
}

/**
 * Names with a colon that begin lines. One that comes once is a name only where a good part of the captions begin with
 * one: "Remember: bring gloves" names nobody.
 */
function namesIn(captions: readonly (readonly Line[])[]): ReadonlySet<string> {
  const times = new Map<string, number>();
  let labelled = 0;
  for (const lines of captions)
    for (const line of lines) {
      const name = line.begins && line.voice === null ? labelOf(line.words)?.name : undefined;
      if (!name) continue;
      times.set(name, (times.get(name) ?? 0) + 1);
      labelled++;
    }
  const most = labelled >= 2 && labelled * 3 >= captions.length;
  return new Set([...times].flatMap(([name, count]) => (count > 1 || most ? [name] : [])));
}

/** A name and a colon. What stands in brackets in captions is a sound more often than a name. */
function labelOf(words: string): { readonly name: string; readonly length: number } | null {
  const label = readLabel(plainParagraph(words));
  return label && /^[^[].*[:：][ \t]*$/.test(words.slice(0, label.length)) ? label : null;
}

function saidIn(lines: readonly Line[], names: ReadonlySet<string>): Said[] {
  const said: { speaker: string; changes: boolean; words: string }[] = [];
  let voice: string | null = null;
  for (const line of lines) {
    const label = line.begins && line.voice === null ? labelOf(line.words) : null;
    const named = label !== null && names.has(label.name);
    const words = named ? line.words.slice(label.length) : line.words;
    const last = said.at(-1);
    // a line without a name is the next of whoever was named before it
    if (last && !line.changes && !named && line.voice === voice) last.words = `${last.words} ${words}`.trim();
    else said.push({ speaker: named ? label.name : (line.voice ?? ''), changes: line.changes, words });
    voice = line.voice;
  }
  return said.filter((one) => one.words);
}

const SIGNS: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', nbsp: ' ', lrm: '\u200e', rlm: '\u200f' };
const decodeSigns = (text: string): string => text.replace(/&(amp|lt|gt|nbsp|lrm|rlm);/g, (_, name: string) => SIGNS[name]!);

/** `1:02:03.456` in milliseconds. */
function milliseconds(time: string): number {
  const [clock = '', fraction = '0'] = time.split(/[.,]/);
  const seconds = clock.split(':').reduce((sum, part) => sum * 60 + Number(part), 0);
  return seconds * 1000 + Number(fraction.padEnd(3, '0').slice(0, 3));
}

import type { Document, PlaceMark, Speaker, Text } from '../model/document';
import type { Id } from '../model/ids';
import type { Passage } from '../model/passage';
import type { StudyState } from '../model/study-state';
import { composeText, type DraftParagraph } from '../text/draft-text';
import { applyEdits, editText, isDeleted, mapPosition, mapStretch, tidyLineEnds, type TextEdits } from '../text/edit';
import { countWords } from '../text/words';
import { labelsOf, readLabel } from '../text/speakers';
import { removed, updated, type Change } from '../change/change';
import { CommandError, counted, found, short, type Command } from '../change/command';
import { passagesOf } from './passages';

/** Edits of the text of one document. */
export interface Correction {
  /** The text as it is stored. */
  readonly text: Text;
  readonly edits: TextEdits;
  /**
   * Of a transcript that is typed while it is listened to: its time marks as they are from now on, at positions of the
   * text after the edits, and the names that label turns. Left out, times move with the words, and labels stay labels.
   */
  readonly heard?: { readonly times: readonly TimeMark[]; readonly speakers: ReadonlySet<string> };
}

/** A position of a text, and the milliseconds after which it is reached. */
export interface TimeMark {
  readonly at: number;
  readonly value: number;
}

/** Passages all of whose words the edits delete: to be shown before the correction is kept. */
export function passagesLost(state: StudyState, { text, edits }: Correction): Passage[] {
  return passagesOf(state, text.id).filter((passage) => mapStretch(passage, edits) === null);
}

/**
 * Corrects texts, as one step. Passages, comments, memos, answers, pages and times, and what cases own move
 * with the words; a passage whose words are all deleted goes, and memos about it are about the document from then on.
 */
export function correctTexts(corrections: readonly Correction[], sentence?: string): Command {
  return (state) => {
    const real = corrections.filter(({ edits, text, heard }) => heard !== undefined || applyEdits(text.text, edits) !== text.text);
    if (real.length === 0) return null;
    const places = real.reduce((sum, { edits }) => sum + edits.length, 0);
    const first = found(state.tables.document[real[0]!.text.id], 'document');
    const where = real.length === 1 ? short(first.title) : counted(real.length, 'document');
    const moves = new Map<Id, MoveStretch>();
    return {
      change: real.flatMap((one) => [...correct(state, one, moves)]),
      heirs: {
        stretch: (stretch) => {
          const move = moves.get(stretch.documentId);
          const place = move ? move(stretch) : stretch;
          return place === null ? [] : [place === stretch ? stretch : { ...stretch, ...place }];
        },
      },
      sentence: sentence ?? `corrected ${where} in ${counted(places, 'place')}`,
    };
  };
}

/** How stretches of a document move with its correction; null for one that loses all its words. */
type MoveStretch = (place: { start: number; end: number }) => { start: number; end: number } | null;

/** Corrects one text with its document and passages. @param moves takes up how stretches move */
function correct(state: StudyState, { text: before, edits, heard }: Correction, moves: Map<Id, MoveStretch>): Change {
  const document = found(state.tables.document[before.id], 'document');
  const edited = editText(before, edits);
  const tidying = tidyLineEnds(edited.text);
  const tidied = tidying.length > 0 ? editText(edited, tidying) : edited;
  const relabelled =
    heard && labelled(document, { ...tidied, marks: marksHeard(tidied, heard.times, tidying, edited.text.length) }, heard.speakers);
  const text = relabelled?.text ?? tidied;
  if (!text.text.trim()) throw new CommandError(`Nothing would be left of ${short(document.title)}. Delete the document instead.`);
  const moveStretch: MoveStretch = (place) => {
    const once = mapStretch(place, edits);
    return once && mapStretch(once, tidying);
  };
  moves.set(before.id, moveStretch);
  const movePosition = (at: number, side: -1 | 1) =>
    mapPosition(mapPosition(at, edits, side, before.text.length), tidying, side, edited.text.length);
  /** Where idea-units begin; one whose beginning was deleted goes on as part of the one before. */
  const moveUnits = (starts: readonly number[]) => [
    ...new Set(starts.filter((at) => at === 0 || !isDeleted(at, edits)).map((at) => movePosition(at, -1))),
  ];
  const change: Change[number][] = [
    updated('text', before, text),
    updated('document', document, {
      ...documentFields(document, before, text, moveStretch, movePosition, moveUnits),
      ...(relabelled && { speakers: relabelled.speakers }),
    }),
  ];
  for (const passage of passagesOf(state, before.id)) {
    const place = moveStretch(passage);
    if (!place) change.push(removed('passage', passage));
    else if (place.start !== passage.start || place.end !== passage.end) change.push(updated('passage', passage, place));
  }
  return change;
}

/** Pages as they are, and the times that were heard, one a position. */
function marksHeard(text: Text, times: readonly TimeMark[], tidying: TextEdits, length: number): PlaceMark[] {
  const byPlace = new Map(times.map(({ at, value }) => [mapPosition(Math.max(0, Math.min(at, length)), tidying, 1, length), value]));
  const heard = Array.from(byPlace, ([at, value]): PlaceMark => ({ at, kind: 'time', value }));
  return [...text.marks.filter((mark) => mark.kind !== 'time'), ...heard].sort((a, b) => a.at - b.at);
}

function documentFields(
  document: Document,
  before: Text,
  text: Text,
  moveStretch: MoveStretch,
  movePosition: (at: number, side: -1 | 1) => number,
  moveUnits: (starts: readonly number[]) => number[],
): Partial<Document> {
  return {
    characters: text.text.length,
    words: wordsOf(text),
    ...(document.readTo === undefined ? {} : { readTo: movePosition(document.readTo, 1) }),
    ...(document.units === undefined ? {} : { units: moveUnits(document.units) }),
    speakers: renamedSpeakers(document, before, text),
    answers: document.answers.map((answer) => {
      const place = answer.start < answer.end ? moveStretch(answer) : null;
      const start = movePosition(answer.start, -1);
      return { ...answer, ...(place ?? { start, end: start }), asked: answer.asked && moveStretch(answer.asked) };
    }),
  };
}

/** Words of a text, speakers' labels left out. */
export const wordsOf = (text: Text): number =>
  text.paragraphs.reduce((sum, paragraph) => sum + countWords(text.text.slice(paragraph.body, paragraph.end)), 0);

/** A speaker whose labels were all changed to one other name carries that name from then on. */
function renamedSpeakers(document: Document, before: Text, after: Text): Document['speakers'] {
  const labels = (text: Text): Map<number, Set<string>> => {
    const names = new Map<number, Set<string>>();
    for (const { start, body, end, speaker, style } of text.paragraphs) {
      if (body === start) continue;
      const name = readLabel({ text: text.text.slice(start, end), style, emphasis: [] })?.name;
      if (name) names.set(speaker, (names.get(speaker) ?? new Set()).add(name));
    }
    return names;
  };
  const [old, now] = [labels(before), labels(after)];
  return document.speakers.map((speaker, at) => {
    const names = now.get(at);
    const [name] = names ?? [];
    return names?.size === 1 && name && old.get(at)?.has(speaker.name) ? { ...speaker, name } : speaker;
  });
}

/** A text's paragraphs as drafts, to be put together anew. */
export const draftsOf = (text: Text): DraftParagraph[] =>
  text.paragraphs.map((paragraph) => ({
    text: text.text.slice(paragraph.start, paragraph.end),
    style: paragraph.style,
    emphasis: text.emphasis
      .filter((span) => span.start < paragraph.end && span.end > paragraph.start)
      .map((span) => ({
        ...span,
        start: Math.max(0, span.start - paragraph.start),
        end: Math.min(span.end, paragraph.end) - paragraph.start,
      })),
    marks: text.marks
      .filter((mark) => mark.at >= paragraph.start && mark.at <= paragraph.end)
      .map((mark) => ({ ...mark, at: mark.at - paragraph.start })),
  }));

/** A text with its turns as the labels of some names say; what is known of a speaker is kept by name. */
function labelled({ speakers }: Document, text: Text, names: ReadonlySet<string>): { readonly text: Text; readonly speakers: Speaker[] } {
  const known = new Map(speakers.map((speaker) => [speaker.name, speaker]));
  const composed = composeText(text.id, draftsOf(text), labelsOf(names), (name) => known.get(name)?.interviewer ?? undefined);
  return {
    text: { ...text, paragraphs: composed.text.paragraphs },
    speakers: composed.speakers.map((speaker) => ({ ...speaker, caseId: known.get(speaker.name)?.caseId ?? null })),
  };
}

/**
 * Says anew which names label turns: the words stay as they are, so no passage moves.
 * @param names the names that are speakers
 */
export function redetectSpeakers(before: Text, names: ReadonlySet<string>): Command {
  return (state) => {
    const document = found(state.tables.document[before.id], 'document');
    const { text, speakers } = labelled(document, before, names);
    return {
      change: [updated('text', before, { paragraphs: text.paragraphs }), updated('document', document, { speakers, words: wordsOf(text) })],
      sentence:
        `said who speaks in ${short(document.title)}: ${speakers.map((speaker) => short(speaker.name)).join(', ') || 'nobody'}`.slice(
          0,
          500,
        ),
    };
  };
}

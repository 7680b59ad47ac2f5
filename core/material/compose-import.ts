import type { Speaker } from '../model/document';
import type { Id } from '../model/ids';
import { answersIn } from '../questions/answers';
import { findQuestions, type FoundQuestion, type Markers } from '../questions/find-questions';
import { composeText, looksLikeInterviewer, type ComposedText, type DraftParagraph } from '../text/draft-text';
import { readLabel } from '../text/speakers';
import type { Answer } from '../model/document';

/** What a label stands for: a speaker, perhaps under another name than written. */
export interface SpeakerChoice {
  /** Two labels with the same name are one speaker. */
  readonly name: string;
  readonly interviewer: boolean;
  readonly caseId: Id | null;
}

/** What the researcher decided about a text on its way in. */
export interface TextChoices {
  /** By label as written; a label that is not here is no speaker's. */
  readonly speakers: Readonly<Record<string, SpeakerChoice>>;
  /** Paragraphs, by their place, that are nobody's. */
  readonly nobody: readonly number[];
  /** How questions are marked, in structured material; null for other texts. */
  readonly markers: Markers | null;
}

/** A text as it will be stored, with its questions. */
export interface ComposedImport extends ComposedText {
  readonly questions: readonly FoundQuestion[];
}

/** Labels taken for speakers as they are written, for a first look. */
export const speakersAsWritten = (names: readonly string[]): Record<string, SpeakerChoice> =>
  Object.fromEntries(names.map((name) => [name, { name, interviewer: looksLikeInterviewer(name), caseId: null }]));

/** Puts a text together as decided. Texts of any language pass; no word is changed. */
export function composeImport(id: Id, paragraphs: readonly DraftParagraph[], choices: TextChoices): ComposedImport {
  const nobody = new Set(choices.nobody);
  const composed = composeText(id, paragraphs, (paragraph, at) => {
    if (nobody.has(at)) return { name: null, length: 0 };
    const label = readLabel(paragraph);
    const choice = label && Object.hasOwn(choices.speakers, label.name) ? choices.speakers[label.name] : undefined;
    return label && choice ? { name: choice.name, length: label.length } : null;
  });
  const byName = new Map(Object.values(choices.speakers).map((choice) => [choice.name, choice]));
  const speakers = composed.speakers.map((speaker): Speaker => {
    const choice = byName.get(speaker.name);
    return { name: speaker.name, interviewer: choice?.interviewer ?? false, caseId: choice?.caseId ?? null };
  });
  return { ...composed, speakers, questions: choices.markers ? findQuestions(paragraphs, choices.markers) : [] };
}

/** The answers of a composed text. @param questionIds the study's question for each found, or null */
export const answersOf = ({ text, questions }: ComposedImport, questionIds: readonly (Id | null)[]): Answer[] =>
  answersIn(text, questions, (row) => questionIds[row] ?? null);

import * as z from 'zod';
import { CountSchema, DaySchema, LineSchema, ProseSchema, TimeSchema } from './fields';
import { AttributeValueSchema } from './case';
import { GroundSchema, MediaSchema } from './ground';
import { IdSchema } from './ids';
import { pointsTo } from './pointing';

/** Kinds a text can be of. */
export const TEXT_KINDS = ['interview', 'focus group', 'field note', 'survey answers', 'public document', 'article'] as const;
export const DOCUMENT_KINDS = [...TEXT_KINDS, 'recording', 'picture'] as const;
export const DocumentKindSchema = z.enum(DOCUMENT_KINDS);
export type DocumentKind = z.infer<typeof DocumentKindSchema>;

/** Speakers that a document can have. */
export const MOST_SPEAKERS = 10_000;

/** Who speaks in a document. Paragraphs refer to speakers by their place in the document's list. */
export const SpeakerSchema = z.strictObject({
  name: LineSchema,
  interviewer: z.boolean(),
  /** The case whose words these are, if it is known. */
  caseId: pointsTo('case').nullable(),
});
export type Speaker = z.infer<typeof SpeakerSchema>;

/** Where a document asks a question and where it is answered; an answer of no length is a question left unanswered. */
export const AnswerSchema = z.strictObject({
  questionId: pointsTo('question'),
  /** The words of the question, in this document's wording; null where it is not in the text. */
  asked: z.strictObject({ start: CountSchema, end: CountSchema }).nullable(),
  start: CountSchema,
  end: CountSchema,
});
export type Answer = z.infer<typeof AnswerSchema>;

/** One piece of material, without its words: those are in the text of the same id, where its ground is a text. */
export const DocumentSchema = z.strictObject({
  id: IdSchema,
  title: LineSchema,
  ground: GroundSchema,
  /**
   * What it belongs to: a transcript to its recording, a description to its picture, a page to the document it is of;
   * absent where to nothing. What something belongs to belongs to nothing itself.
   */
  belongsTo: pointsTo('document').optional(),
  kind: DocumentKindSchema,
  date: DaySchema.nullable(),
  folderId: pointsTo('folder').nullable(),
  description: ProseSchema,
  speakers: z.array(SpeakerSchema).max(MOST_SPEAKERS),
  /** Length of the text in UTF-16 code units; 0 for what has none. */
  characters: CountSchema,
  /** Words of the text, speaker labels left out; 0 for what has none. */
  words: CountSchema,
  /** Name of the file it came from, and the SHA-256 of its bytes; null for pasted and made texts. */
  source: z.strictObject({ fileName: z.string().max(1000), sha256: z.string().regex(/^[0-9a-f]{64}$/) }).nullable(),
  /** Values of document attributes, by attribute id; an absent key means not known. */
  values: z.record(pointsTo('attribute'), AttributeValueSchema),
  /** Questions and answers of structured material, in the order of the text. */
  answers: z.array(AnswerSchema).max(10_000),
  /** Up to where it is read or heard, as the researcher says, in characters or milliseconds; absent where it was not begun. */
  readTo: CountSchema.optional(),
  /** The PDF that a text was read from, whose pages can be seen beside it; absent where there is none, or it was not kept. */
  seen: z.strictObject({ media: MediaSchema, pages: z.number().int().min(1).max(100_000) }).optional(),
  /** The service that made the transcript; absent where people did. */
  transcribed: z.strictObject({ by: LineSchema, simulated: z.literal(true).optional() }).optional(),
  /** Where idea-units begin, ascending, the first at 0; absent where the researcher made none. */
  units: z.array(CountSchema).max(200_000).optional(),
  createdAt: TimeSchema,
});
export type Document = z.infer<typeof DocumentSchema>;

/** What has to be known of a document to say whether a place lies in it. */
export type Grounded = Pick<Document, 'ground' | 'characters'>;

/** Whether a document has a text: only then can it be read, corrected, searched and counted in words. */
export const hasText = (document: Pick<Document, 'ground'>): boolean => document.ground.of === 'text';

/** How long a document is, in the characters of its text or the milliseconds of its recording; a picture has no length. */
export function lengthOf({ ground, characters }: Grounded): number {
  return ground.of === 'text' ? characters : ground.of === 'time' ? ground.milliseconds : 0;
}

export const PARAGRAPH_STYLES = ['body', 'heading1', 'heading2', 'heading3', 'list item', 'quotation'] as const;

/**
 * A paragraph of a text: `[start, end)` in the text, without the line end.
 * `body` is where the words begin after a speaker's label ("Shona: "); without a label it equals `start`.
 */
export const ParagraphSchema = z.strictObject({
  start: CountSchema,
  body: CountSchema,
  end: CountSchema,
  /** Index into the document's speakers, or -1 where nobody speaks. */
  speaker: z.number().int().min(-1).max(9_999),
  style: z.enum(PARAGRAPH_STYLES),
});
export type Paragraph = z.infer<typeof ParagraphSchema>;

export const EMPHASES = ['bold', 'italic', 'underline', 'strike'] as const;

/** Formatting that carries meaning, over `[start, end)`. Codings refer to the text alone. */
export const EmphasisSpanSchema = z.strictObject({ start: CountSchema, end: CountSchema, emphasis: z.enum(EMPHASES) });
export type EmphasisSpan = z.infer<typeof EmphasisSpanSchema>;

/** Where a page begins (its number), or what is said at a moment of a recording (milliseconds from its start). */
export const PlaceMarkSchema = z.strictObject({ at: CountSchema, kind: z.enum(['page', 'time']), value: z.number().int().min(0) });
export type PlaceMark = z.infer<typeof PlaceMarkSchema>;

/** Words `[start, end)` that a transcribing service was not sure of, and how sure, from 0 to 1. */
export const UnsureWordsSchema = z.strictObject({ start: CountSchema, end: CountSchema, confidence: z.number().min(0).max(1) });
export type UnsureWords = z.infer<typeof UnsureWordsSchema>;

/**
 * The words of the document with the same id: normalised (`\n` between paragraphs, no blank ones,
 * no byte order mark). Positions everywhere are UTF-16 code units in `text`, start inclusive, end exclusive.
 */
export const TextSchema = z.strictObject({
  id: IdSchema,
  text: z.string(),
  paragraphs: z.array(ParagraphSchema),
  emphasis: z.array(EmphasisSpanSchema),
  /** Pages and times, ascending by position. */
  marks: z.array(PlaceMarkSchema),
  /** Words still to be listened to, in the order of the text; absent where there are none. */
  unsure: z.array(UnsureWordsSchema).max(200_000).optional(),
});
export type Text = z.infer<typeof TextSchema>;

import type { History, JournalEntry } from '../../change/journal';
import type { Document, Text } from '../../model/document';
import type { Media } from '../../model/ground';
import type { Id } from '../../model/ids';
import type { StudyState } from '../../model/study-state';

/** A whole study, with everything that storage keeps of it. */
export interface StudyBundle {
  readonly state: StudyState;
  readonly texts: ReadonlyMap<Id, Text>;
  /** Files that are kept as they are, by the SHA-256 of their bytes. */
  readonly media: ReadonlyMap<string, Blob>;
  readonly journal: readonly JournalEntry[];
  readonly history: History;
}

/** A study without the files it keeps as they are. */
export type BundleWithoutMedia = Omit<StudyBundle, 'media'>;

/** The file a document is of, as it was brought in; null for a text that is of none. */
const mediaOf = ({ ground, seen }: Document): Media | null => (ground.of === 'text' ? (seen?.media ?? null) : ground.media);

/**
 * The media that a study speaks of, each once.
 * @param journal what was there before counts as well: it can be brought back
 */
export function mediaSpokenOf(state: StudyState, journal: readonly JournalEntry[]): ReadonlyMap<string, Media> {
  const found = new Map<string, Media>();
  const look = (document: Document | null): void => {
    const media = document && mediaOf(document);
    if (media) found.set(media.sha256, media);
  };
  Object.values(state.tables.document).forEach(look);
  for (const { change } of journal)
    for (const one of change) if (one.type === 'document') for (const document of [one.before, one.after]) look(document);
  return found;
}

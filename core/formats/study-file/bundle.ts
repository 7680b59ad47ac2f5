import type { History, JournalEntry } from '../../change/journal';
import type { Text } from '../../model/document';
import type { Id } from '../../model/ids';
import type { StudyState } from '../../model/study-state';

/** A whole study, with everything that storage keeps of it. */
export interface StudyBundle {
  readonly state: StudyState;
  readonly texts: ReadonlyMap<Id, Text>;
  readonly journal: readonly JournalEntry[];
  readonly history: History;
}

import { EMPTY_HISTORY } from '@core/change/journal';
import type { Id, NewId } from '@core/model/ids';
import { emptyState } from '@core/model/study-state';
import { tidyLine } from '@core/text/normalise';
import { StudyStorage } from './study-storage';

/** Makes a study with nothing in it but its coder. @returns its id */
export async function createEmptyStudy(title: string, coderName: string, newId: NewId, now: number): Promise<Id> {
  const coder = { id: newId(), name: tidyLine(coderName) };
  const base = emptyState({
    id: newId(),
    title: tidyLine(title),
    description: '',
    language: navigator.language || 'en',
    caseWord: 'participant',
    createdAt: now,
    currentCoderId: coder.id,
  });
  await StudyStorage.create({
    state: { ...base, tables: { ...base.tables, coder: { [coder.id]: coder } } },
    texts: new Map(),
    media: new Map(),
    journal: [],
    history: EMPTY_HISTORY,
  });
  return base.study.id;
}

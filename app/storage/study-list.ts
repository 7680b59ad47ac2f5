import Dexie from 'dexie';
import type { JournalEntry } from '@core/change/journal';
import type { Id } from '@core/model/ids';
import type { Study } from '@core/model/study';
import { Packs } from './packs';
import { DATABASE_PREFIX, StudyDatabase } from './study-database';
import type { StudySummary } from './study-storage';
import { whileNobodyWrites } from './writer-lock';

/** The studies in this browser, the one last changed first. */
export async function listStudies(): Promise<StudySummary[]> {
  const names = (await Dexie.getDatabaseNames()).filter((name) => name.startsWith(DATABASE_PREFIX));
  const summaries = await Promise.all(names.map((name) => summarise(name.slice(DATABASE_PREFIX.length))));
  return summaries.filter((summary) => summary !== null).sort((a, b) => b.lastChange - a.lastChange);
}

async function summarise(studyId: Id): Promise<StudySummary | null> {
  const db = new StudyDatabase(studyId);
  try {
    const study = (await db.meta.get('study'))?.value as Study | undefined;
    if (!study) return null;
    const last: JournalEntry | undefined = await db.journal.orderBy('seq').last();
    const documents = (await db.records('document').count()) + (await new Packs(db).count('document'));
    return { study, documents, lastChange: last?.at ?? study.createdAt };
  } finally {
    db.close();
  }
}

/** Whether a study with this id is in this browser. */
export async function studyExists(studyId: Id): Promise<boolean> {
  return (await Dexie.exists(DATABASE_PREFIX + studyId)) && (await summarise(studyId)) !== null;
}

/** Deletes a study for good. @returns false if it is open for writing in some tab, and then it is still there */
export async function deleteStudy(studyId: Id): Promise<boolean> {
  return whileNobodyWrites(studyId, () => Dexie.delete(DATABASE_PREFIX + studyId));
}

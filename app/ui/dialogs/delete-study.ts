import { quoted } from '@core/text/quoted';
import type { Study } from '@core/model/study';
import { StudyStorage } from '../../storage/study-storage';
import type { FilesService } from '../../workers/files-service';
import { saveFile } from '../save-file';
import type { Ask } from './ask';

/** Asks before a study is deleted: names what goes, and offers the study file. @returns whether to go on */
export async function confirmStudyDeletion(ask: Ask, files: FilesService, study: Study, documents: number): Promise<boolean> {
  const storage = await StudyStorage.of(study.id);
  const { state, backup, history } = await storage.open();
  storage.close();
  const passages = Object.values(state.passages);
  const count = (things: number, word: string): string => `${things.toLocaleString()} ${word}${things === 1 ? '' : 's'}`;
  const codings = passages.reduce((sum, columns) => sum + columns.codingRow.length, 0);
  const upToDate = backup?.through === history.seq;
  const reply = await ask.reply({
    title: `Delete ${quoted(study.title)}?`,
    lines: [
      `This takes away ${count(documents, 'document')} with ${count(codings, 'coding')}, ${count(Object.keys(state.tables.code).length, 'code')}, ${count(Object.keys(state.tables.memo).length, 'memo')} and the log. It cannot be undone.`,
      backup
        ? upToDate
          ? 'A study file was exported, and nothing has changed since.'
          : 'The last study file is older than the last change.'
        : 'No study file has been exported yet.',
    ],
    yes: 'Delete the study',
    danger: true,
    other: 'Save a study file first',
  });
  if (reply?.chose === 'other') {
    const written = await files.writeStudyFile(study.id, {}, () => undefined);
    if (written) saveFile(`${study.title}.filum`, written.file, 'application/zip');
    return confirmStudyDeletion(ask, files, study, documents);
  }
  return reply?.chose === 'yes';
}

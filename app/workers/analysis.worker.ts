/// <reference lib="webworker" />
import { expose } from 'comlink';
import { analysisOf } from '@core/analysis/analysis';
import { StudyStorage } from '../storage/study-storage';

expose(
  analysisOf(async (studyId, documentIds) => {
    const storage = await StudyStorage.of(studyId);
    try {
      return await storage.texts(documentIds);
    } finally {
      storage.close();
    }
  }),
);

import { composeImport, type TextChoices } from '@core/material/compose-import';
import { planTable, type TableChoices } from '@core/material/plan-table';
import { previewOf } from '@core/material/preview';
import { changeOfTexts, type TextToStore } from '@core/material/store-request';
import type { Change } from '@core/change/change';
import type { JournalEntry } from '@core/change/journal';
import type { ReadFile, ReadOptions } from '@core/formats/read-file';
import type { Table, TableOptions } from '@core/formats/table/table';
import { randomId } from '@core/model/ids';
import type { StudyState } from '@core/model/study-state';
import type { EntryPlace } from '../workers/files.worker';
import { readMaterial, type FileOutcome } from '../workers/read-material';

/** What the files workers do, done at once and without workers. */
export class FilesAtHand {
  readonly texts = new Map<number, ReadFile>();
  readonly tables = new Map<number, Table>();
  /** Files whose reading does not end until it is stopped. */
  endless: readonly string[] = [];
  private readonly stopped: (() => void)[] = [];

  read(key: number, name: string, file: Blob, options: ReadOptions & TableOptions): Promise<FileOutcome | null> {
    if (this.endless.includes(name)) return new Promise((resolve) => this.stopped.push(() => resolve(null)));
    return readMaterial(key, name, file, options, {
      keepText: (at, read) => void this.texts.set(at, read),
      keepTable: (at, table) => void this.tables.set(at, table),
    });
  }

  stopReading(): void {
    for (const stop of this.stopped.splice(0)) stop();
  }

  forget(keys: readonly number[]): void {
    for (const key of keys) this.texts.delete(key);
  }

  preview(key: number, choices: TextChoices, paragraphs: number): Promise<unknown> {
    const read = this.texts.get(key);
    return Promise.resolve(read ? previewOf(read.paragraphs, choices, paragraphs) : null);
  }

  words(key: number, choices: TextChoices): Promise<string> {
    return Promise.resolve(composeImport('', this.texts.get(key)!.paragraphs, choices).text.text);
  }

  plan(key: number, choices: TableChoices, state: StudyState): Promise<unknown> {
    return Promise.resolve(planTable(this.tables.get(key)!, choices, state, randomId, 0));
  }

  storeTexts(place: EntryPlace, items: readonly TextToStore[], extra: Change, sentence: string): Promise<JournalEntry> {
    return this.entry(place, [...extra, ...changeOfTexts(items, (key) => this.texts.get(key)!.paragraphs, place.now)], sentence);
  }

  storeTable(place: EntryPlace, key: number, choices: TableChoices, state: StudyState, sentence: string): Promise<JournalEntry> {
    return this.entry(place, planTable(this.tables.get(key)!, choices, state, randomId, place.now).change, sentence);
  }

  answersUpdated(): Promise<number> {
    return Promise.resolve(0);
  }

  private entry({ seq, now, coderId }: EntryPlace, change: Change, sentence: string): Promise<JournalEntry> {
    return Promise.resolve({ seq, at: now, coderId, kind: 'act', of: null, sentence, change });
  }
}

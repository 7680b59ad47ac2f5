import { Injectable } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { ReadOptions } from '@core/formats/read-file';
import type { Id } from '@core/model/ids';
import type { FileOutcome, FilesWorker, StudyFileOutcome } from './files.worker';

/** Reading and writing files in a worker. */
@Injectable({ providedIn: 'root' })
export class FilesService {
  private worker: Worker | null = null;
  private remote: Remote<FilesWorker> | null = null;

  private get files(): Remote<FilesWorker> {
    if (!this.remote) {
      this.worker = new Worker(new URL('./files.worker', import.meta.url), { type: 'module' });
      this.remote = wrap<FilesWorker>(this.worker);
    }
    return this.remote;
  }

  read(name: string, bytes: Uint8Array, options: ReadOptions): Promise<FileOutcome> {
    return this.files.read(name, bytes, options);
  }

  openStudyFile(bytes: Uint8Array, ifHere: 'ask' | 'copy', progress: (share: number) => void): Promise<StudyFileOutcome> {
    return this.files.openStudyFile(bytes, ifHere, proxy(progress));
  }

  writeStudyFile(studyId: Id, progress: (share: number) => void): Promise<{ bytes: Uint8Array; through: number }> {
    return this.files.writeStudyFile(studyId, proxy(progress));
  }

  openDemo(): Promise<Id> {
    return this.files.openDemo();
  }

  /** Ends what is running: the worker goes, and with it whatever it had not stored. */
  cancel(): void {
    this.worker?.terminate();
    this.worker = this.remote = null;
  }
}

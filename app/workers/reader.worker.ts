/// <reference lib="webworker" />
import { expose, wrap, type Remote } from 'comlink';
import { characterMaps } from '@core/formats/pdf/character-maps';
import type { ReadOptions } from '@core/formats/read-file';
import type { TableOptions } from '@core/formats/table/table';
import { readMaterial, type FileOutcome, type Keeper } from '@core/filing/read-material';

characterMaps.at = new URL('/character-maps/', self.location.origin).href;

let keeper: Remote<Keeper>;

/** Tries a picture. A drawing needs a page to be shown on, and was taken apart already. */
async function shows(picture: Blob): Promise<boolean> {
  if (picture.type === 'image/svg+xml') return true;
  try {
    (await createImageBitmap(picture)).close();
    return true;
  } catch {
    return false;
  }
}

/** Reads files, one of several workers that do; what it read goes straight to the files worker. */
const reader = {
  /** @param port leads to the keeper */
  connect(port: MessagePort): void {
    keeper = wrap<Keeper>(port);
  },

  read(
    key: number,
    name: string,
    file: Blob,
    options: ReadOptions & TableOptions,
    progress: (share: number) => void,
  ): Promise<FileOutcome> {
    return readMaterial(key, name, file, options, keeper as unknown as Keeper, progress, shows);
  },
};

export type ReaderWorker = typeof reader;
expose(reader);

import { inject, Injectable, signal } from '@angular/core';
import type { Media } from '@core/model/ground';
import type { Loudness } from '@core/sound/loudness';
import type { StudyStorage } from '../storage/study-storage';
import { FilesService } from '../workers/files-service';

/** The file of a recording or a picture, or why it is not at hand. */
export type MediaFound =
  | { readonly file: Blob }
  /** It may be read when the researcher allows it, which the browser asks after a click. */
  | { readonly missing: 'permission' }
  | { readonly missing: 'gone' | 'changed' };

/** A file that may be one that is looked for, with a way to it that can be kept, where the browser has one. */
export interface Candidate {
  readonly file: File;
  readonly handle?: FileSystemFileHandle | undefined;
}

/**
 * The files of recordings and pictures of the open study: those that the study keeps, and those that stay where the
 * researcher has them. Nothing of them is read here but to see whether a file is still what it was.
 */
@Injectable({ providedIn: 'root' })
export class MediaFiles {
  private readonly files = inject(FilesService);
  private storage: StudyStorage | null = null;
  /** Files that were chosen since the window was opened, by what is in them: the way to them is forgotten with it. */
  private readonly chosen = new Map<string, Blob>();
  private readonly count = signal(0);
  /** Goes up whenever a file was found or went: who shows one asks again. */
  readonly changes = this.count.asReadonly();

  /** Reads from this storage from now on. */
  use(storage: StudyStorage | null): void {
    this.storage = storage;
    this.count.update((count) => count + 1);
  }

  /** Whether a file is kept, or there is a way to it: it is not looked at. */
  async isAtHand({ sha256 }: Media): Promise<boolean> {
    return this.chosen.has(sha256) || (await this.storage?.media(sha256)) !== undefined || (await this.storage?.link(sha256)) !== undefined;
  }

  /** The file of a recording or a picture. */
  async find(media: Media): Promise<MediaFound> {
    const kept = await this.storage?.media(media.sha256);
    if (kept) return { file: kept };
    const chosen = this.chosen.get(media.sha256);
    if (chosen && (await isReadable(chosen))) return { file: chosen };
    const link = await this.storage?.link(media.sha256);
    if (!link) return { missing: 'gone' };
    if ((await link.handle.queryPermission({ mode: 'read' })) !== 'granted') return { missing: 'permission' };
    const file = await link.handle.getFile().catch(() => null);
    if (!file) return { missing: 'gone' };
    if (file.size !== media.bytes) return { missing: 'changed' };
    if (file.lastModified !== link.changedAt) {
      // written anew: it may hold the same all the same
      if ((await this.files.sumOf(file)) !== media.sha256) return { missing: 'changed' };
      await this.storage?.keepLink({ ...link, changedAt: file.lastModified });
    }
    return { file };
  }

  /** Asks the browser for permission to read a file that stays where it is; after a click. @returns whether it may be read now */
  async allow({ sha256 }: Media): Promise<boolean> {
    const link = await this.storage?.link(sha256);
    const granted = (await link?.handle.requestPermission({ mode: 'read' })) === 'granted';
    if (granted) this.count.update((count) => count + 1);
    return granted;
  }

  /** Remembers where a file lies that the study does not keep: for good where the browser has a way to it, else until the window closes. */
  async link(sha256: string, { file, handle }: Candidate): Promise<void> {
    this.chosen.set(sha256, file);
    if (handle) await this.storage?.keepLink({ sha256, handle, changedAt: file.lastModified });
    this.count.update((count) => count + 1);
  }

  /** A file that is about to be stored can be shown before it is on disk. */
  hold(sha256: string, file: Blob): void {
    this.chosen.set(sha256, file);
    this.count.update((count) => count + 1);
  }

  /**
   * Looks among files for those that are missing: by their length, those of the right name first, and then by what is in
   * them. What the study keeps is kept again; the way to the others is remembered.
   * @param progress told the share that is looked through
   * @returns those that were found
   */
  async recover(wanted: readonly Media[], among: readonly Candidate[], progress?: (share: number) => void): Promise<readonly Media[]> {
    const found: Media[] = [];
    for (const [at, media] of wanted.entries()) {
      const named = (one: Candidate): boolean => one.file.name === media.outside?.name;
      const likely = among.filter(({ file }) => file.size === media.bytes).sort((a, b) => Number(named(b)) - Number(named(a)));
      for (const candidate of likely) {
        if ((await this.files.sumOf(candidate.file, (share) => progress?.((at + share) / wanted.length))) !== media.sha256) continue;
        if (media.outside) await this.link(media.sha256, candidate);
        else await this.storage?.keepMedia(media.sha256, candidate.file.slice(0, candidate.file.size, media.type));
        found.push(media);
        break;
      }
      progress?.((at + 1) / wanted.length);
    }
    if (found.length > 0) this.count.update((count) => count + 1);
    return found;
  }

  /** How loud a recording is, if that was measured in this browser. */
  async loudness(sha256: string): Promise<Loudness | undefined> {
    return this.storage?.loudness(sha256);
  }

  async keepLoudness(sha256: string, loudness: Loudness): Promise<void> {
    await this.storage?.keepLoudness({ sha256, ...loudness });
  }
}

/** Whether a file that was chosen can still be read: it may have been moved or changed since. */
const isReadable = (file: Blob): Promise<boolean> =>
  file
    .slice(0, 1)
    .arrayBuffer()
    .then(
      () => true,
      () => false,
    );

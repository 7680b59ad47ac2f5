import { unzipSync } from 'fflate';

/** How much an archive may unpack to. Anything beyond is taken for an attack and refused before it is unpacked. */
export interface ArchiveLimits {
  readonly entries: number;
  /** Bytes of one entry, unpacked. */
  readonly entryBytes: number;
  /** Bytes of all entries, unpacked. */
  readonly totalBytes: number;
  /** Unpacked ÷ packed of one entry over 1 MB; text seldom goes beyond 20, a zip bomb goes to 1,000. */
  readonly ratio: number;
}

/** An archive is damaged or breaks a limit. The message says which. */
export class ArchiveError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'ArchiveError';
  }
}

/** Whether bytes begin as a zip archive does. */
export const looksLikeZip = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 0x03 && bytes[3] === 0x04;

/**
 * Unpacks a zip archive. The sizes are checked entry by entry before anything is unpacked, and an entry
 * is never unpacked beyond the size it declares, so a lying one comes out short and fails its reader.
 * @param wanted leaves out entries for which it says no; they still count towards the limits
 * @throws ArchiveError
 */
export function unpackArchive(
  bytes: Uint8Array,
  limits: ArchiveLimits,
  wanted: (name: string) => boolean = () => true,
): Map<string, Uint8Array> {
  if (!looksLikeZip(bytes)) throw new ArchiveError('This is not a zip archive.');
  const check = entryCheck(limits);
  let unpacked: Record<string, Uint8Array>;
  try {
    unpacked = unzipSync(bytes, {
      filter: (entry) => {
        check(entry);
        return wanted(entry.name);
      },
    });
  } catch (error) {
    if (error instanceof ArchiveError) throw error;
    throw new ArchiveError('It is damaged, or was cut off on its way.');
  }
  return new Map(Object.entries(unpacked));
}

/** An entry of an archive by what it says of itself. */
export interface ArchiveEntry {
  readonly name: string;
  /** Bytes as it lies in the archive. */
  readonly size: number;
  /** Bytes, unpacked. */
  readonly originalSize: number;
}

/**
 * Checks the entries of one archive, each in turn, before anything of it is unpacked. An entry that is taken as it is
 * lies there for nothing but its name and number.
 * @returns the check. @throws ArchiveError where an entry, or all so far, break a limit
 */
export function entryCheck(limits: ArchiveLimits): (entry: ArchiveEntry, asItIs?: boolean) => void {
  let entries = 0;
  let total = 0;
  return ({ name, size, originalSize }, asItIs = false) => {
    if (++entries > limits.entries) throw new ArchiveError(`It holds more than ${limits.entries.toLocaleString('en')} files.`);
    // eslint-disable-next-line no-control-regex -- no program writes such a name: the list of files is broken
    if (/[\u0000-\u001f\ufffd]/.test(name)) throw new ArchiveError('It is damaged, or was cut off on its way.');
    if (/(^|[\\/])\.\.([\\/]|$)|^[\\/]|^[a-z]:/i.test(name))
      throw new ArchiveError(`A file in it has the forbidden path “${name.slice(0, 80)}”.`);
    if (asItIs) return;
    if (originalSize > limits.entryBytes)
      throw new ArchiveError(
        `“${name.slice(0, 80)}” in it would unpack to ${megabytes(originalSize)}, more than the ${megabytes(limits.entryBytes)} allowed.`,
      );
    if (originalSize > 1_000_000 && originalSize > size * limits.ratio)
      throw new ArchiveError(`“${name.slice(0, 80)}” in it is packed far more tightly than text can be (a “zip bomb”).`);
    total += originalSize;
    if (total > limits.totalBytes) throw new ArchiveError(`It would unpack to more than ${megabytes(limits.totalBytes)}.`);
  };
}

const megabytes = (bytes: number): string => `${Math.ceil(bytes / 1_000_000).toLocaleString('en')} MB`;

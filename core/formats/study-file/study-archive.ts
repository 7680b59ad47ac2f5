import { BlobReader, BlobWriter, configure, ZipReader, ZipWriter, type Entry } from '@zip.js/zip.js/lib/zip-core-custom.js';
import { inflateSync, Zip, ZipPassThrough } from 'fflate';
import type { Tell } from '../../requests/requests';
import { ArchiveError, entryCheck, looksLikeZip, type ArchiveLimits } from '../archive';
import { isMediaFile } from './layout';

// nothing is packed or unpacked by this library: it reads and writes what lies where, of archives of any length
configure({ useWebWorkers: false });

/** The files of a study file: those of records in memory, those of media where they lie. */
export interface StudyArchive {
  readonly files: ReadonlyMap<string, Uint8Array>;
  readonly media: ReadonlyMap<string, Blob>;
}

/** Bytes in front of the name of an entry, and where the lengths of its name and of what follows it stand (APPNOTE 4.3.7). */
const LOCAL = { header: 30, nameLength: 26, extraLength: 28 };
const STORED = 0;
const DEFLATED = 8;

/**
 * Opens a study file. Sizes are checked entry by entry before anything is unpacked; media are not read, but cut out of
 * the file as they lie in it.
 * @throws ArchiveError
 */
export async function openArchive(file: Blob, limits: ArchiveLimits): Promise<StudyArchive> {
  if (!looksLikeZip(new Uint8Array(await file.slice(0, 4).arrayBuffer()))) throw new ArchiveError('This is not a zip archive.');
  try {
    const entries = await new ZipReader(new BlobReader(file), { filenameValidation: 'tolerant' }).getEntries();
    const check = entryCheck(limits);
    for (const { filename, compressedSize, uncompressedSize, encrypted } of entries) {
      check({ name: filename, size: compressedSize, originalSize: uncompressedSize }, isMediaFile(filename));
      if (encrypted) throw new ArchiveError(`“${filename.slice(0, 80)}” in it is locked with a password.`);
    }
    const media = entries.filter((entry) => isMediaFile(entry.filename));
    // records lie in front of media and are read as one piece; in an archive that was packed anew they may lie anywhere
    const end = media.reduce((least, entry) => Math.min(least, entry.offset), file.size);
    const bytes = new Uint8Array(await file.slice(0, end).arrayBuffer());
    const files = new Map<string, Uint8Array>();
    for (const entry of entries) {
      if (isMediaFile(entry.filename)) continue;
      const own = entry.offset < end ? bytes.subarray(entry.offset) : await pieceOf(file, entry);
      files.set(entry.filename, unpacked(own, entry));
    }
    return { files, media: new Map(await Promise.all(media.map(async (entry) => [entry.filename, await cutOut(file, entry)] as const))) };
  } catch (error) {
    if (error instanceof ArchiveError) throw error;
    throw new ArchiveError('It is damaged, or was cut off on its way.');
  }
}

/** How many bytes stand in front of the content of an entry, by the header they begin with. */
function headLength(header: Uint8Array): number {
  if (header.length < LOCAL.header) throw new ArchiveError('The archive is damaged (it ends too early).');
  const view = new DataView(header.buffer, header.byteOffset);
  return LOCAL.header + view.getUint16(LOCAL.nameLength, true) + view.getUint16(LOCAL.extraLength, true);
}

const headerOf = async (file: Blob, { offset }: Entry): Promise<Uint8Array> =>
  new Uint8Array(await file.slice(offset, offset + LOCAL.header).arrayBuffer());

/** An entry with what stands in front of it. */
async function pieceOf(file: Blob, entry: Entry): Promise<Uint8Array> {
  const head = headLength(await headerOf(file, entry));
  return new Uint8Array(await file.slice(entry.offset, entry.offset + head + entry.compressedSize).arrayBuffer());
}

/**
 * Never more than an entry says it unpacks to: one that lies comes out short, and its check sum tells.
 * @param bytes from where the entry begins
 */
function unpacked(bytes: Uint8Array, entry: Entry): Uint8Array {
  const begin = headLength(bytes);
  const packed = bytes.subarray(begin, begin + entry.compressedSize);
  if (packed.length < entry.compressedSize) throw new ArchiveError('The archive is damaged (it ends too early).');
  if (entry.compressionMethod === STORED) return packed;
  if (entry.compressionMethod !== DEFLATED) throw new ArchiveError(`“${entry.filename.slice(0, 80)}” in it is packed in an unknown way.`);
  return inflateSync(packed, { out: new Uint8Array(entry.uncompressedSize) });
}

async function cutOut(file: Blob, entry: Entry): Promise<Blob> {
  if (entry.compressionMethod !== STORED || entry.compressedSize !== entry.uncompressedSize)
    throw new ArchiveError(`“${entry.filename.slice(0, 80)}” in it must lie there as it is, and is packed.`);
  const begin = entry.offset + headLength(await headerOf(file, entry));
  return file.slice(begin, begin + entry.compressedSize);
}

/** Packed by the platform itself, which takes a fraction of the time that a program of JavaScript does. */
async function deflated(bytes: Uint8Array): Promise<Uint8Array<ArrayBuffer>> {
  const packed = new Blob([bytes as Uint8Array<ArrayBuffer>]).stream().pipeThrough(new CompressionStream('deflate-raw'));
  return new Uint8Array(await new Response(packed).arrayBuffer());
}

/** A file of an archive that is already packed: its length and its check sum are those of what is pushed. */
class PackedFile extends ZipPassThrough {
  override compression = DEFLATED;

  constructor(
    name: string,
    private readonly packed: Uint8Array<ArrayBuffer>,
  ) {
    super(name);
  }

  protected override process(_: Uint8Array, final: boolean): void {
    this.ondata(null, this.packed, final);
  }
}

/**
 * Writes a study file: the files of records packed, in their order, and behind them the media as they are, which pass
 * through bit by bit.
 * @param time of every file in it, ms since 1970
 */
export async function writeArchive(
  files: ReadonlyMap<string, Uint8Array>,
  media: ReadonlyMap<string, Blob>,
  time: number,
  tell: Tell,
): Promise<Blob> {
  // the zip format knows no year before 1980
  const at = new Date(Math.max(time, Date.UTC(1980, 1)));
  const all = [...files.values()].reduce((sum, one) => sum + one.length, 0) + [...media.values()].reduce((sum, one) => sum + one.size, 0);
  let done = 0;
  const pieces: Uint8Array<ArrayBuffer>[] = [];
  const zip = new Zip((error, piece) => {
    if (error) throw error;
    pieces.push(piece as Uint8Array<ArrayBuffer>);
  });
  for (const [name, bytes] of files) {
    const file = new PackedFile(name, await deflated(bytes));
    file.mtime = at;
    zip.add(file);
    file.push(bytes, true);
    done += bytes.length;
    await tell(done / all);
  }
  zip.end();
  const records = new Blob(pieces, { type: 'application/zip' });
  if (media.size === 0) return records;
  const writer = new ZipWriter(new BlobWriter('application/zip'), { level: 0, lastModDate: at, extendedTimestamp: false });
  await writer.prependZip(new BlobReader(records));
  for (const [name, one] of media) {
    const stop = new AbortController();
    let ended: unknown;
    const onprogress = async (bytes: number): Promise<undefined> => {
      try {
        await tell((done + bytes) / all);
      } catch (error) {
        ended = error;
        stop.abort();
      }
    };
    await writer.add(name, new BlobReader(one), { onprogress, signal: stop.signal }).catch((error: unknown) => {
      throw ended ?? error;
    });
    done += one.size;
  }
  return writer.close();
}

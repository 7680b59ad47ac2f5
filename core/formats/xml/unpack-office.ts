import { ArchiveError, looksLikeZip, unpackArchive } from '../archive';
import { UnreadableFileError } from '../reading';

/** What an office document may unpack to. */
export const OFFICE_LIMITS = { entries: 10_000, entryBytes: 200_000_000, totalBytes: 600_000_000, ratio: 200 };

/**
 * Unpacks the named parts of an office document that is a zip archive.
 * @param ending the file's ending, for messages
 * @param wanted names of parts, or which to take
 * @throws UnreadableFileError where it is another type, damaged, too large or encrypted
 */
export function unpackOffice(
  bytes: Uint8Array,
  ending: string,
  wanted: readonly string[] | ((name: string) => boolean),
): Map<string, Uint8Array> {
  if (bytes[0] === 0xd0 && bytes[1] === 0xcf)
    throw new UnreadableFileError(
      `This is an old or an encrypted office file, whatever its ending says. Save it again as ${ending}, without a password.`,
    );
  if (!looksLikeZip(bytes))
    throw new UnreadableFileError(
      `The name ends in ${ending}, but this is another type of file. Save it again as ${ending}, or give it its right ending.`,
    );
  let parts: Map<string, Uint8Array>;
  try {
    parts = unpackArchive(bytes, OFFICE_LIMITS, typeof wanted === 'function' ? wanted : (name) => wanted.includes(name));
  } catch (error) {
    if (!(error instanceof ArchiveError)) throw error;
    throw new UnreadableFileError(`The file cannot be unpacked. ${error.message} If it was sent or copied, fetch it again.`);
  }
  const manifest = parts.get('META-INF/manifest.xml');
  if (manifest && /encryption-data/.test(new TextDecoder().decode(manifest)))
    throw new UnreadableFileError('The file is encrypted with a password. Open it in its program, remove the password and save it again.');
  return parts;
}

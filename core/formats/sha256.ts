import { sha256 as hasher } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';

/** SHA-256 (FIPS 180-4) of some bytes, as 64 hexadecimal digits. */
export async function sha256(bytes: Uint8Array): Promise<string> {
  return bytesToHex(new Uint8Array(await crypto.subtle.digest('SHA-256', bytes as Uint8Array<ArrayBuffer>)));
}

/** Bytes of a file that are in memory at once. */
const AT_ONCE = 4_000_000;

/** SHA-256 of a file of any length, read bit by bit. @param tell told how many bytes are read */
export async function sha256OfFile(file: Blob, tell: (bytes: number) => void | Promise<void> = () => undefined): Promise<string> {
  const hash = hasher.create();
  for (let at = 0; at < file.size; at += AT_ONCE) {
    hash.update(new Uint8Array(await file.slice(at, at + AT_ONCE).arrayBuffer()));
    await tell(Math.min(file.size, at + AT_ONCE));
  }
  return bytesToHex(hash.digest());
}

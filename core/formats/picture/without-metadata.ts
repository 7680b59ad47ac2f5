/**
 * A picture without what the camera or a program wrote into it beside the picture: where and when it was taken, by what
 * and by whom. Colour profiles stay, since the picture would look otherwise; a JPEG keeps which way up it is.
 * @returns the very bytes where there is nothing to leave out, null for a kind that it cannot be left out of
 */
export function withoutMetadata(bytes: Uint8Array<ArrayBuffer>, type: string, orientation: number): Uint8Array<ArrayBuffer> | null {
  switch (type) {
    case 'image/jpeg':
      return jpeg(bytes, orientation);
    case 'image/png':
      return png(bytes);
    case 'image/webp':
      return webp(bytes);
    default:
      return null;
  }
}

/** Segments of a JPEG that hold words about it: Exif and XMP, what photo programs write, and comments (ITU-T T.81, Exif 2.3). */
const WORDS = new Set([0xe1, 0xed, 0xfe]);
const START_OF_SCAN = 0xda;

function jpeg(bytes: Uint8Array<ArrayBuffer>, orientation: number): Uint8Array<ArrayBuffer> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const kept: Uint8Array[] = [bytes.subarray(0, 2)];
  let left = false;
  let at = 2;
  while (at + 4 <= bytes.length && bytes[at] === 0xff && bytes[at + 1] !== START_OF_SCAN) {
    const end = Math.min(bytes.length, at + 2 + view.getUint16(at + 2));
    if (WORDS.has(bytes[at + 1]!)) left = true;
    else kept.push(bytes.subarray(at, end));
    at = end;
  }
  if (!left) return bytes;
  if (orientation > 1) kept.splice(1, 0, upright(orientation));
  return joined([...kept, bytes.subarray(at)]);
}

/** An Exif segment that says which way up a picture is, and nothing else. */
const upright = (orientation: number): Uint8Array =>
  Uint8Array.of(
    ...[0xff, 0xe1, 0, 34, 0x45, 0x78, 0x69, 0x66, 0, 0],
    ...[0x4d, 0x4d, 0, 42, 0, 0, 0, 8, 0, 1],
    ...[0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, orientation, 0, 0],
    ...[0, 0, 0, 0],
  );

/** Chunks of a PNG that hold words about it (PNG, Third Edition, W3C). */
const PNG_WORDS = new Set(['eXIf', 'tEXt', 'iTXt', 'zTXt', 'tIME']);

function png(bytes: Uint8Array<ArrayBuffer>): Uint8Array<ArrayBuffer> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const kept: Uint8Array[] = [bytes.subarray(0, 8)];
  let left = false;
  let at = 8;
  while (at + 12 <= bytes.length) {
    const end = Math.min(bytes.length, at + 12 + view.getUint32(at));
    if (PNG_WORDS.has(nameAt(bytes, at + 4))) left = true;
    else kept.push(bytes.subarray(at, end));
    at = end;
  }
  return left ? joined([...kept, bytes.subarray(at)]) : bytes;
}

/** Flags of an extended WebP that say it holds Exif or XMP (RFC 9649). */
const WEBP_WORDS = 0x08 | 0x04;

function webp(bytes: Uint8Array<ArrayBuffer>): Uint8Array<ArrayBuffer> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const kept: Uint8Array[] = [bytes.slice(0, 12)];
  let left = false;
  let at = 12;
  while (at + 8 <= bytes.length) {
    const size = view.getUint32(at + 4, true);
    const end = Math.min(bytes.length, at + 8 + size + (size % 2));
    const name = nameAt(bytes, at);
    if (name === 'EXIF' || name === 'XMP ') left = true;
    else {
      const chunk = bytes.slice(at, end);
      if (name === 'VP8X') chunk[8]! &= ~WEBP_WORDS;
      kept.push(chunk);
    }
    at = end;
  }
  if (!left) return bytes;
  const all = joined(kept);
  new DataView(all.buffer).setUint32(4, all.length - 8, true);
  return all;
}

const nameAt = (bytes: Uint8Array, at: number): string => String.fromCharCode(...bytes.subarray(at, at + 4));

function joined(parts: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const all = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}

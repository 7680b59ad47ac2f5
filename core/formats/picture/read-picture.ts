import ExifReader from 'exifreader';
import { imageSize } from 'image-size';
import { MOST_PIXELS } from '../../model/area';
import { UnreadableFileError, type Fact } from '../reading';
import { sha256 } from '../sha256';
import { decodeText } from '../plain-text/encoding';
import { pictureToConvert } from './picture-endings';
import { safeSvg } from './safe-svg';
import { withoutMetadata } from './without-metadata';

/** A picture that was looked into. */
export interface PictureFacts {
  /** In pixels, upright. */
  readonly width: number;
  readonly height: number;
  /** Its media type (RFC 6838). */
  readonly type: string;
  readonly bytes: number;
  /** Of the file as it came. */
  readonly sha256: string;
  /** When it was taken, `YYYY-MM-DD`, where the file says so. */
  readonly date: string | null;
  /** What the file says of itself, as attributes: when and where it was taken. */
  readonly facts: readonly Fact[];
  /** The picture as it is kept, without what the file says of itself; the file as it came where that is not possible. */
  readonly bare: Blob;
  readonly notes: readonly string[];
}

/** Types of picture that browsers show, by the name that their size is read under. */
const TYPES: Readonly<Record<string, string>> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  webp: 'image/webp',
  gif: 'image/gif',
  avif: 'image/avif',
  bmp: 'image/bmp',
};
/** The most pixels of a picture: at four bytes a pixel about 600 MB of memory, what a browser can just show. */
const MOST = 150_000_000;
const LARGEST = 200_000_000;

/**
 * Looks into a picture by what it is, whatever its ending says: its size, and what is written in it beside the picture.
 * @param ending of its name
 * @throws UnreadableFileError saying what is wrong and what to do
 */
export async function readPicture(ending: string, file: Blob): Promise<PictureFacts> {
  if (file.size === 0) throw new UnreadableFileError('The file is empty.');
  const convert = pictureToConvert(ending);
  if (convert) throw new UnreadableFileError(convert);
  if (file.size > LARGEST) throw new UnreadableFileError('The picture is larger than 200 MB. Save it smaller.');
  const bytes = new Uint8Array(await file.arrayBuffer());
  const sum = await sha256(bytes);
  if (looksLikeSvg(bytes)) {
    const { svg, width, height, leftOut } = safeSvg(decodeText(bytes).text);
    checkSize(width, height);
    const notes = leftOut > 0 ? [`${leftOut} parts left out that could have run or fetched something`] : [];
    const bare = new Blob([svg], { type: 'image/svg+xml' });
    return { width, height, type: 'image/svg+xml', bytes: file.size, sha256: sum, date: null, facts: [], bare, notes };
  }
  const { width, height, orientation = 1, type: kind = '' } = sizeIn(bytes);
  const type = TYPES[kind];
  if (!type) throw new UnreadableFileError('The name says it is a picture, but it is none that browsers show. Save it as JPEG or PNG.');
  checkSize(width, height);
  // a picture that was taken lying on its side is as wide as it is high when it stands upright
  const [across, down] = orientation >= 5 ? [height, width] : [width, height];
  const { date, facts } = saidIn(bytes);
  const kept = withoutMetadata(bytes, type, orientation);
  const notes = [
    ...(kept && kept !== bytes ? ['what the camera wrote into it (when, where, with what) is left out of the picture that is kept'] : []),
    ...(!kept && facts.length > 0
      ? ['what the camera wrote into it stays in the file: of this kind of picture it cannot be left out']
      : []),
  ];
  return {
    width: across,
    height: down,
    type,
    bytes: file.size,
    sha256: sum,
    date,
    facts,
    bare: new Blob([kept ?? bytes], { type }),
    notes,
  };
}

function sizeIn(bytes: Uint8Array): ReturnType<typeof imageSize> {
  try {
    return imageSize(bytes);
  } catch {
    throw new UnreadableFileError(
      'The name says it is a picture, but it is damaged, cut off, or none that browsers show. Save it as JPEG or PNG.',
    );
  }
}

function checkSize(width: number, height: number): void {
  if (!(width >= 1 && height >= 1)) throw new UnreadableFileError('The picture has no pixels.');
  if (width > MOST_PIXELS || height > MOST_PIXELS || width * height > MOST)
    throw new UnreadableFileError(
      `The picture has ${width.toLocaleString('en')} × ${height.toLocaleString('en')} pixels; browsers show 150 million at most. Save it smaller.`,
    );
}

const looksLikeSvg = (bytes: Uint8Array): boolean =>
  /^\uFEFF?\s*<(?:\?xml|!--|!doctype svg|svg)/i.test(new TextDecoder().decode(bytes.subarray(0, 300)));

/** When and where a picture was taken, as its file says; nothing where that is damaged. */
function saidIn(bytes: Uint8Array<ArrayBuffer>): { readonly date: string | null; readonly facts: readonly Fact[] } {
  try {
    const { exif, gps } = ExifReader.load(bytes.buffer, { expanded: true });
    const taken = exif?.DateTimeOriginal?.description ?? exif?.DateTime?.description ?? '';
    const day = /^(\d{4})[:-](\d\d)[:-](\d\d)/.exec(taken);
    const date = day && day[1] !== '0000' ? `${day[1]}-${day[2]}-${day[3]}` : null;
    const place =
      gps?.Latitude !== undefined && gps.Longitude !== undefined ? `${gps.Latitude.toFixed(5)}, ${gps.Longitude.toFixed(5)}` : '';
    return {
      date,
      facts: [...(date ? [{ name: 'taken on', value: date }] : []), ...(place ? [{ name: 'taken at', value: place }] : [])],
    };
  } catch {
    return { date: null, facts: [] };
  }
}

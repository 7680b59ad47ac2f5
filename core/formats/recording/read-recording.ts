import {
  ADTS,
  BlobSource,
  FLAC,
  Input,
  MP3,
  MP4,
  OGG,
  QTFF,
  UnsupportedInputFormatError,
  WAVE,
  WEBM,
  MATROSKA,
  type InputAudioTrack,
  type InputTrack,
  type InputVideoTrack,
} from 'mediabunny';
import { counted } from '../../text/counted';
import { UnreadableFileError, type Progress } from '../reading';
import { sha256OfFile } from '../sha256';
import { howToConvert } from './recording-endings';

/** What is in a recording: nothing of it is decoded yet. */
export interface RecordingFacts {
  readonly milliseconds: number;
  readonly bytes: number;
  readonly sha256: string;
  /** Its media type (RFC 6838), without parameters. */
  readonly type: string;
  /** Each of its tracks in words: "sound, mp3, 1 channel, 22,050 Hz". */
  readonly tracks: readonly string[];
  readonly film: boolean;
}

const READABLE = [MP3, WAVE, OGG, MP4, QTFF, MATROSKA, WEBM, ADTS, FLAC];
/** Containers that can be read and that browsers do not play, by the name that is told. */
const UNPLAYED: ReadonlyMap<unknown, string> = new Map<unknown, string>([
  [QTFF, '.mov'],
  [MATROSKA, '.mkv'],
]);
/** How long the library may take to answer, milliseconds: of some damaged files it never does. */
const PATIENCE = 15_000;
/** The longest that a study can hold, milliseconds: about 49 days. */
const LONGEST = 0xffffffff;

/**
 * Looks into a recording by what it is, whatever its ending says: how long it is, what tracks it has. It is read
 * bit by bit, never whole.
 * @param ending of its name
 * @param progress told the share that is read
 * @throws UnreadableFileError saying what is wrong and what to do
 */
export async function readRecording(ending: string, file: Blob, progress?: Progress): Promise<RecordingFacts> {
  if (file.size === 0) throw new UnreadableFileError('The file is empty.');
  const convert = howToConvert(ending);
  if (convert) throw new UnreadableFileError(convert);
  const input = new Input({ source: new BlobSource(file), formats: READABLE });
  try {
    const facts = await answered(factsOf(input));
    const sum = await sha256OfFile(file, (read) => progress?.(read / file.size));
    return { ...facts, bytes: file.size, sha256: sum };
  } catch (error) {
    if (error instanceof UnreadableFileError) throw error;
    if (error instanceof UnsupportedInputFormatError)
      throw new UnreadableFileError(
        'The name says it is a recording, but it holds neither sound nor film that browsers play. Convert it to MP3, WAV, MP4 or WebM.',
      );
    throw new UnreadableFileError('The recording is damaged or was cut off. Copy it from where it was recorded once more.');
  } finally {
    input.dispose();
  }
}

/** What is promised, unless it takes too long. */
async function answered<T>(promised: Promise<T>): Promise<T> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, reject) => (timer = setTimeout(() => reject(new Error('no answer')), PATIENCE)));
  try {
    return await Promise.race([promised, late]);
  } finally {
    clearTimeout(timer);
  }
}

async function factsOf(input: Input): Promise<Pick<RecordingFacts, 'milliseconds' | 'type' | 'tracks' | 'film'>> {
  const format = await input.getFormat();
  const convert = howToConvert(UNPLAYED.get(format) ?? '');
  if (convert) throw new UnreadableFileError(convert);
  const tracks = await input.getTracks();
  const heardOrSeen = tracks.filter((track) => track.isAudioTrack() || track.isVideoTrack());
  if (heardOrSeen.length === 0) throw new UnreadableFileError('There is neither sound nor film in this file.');
  const milliseconds = Math.round((await input.computeDuration()) * 1000);
  if (milliseconds < 1) throw new UnreadableFileError('The recording is of no length: it was begun, and nothing was recorded.');
  if (milliseconds > LONGEST) throw new UnreadableFileError('The recording says that it is longer than 49 days, which it cannot be.');
  const film = heardOrSeen.some((track) => track.isVideoTrack());
  const mime = (await input.getMimeType()).split(';')[0]!.trim();
  return {
    milliseconds,
    // a film without a picture is sound, whatever its container is called
    type: film ? mime : mime.replace(/^video\//, 'audio/'),
    tracks: await Promise.all(heardOrSeen.map(trackWords)),
    film,
  };
}

async function trackWords(track: InputTrack): Promise<string> {
  const codec = track.codec ?? 'of an unknown kind';
  if (track.isVideoTrack()) {
    const film: InputVideoTrack = track;
    return `film, ${codec}, ${film.displayWidth} × ${film.displayHeight}`;
  }
  const sound = track as InputAudioTrack;
  return `sound, ${codec}, ${counted(sound.numberOfChannels, 'channel')}, ${sound.sampleRate.toLocaleString('en')} Hz`;
}

/** Endings of recordings that browsers play. */
export const RECORDING_ENDINGS = [
  '.mp3',
  '.wav',
  '.ogg',
  '.oga',
  '.opus',
  '.m4a',
  '.aac',
  '.flac',
  '.weba',
  '.mp4',
  '.m4v',
  '.webm',
] as const;

/** Endings of recordings that browsers do not play, with what each is. */
const OTHER_RECORDINGS: Readonly<Record<string, 'sound' | 'film'>> = {
  '.wma': 'sound',
  '.amr': 'sound',
  '.aiff': 'sound',
  '.aif': 'sound',
  '.caf': 'sound',
  '.dss': 'sound',
  '.ds2': 'sound',
  '.ac3': 'sound',
  '.mid': 'sound',
  '.avi': 'film',
  '.wmv': 'film',
  '.mov': 'film',
  '.mkv': 'film',
  '.mpg': 'film',
  '.mpeg': 'film',
  '.flv': 'film',
  '.3gp': 'film',
  '.mts': 'film',
  '.m2ts': 'film',
  '.ogv': 'film',
};

/** Whether a file is brought in as a recording, or refused as one, going by its ending. */
export const isRecordingEnding = (ending: string): boolean =>
  (RECORDING_ENDINGS as readonly string[]).includes(ending) || Object.hasOwn(OTHER_RECORDINGS, ending);

/** What to do with a recording that no browser plays; null where browsers play it. */
export function howToConvert(ending: string): string | null {
  const what = OTHER_RECORDINGS[ending];
  if (!what) return null;
  const to = what === 'sound' ? 'MP3 or WAV' : 'MP4 (H.264 and AAC) or WebM; if only what is said matters, its sound as MP3';
  return `Browsers do not play ${what} files ending in ${ending}. Convert it to ${to}, and bring that in.`;
}

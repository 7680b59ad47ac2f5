/** Endings of pictures that browsers show. */
export const PICTURE_ENDINGS = ['.png', '.jpg', '.jpeg', '.webp', '.gif', '.avif', '.bmp', '.svg'] as const;

/** Endings of pictures that browsers do not show. */
const OTHER_PICTURES = [
  '.tif',
  '.tiff',
  '.heic',
  '.heif',
  '.psd',
  '.eps',
  '.ai',
  '.raw',
  '.dng',
  '.cr2',
  '.nef',
  '.arw',
  '.jp2',
  '.djvu',
  '.wmf',
  '.emf',
];

/** Whether a file is brought in as a picture, or refused as one, going by its ending. */
export const isPictureEnding = (ending: string): boolean =>
  (PICTURE_ENDINGS as readonly string[]).includes(ending) || OTHER_PICTURES.includes(ending);

/** What to do with a picture that no browser shows; null where browsers show it. */
export const pictureToConvert = (ending: string): string | null =>
  OTHER_PICTURES.includes(ending) ? `Browsers do not show pictures ending in ${ending}. Save it as JPEG or PNG, and bring that in.` : null;

import { updated, type Change } from '../change/change';
import { CommandError, found, short, type Command } from '../change/command';
import { rowsOf } from '../model/area';
import type { Document } from '../model/document';
import type { Ground, Media, Shown } from '../model/ground';
import type { Id } from '../model/ids';
import { scaledArea } from '../pictures/shape-area';
import { shownAfter } from '../pictures/frame';
import { passagesOf } from './passages';

type Picture = Document & { readonly ground: Extract<Ground, { of: 'picture' }> };

/** What is done to how a picture is shown, in words for the log. */
const DONE: Readonly<Record<string, string>> = {
  turn: 'turned',
  'turn back': 'turned',
  mirror: 'mirrored',
  whole: 'showed all of',
};

/** Shows a picture otherwise: turned, mirrored, cut. Its areas stay where they are in it; what is cut away is kept and not seen. */
export function showPicture(documentId: Id, change: Parameters<typeof shownAfter>[1]): Command {
  return (state) => {
    const picture = pictureOf(state.tables.document[documentId]);
    const shown = shownAfter(picture.ground, change);
    if (sameShown(shown, picture.ground.shown)) return null;
    const { shown: _, ...ground } = picture.ground;
    return {
      change: [updated('document', picture, { ground: shown ? { ...ground, shown } : ground })],
      sentence: `${typeof change === 'string' ? DONE[change]! : 'cut'} ${short(picture.title)}`,
    };
  };
}

/**
 * Puts a smaller or larger copy in the place of a picture; its areas go along, each on the same part of it.
 * @param media the copy, which comes in with the entry
 */
export function resizePicture(documentId: Id, media: Media, width: number, height: number): Command {
  return (state) => {
    const picture = pictureOf(state.tables.document[documentId]);
    const { ground } = picture;
    if (ground.page !== undefined)
      throw new CommandError(`${short(picture.title)} is a page of a PDF, which is drawn as large as it has to be.`);
    if (!(Number.isInteger(width) && Number.isInteger(height) && width >= 1 && height >= 1))
      throw new CommandError('A picture has a whole number of pixels each way.');
    const to = { width, height };
    const crop = ground.shown?.crop;
    const scaled = crop && {
      left: Math.floor((crop.left * width) / ground.width),
      top: Math.floor((crop.top * height) / ground.height),
      right: Math.max(1, Math.ceil((crop.right * width) / ground.width)),
      bottom: Math.max(1, Math.ceil((crop.bottom * height) / ground.height)),
    };
    const shown: Shown | undefined = ground.shown && { ...ground.shown, ...(scaled && { crop: scaled }) };
    const change: Change[number][] = [
      updated('document', picture, { ground: { of: 'picture', width, height, media, ...(shown && { shown }) } }),
    ];
    for (const passage of passagesOf(state, documentId)) {
      if (!passage.area) continue;
      const area = scaledArea(passage.area, ground, to);
      change.push(updated('passage', passage, { ...rowsOf(area), area }));
    }
    return { change, sentence: `made ${short(picture.title)} ${width} × ${height} pixels large` };
  };
}

const sameShown = (one: Shown | undefined, other: Shown | undefined): boolean => JSON.stringify(one ?? {}) === JSON.stringify(other ?? {});

/** @throws CommandError */
function pictureOf(document: Document | undefined): Picture {
  const picture = found(document, 'picture');
  if (picture.ground.of !== 'picture') throw new CommandError(`${short(picture.title)} is no picture.`);
  return picture as Picture;
}

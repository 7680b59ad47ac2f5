import { boxOf } from '../model/area';
import { lengthOf, type Document, type Grounded } from '../model/document';
import type { Place } from '../model/stretch';
import { pixelsInRow } from './pixels';

/** Whether a place is one of a document: of its ground, not empty, and nowhere outside. */
export function standsIn(document: Grounded, place: Place): boolean {
  const { start, end, area } = place;
  if (document.ground.of !== 'picture') return area === undefined && 0 <= start && start < end && end <= lengthOf(document);
  if (!area) return false;
  const { left, top, right, bottom } = boxOf(area);
  const { width, height } = document.ground;
  if (!(0 <= left && 0 <= top && right <= width && bottom <= height && start === top && end === bottom)) return false;
  // corners on one line, or an ellipse thinner than a pixel, cover nothing that could be seen or counted
  for (let row = top; row < bottom; row++) if (pixelsInRow(area, row).length > 0) return true;
  return false;
}

/** What is wrong with a place that is none of a document, for the researcher. */
export const outsideWords = ({ ground }: Pick<Document, 'ground'>): string =>
  ({
    text: 'This stretch lies outside the text.',
    time: 'This span lies outside the recording.',
    picture: 'This area lies outside the picture, or covers nothing of it.',
  })[ground.of];

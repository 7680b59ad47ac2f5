import { randomId } from '@core/model/ids';
import { lastPlaces } from './last-places';

describe('where the reader was in each document', () => {
  it('follows a document that is divided, joined or deleted', () => {
    const [divided, rest, joined, heir, deleted, other] = Array.from({ length: 6 }, randomId);
    for (const [id, position] of [
      [divided, 50],
      [joined, 7],
      [heir, 3],
      [deleted, 9],
      [other, 1],
    ] as const)
      lastPlaces.read(id!, position);
    const read = lastPlaces.readAt(divided!);
    lastPlaces.follow((place) => {
      if (place.documentId === divided) return { documentId: rest!, position: place.position - 40 };
      if (place.documentId === joined) return { documentId: heir!, position: place.position + 100 };
      return place.documentId === deleted ? null : place;
    });
    expect([lastPlaces.placeIn(rest!), lastPlaces.readAt(rest!)]).toEqual([10, read]);
    // where the reader was in the one that took it in counts more
    expect(lastPlaces.placeIn(heir!)).toBe(3);
    expect([divided, joined, deleted].map((id) => lastPlaces.readAt(id!))).toEqual([null, null, null]);
    expect(lastPlaces.placeIn(other!)).toBe(1);
    expect([other, rest, heir]).toContain(lastPlaces.lastDocument());
  });
});

import type { Position } from '@core/change/moves-in';
import { Trail } from './trail';

const place = (position: number, documentId = 'one'): Position => ({ documentId, position });

describe('the trail of a reader', () => {
  it('leads back through jumps and forward again, also between documents', () => {
    const trail = new Trail();
    trail.leave(place(0));
    trail.leave(place(500));
    trail.leave(place(20, 'two'));
    expect(trail.back(place(900, 'two'))).toEqual(place(20, 'two'));
    expect(trail.back(place(20, 'two'))).toEqual(place(500));
    expect(trail.forward(place(510))).toEqual(place(20, 'two'));
    expect(trail.forward(place(20, 'two'))).toEqual(place(900, 'two'));
    expect(trail.forward(place(900, 'two'))).toBeUndefined();
  });

  it('gives up what is ahead with a new jump', () => {
    const trail = new Trail();
    trail.leave(place(0));
    trail.back(place(300));
    trail.leave(place(10));
    expect(trail.forward(place(0))).toBeUndefined();
    expect(trail.back(place(0))).toEqual(place(10));
    expect(trail.back(place(10))).toBeUndefined();
  });

  it('keeps a place once that is left twice, and forgets the oldest', () => {
    const trail = new Trail();
    trail.leave(place(7));
    trail.leave(place(7));
    expect(trail.back(place(9))).toEqual(place(7));
    expect(trail.back(place(7))).toBeUndefined();
    for (let at = 0; at < 500; at++) trail.leave(place(at));
    let oldest: Position | undefined;
    for (let to = trail.back(place(999)); to; to = trail.back(to)) oldest = to;
    expect(oldest).toEqual(place(300));
  });
});

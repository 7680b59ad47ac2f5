import { afterPaint } from './after-paint';

describe('what comes after the next frame', () => {
  it('comes in a task of its own once the frame is there, not within it', async () => {
    const order: string[] = [];
    await new Promise<void>((resolve) => {
      afterPaint(() => {
        order.push('after');
        resolve();
      });
      requestAnimationFrame(() => {
        order.push('frame');
        queueMicrotask(() => order.push('still in the frame'));
      });
      order.push('before');
    });
    expect(order).toEqual(['before', 'frame', 'still in the frame', 'after']);
  });

  it('can be ended, before the frame and after it', async () => {
    let done = 0;
    afterPaint(() => done++)();
    const end = afterPaint(() => done++);
    requestAnimationFrame(end);
    // two frames and what comes after them: what was to be done would have been
    for (let frame = 0; frame < 2; frame++) await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
    expect(done).toBe(0);
  });
});

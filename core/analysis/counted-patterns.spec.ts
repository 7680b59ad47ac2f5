import { NO_TABLES } from '../model/study-state';
import { EVERYTHING } from '../model/scope';
import { AskedStudy } from '../queries/asked-study';
import { Narrowing } from '../queries/narrowing';
import { LastCounted, type Counted } from './counted-patterns';

describe('the counts that were asked for last', () => {
  const study = new AskedStudy(
    NO_TABLES,
    () => [],
    'en',
    () => 0,
  );
  const narrowing = new Narrowing(EVERYTHING, study);

  /** Asks for tables by name, in turn. @returns those that had to be counted */
  async function asking(names: readonly string[], most: number, cells = 0): Promise<string[]> {
    const last = new LastCounted<number>(most, (counter) => counter);
    const begun: string[] = [];
    for (const asked of names)
      await last.of(
        (one) => one.asked === asked,
        () => {
          begun.push(asked);
          return Promise.resolve<Counted<number>>({ asked, tables: NO_TABLES, counter: cells, narrowing, documents: [] });
        },
      );
    return begun;
  }

  it('are kept as many as were said, whichever was asked for again', async () => {
    expect(await asking(['a', 'b', 'c', 'b', 'a', 'd', 'c', 'a'], 3)).toEqual(['a', 'b', 'c', 'd', 'c']);
  });

  it('are fewer where they are large, but never fewer than stand beside each other', async () => {
    expect(await asking(['a', 'b', 'c', 'a'], 14, 9_000_000)).toEqual(['a', 'b', 'c', 'a']);
    expect(await asking(['a', 'b', 'a', 'b'], 14, 90_000_000)).toEqual(['a', 'b']);
  });
});

import { Bench } from '@core/testing/make';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { until } from '../../testing/until';
import { NumberTable, type CellAt, type TableCell } from './number-table';

describe('a table of numbers', () => {
  const heads = (letter: string, count: number) =>
    Array.from({ length: count }, (_, at) => ({ key: `${letter}${at}`, name: `${letter} ${at}` }));
  const cellOf = (row: number, column: number): TableCell => ({
    words: String(row * column),
    shade: row === column ? 7 : null,
    empty: row * column === 0,
  });
  const opened: CellAt[] = [];
  const draw = async (rows: number, columns: number): Promise<Drawn<NumberTable>> => {
    const table = await drawn(NumberTable, new Bench(), { label: 'Some', rows: heads('r', rows), columns: heads('c', columns), cellOf });
    opened.length = 0;
    table.fixture.componentInstance.opened.subscribe((at) => opened.push(at));
    return table;
  };
  const focused = () => document.activeElement?.getAttribute('aria-label');

  it('draws what is in sight of 500 by 1,000, says how large it is, and keeps its headings', async () => {
    const table = await draw(500, 1_000);
    const grid = table.find('.view');
    const said = table.find('[role=grid]');
    expect([said.getAttribute('aria-rowcount'), said.getAttribute('aria-colcount')]).toEqual(['501', '1001']);
    expect(table.all('[role=gridcell]').length).toBeLessThan(1_400);
    grid.scrollTop = 10_000;
    grid.scrollLeft = 30_000;
    await table.settle();
    const labels = table.all('[role=gridcell]').map((one) => one.getAttribute('aria-label')!);
    expect(labels.some((label) => label.startsWith('r 420, c 792'))).toBeTrue();
    expect(labels.length).toBeLessThan(1_400);
    const box = (selector: string) => table.find(selector).getBoundingClientRect();
    expect(Math.round(box('.heads').top)).toBe(Math.round(grid.getBoundingClientRect().top));
    expect(Math.round(box('.name').left)).toBe(Math.round(grid.getBoundingClientRect().left));
  });

  it('draws further on the side that it is scrolled to', async () => {
    const table = await draw(500, 1_000);
    const grid = table.find('.view');
    for (const top of [5_000, 5_080, 5_160, 5_240, 5_320]) {
      grid.scrollTop = top;
      await table.settle();
    }
    const view = grid.getBoundingClientRect();
    const rows = table.all('.row').map((row) => row.getBoundingClientRect());
    const [above, below] = [table.find('.heads').getBoundingClientRect().bottom - rows[0]!.top, rows.at(-1)!.bottom - view.bottom];
    expect(above).toBeLessThan(130);
    expect(below).toBeGreaterThan(300);
  });

  it('has every cell under its heading, and leads Tab to a cell in sight, however far it is scrolled', async () => {
    const table = await draw(500, 1_000);
    const grid = table.find('.view');
    for (const [top, left] of [
      [0, 0],
      [5_000, 20_000],
      [500 * 24, 1_000 * 38],
    ] as const) {
      grid.scrollTop = top;
      grid.scrollLeft = left;
      await table.settle();
      const lefts = new Map(
        table.all('.head').map((one) => [one.getAttribute('aria-colindex'), Math.round(one.getBoundingClientRect().left)]),
      );
      const [from, to] = [table.find('.corner').getBoundingClientRect().right, grid.getBoundingClientRect().right];
      // rows differ in which of their columns are drawn together
      for (const row of table.all('.row').slice(0, 4)) {
        const boxes = [...row.querySelectorAll('.cell')].map((cell) => ({ cell, box: cell.getBoundingClientRect() }));
        const seen = boxes.filter(({ box }) => box.right > from && box.left < to);
        const inSight = heads('c', 1_000).filter((_, at) => at * 38 + 36 > grid.scrollLeft && at * 38 - grid.scrollLeft < to - from);
        expect(seen.length).toBe(inSight.length);
        for (const { cell, box } of seen) expect(Math.round(box.left)).toBe(lefts.get(cell.getAttribute('aria-colindex'))!);
      }
      expect(table.all('[role=gridcell][tabindex="0"]').length).toBe(1);
    }
  });

  it('is walked by keys to its very ends, and opens where they are', async () => {
    const table = await draw(40, 60);
    const first = table.find('[role=gridcell][tabindex="0"]');
    first.focus();
    await table.press(first, 'ArrowDown');
    await table.press(document.activeElement as HTMLElement, 'ArrowRight');
    expect(focused()).toBe('r 1, c 1: 1');
    await table.press(document.activeElement as HTMLElement, 'End', { ctrlKey: true });
    expect(focused()).toBe('r 39, c 59: 2301');
    await table.press(document.activeElement as HTMLElement, 'ArrowDown');
    expect(focused()).toBe('r 39, c 59: 2301');
    await table.press(document.activeElement as HTMLElement, 'Enter');
    await table.press(document.activeElement as HTMLElement, 'Home', { ctrlKey: true });
    expect(focused()).toBe('r 0, c 0: none');
    expect(opened).toEqual([{ row: 39, column: 59 }]);
  });

  it('keeps the cell that the keys are at in sight where it becomes smaller', async () => {
    const table = await draw(100, 100);
    const first = table.find('[role=gridcell][tabindex="0"]');
    first.focus();
    await table.press(first, 'End', { ctrlKey: true });
    table.host.style.width = '500px';
    table.host.style.height = '300px';
    await table.settle();
    await until(() => {
      const [grid, cell] = [table.find('.view').getBoundingClientRect(), document.activeElement!.getBoundingClientRect()];
      return focused() === 'r 99, c 99: 9801' && cell.right <= grid.right && cell.bottom <= grid.bottom;
    });
  });

  it('writes other numbers into the cells that are there: the focus stays, and so do what is open and what is said of it', async () => {
    const table = await draw(30, 30);
    const first = table.find('[role=gridcell][tabindex="0"]');
    first.focus();
    await table.press(first, 'End', { ctrlKey: true });
    table.fixture.componentRef.setInput('open', { row: 28, column: 29 });
    table.fixture.componentRef.setInput('cellOf', (row: number, column: number): TableCell => {
      return { words: String(row + column), shade: 2, empty: false, note: row === 29 ? 'small' : undefined };
    });
    await table.settle();
    expect(focused()).toBe('r 29, c 29: 58, small');
    expect(document.activeElement!.className).toContain('shade-2');
    expect(table.texts('.cell.open')).toEqual(['57']);
    table.fixture.componentRef.setInput('open', { row: 29, column: 28 });
    table.fixture.componentRef.setInput('cellOf', cellOf);
    await table.settle();
    expect(table.all('.cell.open').map((cell) => cell.getAttribute('aria-label'))).toEqual(['r 29, c 28: 812']);
    expect([focused(), document.activeElement!.hasAttribute('title')]).toEqual(['r 29, c 29: 841', false]);
  });

  it('has the name of each row with it, wherever it stands, and takes in columns that are added', async () => {
    const table = await draw(40, 6);
    const grid = table.find('.view');
    grid.scrollTop = 480;
    await table.settle();
    for (const row of table.all('.row').slice(0, 5)) {
      const name = table.find(`[id="${row.getAttribute('aria-owns')}"]`);
      const cell = row.querySelector('.cell')!;
      expect(cell.getAttribute('aria-label')!.startsWith(`${name.textContent!.trim()}, `)).toBeTrue();
      expect(Math.round(name.getBoundingClientRect().top)).toBe(Math.round(row.getBoundingClientRect().top));
    }
    table.fixture.componentRef.setInput('columns', heads('c', 9));
    await table.settle();
    expect(table.all('.row')[0]!.querySelectorAll('.cell').length).toBe(9);
  });

  it('opens before the focus has come where quick hands already are', async () => {
    const table = await draw(5, 5);
    const first = table.find('[role=gridcell][tabindex="0"]');
    first.focus();
    for (const key of ['ArrowDown', 'Enter']) first.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    await table.settle();
    expect(opened).toEqual([{ row: 1, column: 0 }]);
  });

  it('shows a mark where nothing was found, and keeps within what is left of it', async () => {
    const table = await draw(6, 6);
    expect(table.texts('[role=gridcell]').filter((text) => text === '–').length).toBe(11);
    await table.press(table.find('[role=gridcell][tabindex="0"]'), 'End', { ctrlKey: true });
    table.fixture.componentRef.setInput('rows', heads('r', 2));
    await table.settle();
    expect(table.find('[role=gridcell][tabindex="0"]').getAttribute('aria-label')).toBe('r 1, c 5: 5');
  });
});

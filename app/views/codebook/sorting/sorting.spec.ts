import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { analysisHere } from '../../../testing/analysis-here';
import { selectCodes, selectCodeSets, selectSortings } from '../../../state/study.selectors';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { Sorting } from './sorting';

describe('the sorting table', () => {
  let table: Drawn<Sorting>;
  const ids: Record<string, Id> = {};
  const slip = (name: string) => table.find(`.slip[data-code="${ids[name]}"]`);
  const tray = () => table.texts('.tray .slip .name');
  const group = (name: string) => table.texts(`[aria-label="Group ${name}"] .slip .name`);
  const left = () => table.find('[data-unplaced]').textContent.replace(/\s+/g, ' ').trim();
  const stored = () => Object.values(TestBed.inject(Store).selectSignal(selectSortings)())[0]!;
  const drag = async (from: HTMLElement, onto: HTMLElement, at = { x: 5, y: 5 }) => {
    const dataTransfer = new DataTransfer();
    const fire = (target: HTMLElement, type: string) => {
      const box = target.getBoundingClientRect();
      target.dispatchEvent(
        new DragEvent(type, { bubbles: true, cancelable: true, dataTransfer, clientX: box.left + at.x, clientY: box.top + at.y }),
      );
    };
    fire(from, 'dragstart');
    fire(onto, 'dragover');
    fire(onto, 'drop');
    fire(from, 'dragend');
    await table.settle();
  };

  const codesNamed = () => Object.values(TestBed.inject(Store).selectSignal(selectCodes)()).map((one) => one.name);

  beforeEach(async () => {
    const bench = new Bench();
    for (const name of ['Waiting', 'Worry', 'Relief', 'Queue']) ids[name] = bench.addCode(name);
    table = await drawn(Sorting, bench, {}, [analysisHere]);
    table.answers.text = 'Monday';
    await table.click(table.button('Sort all codes'));
  });

  it('lays all codes into the tray and counts those without a place', async () => {
    expect(tray()).toEqual(['Waiting', 'Worry', 'Relief', 'Queue']);
    expect(left()).toBe('4 of 4 codes not yet placed');
    table.answers.text = 'Feelings';
    await table.press(slip('Worry'), 'n');
    await table.press(slip('Relief'), '1');
    expect(group('Feelings')).toEqual(['Worry', 'Relief']);
    expect(left()).toBe('2 of 4 codes not yet placed');
  });

  it('sorts by keys: a number lays into a group, 0 takes the place away, arrows go from slip to slip', async () => {
    table.answers.text = 'Feelings';
    await table.press(slip('Worry'), 'n');
    await table.press(slip('Relief'), '1');
    await table.press(slip('Relief'), '0');
    expect(group('Feelings')).toEqual(['Worry']);
    expect(tray()).toContain('Relief');
    await table.press(slip('Relief'), '7');
    expect(tray()).toContain('Relief');
    slip('Waiting').focus();
    await table.press(slip('Waiting'), 'ArrowDown');
    expect(document.activeElement).toBe(slip('Relief'));
  });

  it('sorts by drag: into a group, freely onto the table, and back to the tray', async () => {
    table.answers.text = 'Feelings';
    await table.click(table.button('New group'));
    await drag(slip('Worry'), table.find('[aria-label="Group Feelings"]'));
    expect(group('Feelings')).toEqual(['Worry']);
    await drag(slip('Queue'), table.find('.surface'), { x: 420, y: 300 });
    expect(table.texts('.free .name')).toEqual(['Queue']);
    expect(stored().slips.find((one) => one.codeId === ids['Queue'])).toEqual({ codeId: ids['Queue']!, groupId: null, x: 400, y: 287 });
    await drag(slip('Worry'), table.find('.tray'));
    expect(tray()).toEqual(['Waiting', 'Worry', 'Relief']);
  });

  it('moves a group with all that lies in it, and tidies without losing a slip', async () => {
    table.answers.text = 'Feelings';
    await table.press(slip('Worry'), 'n');
    await drag(table.find('[aria-label="Group Feelings"]'), table.find('.surface'), { x: 300, y: 200 });
    expect(stored().groups.map(({ x, y }) => [x, y])).toEqual([[0, 0]]);
    await drag(slip('Queue'), table.find('.surface'), { x: 640, y: 420 });
    await table.click(table.button('Tidy'));
    expect(stored().slips.length).toBe(2);
    expect(stored().groups[0]!.x).toBe(16);
  });

  it('leaves the codebook alone until groups become categories, in one step', async () => {
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const codes = () => Object.values(TestBed.inject(Store).selectSignal(selectCodes)());
    table.answers.text = 'Feelings';
    await table.press(slip('Worry'), 'n');
    await table.press(slip('Relief'), '1');
    expect(codes().length).toBe(4);
    const before = table.session.done.length;
    await table.click(table.button('Make categories'));
    expect(table.answers.asked.at(-1)).toBe('Make a category of the groups?');
    const category = codes().find((one) => one.name === 'Feelings')!;
    expect(
      codes()
        .filter((one) => one.parentId === category.id)
        .map((one) => one.name),
    ).toEqual(['Worry', 'Relief']);
    expect(table.session.done.length).toBe(before + 1);
    table.session.undo();
    expect(codes().length).toBe(4);
  });

  it('keeps a group as a set, and dissolves one without losing its codes', async () => {
    table.answers.text = 'Feelings';
    await table.press(slip('Worry'), 'n');
    await table.click(table.button('More for Feelings'));
    await table.click(table.button('keep as a set of codes'));
    expect(Object.values(TestBed.inject(Store).selectSignal(selectCodeSets)()).map((set) => [set.name, set.codeIds])).toEqual([
      ['Feelings', [ids['Worry']!]],
    ]);
    await table.click(table.button('More for Feelings'));
    await table.click(table.button('dissolve; its codes have no place then'));
    expect(tray()).toContain('Worry');
    expect(left()).toBe('4 of 4 codes not yet placed');
  });

  it('says which codes came later than the table', async () => {
    table.session.run((state, context) => ({
      change: [
        { type: 'code', before: null, after: { ...Object.values(state.tables.code)[0]!, id: context.newId(), name: 'New', mark: 'Zz' } },
      ],
      sentence: 'made New',
    }));
    await table.settle();
    expect(table.find('.tray').textContent).toContain('One code of the codebook is not on this table');
  });

  it('shows the page of a code with all it offers, and puts it away', async () => {
    await table.click(slip('Worry'));
    table.answers.text = 'Dread';
    await table.click(table.button('New code under it'));
    expect(codesNamed()).toContain('Dread');
    await table.click(slip('Relief'));
    await table.click(table.find('fl-code-page .danger'));
    expect(table.answers.asked.at(-1)).toBe('Delete “Relief”?');
    expect(codesNamed()).not.toContain('Relief');
    await table.click(slip('Worry'));
    await table.click(table.button('Close the page of the code'));
    expect(table.all('fl-code-page').length).toBe(0);
  });
});

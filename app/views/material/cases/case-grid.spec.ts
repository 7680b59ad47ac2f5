import { addAttribute, attributesOf, setValues } from '@core/commands/attributes';
import { addCase } from '@core/commands/cases';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { selectCases } from '../../../state/study.selectors';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { CaseGrid } from './case-grid';

describe('the register of cases', () => {
  let grid: Drawn<CaseGrid>;
  let bench: Bench;
  let attributes: Record<string, Id>;
  const cell = (row: number, column: number) => grid.find(`[data-cell="${row},${column}"]`);
  const names = () => grid.texts('.cell.name');
  const valuesOf = (name: string) => {
    const one = Object.values(TestBed.inject(Store).selectSignal(selectCases)()).find((each) => each.name === name)!;
    return [attributes['age'], attributes['home'], attributes['due']].map((id) => one.values[id!]);
  };
  const paste = async (text: string) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', text);
    grid.find('.grid').dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
    await grid.settle();
  };

  beforeEach(async () => {
    bench = new Bench();
    for (const name of ['Shona', 'Calum', 'Mhairi']) bench.run(addCase(name, bench.newId()));
    bench.run(addAttribute('case', 'age', 'number'));
    bench.run(addAttribute('case', 'home', 'choice', ['Gull Bay']));
    bench.run(addAttribute('case', 'due', 'date'));
    attributes = Object.fromEntries(attributesOf(bench.state, 'case').map((one) => [one.name, one.id]));
    grid = await drawn(CaseGrid, bench);
  });

  it('comes up with the case that is asked for, and follows another', async () => {
    const idOf = (name: string): Id => Object.values(bench.state.tables.case).find((one) => one.name === name)!.id;
    for (const [name, row] of [
      ['Shona', 2],
      ['Mhairi', 1],
    ] as const) {
      grid.fixture.componentRef.setInput('shown', idOf(name));
      await grid.settle();
      expect(document.activeElement).withContext(name).toBe(cell(row, 0));
    }
  });

  it('is filled by keyboard like a spreadsheet: a letter begins, Enter goes down, Tab to the right, Escape leaves it', async () => {
    expect(names()).toEqual(['Calum', 'Mhairi', 'Shona']);
    await grid.click(cell(0, 1));
    await grid.press(cell(0, 1), '5');
    await grid.type('input.editor', '58');
    await grid.press('input.editor', 'Enter');
    expect(document.activeElement).toBe(cell(1, 1));
    await grid.press(cell(1, 1), '4');
    await grid.type('input.editor', '44');
    await grid.press('input.editor', 'Tab');
    expect(document.activeElement).toBe(cell(1, 2));
    await grid.press(cell(1, 2), 'Enter');
    await grid.type('input.editor', 'Saltpans');
    await grid.press('input.editor', 'Escape');
    expect([valuesOf('Calum')[0], valuesOf('Mhairi')]).toEqual([58, [44, undefined, undefined]]);
  });

  it('keeps what does not fit open and says why', async () => {
    await grid.click(cell(0, 1));
    await grid.press(cell(0, 1), 'x');
    await grid.type('input.editor', 'old');
    await grid.press('input.editor', 'Enter');
    expect(grid.find('[role=alert]').textContent).toContain('old');
    expect(grid.all('input.editor').length).toBe(1);
    expect(valuesOf('Calum')[0]).toBeUndefined();
    expect(grid.session.done.length).toBe(0);
  });

  it('takes a block from a spreadsheet as one step, names and values; rows move by their new names only when they are sorted anew', async () => {
    await grid.click(cell(0, 0));
    await paste('Zoe\t58\tGull Bay\nAnna\t44\tSaltpans');
    expect(names()).toEqual(['Zoe', 'Anna', 'Shona']);
    expect([valuesOf('Zoe').slice(0, 2), valuesOf('Anna').slice(0, 2)]).toEqual([
      [58, 'Gull Bay'],
      [44, 'Saltpans'],
    ]);
    expect(grid.session.done.length).toBe(1);
    grid.session.undo();
    await grid.settle();
    expect(names()).toEqual(['Calum', 'Mhairi', 'Shona']);
    expect(valuesOf('Calum')).toEqual([undefined, undefined, undefined]);
  });

  it('takes nothing of a block in which one cell does not fit', async () => {
    await grid.click(cell(0, 1));
    await paste('58\nmany\n44');
    expect(grid.find('[role=alert]').textContent).toContain('many');
    expect(['Calum', 'Mhairi', 'Shona'].map((name) => valuesOf(name)[0])).toEqual([undefined, undefined, undefined]);
  });

  it('keeps a value that does not fit in its cell when the hand goes elsewhere, and never puts it into another', async () => {
    await grid.click(cell(0, 1));
    await grid.press(cell(0, 1), 'x');
    await grid.type('input.editor', 'old');
    await grid.click(cell(2, 1));
    expect(grid.all('input.editor').length).toBe(0);
    expect(cell(0, 1).textContent).toContain('old');
    expect(grid.find('.wrong').title).toContain('old');
    expect(['Calum', 'Mhairi', 'Shona'].map((name) => valuesOf(name)[0])).toEqual([undefined, undefined, undefined]);
    // taken up again where it was left, and mended
    await grid.click(cell(0, 1));
    await grid.press(cell(0, 1), 'Enter');
    expect(grid.find<HTMLInputElement>('input.editor').value).toBe('old');
    await grid.type('input.editor', '58');
    await grid.press('input.editor', 'Enter');
    expect(valuesOf('Calum')[0]).toBe(58);
    expect(grid.all('.wrong').length).toBe(0);
  });

  it('leaves rows where they are while a sorted column is filled in', async () => {
    await grid.click(grid.button('age'));
    await grid.click(cell(0, 1));
    for (const [row, value] of [
      [0, '58'],
      [1, '9'],
      [2, '44'],
    ] as const) {
      await grid.press(cell(row, 1), 'Enter');
      await grid.type('input.editor', value);
      await grid.press('input.editor', 'Enter');
    }
    expect(names()).toEqual(['Calum', 'Mhairi', 'Shona']);
    expect(['Calum', 'Mhairi', 'Shona'].map((name) => valuesOf(name)[0])).toEqual([58, 9, 44]);
    await grid.click(grid.button('age'));
    await grid.click(grid.button('age'));
    expect(names()).toEqual(['Mhairi', 'Shona', 'Calum']);
  });

  it('stays on its participant when a filter moves the rows, and chooses nobody else', async () => {
    await grid.click(cell(1, 0));
    await grid.click(cell(2, 0), { shiftKey: true });
    await grid.type('[aria-label="Find in the register"]', 'Shona');
    expect(grid.texts('footer span')[0]).toBe('Shona chosen');
    await grid.type('[aria-label="Find in the register"]', 'nobody at all');
    expect(grid.find<HTMLButtonElement>('footer .danger').disabled).toBeTrue();
  });

  it('drops nothing of a pasted block without a word: empty names, rows beyond the last, columns beyond the right', async () => {
    await grid.click(cell(1, 0));
    await paste('Zoe\t58\n\t44');
    expect(grid.find('[role=alert]').textContent).toContain('The name in row 3 is empty');
    expect(grid.session.done.length).toBe(0);
    await paste('Zoe\t1\tHome\t2025-01-01\tmore');
    expect(grid.find('[role=alert]').textContent).toContain('1 column wider');
    await paste('Zoe\t58\nAnna\t44\nEwan\t33');
    expect(grid.answers.asked.at(-1)).toBe('1 row more than there are participants');
    expect(names()).toEqual(['Calum', 'Zoe', 'Anna', 'Ewan']);
    expect(valuesOf('Ewan')[0]).toBe(33);
    expect(grid.session.done.length).toBe(1);
    grid.answers.chose = 'other';
    await paste('Una\t1\nIona\t2\nRory\t3\nMorag\t4');
    expect(names()).toEqual(['Calum', 'Una', 'Iona', 'Rory']);
  });

  it('fills down and clears a chosen range', async () => {
    await grid.click(cell(0, 2));
    await grid.press(cell(0, 2), 'Enter');
    await grid.type('input.editor', 'Gull Bay');
    await grid.press('input.editor', 'Enter');
    await grid.click(cell(0, 2));
    await grid.press(cell(0, 2), 'ArrowDown', { shiftKey: true });
    await grid.press(cell(1, 2), 'ArrowDown', { shiftKey: true });
    await grid.press(cell(2, 2), 'd', { ctrlKey: true });
    expect(['Calum', 'Mhairi', 'Shona'].map((name) => valuesOf(name)[1])).toEqual(['Gull Bay', 'Gull Bay', 'Gull Bay']);
    await grid.press(cell(2, 2), 'Delete');
    expect(['Calum', 'Mhairi', 'Shona'].map((name) => valuesOf(name)[1])).toEqual([undefined, undefined, undefined]);
  });

  it('moves to the edges and stays within them', async () => {
    await grid.click(cell(0, 0));
    await grid.press(cell(0, 0), 'End', { ctrlKey: true });
    expect(document.activeElement).toBe(cell(2, 3));
    await grid.press(cell(2, 3), 'ArrowRight');
    await grid.press(cell(2, 3), 'PageDown');
    expect(document.activeElement).toBe(cell(2, 3));
    await grid.press(cell(2, 3), 'Home', { ctrlKey: true });
    expect(document.activeElement).toBe(cell(0, 0));
  });

  it('sorts by a column, finds in names and values, and shows what is due', async () => {
    const idOf = (name: string) => Object.values(bench.state.tables.case).find((one) => one.name === name)!.id;
    grid.session.run(
      setValues([
        { ownerId: idOf('Shona'), attributeId: attributes['age']!, raw: '9' },
        { ownerId: idOf('Calum'), attributeId: attributes['age']!, raw: '58' },
        { ownerId: idOf('Mhairi'), attributeId: attributes['due']!, raw: '2020-01-05' },
        { ownerId: idOf('Shona'), attributeId: attributes['due']!, raw: '2999-01-05' },
      ]),
    );
    await grid.click(grid.button('age'));
    expect(names().slice(0, 2)).toEqual(['Shona', 'Calum']);
    await grid.type('[aria-label="Find in the register"]', '58');
    expect(names()).toEqual(['Calum']);
    await grid.type('[aria-label="Find in the register"]', '');
    await grid.type('select', attributes['due']!, 'change');
    expect(names()).toEqual(['Mhairi']);
    expect(grid.all('.overdue').length).toBe(1);
  });

  it('deletes the chosen cases only after it has said what goes', async () => {
    await grid.click(cell(0, 0));
    await grid.click(cell(1, 0), { shiftKey: true });
    grid.answers.yes = false;
    await (grid.fixture.componentInstance as unknown as { remove: () => Promise<void> }).remove();
    expect(grid.answers.asked).toEqual(['Delete 2 participants?']);
    expect(grid.session.done.length).toBe(0);
    grid.answers.yes = true;
    await (grid.fixture.componentInstance as unknown as { remove: () => Promise<void> }).remove();
    await grid.settle();
    expect(names()).toEqual(['Shona']);
  });
});

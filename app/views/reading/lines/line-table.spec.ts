import { TestBed } from '@angular/core/testing';
import type { Id } from '@core/model/ids';
import { Answers, Drawn } from '../../../testing/component-with-study';
import { readingPane, type ReadingPane } from '../../../testing/reading-pane';
import { LineTable } from './line-table';

describe('the text as a table of units', () => {
  let pane: ReadingPane;
  let table: Drawn<LineTable>;
  const ids: Record<string, Id> = {};
  const words = () => table.texts('[data-unit]');
  const numbers = () => table.texts('td.number');
  const status = () => table.find('[role=status]').textContent.replace(/\s+/g, ' ').trim();
  const rows = async (kind: string) => table.type('select', kind, 'change');
  const cell = (at: number) => table.all('fl-code-cell')[at]!.querySelector('input')!;
  const giveCode = async (at: number, typed: string) => {
    cell(at).focus();
    await table.type(cell(at), typed);
    await table.press(cell(at), 'Enter');
  };

  beforeEach(async () => {
    localStorage.removeItem('filum-row-kind');
    pane = readingPane(['They held the boat. Nobody spoke.', 'We waited.'], (bench) => {
      ids['Help'] = bench.addCode('Help');
      ids['Waiting'] = bench.addCode('Waiting');
    });
    table = new Drawn(TestBed.createComponent(LineTable), new Answers());
    await table.settle();
    await rows('sentence');
  });
  afterEach(() => localStorage.removeItem('filum-row-kind'));

  it('has a row for each unit of the kind that is chosen', async () => {
    expect(words()).toEqual(['They held the boat.', 'Nobody spoke.', 'We waited.']);
    expect(status()).toBe('3 rows, 0 coded');
    await rows('paragraph');
    expect(words()).toEqual(['They held the boat. Nobody spoke.', 'We waited.']);
  });

  it('codes a unit in its cell with the passages of the text itself, and makes codes there', async () => {
    await giveCode(0, 'help');
    await giveCode(1, 'Silence');
    expect(pane.passages()).toEqual(['They held the boat.: Help', 'Nobody spoke.: Silence']);
    expect(status()).toBe('3 rows, 2 coded');
  });

  it('shows only what is not coded, or what carries one code, and keeps the numbers', async () => {
    await giveCode(1, 'help');
    await table.type(table.all('select')[1]!, 'uncoded', 'change');
    expect(words()).toEqual(['They held the boat.', 'We waited.']);
    expect(numbers()).toEqual(['1', '3']);
    expect(status()).toBe('2 of 3 rows, 1 coded');
    await table.type(table.all('select')[1]!, `code ${ids['Help']}`, 'change');
    expect(words()).toEqual(['Nobody spoke.']);
    await table.type(table.all('select')[1]!, `code ${ids['Waiting']}`, 'change');
    expect(table.host.textContent).toContain('No row is like that.');
  });

  it('divides and joins idea-units in place, which move no passage, and puts them back to sentences', async () => {
    await giveCode(0, 'help');
    await rows('idea-unit');
    expect(words().length).toBe(3);
    const first = table.all('[data-unit]')[0]!;
    const range = document.createRange();
    range.setStart(first.firstChild!, 'They held '.length);
    getSelection()!.removeAllRanges();
    getSelection()!.addRange(range);
    await table.press(first, 'Enter');
    expect(words()).toEqual(['They held', 'the boat.', 'Nobody spoke.', 'We waited.']);
    expect(pane.passages()).toEqual(['They held the boat.: Help']);
    await table.click(table.button('Put the units back to sentences'));
    expect(words().length).toBe(3);
  });

  it('takes nothing that is typed, pasted or dropped into the words', () => {
    const box = table.all('[data-unit]')[0]!;
    for (const event of [
      new InputEvent('beforeinput', { cancelable: true, data: 'x' }),
      new ClipboardEvent('paste', { cancelable: true }),
      new DragEvent('drop', { cancelable: true }),
    ]) {
      box.dispatchEvent(event);
      expect(event.defaultPrevented).withContext(event.type).toBeTrue();
    }
  });
});

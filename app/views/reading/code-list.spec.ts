import { TestBed } from '@angular/core/testing';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { ReaderSettings } from '../../state/reader-settings';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { CodeList } from './code-list';
import { CODE_DRAG_TYPE } from './surface/reading-surface';

describe('the codebook beside the text', () => {
  let list: Drawn<CodeList>;
  let used: Id[];
  const ids: Record<string, Id> = {};
  const names = () => list.texts('.row .name');
  const row = (name: string) => list.all('.row').find((one) => one.querySelector('.name')!.textContent === name)!;

  beforeEach(async () => {
    localStorage.removeItem('filum-pinned-codes');
    const bench = new Bench();
    ids['Crossing'] = bench.addCode('Crossing');
    ids['Waiting'] = bench.addCode('Waiting', ids['Crossing']);
    ids['Worry'] = bench.addCode('Worry');
    const document = bench.addDocument('One', ['We waited at the pier.']);
    bench.code(document, 0, 9, ids['Waiting']);
    used = [];
    list = await drawn(CodeList, bench, {}, [], { width: 260, height: 500 });
    list.fixture.componentInstance.used.subscribe((id) => used.push(id));
  });
  afterEach(() => localStorage.removeItem('filum-pinned-codes'));

  it('shows categories with what is under them, and how often each is used', () => {
    expect(names()).toEqual(['Crossing', 'Waiting', 'Worry']);
    expect(list.texts('.row .count')).toEqual(['1', '1', '0']);
  });

  it('codes with a double click, with Enter on a code, and with Enter on the first that fits', async () => {
    row('Worry')
      .querySelector('button')!
      .dispatchEvent(new MouseEvent('dblclick', { bubbles: true }));
    await list.press(row('Waiting').querySelector('button')!, 'Enter');
    await list.type('input', 'wor');
    expect(names()).toEqual(['Worry']);
    await list.press('input', 'Enter');
    expect(used).toEqual([ids['Worry']!, ids['Waiting']!, ids['Worry']!]);
  });

  it('takes the selection that is dropped on a code, and hands codes to the text when they are dragged', async () => {
    const dataTransfer = new DataTransfer();
    row('Waiting').dispatchEvent(new DragEvent('dragstart', { bubbles: true, dataTransfer }));
    expect(dataTransfer.getData(CODE_DRAG_TYPE)).toBe(ids['Waiting']!);
    const words = new DataTransfer();
    words.setData('text/plain', 'at the pier');
    const over = new DragEvent('dragover', { bubbles: true, cancelable: true, dataTransfer: words });
    row('Worry').dispatchEvent(over);
    expect(over.defaultPrevented).toBeTrue();
    row('Worry').dispatchEvent(new DragEvent('drop', { bubbles: true, cancelable: true, dataTransfer: words }));
    await list.settle();
    expect(used).toEqual([ids['Worry']!]);
  });

  it('shows the key of a pinned code, and lets it be pinned and let go', async () => {
    expect(list.all('kbd').length).toBe(0);
    await list.click(row('Worry').querySelector<HTMLElement>('.pin')!);
    expect(row('Worry').querySelector('kbd')!.textContent).toBe('1');
    expect(TestBed.inject(ReaderSettings).pinned()).toEqual([ids['Worry']!]);
    await list.click(row('Worry').querySelector<HTMLElement>('.pin')!);
    expect(list.all('kbd').length).toBe(0);
  });
});

import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Passage } from '@core/model/passage';
import { openedStudy } from '../../testing/opened-study';
import { openInStore } from '../../testing/study-store';
import type { Picked } from '../../ui/picker/code-picker';
import { CodeCell } from './code-cell';

describe('the codes of a unit in a cell', () => {
  let fixture: ComponentFixture<CodeCell>;
  let picked: Picked[];
  let left: number[];
  const { opened, codes, coderId } = openedStudy(['Reaching help', 'Worry', 'Relief']);
  const host = () => fixture.nativeElement as HTMLElement;
  const box = () => host().querySelector('input')!;
  const passage = (start: number, end: number, name: string): Passage => ({
    id: `${start}`,
    documentId: 'd',
    start,
    end,
    comment: '',
    coderId,
    createdAt: 0,
    codings: [{ codeId: codes[name]!, coderId, createdAt: 0 }],
  });

  beforeEach(async () => {
    openInStore(opened);
    fixture = TestBed.createComponent(CodeCell);
    fixture.componentRef.setInput('documentId', 'd');
    fixture.componentRef.setInput('place', { start: 0, end: 10 });
    fixture.componentRef.setInput('passages', [passage(0, 10, 'Worry'), passage(2, 5, 'Relief'), passage(4, 20, 'Worry')]);
    fixture.componentRef.setInput('label', 'turn 1');
    fixture.componentRef.setInput('id', 'unit-0');
    picked = [];
    left = [];
    fixture.componentInstance.picked.subscribe((one) => picked.push(one));
    fixture.componentInstance.left.subscribe((by) => left.push(by));
    await fixture.whenStable();
  });

  async function type(text: string): Promise<void> {
    box().value = text;
    box().dispatchEvent(new Event('input'));
    await fixture.whenStable();
  }
  async function press(key: string): Promise<void> {
    box().dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    await fixture.whenStable();
  }

  it('tells codes of the whole unit from those of a part, each once', () => {
    const names = (query: string) => [...host().querySelectorAll(query)].map((one) => one.textContent!.replace('×', '').trim());
    expect(names('.code:not(.part)').map((name) => name.slice(2))).toEqual(['Worry']);
    expect(names('.code.part').map((name) => name.slice(2))).toEqual(['Relief']);
  });

  it('completes from the codebook, codes by Enter, and by Enter on nothing goes on', async () => {
    await type('help');
    expect(host().querySelectorAll('[role=option]').length).toBe(2);
    await press('Enter');
    expect(picked).toEqual([{ codeId: codes['Reaching help']! }]);
    expect(box().value).toBe('');
    await press('Enter');
    await press('ArrowUp');
    expect(left).toEqual([1, -1]);
  });

  it('makes a code where none has the name, and Escape leaves what was typed', async () => {
    await type('sea legs');
    await press('Enter');
    expect(picked).toEqual([{ newCode: { name: 'sea legs' } }]);
    await type('wor');
    await press('Escape');
    expect([box().value, host().querySelector('ul')]).toEqual(['', null]);
  });
});

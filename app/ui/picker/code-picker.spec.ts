import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { openedStudy } from '../../testing/opened-study';
import { openInStore } from '../../testing/study-store';
import { CodePicker, type Picked } from './code-picker';

describe('the code picker', () => {
  let fixture: ComponentFixture<CodePicker>;
  let picked: Picked[];
  let closed: number;
  const { opened, codes } = openedStudy(['Reaching help', 'Getting help in time:Reaching help', 'Worry']);

  beforeEach(async () => {
    openInStore(opened);
    fixture = TestBed.createComponent(CodePicker);
    fixture.componentRef.setInput('words', 'they held her');
    picked = [];
    closed = 0;
    fixture.componentInstance.picked.subscribe((one) => picked.push(one));
    fixture.componentInstance.closed.subscribe(() => closed++);
    document.body.append(fixture.nativeElement as HTMLElement);
    await fixture.whenStable();
  });

  afterEach(() => (fixture.nativeElement as HTMLElement).remove());

  const box = () => (fixture.nativeElement as HTMLElement).querySelector('input')!;
  /** Options by their words; name and category stand in boxes of their own. */
  const options = () =>
    [...(fixture.nativeElement as HTMLElement).querySelectorAll('[role=option]')].map((option) =>
      option.textContent!.replace(/\s+/g, ' ').trim(),
    );

  async function type(text: string): Promise<void> {
    box().value = text;
    box().dispatchEvent(new Event('input'));
    await fixture.whenStable();
  }

  async function press(key: string, shiftKey = false): Promise<void> {
    box().dispatchEvent(new KeyboardEvent('keydown', { key, shiftKey, bubbles: true, cancelable: true }));
    await fixture.whenStable();
  }

  it('has the focus, and says which option is marked', async () => {
    expect(document.activeElement).toBe(box());
    await type('help');
    expect(box().getAttribute('aria-activedescendant')).toBe('choice-0');
    await press('ArrowDown');
    expect(box().getAttribute('aria-activedescendant')).toBe('choice-1');
  });

  it('picks the marked code with Enter and closes', async () => {
    await type('worr');
    await press('Enter');
    expect(picked).toEqual([{ codeId: codes['Worry']! }]);
    expect(closed).toBe(1);
  });

  it('stays open for another with Shift and Enter, and says what was given', async () => {
    await type('worr');
    await press('Enter', true);
    expect(closed).toBe(0);
    expect(box().value).toBe('');
    expect((fixture.nativeElement as HTMLElement).textContent).toContain('Coded: Worry');
  });

  it('offers a new code at the top and beside the best find, but not for a name that is there', async () => {
    await type('help');
    expect(options()).toContain('New code help');
    expect(options()).toContain('New code helpunder Reaching help');
    await type('worry');
    expect(options().some((option) => option.startsWith('New code'))).toBeFalse();
  });

  it('makes a code where nothing fits, with Enter alone', async () => {
    await type('counting the fare');
    await press('Enter');
    expect(picked).toEqual([{ newCode: { name: 'counting the fare', parentId: null } }]);
  });

  it('makes a code under a category that is typed in front of it', async () => {
    await type('reaching / Night calls');
    expect(options()).toEqual(['New code Night callsunder Reaching help']);
    await press('Enter');
    expect(picked).toEqual([{ newCode: { name: 'Night calls', parentId: codes['Reaching help']! } }]);
  });

  it('codes in their words with Tab', async () => {
    await press('Tab');
    expect(picked).toEqual([{ newCode: { name: 'they held her' } }]);
  });

  it('leaves with Escape, picking nothing', async () => {
    await type('worry');
    await press('Escape');
    expect([picked.length, closed]).toEqual([0, 1]);
  });
});

import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { Bench } from '@core/testing/make';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { Writing, type Keeping } from './writing';

@Component({
  selector: 'fl-test-writing',
  imports: [Writing],
  template: `
    @if (there()) {
      <textarea flWriting="definition" [of]="of()" [stored]="stored()[of()] ?? ''" [keeping]="keeping"></textarea>
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class Page {
  readonly there = signal(true);
  readonly of = signal('one');
  readonly stored = signal<Readonly<Record<string, string>>>({ one: 'a', two: 'b' });
  readonly refuses = signal<string | null>(null);
  readonly keeping: Keeping = (text, of) => {
    if (this.refuses() === null) this.stored.update((all) => ({ ...all, [of]: text.trim() }));
    return this.refuses();
  };
}

describe('a field that is written in', () => {
  let page: Drawn<Page>;
  const it_ = () => page.fixture.componentInstance;
  const box = () => page.find<HTMLTextAreaElement>('textarea');
  const type = (text: string) => page.type('textarea', text);
  const leave = () => page.type('textarea', box().value, 'change');

  beforeEach(async () => {
    localStorage.clear();
    page = await drawn(Page, new Bench());
  });
  afterEach(() => localStorage.clear());

  it('keeps its words when it is left, and shows them as they were kept', async () => {
    await type('  a new meaning ');
    expect(it_().stored()['one']).toBe('a');
    await leave();
    expect([it_().stored()['one'], box().value]).toEqual(['a new meaning', 'a new meaning']);
    expect(page.all('.writing-note').length).toBe(0);
  });

  it('keeps them for the thing they were typed for, where another is shown by then', async () => {
    await type('meant for one');
    it_().of.set('two');
    await page.settle();
    expect(it_().stored()).toEqual({ one: 'meant for one', two: 'b' });
    expect(box().value).toBe('b');
  });

  it('lets what is refused stay, with the reason beside it, and never under another thing', async () => {
    it_().refuses.set('The codebook is frozen.');
    await type('a refused meaning');
    await leave();
    expect(box().value).toBe('a refused meaning');
    expect(page.find('.writing-note').textContent).toContain('The codebook is frozen.');
    it_().of.set('two');
    await page.settle();
    expect(box().value).toBe('b');
    expect(page.all('.writing-note').length).toBe(0);
    it_().of.set('one');
    await page.settle();
    expect(box().value).toBe('a refused meaning');
    await page.click(page.button('Drop what was typed'));
    expect([box().value, it_().stored()['one']]).toEqual(['a', 'a']);
  });

  it('brings back what was typed and never left, as after a reload', async () => {
    it_().refuses.set('not now');
    await type('half a sen');
    it_().there.set(false);
    await page.settle();
    it_().refuses.set(null);
    it_().there.set(true);
    await page.settle();
    expect(box().value).toBe('half a sen');
    await leave();
    expect(it_().stored()['one']).toBe('half a sen');
  });

  it('says so before it puts its words in the place of what somebody else stored meanwhile', async () => {
    await type('mine');
    it_().stored.update((all) => ({ ...all, one: 'theirs' }));
    await page.settle();
    expect(box().value).toBe('mine');
    await leave();
    expect(it_().stored()['one']).toBe('theirs');
    expect(page.find('.writing-note').textContent).toContain('changed meanwhile to “theirs”');
    await leave();
    expect(it_().stored()['one']).toBe('mine');
  });

  it('follows what is stored while nothing is typed', async () => {
    it_().stored.update((all) => ({ ...all, one: 'undone' }));
    await page.settle();
    expect(box().value).toBe('undone');
  });
});

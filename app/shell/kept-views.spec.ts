import { until } from '../testing/until';
import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, RouteReuseStrategy, withComponentInputBinding } from '@angular/router';
import { RouterTestingHarness } from '@angular/router/testing';
import { Visits } from '../state/visits';
import { arriving } from '../ui/keep-scroll/arriving';
import { KeepScroll } from '../ui/keep-scroll/keep-scroll';
import { KeptViews } from './kept-views';

let made = 0;

@Component({
  selector: 'fl-test-kept',
  imports: [KeepScroll],
  template: `
    <b>{{ which() }} {{ early() ? 'early' : 'whole' }}</b>
    <div flKeepScroll style="height: 50px; overflow: auto"><p style="height: 900px">long</p></div>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
class Kept {
  readonly which = input<string>();
  protected readonly early = arriving();
  readonly made = ++made;
}

@Component({ selector: 'fl-test-other', template: '<i>other</i>', changeDetection: ChangeDetectionStrategy.OnPush })
class Other {
  readonly visits = inject(Visits);
}

describe('places kept alive', () => {
  let harness: RouterTestingHarness;

  beforeEach(async () => {
    made = 0;
    TestBed.configureTestingModule({
      providers: [
        provideRouter(
          [
            { path: 'kept/:which', component: Kept, data: { kept: 'kept' } },
            { path: 'other', component: Other },
          ],
          withComponentInputBinding(),
        ),
        { provide: RouteReuseStrategy, useExisting: KeptViews },
      ],
    });
    harness = await RouterTestingHarness.create();
  });

  const shown = (): string | undefined => harness.routeNativeElement?.parentElement?.querySelector('b')?.textContent?.trim();

  it('come back as they were, with the address of now, and are made once', async () => {
    await harness.navigateByUrl('/kept/one', Kept);
    await harness.navigateByUrl('/other', Other);
    expect(document.querySelector('fl-test-kept')).toBeNull();
    const back = await harness.navigateByUrl('/kept/two', Kept);
    expect(back.made).toBe(1);
    expect(shown()).toContain('two');
  });

  it('are made anew when the study was left', async () => {
    await harness.navigateByUrl('/kept/one', Kept);
    await harness.navigateByUrl('/other', Other);
    TestBed.inject(KeptViews).clear();
    expect((await harness.navigateByUrl('/kept/one', Kept)).made).toBe(2);
  });

  it('others are made anew every time', async () => {
    const first = await harness.navigateByUrl('/other', Other);
    await harness.navigateByUrl('/kept/one', Kept);
    expect(await harness.navigateByUrl('/other', Other)).not.toBe(first);
  });

  it('bring their lists back to where they were scrolled to, and show all a frame later', async () => {
    await harness.navigateByUrl('/kept/one', Kept);
    const list = (): HTMLElement => document.querySelector('fl-test-kept div')!;
    list().scrollTop = 300;
    list().dispatchEvent(new Event('scroll'));
    await harness.navigateByUrl('/other', Other);
    await harness.navigateByUrl('/kept/one', Kept);
    TestBed.inject(Visits).arrive();
    harness.detectChanges();
    expect(shown()).toContain('early');
    expect(list().scrollTop).toBe(300);
    await until(
      () => shown()?.includes('whole') ?? false,
      () => harness.detectChanges(),
    );
    expect(list().scrollTop).toBe(300);
  });
});

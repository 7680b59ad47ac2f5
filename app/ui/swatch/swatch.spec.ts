import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { paletteCss, installPalette, LANES } from '../../styles/palette-sheet';
import { PALETTE_SIZE } from '@core/model/code';
import { Swatch } from './swatch';

describe('a swatch', () => {
  it('shows its mark on a line in its code’s colour', async () => {
    installPalette(document);
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(Swatch);
    fixture.componentRef.setInput('mark', 'Wo');
    fixture.componentRef.setInput('colour', 7);
    document.body.append(fixture.nativeElement as HTMLElement);
    await fixture.whenStable();
    const style = getComputedStyle(fixture.nativeElement as HTMLElement);
    expect((fixture.nativeElement as HTMLElement).textContent).toBe('Wo');
    expect(style.borderBottomColor).toContain('oklch(0.48');
    (fixture.nativeElement as HTMLElement).remove();
  });
});

describe('the palette sheet', () => {
  it('has a class for every entry in every lane', () => {
    const css = paletteCss();
    for (const lane of [0, LANES - 1])
      for (const entry of [0, PALETTE_SIZE - 1]) expect(css).toContain(`.t${lane}-c${entry}{--t${lane}:var(--code-${entry})}`);
  });
});

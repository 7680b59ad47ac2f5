import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import type { AskedPattern } from '@core/model/pattern';
import { KeptMenu } from '../../ui/kept-menu';
import { ViewTabs } from '../../ui/view-tabs';
import { AskedHere } from '../../ui/sentence/asked-here';
import { IN_HALF } from './in-half';
import { KeptPatterns } from './kept-patterns';
import type { Drawn } from './picture-out';
import { TakeOut, type TableOut } from './take-out';

/** The patterns there are, as the address names them. */
export const PATTERNS: readonly { readonly view: AskedPattern['pattern']; readonly name: string }[] = [
  { view: 'frequencies', name: 'Frequencies' },
  { view: 'cross-table', name: 'Cross-table' },
  { view: 'together', name: 'Together' },
  { view: 'weave', name: 'Weave' },
  { view: 'taking-up', name: 'Taking up' },
  { view: 'similarity', name: 'Similarity' },
  { view: 'saturation', name: 'Saturation' },
  { view: 'words', name: 'Words' },
  { view: 'attributes', name: 'Attributes' },
];

/** The heading line of a pattern: what it is, the other patterns, and what is kept and taken out. */
@Component({
  selector: 'fl-pattern-head',
  imports: [KeptMenu, MatMenuModule, ViewTabs],
  providers: [AskedHere, KeptPatterns, TakeOut],
  template: `
    <header [class.place-head]="!half" [class.half]="half">
      @if (half) {
        <h2>{{ kept()?.name ?? title() }}</h2>
      } @else {
        <h1>{{ kept()?.name ?? title() }}</h1>
      }
      @if (kept(); as kept) {
        @if (patterns.isElsewhere(kept)) {
          <span class="second"
            >kept while something else was looked at <button class="act" (click)="patterns.lookThere(kept)">look at that</button></span
          >
        }
      }
      @if (!half) {
        <fl-view-tabs label="Parts of the patterns" [views]="views" [here]="here()" />
      }
      <div class="end">
        @if (!half) {
          <fl-kept-menu
            single="pattern"
            several="patterns"
            [kept]="patterns.all()"
            (asked)="patterns.show($event)"
            (removed)="patterns.remove($event)"
          />
          @if (patterns.all().length > 1) {
            <button class="act" (click)="patterns.showBeside()">Side by side</button>
          }
        }
        <button class="act" (click)="patterns.keep(asked(), title())">Keep</button>
        <button class="act" [matMenuTriggerFor]="ways" [disabled]="!out()" (menuOpened)="look()">Take out</button>
        <mat-menu #ways="matMenu">
          <button mat-menu-item (click)="takeOut.csv(out()!)">As a table (CSV)</button>
          <button mat-menu-item (click)="takeOut.xlsx(out()!)">As a workbook (XLSX), with group sizes and settings</button>
          <button mat-menu-item (click)="takeOut.copy(out()!)">Copy the table</button>
          @if (lines(); as lines) {
            <button mat-menu-item (click)="takeOut.svg(out()!, lines)">As a drawing (SVG)…</button>
          }
          @if (drawn(); as drawn) {
            <button mat-menu-item (click)="takeOut.png(out()!, drawn)">As a picture in pixels (PNG)…</button>
            <button mat-menu-item (click)="takeOut.copyPicture(drawn)">Copy the picture</button>
          }
          <button mat-menu-item (click)="takeOut.copyMethod(out()!)">Copy a line on how it was counted</button>
        </mat-menu>
      </div>
    </header>
  `,
  styles: `
    :host {
      display: contents;
    }
    .half {
      display: flex;
      align-items: baseline;
      gap: 12px;
      padding: 12px 20px 0;
    }
    .half h2 {
      font: 600 17px / 1.4 var(--face-read);
    }
    .half .end {
      display: flex;
      gap: 14px;
      margin-left: auto;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PatternHead {
  readonly here = input.required<AskedPattern['pattern']>();
  readonly title = input.required<string>();
  readonly asked = input.required<AskedPattern>();
  readonly out = input.required<TableOut | null>();
  /** The picture that is drawn, where there is one. */
  readonly picture = input.required<() => Drawn | null>();
  /** Draws the picture, in lines where it can be; null where there is none. */
  protected readonly drawn = signal<(() => Drawn) | null>(null);
  protected readonly lines = signal<(() => SVGSVGElement) | null>(null);
  protected readonly views = PATTERNS;
  protected readonly half = inject(IN_HALF);
  protected readonly patterns = inject(KeptPatterns);
  protected readonly takeOut = inject(TakeOut);
  protected readonly kept = computed(() => this.patterns.of(this.asked()));

  /** Looks what can be taken out as a picture. */
  protected look(): void {
    const [shown, made] = [this.picture()(), this.out()?.drawing ?? null];
    const lines = shown instanceof SVGSVGElement ? () => shown : shown ? null : made;
    this.lines.set(lines);
    this.drawn.set(shown ? () => shown : made);
  }
}

import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import type { AskedPattern } from '@core/model/pattern';
import { selectCodes, selectDocuments, selectStudy } from '../../state/study.selectors';
import { EvidenceSide, type Behind } from './evidence-side';
import { IN_HALF } from './in-half';
import { lackingFor } from './lacking';
import { PatternHead } from './pattern-head';
import type { Drawn } from './picture-out';
import type { TableOut } from './take-out';
import type { WorkedOut } from './worked-out';

/** What all patterns have: the heading, the sentence, what is shown or why it is not, how far it is, and what stands behind a number. */
@Component({
  selector: 'fl-pattern-place',
  imports: [EvidenceSide, PatternHead, RouterLink],
  template: `
    <div class="place">
      <fl-pattern-head [here]="asked().pattern" [title]="title()" [asked]="asked()" [out]="out()" [picture]="picture" />
      <div class="beside" [class.two]="behind() || beside() || unread()" [class.half]="half">
        <div class="body" [attr.aria-busy]="work().pending()">
          <div class="sentence"><ng-content select="[sentence]" /></div>
          @if (work().trouble(); as trouble) {
            <p class="trouble" role="alert">
              This could not be worked out: {{ trouble }} <button class="act" (click)="work().again()">Try again</button>
            </p>
          }
          @if (lacking(); as lacking) {
            <p class="empty">
              @if (lacking === 'documents') {
                <strong>No documents yet</strong>What is found in documents is counted here.
                <a [routerLink]="['/study', study()!.id, 'material', 'import']">Bring some in</a>.
              } @else {
                <strong>No codes yet</strong>What codes mark in documents is counted here. Make them while reading, or in the
                <a [routerLink]="['/study', study()!.id, 'codebook']">codebook</a>.
              }
            </p>
          }
          <div class="shown" [hidden]="work().trouble() || lacking()"><ng-content /></div>
          @if (work().progress(); as share) {
            <p class="second counting" role="status">Counting, {{ (share * 100).toFixed(0) }} %</p>
          }
        </div>
        <ng-content select="[side]" />
        @if (unread(); as trouble) {
          <div class="unread">
            <p role="alert">What stands behind this number could not be read: {{ trouble }}</p>
            <button class="act" (click)="evidence()!.again()">Try again</button>
            <button class="act" (click)="closed.emit()">Close</button>
          </div>
        } @else if (behind(); as behind) {
          <fl-evidence-side [behind]="behind" (closed)="closed.emit()" />
        }
      </div>
    </div>
  `,
  styleUrl: './pattern-place.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PatternPlace {
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly store = inject(Store);
  protected readonly half = inject(IN_HALF);
  /** The picture that is drawn, where one is. */
  protected readonly picture = (): Drawn | null => this.host.querySelector<Drawn>('.shown [data-picture]');
  readonly title = input.required<string>();
  readonly asked = input.required<AskedPattern>();
  readonly out = input.required<TableOut | null>();
  readonly work = input.required<WorkedOut<unknown>>();
  /** What stands behind the number that is open. */
  readonly behind = input<Behind | null>(null);
  /** What looks for that. */
  readonly evidence = input<WorkedOut<unknown> | null>(null);
  /** Why nothing stands behind the number that was opened. */
  protected readonly unread = computed(() => this.evidence()?.trouble() ?? null);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly documents = this.store.selectSignal(selectDocuments);
  private readonly codes = this.store.selectSignal(selectCodes);
  /** What must be there before anything can be shown. */
  protected readonly lacking = computed(() =>
    lackingFor(this.asked(), { documents: hasAny(this.documents()), codes: hasAny(this.codes()) }),
  );
  /** Something else stands at its side. */
  readonly beside = input(false);
  readonly closed = output<void>();
}

const hasAny = (table: object): boolean => Object.keys(table).length > 0;

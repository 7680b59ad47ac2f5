import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  HostListener,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import type { Given } from '@core/model/passage-condition';
import { floatBelow } from '../float-below';
import { AskedHere } from './asked-here';

/** Which codings count: by whom, when and how strongly they were given. */
@Component({
  selector: 'fl-given-part',
  template: `
    <span class="anchor">
      <button class="part" (click)="open.set(!open())" [attr.aria-expanded]="open()" aria-haspopup="dialog">{{ words() }}</button>
      @if (open()) {
        <div #popover class="popover" role="dialog" aria-label="Codings that count" (keydown.escape)="close($event)">
          <strong>Given by</strong>
          @for (coder of here.coders(); track coder.id) {
            <label
              ><input type="checkbox" [checked]="given()?.coderIds?.includes(coder.id) ?? false" (change)="toggle(coder.id)" />{{
                coder.name
              }}</label
            >
          }
          <strong>On the days</strong>
          <label>from <input #from type="date" [value]="given()?.from ?? ''" (change)="set({ from: from.value || undefined })" /></label>
          <label>to <input #to type="date" [value]="given()?.to ?? ''" (change)="set({ to: to.value || undefined })" /></label>
          @if (rated() && here.ratings(); as most) {
            <strong>Rated</strong>
            <label
              >from
              <input
                #low
                type="number"
                min="1"
                [max]="most"
                [value]="given()?.ratedFrom ?? ''"
                (change)="set({ ratedFrom: rating(low.value) })"
              />
              to
              <input
                #high
                type="number"
                min="1"
                [max]="most"
                [value]="given()?.ratedTo ?? ''"
                (change)="set({ ratedTo: rating(high.value) })"
              />
            </label>
          }
          @if (given()) {
            <button class="act" (click)="changed.emit(undefined)">by anyone at any time</button>
          }
        </div>
      }
    </span>
  `,
  styleUrl: './sentence.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GivenPart {
  readonly given = input<Given>();
  /** Whether ratings can be asked for. */
  readonly rated = input(true);
  readonly changed = output<Given | undefined>();
  protected readonly here = inject(AskedHere);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly popover = viewChild<ElementRef<HTMLElement>>('popover');
  protected readonly open = signal(false);
  protected readonly words = computed(() => {
    const { coderIds, from, to, ratedFrom, ratedTo } = this.given() ?? {};
    const rated = ratedFrom !== undefined || ratedTo !== undefined;
    return (
      [
        coderIds ? `given by ${coderIds.map((id) => this.here.names()('coder', id)).join(' or ')}` : '',
        from ? `from ${from}` : '',
        to ? `to ${to}` : '',
        rated ? `rated ${ratedFrom ?? 1} to ${ratedTo ?? this.here.ratings() ?? 10}` : '',
      ]
        .filter(Boolean)
        .join(', ') || 'given by anyone'
    );
  });

  constructor() {
    afterRenderEffect(() => {
      const popover = this.popover()?.nativeElement;
      if (!popover) return;
      floatBelow(popover);
      popover.querySelector('input')?.focus();
    });
  }

  protected rating(typed: string): number | undefined {
    const number = Number(typed);
    return typed !== '' && Number.isInteger(number) && number >= 1 && number <= 10 ? number : undefined;
  }

  /** Fields that are undefined are not asked. */
  protected set(fields: { [K in keyof Given]?: Given[K] | undefined }): void {
    const asked = Object.fromEntries(Object.entries({ ...this.given(), ...fields }).filter(([, value]) => value !== undefined)) as Given;
    this.changed.emit(Object.keys(asked).length > 0 ? asked : undefined);
  }

  protected toggle(id: string): void {
    const before = this.given()?.coderIds ?? [];
    const coderIds = before.includes(id) ? before.filter((one) => one !== id) : [...before, id];
    this.set({ coderIds: coderIds.length > 0 ? coderIds : undefined });
  }

  protected close(event: Event): void {
    event.stopPropagation();
    this.open.set(false);
  }

  @HostListener('document:mousedown', ['$event'])
  protected onPress(event: MouseEvent): void {
    if (!this.host.contains(event.target as Node)) this.open.set(false);
  }
}

import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';

/** Something a part of a sentence can be. */
export interface Choice<T> {
  readonly value: T;
  readonly name: string;
}

/** Words as choices that stand for themselves. */
export const choicesOf = <T extends string>(words: readonly T[]): Choice<T>[] => words.map((word) => ({ value: word, name: word }));

/** A part of a sentence that can be changed: pressing it offers what else it can be. */
@Component({
  selector: 'fl-part',
  imports: [MatMenuModule],
  template: `
    <button class="part" [matMenuTriggerFor]="menu">{{ words() }}</button>
    <mat-menu #menu="matMenu">
      <ng-template matMenuContent>
        @for (choice of choices(); track choice.value) {
          <button mat-menu-item (click)="chosen.emit(choice.value)">{{ choice.name }}</button>
        }
      </ng-template>
    </mat-menu>
  `,
  styles: `
    :host {
      display: contents;
    }
    .part {
      max-width: 220px;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SentencePart<T> {
  /** What it says at present. */
  readonly words = input.required<string>();
  readonly choices = input.required<readonly Choice<T>[]>();
  readonly chosen = output<T>();
}

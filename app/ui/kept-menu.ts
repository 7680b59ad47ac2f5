import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import type { Id } from '@core/model/ids';
import { Icon } from './icon/icon';

/** What is kept under a name, to be asked again or deleted; nothing where nothing is. */
@Component({
  selector: 'fl-kept-menu',
  imports: [Icon, MatMenuModule],
  template: `
    @if (kept().length > 0) {
      <button class="act" [matMenuTriggerFor]="menu">Kept {{ several() }}</button>
      <mat-menu #menu="matMenu">
        @for (one of kept(); track one.id) {
          <div class="saved">
            <button mat-menu-item (click)="asked.emit(one)">{{ one.name }}</button>
            <button
              mat-menu-item
              class="forget"
              (click)="removed.emit(one.id)"
              [attr.aria-label]="'Delete the ' + single() + ' ' + one.name"
            >
              <fl-icon name="x" />
            </button>
          </div>
        }
      </mat-menu>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    .saved {
      display: flex;
    }
    .saved .forget {
      width: 44px;
      flex: none;
      --icon-size: 14px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeptMenu<T extends { readonly id: Id; readonly name: string }> {
  readonly kept = input.required<readonly T[]>();
  /** What one of them is called, and several. */
  readonly single = input.required<string>();
  readonly several = input.required<string>();
  readonly asked = output<T>();
  readonly removed = output<Id>();
}

import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { KEY_MAP } from '../ui/key-map';

/** The help sheet: every key there is. */
@Component({
  selector: 'fl-key-sheet',
  imports: [MatDialogModule],
  template: `
    <h2 mat-dialog-title>Keys</h2>
    <mat-dialog-content tabindex="0">
      @for (group of groups; track group.where) {
        <h3>{{ group.where }}</h3>
        <dl>
          @for (entry of group.entries; track entry.does) {
            <dt>
              @for (key of entry.keys; track key) {
                <kbd>{{ key }}</kbd>
              }
            </dt>
            <dd>{{ entry.does }}</dd>
          }
        </dl>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end"><button class="do" mat-dialog-close cdkFocusInitial>Close</button></mat-dialog-actions>
  `,
  styles: `
    h3 {
      margin: 14px 0 6px;
    }
    dl {
      display: grid;
      grid-template-columns: 170px 1fr;
      gap: 5px 12px;
    }
    dt {
      display: flex;
      gap: 4px;
      align-items: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeySheet {
  protected readonly groups = KEY_MAP;
}

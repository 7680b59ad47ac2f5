import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { Notices } from '../state/notices';
import { Icon } from '../ui/icon/icon';
import { guardCompositions } from '../ui/keys/writing-keys';
import { ThemeChoice } from '../state/theme-choice';

/** The window: whatever the route shows, and the notice line. */
@Component({
  selector: 'fl-root',
  imports: [RouterOutlet, Icon],
  template: `
    <router-outlet />
    <div class="notice-area" aria-live="polite" role="status">
      @if (notices.current(); as notice) {
        <div class="notice" [class.refused]="notice.kind === 'refused'">
          @if (notice.kind === 'refused') {
            <fl-icon name="alert-triangle" />
          }
          <span>{{ notice.text }}</span>
          <button class="icon" (click)="notices.dismiss()" aria-label="Dismiss"><fl-icon name="x" /></button>
        </div>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      height: 100%;
    }
    .notice-area {
      position: fixed;
      bottom: 44px;
      left: 50%;
      transform: translateX(-50%);
      z-index: 1100;
      max-width: min(640px, 90vw);
    }
    .notice {
      display: flex;
      align-items: center;
      gap: 10px;
      background: var(--ink);
      color: var(--surface);
      padding: 6px 6px 6px 14px;
      border-radius: var(--radius);
      box-shadow: var(--shadow);
      --icon-size: 16px;
    }
    .notice .icon {
      color: inherit;
    }
    .notice .icon:hover {
      background: transparent;
    }
    .refused {
      border-left: 4px solid var(--here);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Root {
  protected readonly notices = inject(Notices);

  constructor() {
    inject(ThemeChoice);
    guardCompositions(window);
  }
}

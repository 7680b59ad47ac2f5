import { Ways } from '../../state/ways';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { CdkConnectedOverlay, CdkOverlayOrigin } from '@angular/cdk/overlay';
import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import type { Document } from '@core/model/document';
import type { Id } from '@core/model/ids';
import { fold } from '@core/text/fold';
import { Icon } from '../../ui/icon/icon';

/** The document's title, which opens the list of the documents in scope; arrows go to the one before and after. */
@Component({
  selector: 'fl-document-menu',
  imports: [CdkConnectedOverlay, CdkOverlayOrigin, CdkVirtualScrollViewport, CdkFixedSizeVirtualScroll, CdkVirtualForOf, Icon],
  template: `
    <h1>
      <button
        cdkOverlayOrigin
        #origin="cdkOverlayOrigin"
        (click)="open.set(!open())"
        [attr.aria-expanded]="open()"
        [title]="current().title + ': choose a document'"
      >
        <span class="title">{{ current().title }}</span><fl-icon name="chevron-down" />
      </button>
    </h1>
    <button class="icon" (click)="step(-1)" [disabled]="at() <= 0" aria-label="Previous document"><fl-icon name="arrow-left" /></button>
    <button class="icon" (click)="step(1)" [disabled]="at() >= documents().length - 1" aria-label="Next document">
      <fl-icon name="arrow-right" />
    </button>
    <ng-template
      cdkConnectedOverlay
      [cdkConnectedOverlayOrigin]="origin"
      [cdkConnectedOverlayOpen]="open()"
      (overlayOutsideClick)="open.set(false)"
      (detach)="open.set(false)"
    >
      <div class="list" role="dialog" aria-label="Documents">
        <input
          #find
          type="search"
          placeholder="Find a document"
          aria-label="Find a document"
          (input)="typed.set(find.value)"
          (keydown.enter)="typed().trim() && goTo(found()[0])"
          (keydown.escape)="open.set(false)"
        />
        <cdk-virtual-scroll-viewport itemSize="26" role="list" aria-label="Documents in scope" tabindex="-1">
          <div *cdkVirtualFor="let document of found()" role="listitem">
            <button [class.here]="document.id === current().id" (click)="goTo(document)">{{ document.title }}</button>
          </div>
        </cdk-virtual-scroll-viewport>
      </div>
    </ng-template>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 2px;
      min-width: 0;
      --icon-size: 16px;
    }
    h1 {
      min-width: 0;
    }
    .title {
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    h1 button {
      display: flex;
      align-items: center;
      gap: 6px;
      font: inherit;
      max-width: 100%;
      color: var(--ink);
    }
    h1 fl-icon {
      color: var(--ink-second);
    }
    .list {
      width: 420px;
      background: var(--surface);
      border: 1px solid var(--rule-strong);
      border-radius: 7px;
      box-shadow: var(--shadow);
      padding: 8px;
    }
    cdk-virtual-scroll-viewport {
      height: 360px;
      margin-top: 6px;
    }
    .list button {
      width: 100%;
      height: 26px;
      padding: 0 10px;
      border-radius: 4px;
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .list button:hover {
      background: var(--ground);
    }
    .list .here {
      background: var(--accent-ground);
      font-weight: 600;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DocumentMenu {
  readonly current = input.required<Document>();
  readonly documents = input.required<readonly Document[]>();
  /** Whether choosing is only told, not gone to: for a document shown beside another. */
  readonly stays = input(false);
  readonly chosen = output<Id>();
  private readonly ways = inject(Ways);
  protected readonly open = signal(false);
  protected readonly typed = signal('');
  protected readonly found = computed(() =>
    this.documents().filter((document) => fold(document.title).includes(fold(this.typed().trim()))),
  );
  protected readonly at = computed(() => this.documents().findIndex((document) => document.id === this.current().id));

  protected step(by: 1 | -1): void {
    this.goTo(this.documents()[this.at() + by]);
  }

  protected goTo(document: Document | undefined): void {
    this.open.set(false);
    this.typed.set('');
    if (!document) return;
    if (this.stays()) this.chosen.emit(document.id);
    else this.ways.go(['reading', document.id]);
  }
}

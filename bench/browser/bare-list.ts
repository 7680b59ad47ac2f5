import '@angular/compiler';
import { ChangeDetectorRef, Component, inject, provideZonelessChangeDetection } from '@angular/core';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { bootstrapApplication } from '@angular/platform-browser';

const painted = (): Promise<number> => new Promise((resolve) => requestAnimationFrame(() => setTimeout(() => resolve(performance.now()))));

/** The CDK's virtual scroll with a name in each row and nothing else: what the codebook's tree is held against. */
@Component({
  selector: 'bare-list',
  imports: [CdkVirtualScrollViewport, CdkFixedSizeVirtualScroll, CdkVirtualForOf],
  template: `<cdk-virtual-scroll-viewport itemSize="26" style="height: 640px">
    <div *cdkVirtualFor="let name of names" style="height: 26px">{{ name }}</div>
  </cdk-virtual-scroll-viewport>`,
})
class BareList {
  names: readonly string[] = [];
  private readonly changes = inject(ChangeDetectorRef);

  constructor() {
    (window as unknown as { bareList: BareList }).bareList = this;
  }

  /** Shows other names. @returns milliseconds until they are painted */
  async show(names: readonly string[]): Promise<number> {
    const begun = performance.now();
    this.names = names;
    this.changes.markForCheck();
    return (await painted()) - begun;
  }
}

void bootstrapApplication(BareList, { providers: [provideZonelessChangeDetection()] });

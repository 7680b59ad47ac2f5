import { CdkConnectedOverlay, CdkOverlayOrigin } from '@angular/cdk/overlay';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { naturalOrder } from '@core/text/natural-order';
import { ReaderSettings, TYPE_RANGE, type Looks, type ReaderType, type SlipChoice } from '../../state/reader-settings';
import { selectCodeRows, selectCoders, selectCodeSets } from '../../state/study.selectors';
import { Icon } from '../../ui/icon/icon';
import { ReadingHere } from './reading-here';

/** How the text is set and what of its coding is shown. What is on is named in the scope sentence as well. */
@Component({
  selector: 'fl-reader-menu',
  imports: [CdkConnectedOverlay, CdkOverlayOrigin, Icon],
  templateUrl: './reader-menu.html',
  styleUrl: './reader-menu.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReaderMenu {
  private readonly store = inject(Store);
  protected readonly here = inject(ReadingHere);
  protected readonly settings = inject(ReaderSettings);
  protected readonly open = signal(false);
  protected readonly range = TYPE_RANGE;
  protected readonly rows = this.store.selectSignal(selectCodeRows);
  private readonly coderTable = this.store.selectSignal(selectCoders);
  protected readonly faces: readonly { readonly face: ReaderType['face']; readonly name: string }[] = [
    { face: 'serif', name: 'serif' },
    { face: 'sans', name: 'plain' },
    { face: 'dyslexia', name: 'for dyslexia' },
  ];
  protected readonly codedLooks: readonly Looks['coded'][] = ['as they are', 'dimmed', 'folded away', 'tinted'];
  protected readonly categories = computed(() => this.rows().filter((row) => row.hasChildren));
  private readonly setTable = this.store.selectSignal(selectCodeSets);
  protected readonly sets = computed(() => naturalOrder(Object.values(this.setTable()), (set) => set.name));
  protected readonly coders = computed(() => Object.values(this.coderTable()));
  protected readonly slipKey = computed(() => {
    const choice = this.here.slipChoice();
    return 'id' in choice ? `${choice.of} ${choice.id}` : choice.of;
  });

  protected setSlips(key: string): void {
    const [of, id] = key.split(' ') as [SlipChoice['of'], string];
    this.here.slipChoice.set(of === 'all' || of === 'pinned' ? { of } : { of, id });
  }
}

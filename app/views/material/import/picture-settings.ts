import { ChangeDetectionStrategy, Component, computed, DestroyRef, effect, inject, input, output, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { PictureSummary } from '@core/filing/read-material';
import type { Id } from '@core/model/ids';
import { listed } from '@core/text/listed';
import { naturalOrder } from '@core/text/natural-order';
import { sizeWords } from '@core/text/size';
import { selectCases, selectStudy } from '../../../state/study.selectors';
import type { ImportItem } from './import-item';

/** A picture on its way in: what it shows, how large it is, and what becomes of what the camera wrote into it. */
@Component({
  selector: 'fl-picture-settings',
  template: `
    <div class="settings">
      <label class="field wide"
        ><span>Title</span><input #title [value]="item().title" (input)="changed.emit({ title: title.value })"
      /></label>
      <label class="field"
        ><span>Date</span><input #date type="date" [value]="item().date" (change)="changed.emit({ date: date.value })"
      /></label>
      <label class="field"
        ><span>Belongs to</span>
        <select #owner (change)="changed.emit({ caseId: owner.value || null })">
          <option value="">no {{ study()!.caseWord }}</option>
          <option [value]="newCaseId()" [selected]="item().caseId?.startsWith('new ')">a new {{ study()!.caseWord }} of this title</option>
          @for (candidate of caseList(); track candidate.id) {
            <option [value]="candidate.id" [selected]="candidate.id === item().caseId">{{ candidate.name }}</option>
          }
        </select>
      </label>
    </div>
    <p class="second">{{ size() }}{{ descriptions().length > 0 ? '; described in ' + names() : '' }}</p>
    @for (note of picture().notes; track note) {
      <p class="second">{{ item().withMetadata ? '' : note }}</p>
    }
    @if (picture().facts.length > 0) {
      <p>
        @for (fact of picture().facts; track fact.name) {
          <span class="fact">{{ fact.name }} {{ fact.value }}</span>
        }
      </p>
      <p class="choices">
        <label
          ><input type="checkbox" #facts [checked]="item().factsWanted" (change)="changed.emit({ factsWanted: facts.checked })" />as
          attributes of the picture</label
        >
        <label
          ><input type="checkbox" #whole [checked]="item().withMetadata" (change)="changed.emit({ withMetadata: whole.checked })" />stays in
          the picture as well, also when it is exported</label
        >
      </p>
    }
    <img [src]="address()" alt="The picture" />
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      justify-items: start;
      min-height: 0;
    }
    .settings {
      display: flex;
      flex-wrap: wrap;
      gap: 10px 12px;
      align-items: end;
      justify-self: stretch;
    }
    .wide {
      flex: 1 1 240px;
    }
    p {
      margin: 0;
    }
    .fact {
      padding-right: 16px;
      font-variant-numeric: tabular-nums;
    }
    .choices {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 18px;
    }
    .choices label {
      display: flex;
      gap: 6px;
      align-items: center;
    }
    img {
      max-width: 100%;
      max-height: 46vh;
      border: 1px solid var(--rule);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PictureSettings {
  readonly item = input.required<ImportItem>();
  readonly picture = input.required<PictureSummary>();
  /** Titles of the texts that come in with it. */
  readonly descriptions = input<readonly string[]>([]);
  readonly changed = output<Partial<ImportItem>>();

  private readonly store = inject(Store);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly cases = this.store.selectSignal(selectCases);
  protected readonly caseList = computed(() => naturalOrder(Object.values(this.cases()), (one) => one.name).slice(0, 2_000));
  protected readonly names = computed(() => listed(this.descriptions()));
  protected readonly newCaseId = computed((): Id => `new ${this.item().title}`);
  protected readonly size = computed(() => {
    const { width, height, bytes } = this.picture();
    return `${width.toLocaleString('en')} × ${height.toLocaleString('en')} pixels, ${sizeWords(bytes)}`;
  });
  protected readonly address = signal('');

  constructor() {
    let address = '';
    const letGo = (): void => URL.revokeObjectURL(address);
    // what is shown is what is kept: a drawing from a file is never shown before it was made safe
    const shown = computed(() => this.picture().bare);
    effect(() => {
      letGo();
      address = URL.createObjectURL(shown());
      this.address.set(address);
    });
    inject(DestroyRef).onDestroy(letGo);
  }
}

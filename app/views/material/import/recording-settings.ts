import { ChangeDetectionStrategy, Component, computed, DestroyRef, effect, inject, input, output, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { RecordingSummary } from '@core/filing/read-material';
import type { Id } from '@core/model/ids';
import { clock } from '@core/text/clock';
import { listed } from '@core/text/listed';
import { naturalOrder } from '@core/text/natural-order';
import { sizeWords } from '@core/text/size';
import { selectCases, selectStudy } from '../../../state/study.selectors';
import type { ImportItem } from './import-item';

/** A recording on its way in: how long it is, what is in it, where its file is to be, and the transcripts that come with it. */
@Component({
  selector: 'fl-recording-settings',
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
      <label class="field"
        ><span>Its file</span>
        <select #stays (change)="changed.emit({ stays: stays.value === 'stays' })">
          <option value="kept" [selected]="!item().stays">is kept in the study</option>
          <option value="stays" [selected]="item().stays">stays where it is</option>
        </select>
      </label>
    </div>
    <p class="second">
      {{
        item().stays
          ? 'The study keeps what is done with it, and finds the file again by what is in it. ' +
            (item().handle ? 'The browser remembers where it lies.' : 'In another session you point at it, or at its folder, once.')
          : 'The file comes into this browser’s storage and into study files, as it is.'
      }}
    </p>
    <dl>
      <dt>Length</dt>
      <dd>{{ length() }}</dd>
      <dt>Size</dt>
      <dd>{{ size() }}</dd>
      <dt>In it</dt>
      <dd>
        @for (track of recording().tracks; track $index) {
          <span>{{ track }}</span>
        }
      </dd>
      <dt>Transcripts</dt>
      <dd>{{ transcripts().length > 0 ? names() : 'none of the files here has its name; one can be attached or made later' }}</dd>
    </dl>
    @if (unplayed()) {
      <p class="trouble" role="alert">
        This browser cannot play it: what is in the file is packed in a way it does not know. Convert it to MP3 or WAV, or a film to MP4
        (H.264 and AAC). It can be brought in all the same.
      </p>
    }
    <audio controls preload="metadata" [src]="address()" (error)="unplayed.set(true)" aria-label="Listen to it"></audio>
  `,
  styles: `
    :host {
      display: grid;
      gap: 12px;
      justify-items: start;
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
    dl {
      display: grid;
      grid-template-columns: max-content 1fr;
      gap: 4px 16px;
      margin: 0;
    }
    dt {
      color: var(--ink-second);
    }
    dd {
      margin: 0;
      font-variant-numeric: tabular-nums;
    }
    dd span {
      display: block;
    }
    audio {
      height: 36px;
      width: min(100%, 420px);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecordingSettings {
  readonly item = input.required<ImportItem>();
  readonly recording = input.required<RecordingSummary>();
  /** Titles of the texts that come in with it. */
  readonly transcripts = input<readonly string[]>([]);
  readonly changed = output<Partial<ImportItem>>();

  private readonly store = inject(Store);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly cases = this.store.selectSignal(selectCases);
  protected readonly caseList = computed(() => naturalOrder(Object.values(this.cases()), (one) => one.name).slice(0, 2_000));
  protected readonly length = computed(() => clock(this.recording().milliseconds));
  protected readonly size = computed(() => sizeWords(this.recording().bytes));
  protected readonly names = computed(() => listed(this.transcripts()));
  protected readonly newCaseId = computed((): Id => `new ${this.item().title}`);
  protected readonly address = signal('');
  protected readonly unplayed = signal(false);

  constructor() {
    let address = '';
    const letGo = (): void => URL.revokeObjectURL(address);
    const file = computed(() => this.item().file);
    effect(() => {
      letGo();
      address = URL.createObjectURL(file());
      this.unplayed.set(false);
      this.address.set(address);
    });
    inject(DestroyRef).onDestroy(letGo);
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { belongTo } from '@core/commands/documents';
import { naturalOrder } from '@core/text/natural-order';
import { StudySession } from '../../../state/study-session';
import { selectDocuments, selectStudy } from '../../../state/study.selectors';
import { Counted } from '../../../ui/counted/counted';
import { PassageList } from '../passage-list';
import { ReadingHere } from '../reading-here';
import { RecordingHere } from './recording-here';
import { ServiceJob } from './service-job';
import { TranscribingHere } from './transcribing-here';

/** The most texts that are offered to be attached. */
const MOST = 2_000;

/** A recording itself: its transcripts, ways to come to one, and what is coded of it with words or without. */
@Component({
  selector: 'fl-recording-page',
  imports: [Counted, PassageList, RouterLink, ServiceJob],
  template: `
    <section aria-labelledby="transcripts">
      <h2 id="transcripts">Transcripts</h2>
      @if (recorded.transcripts().length === 0) {
        <p class="second">
          Nobody has written down yet what is heard. It can be coded all the same: a drag on the line at the foot marks a span.
        </p>
      } @else {
        <ul>
          @for (one of recorded.transcripts(); track one.id) {
            <li>
              <a [routerLink]="['/study', study()!.id, 'reading', one.id]">{{ one.title }}</a>
              <span class="second">{{ one.words | counted: 'word' }}{{ one.transcribed ? ', by ' + one.transcribed.by : '' }}</span>
            </li>
          }
        </ul>
        @if (recorded.transcripts().length > 1) {
          <p class="second">Two are read beside each other, kept level by time, with <em>Text, Another document beside this one</em>.</p>
        }
      }
      <p class="ways">
        <button class="do" (click)="transcribing.begin()">Transcribe it</button>
        <button class="do quiet" (click)="attaching.set(!attaching())" [attr.aria-expanded]="attaching()">
          Attach a text that is here
        </button>
        <fl-service-job />
      </p>
      @if (attaching()) {
        <form (submit)="$event.preventDefault(); attach(text.value)">
          <label class="field"
            ><span>The text that is its transcript</span>
            <select #text>
              @for (one of texts(); track one.id) {
                <option [value]="one.id">{{ one.title }}</option>
              } @empty {
                <option value="">every text belongs to something already</option>
              }
            </select>
          </label>
          <button class="do" type="submit" [disabled]="texts().length === 0">Attach it</button>
        </form>
      }
    </section>
    <fl-passage-list
      [document]="recorded.recording()!"
      [passages]="here.passages()"
      [chosenId]="here.chosenId()"
      (chosen)="choose($event)"
    />
  `,
  styles: `
    :host {
      display: block;
      flex: 1;
      min-height: 0;
      overflow: auto;
      padding: 18px 24px 18px 96px;
    }
    h2 {
      margin: 0 0 6px;
    }
    ul {
      margin: 0 0 10px;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      gap: 14px;
      padding: 3px 0;
      max-width: 640px;
      border-bottom: 1px solid var(--rule);
    }
    li .second {
      margin-left: auto;
    }
    .ways {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px 12px;
    }
    form {
      display: flex;
      align-items: end;
      gap: 12px;
      padding-bottom: 12px;
    }
    form select {
      max-width: 380px;
    }
    fl-passage-list {
      padding: 14px 0 0;
      max-width: 760px;
    }
    @media (max-width: 1000px) {
      :host {
        padding-left: 18px;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecordingPage {
  protected readonly here = inject(ReadingHere);
  protected readonly recorded = inject(RecordingHere);
  protected readonly transcribing = inject(TranscribingHere);
  private readonly session = inject(StudySession);
  private readonly store = inject(Store);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly documents = this.store.selectSignal(selectDocuments);
  protected readonly attaching = signal(false);
  /** Texts that belong to nothing, those of the same title first. */
  protected readonly texts = computed(() => {
    const title = this.recorded.recording()?.title ?? '';
    const free = Object.values(this.documents()).filter((one) => one.ground.of === 'text' && one.belongsTo === undefined);
    const sorted = naturalOrder(free, (one) => one.title);
    return [...sorted.filter((one) => one.title === title), ...sorted.filter((one) => one.title !== title)].slice(0, MOST);
  });

  protected attach(id: string): void {
    const recording = this.recorded.recording();
    if (recording && id && this.session.run(belongTo([id], recording.id))) this.attaching.set(false);
  }

  protected choose(id: string): void {
    this.here.chosenId.set(id);
    const passage = this.here.passages().find((one) => one.id === id);
    if (passage) this.recorded.player().seek(passage.start);
  }
}

import { Counted } from '../../../ui/counted/counted';
import { counted } from '@core/text/counted';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { anchorPassages } from '@core/commands/codebook-work';
import { moveCodings } from '@core/commands/move-codings';
import { noteExport } from '@core/commands/study';
import type { CodePage } from '@core/codebook/code-page';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import type { Hit } from '@core/queries/evaluate';
import { StudySession } from '../../../state/study-session';
import { selectDocuments } from '../../../state/study.selectors';
import { Ways } from '../../../state/ways';
import { Evidence } from '../../../ui/evidence/evidence';
import { ClipExport, type ClipForm } from '../../../ui/sound/clip-export';
import { ChooseCode, wantedCodes } from '../../../ui/picker/choose-code';
import { SplitCode } from './split-code';

/** The passages of a code as evidence: to be read in place, chosen, moved to other codes, taken as examples, gone through one by one. */
@Component({
  selector: 'fl-code-passages',
  imports: [Counted, Evidence, MatMenuModule, SplitCode],
  template: `
    @if (page(); as page) {
      @if (page.passages.length === 0) {
        <p class="second">Nothing in scope carries it.</p>
      } @else if (splitting()) {
        <fl-split-code [code]="code()" [hits]="page.passages" (closed)="splitting.set(false)" />
      } @else {
        <div class="bar">
          @if (places().length > 0) {
            <span>{{ places().length.toLocaleString() }} chosen</span>
            <button class="act" (click)="move(false)">Move to…</button>
            <button class="act" (click)="move(true)">Give also…</button>
            <button class="act" (click)="anchor()">As example</button>
            <button class="act danger" (click)="takeOff()">Take the code off</button>
          } @else {
            <span class="second">{{ page.passages.length | counted: 'passage' }}</span>
            <button class="act" (click)="splitting.set(true)">Split: go through one by one</button>
          }
          @if (clips.progress() !== null) {
            <span role="status">cutting, {{ (clips.progress()! * 100).toFixed(0) }} %</span>
            <button class="act" (click)="clips.cancel()">Cancel</button>
          } @else if (mayBeHeard()) {
            <button class="act" [matMenuTriggerFor]="takeOut">Take clips out</button>
            <mat-menu #takeOut="matMenu">
              <button mat-menu-item (click)="takeClips('one sound')">One after another, as one sound (WAV), with a list</button>
              <button mat-menu-item (click)="takeClips('a sound each')">A sound each (WAV), in an archive</button>
              <button mat-menu-item (click)="takeClips('subtitles')">As subtitles with codes (WebVTT)</button>
              <button mat-menu-item (click)="takeClips('times')">As a table of times (CSV)</button>
            </mat-menu>
          }
        </div>
        <fl-evidence [hits]="page.passages" [(chosen)]="chosen" (read)="read($event)" />
      }
    } @else {
      <p class="second">Looking…</p>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    p {
      padding: 14px 18px;
    }
    .bar {
      position: sticky;
      top: 0;
      z-index: 1;
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 2px 8px;
      padding: 6px 18px;
      background: var(--ground);
      border-bottom: 1px solid var(--rule);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CodePassages {
  readonly page = input.required<CodePage | null>();
  readonly code = input.required<Code>();
  private readonly session = inject(StudySession);
  private readonly dialog = inject(MatDialog);
  private readonly ways = inject(Ways);
  protected readonly splitting = signal(false);
  protected readonly clips = inject(ClipExport);
  private readonly documents = inject(Store).selectSignal(selectDocuments);
  /** Whether any of its passages is of a recording, or of what belongs to one. */
  protected readonly mayBeHeard = computed(() => {
    const documents = this.documents();
    return (this.page()?.passages ?? []).some(({ documentId }) => {
      const document = documents[documentId];
      return document?.ground.of === 'time' || documents[document?.belongsTo ?? '']?.ground.of === 'time';
    });
  });
  protected readonly chosen = signal<ReadonlySet<Id>>(new Set());
  protected readonly places = computed(() =>
    (this.page()?.passages ?? [])
      .filter((hit) => this.chosen().has(hit.passageId))
      .map(({ documentId, passageId }) => ({ documentId, passageId })),
  );

  /** @param keep the passages carry both codes afterwards */
  protected async move(keep: boolean): Promise<void> {
    const chosen = await ChooseCode.open(this.dialog, {
      title: keep ? `Give ${counted(this.places().length, 'passage')} also…` : `Move ${counted(this.places().length, 'passage')} to…`,
      except: new Set([this.code().id]),
      mayMake: true,
    });
    const to = wantedCodes(chosen, this.code().parentId);
    if (to && this.session.run(moveCodings(this.code().id, this.places(), to, keep))) this.chosen.set(new Set());
  }

  /** Takes out what is heard: of those that are chosen, else of all. */
  protected async takeClips(form: ClipForm): Promise<void> {
    const places = this.places().length > 0 ? this.places() : (this.page()?.passages ?? []);
    const { name } = this.code();
    const what = await this.clips.take(name, await this.clips.clipsOf(places), form);
    if (what) this.session.run(noteExport(what));
  }

  protected takeOff(): void {
    if (this.session.run(moveCodings(this.code().id, this.places(), { codeIds: [] }))) this.chosen.set(new Set());
  }

  protected anchor(): void {
    if (this.session.run(anchorPassages(this.code().id, this.places(), true))) this.chosen.set(new Set());
  }

  protected read(hit: Hit): void {
    this.ways.go(['reading', hit.documentId], {
      queryParams: { passage: hit.passageId, from: 'the codebook' },
    });
  }
}

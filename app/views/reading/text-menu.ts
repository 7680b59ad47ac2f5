import { ChangeDetectionStrategy, Component, computed, CSP_NONCE, inject, input, output } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { editSpeaker, ownStretch } from '@core/commands/cases';
import { draftsOf, redetectSpeakers } from '@core/commands/correct-text';
import { belongTo } from '@core/commands/documents';
import { setTime } from '@core/commands/recordings';
import { splitDocument } from '@core/commands/split-join';
import { noteExport, useRatings } from '@core/commands/study';
import { documentHtml } from '@core/formats/html-out/document-html';
import { unpackPassages } from '@core/passages/columns';
import type { Document, Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Stretch } from '@core/model/stretch';
import { speakersIn } from '@core/text/speakers';
import { Notices } from '../../state/notices';
import { StudySession } from '../../state/study-session';
import { selectCases, selectData, selectStudy } from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import { Glossary } from '../../ui/glossary/glossary';
import { printPage } from '../../ui/print-page';
import { saveFile } from '../../ui/save-file';
import { Ask } from '../../ui/dialogs/ask';
import { Counted } from '../../ui/counted/counted';
import { Icon } from '../../ui/icon/icon';
import { RecordingHere } from './recording/recording-here';
import { UNCLEAR } from './surface/heard-marks';

/** What can be done with the text itself: correcting, dividing, saying who speaks and to whom parts belong. */
@Component({
  selector: 'fl-text-menu',
  imports: [Counted, MatMenuModule, Icon],
  template: `
    <button class="act" [matMenuTriggerFor]="menu"><fl-icon name="edit" />Text</button>
    <mat-menu #menu="matMenu">
      <div role="group" aria-label="Read">
        <button mat-menu-item (click)="asLines.emit()">{{ lines() ? 'Read as running text' : 'Read line by line' }}</button>
        <button mat-menu-item (click)="besides.emit()">{{ beside() ? 'End side by side' : 'Another document beside this one' }}</button>
        @if (hasQuestions()) {
          <button mat-menu-item (click)="byQuestion()">Read by question</button>
        }
      </div>
      @if (recorded.recording(); as recording) {
        <div role="group" aria-label="The recording" class="group">
          <button mat-menu-item (click)="transcribe.emit()">Transcribe on from here</button>
          @if (again() > 0) {
            <button mat-menu-item (click)="listenAgain.emit()">Listen again to {{ again() | counted: 'word' }}</button>
          }
          <button mat-menu-item (click)="timeHere()">Note the time of the words at the caret</button>
          @if (marked() !== null) {
            <button mat-menu-item (click)="timeOff()">Take the time off the words at the caret</button>
          }
          <button mat-menu-item (click)="ways.go(['reading', recording.id])">To the recording itself</button>
          <button mat-menu-item (click)="letGo()">It is no transcript of this recording</button>
        </div>
      }
      <div role="group" aria-label="Change the text" class="group">
        <button mat-menu-item (click)="correct.emit()">Correct the text</button>
        <button mat-menu-item (click)="replace()">Find and replace words</button>
        <button mat-menu-item (click)="divide()">Divide the document before this paragraph</button>
      </div>
      <div role="group" aria-label="Who speaks" class="group">
        <button mat-menu-item [matMenuTriggerFor]="speakerMenu">Who speaks</button>
      </div>
      <div role="group" aria-label="Words and ratings" class="group">
        <button mat-menu-item (click)="define.emit()">Define a word</button>
        <button mat-menu-item (click)="glossary()">Glossary</button>
        <button mat-menu-item [matMenuTriggerFor]="ratingMenu">
          Rate codings: {{ study()!.ratings ? '1 to ' + study()!.ratings : 'no' }}
        </button>
      </div>
      <div role="group" aria-label="Take out" class="group">
        <button mat-menu-item (click)="exportPage()">Export this document with its codings</button>
        <button mat-menu-item (click)="print()">Print this document with its codings</button>
      </div>
    </mat-menu>
    <mat-menu #speakerMenu="matMenu">
      <button mat-menu-item (click)="speakers()">Find the speakers anew</button>
      @for (speaker of document().speakers; track $index; let at = $index) {
        <button mat-menu-item [matMenuTriggerFor]="caseMenu" [matMenuTriggerData]="{ speaker: at }">
          Whose turns: {{ speaker.name }}{{ speaker.caseId ? ' (' + (cases()[speaker.caseId]?.name ?? '') + ')' : '' }}
        </button>
      }
      <button mat-menu-item [matMenuTriggerFor]="caseMenu" [matMenuTriggerData]="{ speaker: -1 }" [disabled]="!selection()">
        The selected words belong to
      </button>
    </mat-menu>
    <mat-menu #ratingMenu="matMenu">
      <ng-template matMenuContent>
        <button mat-menu-item (click)="rate(null)">no ratings</button>
        @for (most of [3, 5, 7, 10]; track most) {
          <button mat-menu-item (click)="rate(most)">from 1 to {{ most }}</button>
        }
      </ng-template>
    </mat-menu>
    <mat-menu #caseMenu="matMenu">
      <ng-template matMenuContent let-speaker="speaker">
        @if (speaker >= 0) {
          <button mat-menu-item (click)="asks(speaker)">
            {{ document().speakers[speaker]?.interviewer ? 'not the interviewer' : 'the interviewer' }}
          </button>
          <button mat-menu-item (click)="give(speaker, null)">no {{ study()!.caseWord }}</button>
        }
        @for (one of caseList(); track one.id) {
          <button mat-menu-item (click)="give(speaker, one.id)">{{ one.name }}</button>
        }
      </ng-template>
    </mat-menu>
  `,
  styles: `
    :host {
      --icon-size: 15px;
      flex: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TextMenu {
  readonly document = input.required<Document>();
  readonly text = input.required<Text>();
  /** Where the caret is. */
  readonly caret = input.required<() => number>();
  readonly selection = input.required<() => Stretch | null>();
  /** Whether the text is shown as a table of units, and whether another document stands beside it. */
  readonly lines = input(false);
  readonly beside = input(false);
  readonly correct = output();
  readonly asLines = output();
  readonly besides = output();
  readonly define = output();
  readonly transcribe = output();
  readonly listenAgain = output();

  private readonly session = inject(StudySession);
  private readonly notices = inject(Notices);
  private readonly ask = inject(Ask);
  protected readonly ways = inject(Ways);
  protected readonly recorded = inject(RecordingHere);
  private readonly store = inject(Store);
  protected readonly study = this.store.selectSignal(selectStudy);
  protected readonly cases = this.store.selectSignal(selectCases);
  protected readonly caseList = (): { id: Id; name: string }[] =>
    Object.values(this.cases())
      .sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }))
      .slice(0, 300);

  private readonly data = this.store.selectSignal(selectData);
  private readonly nonce = inject(CSP_NONCE, { optional: true });
  private readonly dialog = inject(MatDialog);
  protected readonly hasQuestions = computed(() => Object.keys(this.data()?.tables.question ?? {}).length > 0);

  /** Words to be listened to again. */
  protected readonly again = computed(() => (this.text().unsure?.length ?? 0) + Array.from(this.text().text.matchAll(UNCLEAR)).length);

  /** The time that is noted right at the caret, if there is one. */
  protected marked(): number | null {
    const at = this.caret()();
    return this.text().marks.find((mark) => mark.kind === 'time' && mark.at === at)?.value ?? null;
  }

  protected timeHere(): void {
    this.session.run(setTime(this.text(), this.caret()(), this.recorded.player().now()));
  }

  protected timeOff(): void {
    this.session.run(setTime(this.text(), this.caret()(), null));
  }

  protected letGo(): void {
    this.session.run(belongTo([this.document().id], null));
  }

  protected byQuestion(): void {
    const asked = this.document().answers[0]?.questionId ?? '';
    this.ways.go(['reading', 'question', ...(asked ? [asked] : [])]);
  }

  protected glossary(): void {
    void Glossary.open(this.dialog, '');
  }

  protected rate(most: number | null): void {
    this.session.run(useRatings(most));
  }

  /** The document with its codings, as a page. */
  private page(): string {
    const data = this.data()!;
    const document = this.document();
    const columns = data.passages[document.id];
    return documentHtml(document, this.text(), columns ? unpackPassages(columns) : [], data.tables.code, data.tables.coder);
  }

  protected exportPage(): void {
    const { title } = this.document();
    saveFile(`${title}.html`, this.page(), 'text/html');
    this.session.run(noteExport(title));
  }

  protected print(): void {
    printPage(this.page(), this.nonce);
  }

  protected replace(): void {
    this.ways.go(['material', 'replace'], { queryParams: { document: this.document().id } });
  }

  protected async divide(): Promise<void> {
    await this.ask.keep(
      'Divide the document before this paragraph',
      'Title of the second part',
      `${this.document().title} (2)`,
      'Divide',
      (title) => this.session.attempt(splitDocument(this.text(), this.caret()(), title)).refused,
    );
  }

  protected async speakers(): Promise<void> {
    const found = speakersIn(draftsOf(this.text()));
    if (found.length === 0) return this.notices.say('No labels such as “Name:” were found in this text.');
    await this.ask.keep(
      'Who speaks in this document?',
      'Labels of speakers, with commas between them',
      found.join(', '),
      'Take these',
      (raw) => {
        const names = raw
          .split(',')
          .map((name) => name.trim())
          .filter(Boolean);
        return this.session.attempt(redetectSpeakers(this.text(), new Set(names))).refused;
      },
    );
  }

  protected asks(number: number): void {
    this.session.run(editSpeaker(this.document().id, number, { interviewer: !this.document().speakers[number]?.interviewer }));
  }

  protected give(speaker: number, caseId: Id | null): void {
    if (speaker >= 0) this.session.run(editSpeaker(this.document().id, speaker, { caseId }));
    else {
      const stretch = this.selection()();
      if (stretch && caseId) this.session.run(ownStretch(caseId, { documentId: this.document().id, ...stretch }, true));
    }
  }
}

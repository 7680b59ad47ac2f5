import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { editSpeaker, ownStretch } from '@core/change/commands/cases';
import { draftsOf, redetectSpeakers } from '@core/change/commands/correct-text';
import { splitDocument } from '@core/change/commands/split-join';
import type { Document, Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Stretch } from '@core/passages/relations';
import { findSpeakers } from '@core/text/speakers';
import { Notices } from '../../state/notices';
import { StudySession } from '../../state/study-session';
import { selectCases, selectStudy } from '../../state/study.selectors';
import { Ask } from '../../ui/dialogs/ask';
import { Icon } from '../../ui/icon/icon';

/** What can be done with the text itself: correcting, dividing, saying who speaks and to whom parts belong. */
@Component({
  selector: 'fl-text-menu',
  imports: [MatMenuModule, Icon],
  template: `
    <button class="act" [matMenuTriggerFor]="menu"><fl-icon name="edit" />Text</button>
    <mat-menu #menu="matMenu">
      <button mat-menu-item (click)="correct.emit()">Correct the text</button>
      <button mat-menu-item (click)="replace()">Find and replace words</button>
      <button mat-menu-item (click)="divide()">Divide the document before this paragraph</button>
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
  readonly correct = output();

  private readonly session = inject(StudySession);
  private readonly notices = inject(Notices);
  private readonly ask = inject(Ask);
  private readonly router = inject(Router);
  private readonly store = inject(Store);
  protected readonly study = this.store.selectSignal(selectStudy);
  protected readonly cases = this.store.selectSignal(selectCases);
  protected readonly caseList = (): { id: Id; name: string }[] =>
    Object.values(this.cases())
      .sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }))
      .slice(0, 300);

  protected replace(): void {
    void this.router.navigate(['/study', this.study()!.id, 'material', 'replace'], { queryParams: { document: this.document().id } });
  }

  protected async divide(): Promise<void> {
    const title = await this.ask.text(
      'Divide the document before this paragraph',
      'Title of the second part',
      `${this.document().title} (2)`,
      'Divide',
    );
    if (title) this.session.run(splitDocument(this.text(), this.caret()(), title));
  }

  protected async speakers(): Promise<void> {
    const found = findSpeakers(draftsOf(this.text())).map((speaker) => speaker.name);
    if (found.length === 0) return this.notices.say('No labels such as “Name:” were found in this text.');
    const raw = await this.ask.text(
      'Who speaks in this document?',
      'Labels of speakers, with commas between them',
      found.join(', '),
      'Take these',
    );
    if (raw === null) return;
    const names = raw
      .split(',')
      .map((name) => name.trim())
      .filter(Boolean);
    this.session.run(redetectSpeakers(this.text(), new Set(names)));
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

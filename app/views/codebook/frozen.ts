import { quoted } from '@core/text/quoted';
import { Counted } from '../../ui/counted/counted';
import { counted } from '@core/text/counted';
import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { acceptProposal, declineProposal, freezeCodebook, proposeCode } from '@core/commands/freeze';
import { StudySession } from '../../state/study-session';
import { selectCoders, selectProposals, selectStudy } from '../../state/study.selectors';
import { Ask } from '../../ui/dialogs/ask';
import { Icon } from '../../ui/icon/icon';

/** Whether the codebook is frozen, since when and by whom, and the codes that were proposed meanwhile. */
@Component({
  selector: 'fl-frozen',
  imports: [Counted, DatePipe, MatMenuModule, Icon],
  template: `
    @if (frozen(); as since) {
      <span class="second"
        >frozen since {{ since.at | date: 'd MMM y' }}{{ coders()[since.coderId] ? ' by ' + coders()[since.coderId]!.name : '' }}</span
      >
      <button class="act" (click)="propose()">Propose a code</button>
    }
    @if (proposals().length > 0) {
      <button class="act" [matMenuTriggerFor]="list">{{ proposals().length }} proposed<fl-icon name="chevron-down" /></button>
    }
    <button class="act" (click)="freeze()">{{ frozen() ? 'Unfreeze' : 'Freeze' }}</button>
    <mat-menu #list="matMenu" class="wide-menu">
      <ng-template matMenuContent>
        @for (one of proposals(); track one.id) {
          <button mat-menu-item (click)="decide(one.id)">
            {{ one.name }}
            <span class="second">{{ coders()[one.coderId]?.name }}, {{ one.places.length | counted: 'passage' }}</span>
          </button>
        }
      </ng-template>
    </mat-menu>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 8px;
      --icon-size: 14px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Frozen {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly study = this.store.selectSignal(selectStudy);
  protected readonly coders = this.store.selectSignal(selectCoders);
  private readonly table = this.store.selectSignal(selectProposals);
  protected readonly frozen = computed(() => this.study()?.frozen);
  protected readonly proposals = computed(() => Object.values(this.table()).sort((a, b) => a.createdAt - b.createdAt));

  protected async freeze(): Promise<void> {
    if (this.frozen()) {
      this.session.run(freezeCodebook(false));
      return;
    }
    const yes = await this.ask.confirm({
      title: 'Freeze the codebook?',
      lines: [
        'Its codes can be given and taken as before, but not made, renamed, moved, joined or deleted until it is unfrozen.',
        'A new code typed while coding is collected as a proposal; its passage is marked.',
      ],
      yes: 'Freeze',
    });
    if (yes) this.session.run(freezeCodebook(true));
  }

  protected async propose(): Promise<void> {
    await this.ask.keep('Propose a code', 'Name', '', 'Propose', (name) => this.session.attempt(proposeCode({ name })).refused);
  }

  protected async decide(id: string): Promise<void> {
    const one = this.table()[id];
    if (!one) return;
    const passages = counted(one.places.length, 'passage waits for it.', 'passages wait for it.');
    const reply = await this.ask.reply({
      title: `The proposed code ${quoted(one.name)}`,
      lines: [...(one.definition ? [one.definition] : []), `Proposed by ${this.coders()[one.coderId]?.name ?? 'somebody'}. ${passages}`],
      yes: 'Take it on',
      other: 'Decline',
    });
    if (reply?.chose === 'yes') this.session.run(acceptProposal(id));
    if (reply?.chose === 'other') this.session.run(declineProposal(id));
  }
}

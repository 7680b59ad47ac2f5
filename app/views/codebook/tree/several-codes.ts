import { quoted } from '@core/text/quoted';
import { Counted } from '../../../ui/counted/counted';
import { counted } from '@core/text/counted';
import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { colourByCategory, colourCodes, moveCodes, retireCodes } from '@core/commands/codebook-work';
import { addCodeSet, changeCodeSet } from '@core/commands/code-sets';
import { FAMILY_SIZE } from '@core/model/code';
import type { Id } from '@core/model/ids';
import { FAMILY_NAMES } from '@core/model/palette';
import { StudySession } from '../../../state/study-session';
import { selectCodes, selectCodeSets, selectData } from '../../../state/study.selectors';
import { deleteAfterAsking } from '../delete-codes';
import { Ask } from '../../../ui/dialogs/ask';
import { Icon } from '../../../ui/icon/icon';
import { ChooseCode } from '../../../ui/picker/choose-code';
import { JoinDialog } from '../join-dialog';
import { RenameDialog } from '../rename-dialog';

/** What can be done with the codes chosen together. Its commands serve the one chosen code as well. */
@Component({
  selector: 'fl-several-codes',
  imports: [Counted, MatMenuModule, Icon],
  template: `
    @if (together() > 0) {
      <div class="bar" role="toolbar" aria-label="Chosen codes">
        <strong>{{ together() | counted: 'code' }} chosen</strong>
        <button class="act" (click)="move()">Move under…</button>
        <button class="act" (click)="join()" [disabled]="together() < 2">Join…</button>
        <button class="act" [matMenuTriggerFor]="setMenu">Set</button>
        <button class="act" [matMenuTriggerFor]="colourMenu">Colour</button>
        <button class="act" (click)="rename()">Names…</button>
        <button class="act" (click)="retire(true)">Retire</button>
        <button class="act" (click)="retire(false)">Use again</button>
        <button class="act danger" (click)="removing.emit()">Delete</button>
        <button class="icon" (click)="left.emit()" aria-label="Choose none"><fl-icon name="x" /></button>
      </div>
    }
    <mat-menu #setMenu="matMenu">
      <ng-template matMenuContent>
        <button mat-menu-item (click)="newSet()">new set…</button>
        @for (set of handmade(); track set.id) {
          <button mat-menu-item (click)="intoSet(set.id)">into {{ set.name }}</button>
        }
      </ng-template>
    </mat-menu>
    <mat-menu #colourMenu="matMenu">
      <ng-template matMenuContent>
        @for (family of families; track family.name) {
          <button mat-menu-item (click)="colour(family.colour)"><span [class]="'sample c' + family.colour"></span>{{ family.name }}</button>
        }
        <button mat-menu-item (click)="byCategory()">every category in its own family</button>
      </ng-template>
    </mat-menu>
  `,
  styles: `
    .bar {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 2px 10px;
      padding: 4px 20px;
      background: var(--accent-ground);
      border-bottom: 1px solid var(--rule);
      --icon-size: 15px;
    }
    .icon {
      margin-left: auto;
    }
    .sample {
      display: inline-block;
      width: 20px;
      height: 3px;
      margin-right: 10px;
      background: var(--c);
      vertical-align: middle;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SeveralCodes {
  /** The codes the commands are about. */
  readonly ids = input.required<readonly Id[]>();
  /** How many were chosen together; 0 where only one is chosen, and no bar is shown. */
  readonly together = input.required<number>();
  readonly left = output<void>();
  /** A code that should be shown after the command. */
  readonly shown = output<Id>();
  readonly removing = output<void>();

  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly dialog = inject(MatDialog);
  private readonly data = this.store.selectSignal(selectData);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly sets = this.store.selectSignal(selectCodeSets);
  protected readonly handmade = () => Object.values(this.sets()).filter((set) => !set.conditions);
  protected readonly families = FAMILY_NAMES.map((name, at) => ({ name, colour: at * FAMILY_SIZE }));

  private what(): string {
    const [first] = this.ids();
    return this.ids().length === 1 ? quoted(this.codes()[first!]?.name ?? '') : `${this.ids().length} codes`;
  }

  async move(): Promise<void> {
    const ids = this.ids();
    const chosen = await ChooseCode.open(this.dialog, {
      title: `Move ${this.what()} under…`,
      except: new Set(ids),
      top: 'the top of the codebook',
    });
    if (!chosen || 'name' in chosen) return;
    if (this.session.run(moveCodes(ids, 'codeId' in chosen ? chosen.codeId : null))) this.shown.emit(ids[0]!);
  }

  async join(): Promise<void> {
    let ids = this.ids();
    if (ids.length === 1) {
      const chosen = await ChooseCode.open(this.dialog, { title: `Join ${this.what()} with…`, except: new Set(ids) });
      if (!chosen || !('codeId' in chosen)) return;
      ids = [chosen.codeId, ...ids];
    }
    const stays = await JoinDialog.open(this.dialog, ids);
    if (stays) this.shown.emit(stays);
  }

  protected rename(): void {
    RenameDialog.open(this.dialog, this.ids());
  }

  protected retire(retire: boolean): void {
    this.session.run(retireCodes(this.ids(), retire));
  }

  protected colour(colour: number): void {
    this.session.run(colourCodes(this.ids(), colour));
  }

  protected byCategory(): void {
    this.session.run(colourByCategory());
  }

  protected async newSet(): Promise<void> {
    await this.ask.keep(
      `New set of ${counted(this.ids().length, 'code')}`,
      'Name',
      '',
      'Make the set',
      (name) => this.session.attempt(addCodeSet(name, this.ids())).refused,
    );
  }

  protected intoSet(setId: Id): void {
    this.session.run(changeCodeSet(setId, this.ids(), true));
  }

  /** Deletes after naming what goes. @returns whether it was done */
  remove(): Promise<boolean> {
    return deleteAfterAsking(this.ask, this.session, this.data()!, this.ids());
  }
}

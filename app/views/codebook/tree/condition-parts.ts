import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { conditionsSentence } from '@core/codebook/conditions';
import type { CodeCondition } from '@core/model/code-set';
import { selectCodes, selectFolders } from '../../../state/study.selectors';
import { Ask } from '../../../ui/dialogs/ask';
import { Icon } from '../../../ui/icon/icon';
import { ChooseCode } from '../../../ui/picker/choose-code';

/** Conditions on codes as parts of a sentence: each can be turned into its opposite or taken away, more can be added. */
@Component({
  selector: 'fl-condition-parts',
  imports: [MatMenuModule, Icon],
  template: `
    @for (one of parts(); track one.words; let at = $index) {
      <span class="condition">
        <button class="part" (click)="turn(at)" [title]="'Turn into its opposite'">{{ one.words }}</button>
        <button class="icon" (click)="drop(at)" [attr.aria-label]="'Without: ' + one.words"><fl-icon name="x" /></button>
      </span>
    }
    <button class="act" [matMenuTriggerFor]="menu"><fl-icon name="plus" />{{ conditions().length > 0 ? 'and' : add() }}</button>
    <mat-menu #menu="matMenu">
      <ng-template matMenuContent>
        <button mat-menu-item (click)="number('passages fewer than', 'How many passages at least is enough?', 3)">
          used in fewer than … passages
        </button>
        <button mat-menu-item (click)="number('documents fewer than', 'How many documents at least is enough?', 2)">
          found in fewer than … documents
        </button>
        <button mat-menu-item (click)="number('cases fewer than', 'How many cases at least is enough? 2 finds codes of one case only.', 2)">
          found in fewer than … cases
        </button>
        <button mat-menu-item (click)="number('made in the last days', 'In how many days?', 7)">made in the last … days</button>
        <button mat-menu-item (click)="plain('without definition')">without a definition</button>
        <button mat-menu-item (click)="plain('without memo')">without a memo</button>
        <button mat-menu-item (click)="plain('at the top')">at the top of the codebook</button>
        <button mat-menu-item (click)="plain('retired')">retired</button>
        <button mat-menu-item (click)="under()">under a code…</button>
        @for (folder of folders(); track folder.id) {
          <button mat-menu-item (click)="plain('used in folder', folder.id)">used in the folder {{ folder.name }}</button>
        }
      </ng-template>
    </mat-menu>
  `,
  styles: `
    :host {
      display: contents;
    }
    .condition {
      display: inline-flex;
      align-items: center;
    }
    .icon {
      width: 24px;
      height: 24px;
      --icon-size: 13px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ConditionParts {
  readonly conditions = input.required<readonly CodeCondition[]>();
  /** Words on the button while there is no condition. */
  readonly add = input('only those…');
  readonly changed = output<readonly CodeCondition[]>();

  private readonly store = inject(Store);
  private readonly ask = inject(Ask);
  private readonly dialog = inject(MatDialog);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly folderTable = this.store.selectSignal(selectFolders);
  protected readonly folders = computed(() => Object.values(this.folderTable()));
  protected readonly parts = computed(() =>
    this.conditions().map((one) => ({ words: conditionsSentence([one], { codes: this.codes(), folders: this.folderTable() }) })),
  );

  protected turn(at: number): void {
    this.changed.emit(this.conditions().map((one, row) => (row === at ? { ...one, opposite: !one.opposite } : one)));
  }

  protected drop(at: number): void {
    this.changed.emit(this.conditions().filter((_, row) => row !== at));
  }

  protected plain(about: 'without definition' | 'without memo' | 'at the top' | 'retired' | 'used in folder', id?: string): void {
    this.put(about === 'used in folder' ? { about, id: id!, opposite: false } : { about, opposite: false });
  }

  protected async number(
    about: 'passages fewer than' | 'documents fewer than' | 'cases fewer than' | 'made in the last days',
    question: string,
    usual: number,
  ): Promise<void> {
    const raw = await this.ask.keep(question, 'Number', String(usual), 'Set', (typed) =>
      /^\d{1,7}$/.test(typed.trim()) && Number(typed) <= 1_000_000 ? null : `“${typed}” is not a whole number from 0 to a million.`,
    );
    if (raw !== null) this.put({ about, number: Number(raw), opposite: false });
  }

  protected async under(): Promise<void> {
    const chosen = await ChooseCode.open(this.dialog, { title: 'Under which code?' });
    if (chosen && 'codeId' in chosen) this.put({ about: 'under', id: chosen.codeId, opposite: false });
  }

  private put(condition: CodeCondition): void {
    this.changed.emit([...this.conditions(), condition]);
  }
}

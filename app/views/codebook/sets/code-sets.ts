import { Counted } from '../../../ui/counted/counted';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { addCodeSet, changeCodeSet, deleteCodeSet, renameCodeSet } from '@core/commands/code-sets';
import { codesMeeting, codesOfSet, conditionsSentence } from '@core/codebook/conditions';
import type { CodeCondition, CodeSet } from '@core/model/code-set';
import type { Id } from '@core/model/ids';
import { StudySession } from '../../../state/study-session';
import { selectCodes, selectCodeSets, selectFolders } from '../../../state/study.selectors';
import { Ask } from '../../../ui/dialogs/ask';
import { Icon } from '../../../ui/icon/icon';
import { ChooseCode } from '../../../ui/picker/choose-code';
import { Swatch } from '../../../ui/swatch/swatch';
import { CodeUseHere } from '../code-use-here';
import { CodesShown } from '../tree/codes-shown';
import { ConditionParts } from '../tree/condition-parts';
import { TreeSettings } from '../tree/tree-settings';
import { CodeCounts, howOften, inCell } from '../../../state/code-counts';

/** Sets of codes: filled by hand, or by conditions. */
@Component({
  selector: 'fl-code-sets',
  imports: [Counted, ConditionParts, Icon, Swatch],
  providers: [CodeUseHere, CodesShown],
  templateUrl: './code-sets.html',
  styleUrl: './code-sets.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CodeSets {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly dialog = inject(MatDialog);
  private readonly router = inject(Router);
  private readonly shown = inject(CodesShown);
  private readonly settings = inject(TreeSettings);
  protected readonly codes = this.store.selectSignal(selectCodes);
  private readonly counts = inject(CodeCounts).scoped;
  protected readonly passagesOf = (id: Id): string => inCell(howOften(this.counts(), 'own', id));
  private readonly folders = this.store.selectSignal(selectFolders);
  private readonly table = this.store.selectSignal(selectCodeSets);
  private readonly chosenId = signal<Id | null>(null);
  /** Conditions of a live set that is being made. */
  protected readonly making = signal<readonly CodeCondition[] | null>(null);
  protected readonly sets = computed(() => {
    const facts = this.shown.facts();
    return Object.values(this.table())
      .sort((a, b) => a.name.localeCompare(b.name))
      .map((set) => ({ set, count: facts && codesOfSet(facts, set).length }));
  });
  protected readonly chosen = computed(() => this.table()[this.chosenId() ?? ''] ?? this.sets()[0]?.set);
  protected readonly members = computed(() => {
    const set = this.chosen();
    const making = this.making();
    const facts = this.shown.facts();
    const ids = !facts ? [] : making ? (making.length > 0 ? codesMeeting(facts, making) : []) : set ? codesOfSet(facts, set) : [];
    return ids.flatMap((id) => this.codes()[id] ?? []).sort((a, b) => a.name.localeCompare(b.name));
  });
  protected readonly sentence = computed(() =>
    conditionsSentence(this.chosen()?.conditions ?? [], { codes: this.codes(), folders: this.folders() }),
  );

  protected choose(id: Id): void {
    this.chosenId.set(id);
    this.making.set(null);
  }

  protected async makeByHand(): Promise<void> {
    await this.ask.keep('New set of codes', 'Name', '', 'Make the set', (name) => this.make(addCodeSet(name, [])));
  }

  protected async makeLive(): Promise<void> {
    const conditions = this.making();
    if (!conditions) return;
    const sentence = conditionsSentence(conditions, { codes: this.codes(), folders: this.folders() }).slice(0, 80);
    await this.ask.keep('New live set', 'Name', sentence, 'Make the set', (name) => this.make(addCodeSet(name, [], conditions)));
  }

  /** @returns why it was refused, or null */
  private make(command: ReturnType<typeof addCodeSet>): string | null {
    const { done, refused } = this.session.attempt(command);
    if (done) this.choose(done.change[0]!.after!.id);
    return refused;
  }

  protected async rename(set: CodeSet): Promise<void> {
    await this.ask.keep('Rename the set', 'Name', set.name, 'Rename', (name) => this.session.attempt(renameCodeSet(set.id, name)).refused);
  }

  protected remove(set: CodeSet): void {
    this.session.run(deleteCodeSet(set.id));
  }

  protected async put(set: CodeSet): Promise<void> {
    const chosen = await ChooseCode.open(this.dialog, { title: `Into ${set.name}`, except: new Set(set.codeIds) });
    if (chosen && 'codeId' in chosen) this.session.run(changeCodeSet(set.id, [chosen.codeId], true));
  }

  protected takeOut(set: CodeSet, id: Id): void {
    this.session.run(changeCodeSet(set.id, [id], false));
  }

  protected showInTree(set: CodeSet): void {
    this.settings.setId.set(set.id);
    this.settings.way.set('a tree');
    void this.router.navigate([], { queryParams: {} });
  }

  protected open(id: Id): void {
    void this.router.navigate([], { queryParams: { code: id } });
  }
}

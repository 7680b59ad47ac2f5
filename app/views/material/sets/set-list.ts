import { quoted } from '@core/text/quoted';
import { mayGo } from '../../../ui/dialogs/may-go';
import { Counted } from '../../../ui/counted/counted';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { parseValue, showValue } from '@core/attributes/values';
import { attributesOf } from '@core/commands/attributes';
import { addSet, changeCondition, changeMembers, deleteSet, renameSet } from '@core/commands/sets';
import { COMPARISONS, type Comparison, type ConditionPart, type MemberSet } from '@core/model/set';
import { DOCUMENT_KINDS } from '@core/model/document';
import type { Id } from '@core/model/ids';
import { conditionSentence, membersOf } from '@core/sets/members';
import { StudySession } from '../../../state/study-session';
import { selectData, selectStudy } from '../../../state/study.selectors';
import { Ask } from '../../../ui/dialogs/ask';
import { Icon } from '../../../ui/icon/icon';

/** A part of a condition while it is put together. */
interface PartDraft {
  readonly what: string;
  readonly comparison: Comparison;
  readonly raw: string;
}

/** Sets of documents and cases: filled by hand, or by a condition. */
@Component({
  selector: 'fl-set-list',
  imports: [Counted, RouterLink, Icon],
  templateUrl: './set-list.html',
  styleUrl: './set-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SetList {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly data = this.store.selectSignal(selectData);
  protected readonly comparisons = COMPARISONS;
  protected readonly chosenId = signal<Id | null>(null);
  /** A condition while it is put together, and the set whose condition it is, or null for a new one. */
  protected readonly making = signal<{
    readonly of: MemberSet['of'];
    readonly parts: readonly PartDraft[];
    readonly set: MemberSet | null;
  } | null>(null);

  protected readonly sets = computed(() =>
    Object.values(this.data()!.tables.set)
      .sort((a, b) => a.name.localeCompare(b.name))
      .map((set) => ({ set, count: membersOf(this.data()!, set).length })),
  );
  protected readonly chosen = computed(() => this.data()!.tables.set[this.chosenId() ?? ''] ?? this.sets()[0]?.set);
  protected readonly members = computed(() => {
    const set = this.chosen();
    if (!set) return [];
    const { document, case: cases } = this.data()!.tables;
    return membersOf(this.data()!, set)
      .map((id) => ({ id, name: (set.of === 'document' ? document[id]?.title : cases[id]?.name) ?? '' }))
      .sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }));
  });
  protected readonly condition = computed(() => {
    const set = this.chosen();
    return set?.condition ? conditionSentence(this.data()!, set.condition) : '';
  });
  /** What a condition can be about. */
  protected readonly subjects = computed(() => {
    const of = this.making()?.of ?? 'case';
    const attributes = attributesOf(this.data()!, of).map((attribute) => ({ key: attribute.id, name: attribute.name }));
    return of === 'document' ? [{ key: 'kind', name: 'kind' }, { key: 'folder', name: 'folder' }, ...attributes] : attributes;
  });

  /** Why the condition could not be kept. */
  protected readonly trouble = signal('');

  protected word(of: MemberSet['of']): string {
    return of === 'document' ? 'document' : (this.study()?.caseWord ?? 'case');
  }

  /** Values on offer for a subject. */
  protected valuesOf(what: string): readonly string[] {
    if (what === 'kind') return DOCUMENT_KINDS;
    if (what === 'folder') return Object.values(this.data()!.tables.folder).map((folder) => folder.name);
    return this.data()!.tables.attribute[what]?.choices ?? [];
  }

  protected begin(of: MemberSet['of']): void {
    this.trouble.set('');
    this.making.set({ of, parts: [], set: null });
    this.addPart();
  }

  protected addPart(): void {
    const what = this.subjects()[0]?.key ?? '';
    this.making.update((draft) => draft && { ...draft, parts: [...draft.parts, { what, comparison: 'is', raw: '' }] });
  }

  protected setPart(at: number, fields: Partial<PartDraft>): void {
    this.making.update(
      (draft) => draft && { ...draft, parts: draft.parts.map((part, row) => (row === at ? { ...part, ...fields } : part)) },
    );
  }

  protected dropPart(at: number): void {
    this.making.update((draft) => draft && { ...draft, parts: draft.parts.filter((_, row) => row !== at) });
  }

  /** Takes the condition of a live set up again. */
  protected change(set: MemberSet): void {
    const parts = (set.condition ?? []).map(({ what, comparison, value }): PartDraft => {
      const raw = what === 'folder' ? (this.data()!.tables.folder[String(value)]?.name ?? '') : showValue(value);
      return { what: typeof what === 'object' ? what.attributeId : what, comparison, raw };
    });
    this.trouble.set('');
    this.making.set({ of: set.of, parts, set });
  }

  protected byHand(set: MemberSet): void {
    this.session.run(
      changeCondition(
        set.id,
        null,
        this.members().map((member) => member.id),
      ),
    );
  }

  protected asComparison(value: string): Comparison {
    return value as Comparison;
  }

  protected make(name: string): void {
    const draft = this.making();
    if (!draft) return;
    const condition: ConditionPart[] = [];
    for (const { what, comparison, raw } of draft.parts) {
      const attribute = this.data()!.tables.attribute[what];
      const folder = what === 'folder' ? Object.values(this.data()!.tables.folder).find((one) => one.name === raw) : undefined;
      const needless = comparison === 'is known' || comparison === 'is not known';
      const value = needless
        ? ''
        : what === 'folder'
          ? folder?.id
          : attribute && comparison !== 'holds'
            ? parseValue(raw, attribute.type)
            : raw;
      if (value === undefined || value === null || (value === '' && !needless)) {
        this.trouble.set(`“${raw}” cannot be held against ${attribute?.name ?? what}.`);
        return;
      }
      condition.push({ what: attribute ? { attributeId: attribute.id } : (what as 'kind' | 'folder'), comparison, value });
    }
    const { done, refused } = this.session.attempt(
      draft.set ? changeCondition(draft.set.id, condition, []) : addSet(draft.of, name, [], condition),
    );
    this.trouble.set(refused ?? '');
    if (refused !== null) return;
    const made = done?.change[0]?.after;
    if (made) this.chosenId.set(made.id);
    this.making.set(null);
  }

  protected async rename(set: MemberSet): Promise<void> {
    await this.ask.keep('Rename the set', 'Name', set.name, 'Rename', (name) => this.session.attempt(renameSet(set.id, name)).refused);
  }

  protected async remove(set: MemberSet): Promise<void> {
    if (await mayGo(this.ask, this.data()!, 'set', set.id, `Delete the set ${quoted(set.name)}?`)) this.session.run(deleteSet(set.id));
  }

  protected takeOut(set: MemberSet, id: Id): void {
    this.session.run(changeMembers(set.id, [id], false));
  }
}

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
import { conditionSentence, isKnown, membersOf } from '@core/sets/members';
import { naturalOrder } from '@core/text/natural-order';
import { StudySession } from '../../../state/study-session';
import { selectData, selectSetsIn, selectStudy } from '../../../state/study.selectors';
import { Ask } from '../../../ui/dialogs/ask';
import { Icon } from '../../../ui/icon/icon';

/** What can be asked of a kept query. */
const FINDS = ['finds something', 'finds nothing'] as const;
type How = Comparison | (typeof FINDS)[number];

/** A part of a condition while it is put together. */
interface PartDraft {
  readonly what: string;
  readonly comparison: How;
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
  /** What sets are read from. */
  private readonly read = this.store.selectSignal(selectSetsIn);
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
      .map((set) => ({ set, known: isKnown(this.read()!, set), count: membersOf(this.read()!, set).length })),
  );
  protected readonly chosen = computed(() => this.data()!.tables.set[this.chosenId() ?? ''] ?? this.sets()[0]?.set);
  protected readonly members = computed(() => {
    const set = this.chosen();
    if (!set) return [];
    const { document, case: cases } = this.data()!.tables;
    return membersOf(this.read()!, set)
      .map((id) => ({ id, name: (set.of === 'document' ? document[id]?.title : cases[id]?.name) ?? '' }))
      .sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }));
  });
  protected readonly condition = computed(() => {
    const set = this.chosen();
    return set?.condition ? conditionSentence(this.data()!, set.condition) : '';
  });
  /** Whether it is known what is in the set: what kept queries find is worked out a moment after the study has changed. */
  protected readonly known = computed(() => {
    const set = this.chosen();
    return set === undefined || isKnown(this.read()!, set);
  });
  /** Kept queries that a condition can ask for. */
  protected readonly queries = computed(() => naturalOrder(Object.values(this.data()!.tables.query), (query) => query.name));
  /** What a condition can be about, beside what queries find. */
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

  /** How what a condition is about can be held against something. */
  protected waysOf(what: string): readonly How[] {
    return this.asksQuery(what) ? FINDS : COMPARISONS;
  }

  protected needsValue({ what, comparison }: PartDraft): boolean {
    return !this.asksQuery(what) && comparison !== 'is known' && comparison !== 'is not known';
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
    const what = this.subjects()[0]?.key ?? this.queries()[0]?.id ?? '';
    this.making.update((draft) => draft && { ...draft, parts: [...draft.parts, { what, comparison: this.waysOf(what)[0]!, raw: '' }] });
  }

  protected setPart(at: number, fields: Partial<PartDraft>): void {
    this.making.update(
      (draft) => draft && { ...draft, parts: draft.parts.map((part, row) => (row === at ? { ...part, ...fields } : part)) },
    );
  }

  /** Another thing that the condition is about: what can be said of both stays. */
  protected setWhat(at: number, what: string): void {
    const before = this.making()?.parts[at]?.comparison;
    const ways = this.waysOf(what);
    this.setPart(at, { what, comparison: before && ways.includes(before) ? before : ways[0]! });
  }

  protected dropPart(at: number): void {
    this.making.update((draft) => draft && { ...draft, parts: draft.parts.filter((_, row) => row !== at) });
  }

  /** Takes the condition of a live set up again. */
  protected change(set: MemberSet): void {
    const parts = (set.condition ?? []).map(({ what, comparison, value }): PartDraft => {
      if (what === 'folder') return { what, comparison, raw: this.data()!.tables.folder[String(value)]?.name ?? '' };
      if (what === 'kind') return { what, comparison, raw: showValue(value) };
      if ('attributeId' in what) return { what: what.attributeId, comparison, raw: showValue(value) };
      return { what: what.queryId, comparison: FINDS[(value === true) === (comparison === 'is') ? 0 : 1], raw: '' };
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

  protected asComparison(value: string): How {
    return value as How;
  }

  private asksQuery(what: string): boolean {
    return Object.hasOwn(this.data()!.tables.query, what);
  }

  protected make(name: string): void {
    const draft = this.making();
    if (!draft) return;
    const condition: ConditionPart[] = [];
    for (const part of draft.parts) {
      const made = this.partOf(part);
      if (!made) {
        const about = this.data()!.tables.attribute[part.what]?.name ?? part.what;
        this.trouble.set(
          part.what ? `“${part.raw}” cannot be held against ${about}.` : 'There is nothing to ask for yet: no attribute and no kept query.',
        );
        return;
      }
      condition.push(made);
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

  /** What was put together, as it is kept; null where the value is none that can be held against it. */
  private partOf({ what, comparison, raw }: PartDraft): ConditionPart | null {
    if (comparison === 'finds something' || comparison === 'finds nothing')
      return { what: { queryId: what }, comparison: 'is', value: comparison === 'finds something' };
    const { attribute: attributes, folder } = this.data()!.tables;
    const attribute = attributes[what];
    if (!attribute && what !== 'kind' && what !== 'folder') return null;
    const about = attribute ? { attributeId: attribute.id } : (what as 'kind' | 'folder');
    if (comparison === 'is known' || comparison === 'is not known') return { what: about, comparison, value: '' };
    const typed = attribute && comparison !== 'holds' ? parseValue(raw, attribute.type) : raw;
    const value = what === 'folder' ? Object.values(folder).find((one) => one.name === raw)?.id : typed;
    return value === undefined || value === null || value === '' ? null : { what: about, comparison, value };
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

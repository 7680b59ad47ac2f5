import { quoted } from '@core/text/quoted';
import { standingOn } from '@core/integrity/standing-on';
import { counted } from '@core/text/counted';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  addAttribute,
  attributesOf,
  changeType,
  conversionOf,
  deleteAttribute,
  distributionOf,
  joinChoices,
  moveAttribute,
  recode,
  renameAttribute,
  setChoices,
} from '@core/commands/attributes';
import { ATTRIBUTE_TYPES, type Attribute } from '@core/model/case';
import type { Id } from '@core/model/ids';
import { StudySession } from '../../../state/study-session';
import { selectData, selectStudy } from '../../../state/study.selectors';
import { Ask } from '../../../ui/dialogs/ask';
import { Icon } from '../../../ui/icon/icon';
import { readBands } from './bands';

/** The attributes of cases and documents: their types, values and how these are distributed. */
@Component({
  selector: 'fl-attribute-list',
  imports: [Icon],
  templateUrl: './attribute-list.html',
  styleUrl: './attribute-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AttributeList {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly data = this.store.selectSignal(selectData);
  protected readonly types = ATTRIBUTE_TYPES;
  protected readonly chosenId = signal<Id | null>(null);
  protected readonly picked = signal<ReadonlySet<string>>(new Set());

  protected readonly groups = computed(() => [
    { of: 'case' as const, name: `Of ${this.study()?.caseWord ?? 'case'}s`, attributes: attributesOf(this.data()!, 'case') },
    { of: 'document' as const, name: 'Of documents', attributes: attributesOf(this.data()!, 'document') },
  ]);
  protected readonly chosen = computed(
    () => this.data()!.tables.attribute[this.chosenId() ?? ''] ?? this.groups()[0]!.attributes[0] ?? this.groups()[1]!.attributes[0],
  );
  protected readonly distribution = computed(() => {
    const attribute = this.chosen();
    return attribute ? distributionOf(attribute, Object.values(this.data()!.tables[attribute.of])) : null;
  });
  protected readonly most = computed(() => Math.max(1, ...(this.distribution()?.values.map((one) => one.count) ?? [])));

  protected choose(id: Id): void {
    this.chosenId.set(id);
    this.picked.set(new Set());
  }

  /** Makes an attribute; what is refused stays in its field. */
  protected add(of: Attribute['of'], box: HTMLInputElement, type: string): void {
    const { done, refused } = this.session.attempt(addAttribute(of, box.value, type as Attribute['type']));
    this.refusal.set(refused === null ? null : { of, reason: refused });
    if (refused !== null) return;
    box.value = '';
    const made = done?.change[0]?.after;
    if (made) this.choose(made.id);
  }

  protected readonly refusal = signal<{ readonly of: Attribute['of']; readonly reason: string } | null>(null);

  protected async rename(attribute: Attribute): Promise<void> {
    await this.ask.keep(
      'Rename the attribute',
      'Name',
      attribute.name,
      'Rename',
      (name) => this.session.attempt(renameAttribute(attribute.id, name)).refused,
    );
  }

  protected move(attribute: Attribute, by: -1 | 1): void {
    this.session.run(moveAttribute(attribute.id, by));
  }

  /** Shows the values that do not convert before the type changes. */
  protected async setType(attribute: Attribute, select: HTMLSelectElement): Promise<void> {
    const type = select.value as Attribute['type'];
    const { converted, misfits } = conversionOf(this.data()!, attribute.id, type);
    const lost = misfits.reduce((sum, one) => sum + one.count, 0);
    const goOn =
      lost === 0 ||
      (await this.ask.confirm({
        title: `Make ${quoted(attribute.name)} a ${type}?`,
        lines: [
          `${counted(converted, 'value fits', 'values fit')}. ${counted(lost, 'does not and is', 'do not and are')} taken away:`,
          misfits
            .slice(0, 12)
            .map((one) => `“${one.value}” (${one.count})`)
            .join(', ') + (misfits.length > 12 ? ` and ${misfits.length - 12} more` : ''),
          'It can be undone.',
        ],
        yes: 'Change the type',
        danger: true,
      }));
    if (goOn) this.session.run(changeType(attribute.id, type));
    select.value = this.data()!.tables.attribute[attribute.id]?.type ?? type;
  }

  protected async remove(attribute: Attribute): Promise<void> {
    const known = (this.distribution()?.total ?? 0) - (this.distribution()?.unknown ?? 0);
    const goOn = await this.ask.confirm({
      title: `Delete ${quoted(attribute.name)}?`,
      lines: [
        `${counted(known, 'value goes', 'values go')} with it.`,
        ...standingOn(this.data()!, 'attribute', [attribute.id]),
        'It can be undone.',
      ],
      yes: 'Delete',
      danger: true,
    });
    if (goOn) this.session.run(deleteAttribute(attribute.id));
  }

  protected pick(value: string, on: boolean): void {
    const next = new Set(this.picked());
    if (on) next.add(value);
    else next.delete(value);
    this.picked.set(next);
  }

  protected async join(attribute: Attribute): Promise<void> {
    const values = [...this.picked()];
    await this.ask.keep(
      `Join ${values.length} values`,
      'Into',
      values[0] ?? '',
      'Join',
      (into) => this.session.attempt(joinChoices(attribute.id, values, into)).refused,
    );
    this.picked.set(new Set());
  }

  protected moveChoice(attribute: Attribute, value: string, by: -1 | 1): void {
    const choices = [...attribute.choices];
    const from = choices.indexOf(value);
    const to = from + by;
    if (from < 0 || to < 0 || to >= choices.length) return;
    choices.splice(from, 1);
    choices.splice(to, 0, value);
    this.session.run(setChoices(attribute.id, choices));
  }

  /** Numbers or dates in bands, as a new attribute. */
  protected async band(attribute: Attribute): Promise<void> {
    await this.ask.keep(
      `Group ${quoted(attribute.name)} in bands`,
      attribute.type === 'date' ? 'Where bands begin, e.g. 2025-01-01, 2025-07-01' : 'Where bands begin, e.g. 20, 40, 60',
      '',
      'Make the attribute',
      (raw) => {
        const bands = readBands(raw, attribute.type);
        if (!bands) return 'These are no bands. Write ascending numbers or dates with commas between them.';
        const { done, refused } = this.session.attempt(recode(attribute.id, `${attribute.name} in bands`, bands));
        const made = done?.change[0]?.after;
        if (made) this.choose(made.id);
        return refused;
      },
    );
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { Store } from '@ngrx/store';
import { GROUPED_BY, MOST_NESTED, type GroupsAsked } from '@core/model/pattern';
import { selectStudy } from '../../state/study.selectors';
import { SentencePart, type Choice } from '../../ui/sentence/sentence-part';
import { AttributeLevels } from './attribute-levels';

/** Groups of the material, as a part of a pattern's sentence: one division, or up to three attributes nested in each other. */
@Component({
  selector: 'fl-groups-part',
  imports: [SentencePart],
  providers: [AttributeLevels],
  template: `
    @if (nested(); as nested) {
      @for (level of nested; track level.attributeId; let at = $index) {
        @if (at > 0) {
          <span>within</span>
        }
        <fl-part [words]="levels.nameOf(level)" [choices]="choicesAt(at)" (chosen)="choose($event, at)" />
        @if (levels.cutsOf(level); as cuts) {
          <button class="part" (click)="askCuts(at)">{{ cuts }}</button>
        }
      }
      @if (nested.length < most && rest().length > 0) {
        <fl-part words="and within…" [choices]="rest()" (chosen)="choose($event, nested.length)" />
      }
    } @else {
      <fl-part [words]="words()" [choices]="choices()" (chosen)="choose($event, 0)" />
    }
  `,
  styles: `
    /* set apart by what a blank is: what stands between parts of a template goes */
    :host {
      display: inline-flex;
      flex-wrap: wrap;
      gap: 0 0.3em;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GroupsPart {
  readonly groups = input.required<GroupsAsked>();
  /** What stands in front of the name of a group: “each document”. */
  readonly each = input('each');
  readonly changed = output<GroupsAsked>();
  protected readonly levels = inject(AttributeLevels);
  private readonly study = inject(Store).selectSignal(selectStudy);
  protected readonly most = MOST_NESTED;
  protected readonly nested = computed(() => {
    const groups = this.groups();
    return 'nested' in groups && groups.nested.length > 0 ? groups.nested : null;
  });
  protected readonly words = computed(() => {
    const groups = this.groups();
    return this.nameOfDivision('by' in groups ? groups.by : 'everything');
  });
  protected readonly choices = computed((): Choice<GroupsAsked>[] => [
    ...GROUPED_BY.map((by) => ({ value: { by }, name: this.nameOfDivision(by) })),
    ...this.levels.all().map((attribute) => ({ value: { nested: [this.levels.level(attribute)] }, name: `each ${attribute.name}` })),
  ]);
  /** Attributes that can be nested further. */
  protected readonly rest = computed((): Choice<GroupsAsked>[] => {
    const used = new Set((this.nested() ?? []).map((level) => level.attributeId));
    return this.levels
      .all()
      .filter((attribute) => !used.has(attribute.id))
      .map((attribute) => ({ value: { nested: [this.levels.level(attribute)] }, name: attribute.name }));
  });

  /** A level that was chosen can become another, or go. */
  protected choicesAt(at: number): Choice<GroupsAsked>[] {
    return at === 0 ? this.choices() : [{ value: { nested: [] }, name: 'no further' }, ...this.rest()];
  }

  protected choose(value: GroupsAsked, at: number): void {
    const nested = this.nested() ?? [];
    if (at === 0 || !('nested' in value)) return this.changed.emit(value);
    this.changed.emit({ nested: [...nested.slice(0, at), ...value.nested, ...nested.slice(at + 1)] });
  }

  /** Asks where the values of an attribute are cut. */
  protected async askCuts(at: number): Promise<void> {
    const nested = this.nested()!;
    const cut = await this.levels.askCuts(nested[at]!);
    if (cut) this.changed.emit({ nested: nested.map((one, nth) => (nth === at ? cut : one)) });
  }

  private nameOfDivision(by: (typeof GROUPED_BY)[number]): string {
    const names: Readonly<Record<typeof by, string>> = {
      ...{
        everything: 'all of it',
        document: 'document',
        case: this.study()?.caseWord ?? 'case',
        folder: 'folder',
        kind: 'kind of document',
      },
      ...{ set: 'set', speaker: 'speaker', question: 'question', coder: 'coder', month: 'month' },
    };
    return by === 'everything' ? names[by] : `${this.each()} ${names[by]}`;
  }
}

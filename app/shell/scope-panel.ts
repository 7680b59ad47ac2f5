import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  HostListener,
  inject,
  output,
  type OnDestroy,
} from '@angular/core';
import { Store } from '@ngrx/store';
import { deleteScope, keepScope } from '@core/commands/scopes';
import type { PassageCondition } from '@core/model/passage-condition';
import { isEverything, type KeptScope, type Scope, type ScopeGiven, type ScopePart } from '@core/model/scope';
import { namesIn, scopeWords } from '@core/queries/words';
import { naturalOrder } from '@core/text/natural-order';
import { ScopeChoice } from '../state/scope-choice';
import { ScopeLeaves } from '../state/scope-leaves';
import { StudySession } from '../state/study-session';
import { selectData, selectRole } from '../state/study.selectors';
import { Ask } from '../ui/dialogs/ask';
import { floatBelow } from '../ui/float-below';
import { Icon } from '../ui/icon/icon';
import { isCovered } from '../ui/keys/writing-keys';
import { AskedHere } from '../ui/sentence/asked-here';
import { ConditionList } from '../ui/sentence/condition-list';
import { GivenPart } from '../ui/sentence/given-part';
import { SCOPE_PARTS } from '../ui/sentence/new-part';

/** The scope part by part, each with what it leaves by itself; and scopes that were kept. */
@Component({
  selector: 'fl-scope-panel',
  imports: [ConditionList, GivenPart, Icon],
  providers: [AskedHere],
  host: { role: 'dialog', 'aria-label': 'What is looked at' },
  templateUrl: './scope-panel.html',
  styleUrl: './scope-panel.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScopePanel implements OnDestroy {
  readonly closed = output<void>();
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly choice = inject(ScopeChoice);
  protected readonly leaves = inject(ScopeLeaves);
  protected readonly here = inject(AskedHere);
  private readonly role = this.store.selectSignal(selectRole);
  protected readonly mayWrite = computed(() => this.role() === 'writer');
  private readonly data = this.store.selectSignal(selectData);
  protected readonly offered = SCOPE_PARTS;
  protected readonly scope = this.choice.scope;
  protected readonly parts = computed(() => this.scope().parts);
  protected readonly countedAs = computed(() => ['Documents it leaves', `${this.here.caseWord()}s it leaves`, 'Passages it leaves']);
  protected readonly counts = computed(() =>
    this.parts().map((_, at) => {
      const leaves = this.leaves.parts()[at];
      return leaves ? [leaves.documents, leaves.cases, leaves.passages] : null;
    }),
  );
  protected readonly kept = computed(() =>
    naturalOrder(Object.values(this.data()?.tables.scope ?? {}), (one) => one.name).map((one) => ({
      ...one,
      words: scopeWords(one.scope, namesIn(this.data()!, one.scope.gone)),
      isOn: JSON.stringify(one.scope) === JSON.stringify(this.scope()),
    })),
  );
  protected readonly canKeep = computed(() => !isEverything(this.scope()) && !this.kept().some((one) => one.isOn));

  constructor() {
    this.leaves.eachPart.set(true);
    this.here.gone.set(() => this.scope().gone);
    afterNextRender(() => {
      floatBelow(this.host);
      this.host.querySelector<HTMLElement>('button')?.focus();
    });
  }

  ngOnDestroy(): void {
    this.leaves.eachPart.set(false);
  }

  protected setParts(parts: readonly PassageCondition[]): void {
    this.set({ ...this.scope(), parts: parts as ScopePart[] });
  }

  protected setGiven(given: ScopeGiven | undefined): void {
    const { given: _, ...rest } = this.scope();
    this.set({ ...rest, ...(given && { given }) });
  }

  protected lookAt({ scope }: KeptScope): void {
    this.set(scope);
  }

  private set(scope: Scope): void {
    void this.choice.choose(scope);
  }

  protected async keep(): Promise<void> {
    const scope = this.scope();
    await this.ask.keep('Keep this scope', 'Name', '', 'Keep it', (name) => this.session.attempt(keepScope(name, scope)).refused);
  }

  protected forget({ id }: KeptScope): void {
    this.session.run(deleteScope(id));
  }

  /** Wherever the focus went: but what was opened from here, a menu or a dialog, closes first. */
  @HostListener('document:keydown.escape')
  protected close(): void {
    if (isCovered()) return;
    this.host.closest('.anchor')?.querySelector('button')?.focus();
    this.closed.emit();
  }

  @HostListener('document:mousedown', ['$event'])
  protected onPress(event: MouseEvent): void {
    const target = event.target as Element;
    const anchor = this.host.closest('.anchor') ?? this.host;
    // what it opened at closes it by its own press; menus and dialogs that were opened here lie elsewhere in the page
    if (!anchor.contains(target) && !target.closest('.cdk-overlay-container') && target.isConnected) this.closed.emit();
  }
}

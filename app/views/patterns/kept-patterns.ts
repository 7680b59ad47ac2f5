import { computed, inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { deletePattern, keepPattern } from '@core/commands/patterns';
import type { Id } from '@core/model/ids';
import type { AskedPattern, KeptPattern } from '@core/model/pattern';
import { naturalOrder } from '@core/text/natural-order';
import { quoted } from '@core/text/quoted';
import { signOf } from '@core/text/sign-of';
import { ScopeChoice } from '../../state/scope-choice';
import { StudySession } from '../../state/study-session';
import { selectData, selectPatterns, selectScope } from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import { Ask } from '../../ui/dialogs/ask';
import { mayGo } from '../../ui/dialogs/may-go';
import { PatternDraft } from './pattern-draft';

/** Patterns that are kept by name: keeping, showing again, and what they were looked at in. */
@Injectable()
export class KeptPatterns {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly draft = inject(PatternDraft);
  private readonly scopeChoice = inject(ScopeChoice);
  private readonly ways = inject(Ways);
  private readonly data = this.store.selectSignal(selectData);
  private readonly table = this.store.selectSignal(selectPatterns);
  private readonly scope = this.store.selectSignal(selectScope);
  readonly all = computed(() => naturalOrder(Object.values(this.table()), ({ name }) => name));

  /** The kept pattern that asks just this. */
  of(asked: AskedPattern): KeptPattern | null {
    const now = signOf(asked);
    return this.all().find((one) => signOf(one.asked) === now) ?? null;
  }

  /** Whether a pattern was kept while something else was looked at. */
  isElsewhere(kept: KeptPattern): boolean {
    return signOf(kept.scope) !== signOf(this.scope());
  }

  async keep(asked: AskedPattern, title: string): Promise<void> {
    const scope = this.scope();
    const reply = await this.ask.reply({
      title: 'Keep the pattern',
      lines: ['It is worked out anew whenever it is shown.'],
      label: 'Name',
      text: title.slice(0, 200),
      yes: 'Keep',
      tries: (typed) => this.session.attempt(keepPattern(typed, asked, scope)).refused,
      ...(this.all().length > 0 && { other: 'Replace the one of this name' }),
    });
    if (reply?.chose === 'other') this.session.run(keepPattern(reply.text, asked, scope, true));
  }

  show({ asked }: KeptPattern): void {
    this.draft.show(asked);
    this.ways.go(['patterns'], { queryParams: { view: asked.pattern } });
  }

  /** Two of them beside each other. */
  showBeside(): void {
    const [left, right] = this.all();
    this.ways.go(['patterns'], { queryParams: { view: 'beside', left: left?.id, right: right?.id } });
  }

  /** Looks at what was looked at when it was kept. */
  lookThere({ scope }: KeptPattern): void {
    void this.scopeChoice.choose(scope);
  }

  async remove(id: Id): Promise<void> {
    const title = `Delete the pattern ${quoted(this.table()[id]!.name)}?`;
    if (await mayGo(this.ask, this.data()!, 'pattern', id, title)) this.session.run(deletePattern(id));
  }
}

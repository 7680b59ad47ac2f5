import { computed, inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { deleteSearch, keepSearch, seeSearch } from '@core/commands/searches';
import type { Id } from '@core/model/ids';
import { seenOf, sinceSeen } from '@core/queries/seen';
import { keysOfHits } from '@core/words/seen-hits';
import { StudySession } from '../../../state/study-session';
import { selectData } from '../../../state/study.selectors';
import { Ask } from '../../../ui/dialogs/ask';
import { WordsDraft } from '../../../state/words-draft';
import { Looking } from './looking';

/** Searches that are kept by name: kept, asked again, and what they find that is new. */
@Injectable()
export class KeptSearches {
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly draft = inject(WordsDraft);
  private readonly looking = inject(Looking);
  private readonly data = inject(Store).selectSignal(selectData);
  readonly all = computed(() => Object.values(this.data()?.tables.search ?? {}).sort((a, b) => a.name.localeCompare(b.name)));
  /** The kept search that is looked for just so. */
  readonly kept = computed(() => {
    const asked = JSON.stringify(this.draft.search());
    return this.all().find((one) => JSON.stringify(one.search) === asked) ?? null;
  });
  /** All that is found is there: what is new can be told, and be seen. */
  readonly isWhole = computed(() => this.looking.progress() === null && !this.looking.more() && !this.draft.onlyUncoded());
  private readonly keys = computed(() => (this.isWhole() ? keysOfHits(this.looking.hits()) : []));
  /** What is new and what is gone since all of it was seen last; null where that cannot be told. */
  readonly since = computed(() => {
    const seen = this.kept()?.seen;
    if (!seen || !this.isWhole()) return null;
    const { fresh, gone } = sinceSeen(this.keys(), seen);
    const hits = this.looking.hits();
    return { at: seen.at, gone, fresh: new Set(hits.filter((_, at) => fresh.has(this.keys()[at]!))) };
  });

  async keep(): Promise<void> {
    const search = this.draft.search();
    const reply = await this.ask.reply({
      title: 'Keep the search',
      lines: [],
      label: 'Name',
      text: search.typed.slice(0, 200),
      yes: 'Keep',
      tries: (name) => this.session.attempt(keepSearch(name, search)).refused,
      ...(this.all().length > 0 && { other: 'Replace the one of this name' }),
    });
    if (reply?.chose === 'other') this.session.run(keepSearch(reply.text, search, true));
  }

  remove(id: Id): void {
    this.session.run(deleteSearch(id));
  }

  /** Remembers what is found as it is: the next time what is new is told. */
  see(): void {
    const kept = this.kept();
    if (kept && this.isWhole()) this.session.run(seeSearch(kept.id, seenOf(this.keys())));
  }
}

import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import type { JournalEntry } from '@core/change/journal';
import { fold } from '@core/text/fold';
import { dayOf, groupLog, type LogKind } from '@core/log/group-log';
import { ownEntryTest } from '@core/log/wish';
import type { Id } from '@core/model/ids';
import type { LogEntry } from '@core/model/log-entry';
import { StudySession } from '../../state/study-session';
import { selectHistory, selectLogEntries } from '../../state/study.selectors';

/** Entries that are shown at a time. */
const PAGE = 150;

/** Which entries are wanted: of one kind, of the researcher's own, or of every kind. */
export type Kind = LogKind | 'own' | '';

/** The entries of the log as they are narrowed: of whom, of what kind, about what, when and with which words. */
@Injectable()
export class LogShown {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly history = this.store.selectSignal(selectHistory);
  private readonly own = this.store.selectSignal(selectLogEntries);
  readonly coderId = signal<Id | ''>('');
  readonly kind = signal<Kind>('');
  readonly codeId = signal<Id | ''>('');
  readonly documentId = signal<Id | ''>('');
  readonly days = signal(0);
  readonly typed = signal('');
  private readonly entries = signal<readonly JournalEntry[]>([]);
  readonly next = signal<number | null>(null);
  readonly searching = signal(false);
  private turn = 0;

  /** What is typed, word by word: each must be somewhere. */
  private readonly words = computed(() => fold(this.typed()).split(/\s+/).filter(Boolean));
  readonly ownEntries = computed((): LogEntry[] => {
    if (this.kind() && this.kind() !== 'own') return [];
    if (this.codeId() || this.documentId()) return [];
    const wish = { words: this.words(), ...(this.coderId() && { coderId: this.coderId() }) };
    return Object.values(this.own()).filter(ownEntryTest(wish, this.days() > 0 ? dayOf(this.from()) : ''));
  });
  /** Days, the newest first, each with its groups and the researcher's own entries. */
  readonly shown = computed(() => {
    const groups = Map.groupBy(groupLog(this.kind() === 'own' ? [] : this.entries()), (group) => dayOf(group.entries[0]!.at));
    const own = Map.groupBy(this.ownEntries(), (entry) => entry.day);
    const oldest = this.next() === null ? '' : dayOf(this.entries().at(-1)?.at ?? 0);
    return [...new Set([...groups.keys(), ...own.keys()])]
      .filter((day) => day >= oldest)
      .sort()
      .reverse()
      .map((day) => ({ day, date: new Date(`${day}T12:00:00`), groups: groups.get(day) ?? [], own: own.get(day) ?? [] }));
  });

  constructor() {
    effect(() => {
      this.history();
      this.coderId();
      this.kind();
      this.codeId();
      this.documentId();
      this.days();
      this.typed();
      untracked(() => void this.load(true));
    });
  }

  private from(): number {
    const start = new Date();
    start.setHours(0, 0, 0, 0);
    return start.getTime() - (this.days() - 1) * 86_400_000;
  }

  private filter(): Parameters<StudySession['findEntries']>[0] {
    const kind = this.kind();
    const words = this.words();
    const { codeId, documentId } = { codeId: this.codeId(), documentId: this.documentId() };
    const touching = documentId ? [`document:${documentId}`] : codeId ? [`code:${codeId}`, `coding:${codeId}`] : [];
    const both = documentId !== '' && codeId !== '';
    return {
      touching,
      ...(this.coderId() && { coderId: this.coderId() }),
      ...(kind && kind !== 'own' && { kind }),
      words,
      ...(this.days() > 0 && { from: this.from() }),
      ...(both && {
        fits: (entry: JournalEntry) =>
          entry.change.some(
            (one) =>
              one.type === 'passage' &&
              [...(one.before?.codings ?? []), ...(one.after?.codings ?? [])].some((coding) => coding.codeId === codeId),
          ),
      }),
    };
  }

  async load(anew: boolean): Promise<void> {
    const turn = ++this.turn;
    if (this.kind() === 'own') {
      this.entries.set([]);
      this.next.set(null);
      return;
    }
    this.searching.set(true);
    const before = anew ? this.history().seq + 1 : this.next()!;
    const limit = anew ? Math.max(PAGE, Math.min(this.entries().length, 1_000)) : PAGE;
    const page = await this.session.findEntries(this.filter(), before, limit, () => turn === this.turn);
    if (turn !== this.turn) return;
    this.searching.set(false);
    this.entries.set(anew ? page.entries : [...this.entries(), ...page.entries]);
    this.next.set(page.next);
  }

  /** Everything that is wanted, the newest first. */
  async all(): Promise<readonly JournalEntry[]> {
    if (this.kind() === 'own') return [];
    return (await this.session.findEntries(this.filter(), this.history().seq + 1, Infinity)).entries;
  }
}

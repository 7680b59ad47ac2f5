import { Counted } from '../../../ui/counted/counted';
import { counted } from '@core/text/counted';
import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { replaceWords } from '@core/commands/replace-words';
import { writeCsv } from '@core/formats/csv/write-csv';
import type { Text } from '@core/model/document';
import { findInTexts, replaceHits, type TextHit } from '@core/text/find-replace';
import { normaliseText } from '@core/text/normalise';
import { TextCache } from '../../../state/text-cache';
import { StudySession } from '../../../state/study-session';
import { Notices } from '../../../state/notices';
import { selectDocuments, selectScopedDocuments, selectStudy } from '../../../state/study.selectors';
import { Icon } from '../../../ui/icon/icon';
import { saveFile } from '../../../ui/save-file';

/** Hits that are shown at most; all of them are replaced only when all are shown. */
const MOST_HITS = 5_000;
/** Texts that are read before the interface may breathe. */
const AT_ONCE = 20;

interface HitRow {
  readonly hit: TextHit;
  readonly key: string;
  readonly title: string;
  readonly before: string;
  readonly words: string;
  readonly after: string;
}

/** What was replaced by what: kept in memory until it is saved as a key file or the page is left. */
interface KeyLine {
  readonly written: string;
  readonly by: string;
  readonly document: string;
  readonly places: number;
}

/** Finds words in one or many documents, shows every place, and puts others there. */
@Component({
  selector: 'fl-replace',
  imports: [Counted, RouterLink, CdkVirtualScrollViewport, CdkFixedSizeVirtualScroll, CdkVirtualForOf, Icon],
  templateUrl: './replace.html',
  styleUrl: './replace.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Replace {
  /** From the address: one document only. */
  readonly document = input<string>();
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly notices = inject(Notices);
  private readonly cache = inject(TextCache);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly scoped = this.store.selectSignal(selectScopedDocuments);
  private readonly all = this.store.selectSignal(selectDocuments);

  protected readonly words = signal('');
  protected readonly by = signal('');
  protected readonly matchCase = signal(true);
  protected readonly wholeWords = signal(true);
  protected readonly everywhere = signal(true);
  protected readonly onlyOne = signal(true);
  protected readonly rows = signal<readonly HitRow[]>([]);
  protected readonly left = signal<ReadonlySet<string>>(new Set());
  protected readonly searching = signal(false);
  protected readonly key = signal<readonly KeyLine[]>([]);
  private texts = new Map<string, Text>();
  private run = 0;

  protected readonly one = computed(() => this.all()[this.document() ?? '']);
  private readonly searched = computed(() => (this.one() && this.onlyOne() ? [this.one()!] : this.scoped()));
  protected readonly chosen = computed(() => this.rows().filter((row) => !this.left().has(row.key)));
  protected readonly documents = computed(() => new Set(this.chosen().map((row) => row.hit.documentId)).size);
  protected readonly full = computed(() => this.rows().length >= MOST_HITS);
  protected readonly byKey = (_: number, row: HitRow): string => row.key;

  constructor() {
    effect((onCleanup) => {
      const sought = { words: this.words(), matchCase: this.matchCase(), wholeWords: this.wholeWords() };
      const documents = this.searched();
      // found anew where a text was changed: what was found may stand elsewhere now
      this.cache.changes();
      // from now on: what is listed still belongs to other words, and must not be replaced
      this.searching.set(true);
      const timer = setTimeout(
        () =>
          untracked(
            () =>
              void this.search(
                sought,
                documents.map((document) => document.id),
              ),
          ),
        200,
      );
      onCleanup(() => clearTimeout(timer));
    });
  }

  private async search(sought: { words: string; matchCase: boolean; wholeWords: boolean }, ids: readonly string[]): Promise<void> {
    const run = ++this.run;
    this.left.set(new Set());
    if (!sought.words.trim()) {
      this.rows.set([]);
      return this.searching.set(false);
    }
    const rows: HitRow[] = [];
    const texts = new Map<string, Text>();
    for (let at = 0; at < ids.length && rows.length < MOST_HITS; at += AT_ONCE) {
      const some = await this.session.textsOf(ids.slice(at, at + AT_ONCE));
      if (run !== this.run) return;
      for (const hit of findInTexts(some, sought, MOST_HITS - rows.length)) {
        const text = some.find((one) => one.id === hit.documentId)!;
        texts.set(text.id, text);
        rows.push(this.row(hit, text));
      }
    }
    this.texts = texts;
    this.rows.set(rows);
    this.searching.set(false);
  }

  private row(hit: TextHit, text: Text): HitRow {
    const around = (from: number, to: number): string => text.text.slice(Math.max(0, from), to).replace(/\n/g, ' ¶ ');
    return {
      hit,
      key: `${hit.documentId} ${hit.start}`,
      title: this.all()[hit.documentId]?.title ?? '',
      before: around(hit.start - 60, hit.start),
      words: text.text.slice(hit.start, hit.end),
      after: around(hit.end, hit.end + 60),
    };
  }

  protected take(key: string, on: boolean): void {
    const left = new Set(this.left());
    if (on) left.delete(key);
    else left.add(key);
    this.left.set(left);
  }

  protected replace(): void {
    if (this.searching()) return;
    const by = normaliseText(this.by());
    const groups = [...Map.groupBy(this.chosen(), (row) => row.hit.documentId)];
    const corrections = groups.map(([id, rows]) => ({
      text: this.texts.get(id)!,
      edits: replaceHits(
        rows.map((row) => row.hit),
        by,
      ),
    }));
    const replacement = {
      words: this.words(),
      matchCase: this.matchCase(),
      wholeWords: this.wholeWords(),
      by,
      everywhere: this.everywhere(),
    };
    const done = this.session.run(replaceWords(corrections, replacement));
    if (!done) return;
    this.key.update((known) => [
      ...known,
      ...groups.flatMap(([, rows]) =>
        [...Map.groupBy(rows, (row) => row.words)].map(([written, some]) => ({
          written,
          by,
          document: some[0]!.title,
          places: some.length,
        })),
      ),
    ]);
    this.notices.say(`Replaced in ${counted(this.chosen().length, 'place')}.`);
    this.rows.set([]);
    this.words.set('');
  }

  /** The key leads from the names back to people: it is a file of its own, and no part of the study. */
  protected saveKey(): void {
    const rows = this.key().map((line) => [line.written, line.by, line.document, line.places]);
    saveFile(
      `${this.study()!.title} – key to replaced names.csv`,
      writeCsv([['written before', 'written now', 'document', 'places'], ...rows]),
      'text/csv',
    );
  }
}

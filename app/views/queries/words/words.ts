import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { sweep } from '@core/commands/sweep';
import type { Id } from '@core/model/ids';
import type { HitUnit, WordMatch, WordSearch } from '@core/model/word-search';
import { counted } from '@core/text/counted';
import type { SweepContext } from '@core/words/contexts';
import { WholeStudy } from '../../../ui/whole-study';
import type { FoundElsewhere } from '@core/words/find-elsewhere';
import type { FoundHit } from '@core/words/found-hit';
import { countHits, HIT_GROUPS, keysOf, type HitGroup } from '@core/words/group-hits';
import { StudySession } from '../../../state/study-session';
import { selectCodes, selectData, selectDocuments } from '../../../state/study.selectors';
import { Ways } from '../../../state/ways';
import { ChooseCode, wantedCodes } from '../../../ui/picker/choose-code';
import { SentencePart, type Choice } from '../../../ui/sentence/sentence-part';
import { Swatch } from '../../../ui/swatch/swatch';
import { AnalysisService } from '../../../workers/analysis-service';
import { QueryTabs } from '../query-tabs';
import { HitGroups } from './hit-groups';
import { KeptSearches } from './kept-searches';
import { WordsDraft } from '../../../state/words-draft';
import { Looking } from './looking';
import { sinceWords } from '../since-words';
import { KeptMenu } from '../../../ui/kept-menu';

type Order = 'as in the documents' | 'by what stands before' | 'by what stands after';

/** The last word first: what stands before is compared from the hit outwards. */
const backwards = (words: string): string => words.trim().toLowerCase().split(/\s+/u).toReversed().join(' ');
const COLLATOR = new Intl.Collator(undefined, { sensitivity: 'base' });

/** Words in texts: typed, found at once, seen lined up or in their unit, and coded. */
@Component({
  selector: 'fl-words',
  imports: [HitGroups, KeptMenu, QueryTabs, ScrollingModule, SentencePart, Swatch, WholeStudy],
  providers: [KeptSearches, Looking],
  templateUrl: './words.html',
  styleUrl: './words.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Words {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly analysis = inject(AnalysisService);
  private readonly dialog = inject(MatDialog);
  private readonly ways = inject(Ways);
  private readonly data = this.store.selectSignal(selectData);
  private readonly documents = this.store.selectSignal(selectDocuments);
  private readonly codes = this.store.selectSignal(selectCodes);
  protected readonly draft = inject(WordsDraft);
  protected readonly looking = inject(Looking);
  protected readonly kept = inject(KeptSearches);
  protected readonly search = this.draft.search;
  protected readonly order = signal<Order>('as in the documents');
  /** Places of hits among those found that are chosen. */
  protected readonly chosen = signal<ReadonlySet<FoundHit>>(new Set());
  /** What the hits are counted by at the side, and which of these is looked at. */
  protected readonly countedBy = signal<HitGroup>('document');
  protected readonly group = signal<string | null>(null);
  /** Only what is new since all of it was seen last. */
  protected readonly onlyNew = signal(false);
  private readonly narrowed = computed((): readonly FoundHit[] => {
    const fresh = this.onlyNew() ? this.kept.since()?.fresh : undefined;
    const [group, tables] = [this.group(), this.data()?.tables];
    return this.looking
      .hits()
      .filter((hit) => (!fresh || fresh.has(hit)) && (group === null || !tables || keysOf(hit, this.countedBy(), tables).includes(group)));
  });
  protected readonly counts = computed(() => {
    const tables = this.data()?.tables;
    return tables ? countHits(this.looking.hits(), this.countedBy(), tables) : [];
  });
  protected readonly groups = computed((): Choice<HitGroup>[] =>
    HIT_GROUPS.map((by) => ({ value: by, name: by === 'case' ? (this.data()?.study.caseWord ?? by) : by })),
  );
  protected readonly groupWords = computed(() => this.groups().find((one) => one.value === this.countedBy())!.name);
  protected readonly sinceWords = computed(() => {
    const since = this.kept.since();
    return since && sinceWords(since.at, since.fresh.size, since.gone);
  });
  protected readonly hits = computed((): readonly FoundHit[] => {
    const hits = this.narrowed();
    switch (this.order()) {
      case 'as in the documents':
        return hits;
      case 'by what stands before':
        return sorted(hits, (hit) => backwards(hit.before));
      case 'by what stands after':
        return sorted(hits, (hit) => hit.after.trim());
    }
  });
  protected readonly picked = computed(() => this.hits().filter((hit) => this.chosen().has(hit)));
  protected readonly summary = computed(() => {
    const first = this.looking.more() ? 'the first ' : '';
    if (this.draft.where() === 'writing') return first + counted(this.looking.elsewhere().length, 'place');
    const hits = this.hits();
    return `${first}${counted(hits.length, 'hit')} in ${counted(new Set(hits.map((hit) => hit.documentId)).size, 'document')}${this.looking.looksOn() ? ' so far' : ''}`;
  });
  protected readonly matches: readonly Choice<WordMatch>[] = [
    { value: 'whole words', name: 'whole words' },
    { value: 'parts of words', name: 'parts of words' },
    { value: 'all forms', name: 'words in all their forms' },
    { value: 'regular expression', name: 'a regular expression' },
  ];
  protected readonly matchWords = computed(() => this.matches.find((one) => one.value === this.search().match)!.name);
  protected readonly units: readonly Choice<HitUnit>[] = [
    { value: 'words', name: 'the words' },
    { value: 'sentence', name: 'the sentence' },
    { value: 'paragraph', name: 'the paragraph' },
    { value: 'turn', name: 'the turn' },
    { value: 'document', name: 'the document' },
  ];
  protected readonly unitWords = computed(() => this.units.find((one) => one.value === this.search().unit)!.name);
  protected readonly capitals: readonly Choice<boolean>[] = [
    { value: false, name: 'whatever the capitals' },
    { value: true, name: 'with capitals as written' },
  ];
  protected readonly accents: readonly Choice<boolean>[] = [
    { value: false, name: 'whatever the accents' },
    { value: true, name: 'with accents as written' },
  ];
  protected readonly places: readonly Choice<'texts' | 'writing'>[] = [
    { value: 'texts', name: 'in the texts' },
    { value: 'writing', name: 'in memos, comments and codes' },
  ];
  protected readonly placeWords = computed(() => this.places.find((one) => one.value === this.draft.where())!.name);
  protected readonly coded: readonly Choice<boolean>[] = [
    { value: false, name: 'coded or not' },
    { value: true, name: 'not coded yet' },
  ];
  protected readonly orders: readonly Choice<Order>[] = (
    ['as in the documents', 'by what stands before', 'by what stands after'] as const
  ).map((order) => ({ value: order, name: order }));
  protected readonly contexts: readonly Choice<SweepContext>[] = [
    { value: 'hit', name: 'what was found' },
    ...(['sentence', 'paragraph', 'turn'] as const).flatMap((unit) =>
      [0, 1, 2].map((around) => ({
        value: { unit, around },
        name: around === 0 ? `the ${unit}` : `the ${unit} with ${around} before and after`,
      })),
    ),
  ];
  protected readonly contextWords = computed(() => {
    const now = JSON.stringify(this.draft.context());
    return this.contexts.find((one) => JSON.stringify(one.value) === now)?.name ?? 'what was found';
  });

  constructor() {
    effect(() => {
      this.looking.hits();
      this.chosen.set(new Set());
    });
    effect(() => {
      this.search();
      this.group.set(null);
      this.onlyNew.set(false);
    });
    effect(() => {
      // what was looked at may have no hits any more
      const group = this.group();
      if (group !== null && this.looking.progress() === null && !this.counts().some((one) => one.key === group)) this.group.set(null);
    });
  }

  protected countBy(by: HitGroup): void {
    this.group.set(null);
    this.countedBy.set(by);
  }

  protected async lists(): Promise<void> {
    const { WordLists } = await import('./word-lists');
    const name = await WordLists.open(this.dialog);
    if (name !== undefined) this.set({ typed: `${this.search().typed} [${name}]`.trim() });
  }

  protected ask(search: WordSearch): void {
    this.search.set(search);
  }

  /** Goes to what was found beside the texts. */
  protected open({ of, id, documentId }: FoundElsewhere): void {
    if (of === 'memo') this.ways.go(['memos'], { queryParams: { memo: id } });
    else if (of === 'code') this.ways.go(['codebook'], { queryParams: { code: id } });
    else if (documentId) this.ways.go(['reading', documentId], { queryParams: { passage: id, from: 'the search' } });
  }

  protected set(fields: Partial<WordSearch>): void {
    this.search.update((search) => ({ ...search, ...fields }));
  }

  protected title(hit: FoundHit): string {
    return this.documents()[hit.documentId]?.title ?? '';
  }

  /** Codes there is room for on a line; the others are counted. */
  protected readonly shownCodes = 2;

  protected namesOf(hit: FoundHit): string {
    return this.codesOf(hit)
      .map((code) => code.name)
      .join(', ');
  }

  protected codesOf(hit: FoundHit) {
    return hit.codeIds.map((id) => this.codes()[id]).filter((code) => code !== undefined);
  }

  /** What is found, cut where the words begin and end. */
  protected pieces({ said, words }: FoundHit): { readonly text: string; readonly found: boolean }[] {
    const pieces: { text: string; found: boolean }[] = [];
    let at = 0;
    for (const { start, end } of words) {
      if (start > at) pieces.push({ text: said.slice(at, start), found: false });
      pieces.push({ text: said.slice(start, end), found: true });
      at = end;
    }
    if (at < said.length) pieces.push({ text: said.slice(at), found: false });
    return pieces;
  }

  protected toggle(hit: FoundHit): void {
    const next = new Set(this.chosen());
    if (!next.delete(hit)) next.add(hit);
    this.chosen.set(next);
  }

  protected chooseAll(all: boolean): void {
    this.chosen.set(new Set(all ? this.hits() : []));
  }

  protected read(hit: FoundHit): void {
    this.ways.go(['reading', hit.documentId], { queryParams: { words: `${hit.start}-${hit.end}`, from: 'the search' } });
  }

  /** Gives the chosen hits a code, with the context that was said, as one step. */
  protected async sweep(): Promise<void> {
    const picked = this.picked();
    const chosen = await ChooseCode.open(this.dialog, {
      title: `Sweep ${counted(picked.length, 'hit')} with the code…`,
      lines: [`Coded is ${this.contextWords()}; contexts that touch become one, and nothing is coded twice.`],
      mayMake: true,
    });
    const data = this.data();
    const wanted = wantedCodes(chosen);
    if (!wanted || !data) return;
    const byDocument = new Map<Id, { start: number; end: number }[]>();
    for (const { documentId, start, end } of [...picked].sort((a, b) => a.start - b.start)) {
      const some = byDocument.get(documentId);
      if (some) some.push({ start, end });
      else byDocument.set(documentId, [{ start, end }]);
    }
    const documents = await this.analysis.contexts(data, byDocument, this.draft.context());
    if (documents) this.session.run(sweep(documents, wanted));
  }
}

const sorted = (hits: readonly FoundHit[], by: (hit: FoundHit) => string): FoundHit[] =>
  hits
    .map((hit) => [by(hit), hit] as const)
    .sort(([a], [b]) => COLLATOR.compare(a, b))
    .map(([, hit]) => hit);

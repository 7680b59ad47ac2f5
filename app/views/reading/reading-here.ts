import type { Position } from '@core/change/moves-in';
import { computed, DestroyRef, effect, inject, Injectable, resource, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { GlossFinder } from '@core/glosses/find-glosses';
import { hasText, type Document, type Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Coding, Passage } from '@core/model/passage';
import type { PassageColumns } from '@core/model/passage-columns';
import { subjectsOf } from '@core/memos/references';
import { passageOf, unpackPassages } from '@core/passages/columns';
import { withDescendants } from '@core/codebook/tree';
import { MovedHere } from '../../state/moved-here';
import { ReaderSettings, type SlipChoice } from '../../state/reader-settings';
import {
  selectCases,
  selectCodes,
  selectDocuments,
  selectGlosses,
  selectMemos,
  selectPassages,
  selectNarrowing,
  selectSpoken,
  selectStudy,
} from '../../state/study.selectors';
import { TextCache } from '../../state/text-cache';
import type { Place, Stretch } from '@core/model/stretch';
import { overlaps } from '@core/passages/relations';
import { SetMembers } from './set-members';
import { Trail } from './trail';
import type { ReadingSurface } from './surface/reading-surface';
import type { SlipFilter } from './surface/slips';

/** The document that is being read in one pane, and what of it is shown. */
@Injectable()
export class ReadingHere {
  private readonly store = inject(Store);
  private readonly texts = inject(TextCache);
  private readonly settings = inject(ReaderSettings);
  private readonly documents = this.store.selectSignal(selectDocuments);
  private readonly passageTable = this.store.selectSignal(selectPassages);
  readonly codes = this.store.selectSignal(selectCodes);
  private readonly cases = this.store.selectSignal(selectCases);
  private readonly memoTable = this.store.selectSignal(selectMemos);
  private readonly narrowing = this.store.selectSignal(selectNarrowing);
  private readonly spoken = this.store.selectSignal(selectSpoken);
  private readonly glosses = this.store.selectSignal(selectGlosses);
  private readonly study = this.store.selectSignal(selectStudy);
  private readonly setMembers = inject(SetMembers);

  readonly documentId = signal<Id | undefined>(undefined);
  readonly chosenId = signal<Id | null>(null);
  /** First position in view. */
  readonly at = signal(0);
  /** Codes whose passages alone are shown, with what is under them; null for all. */
  readonly only = signal<Id | null>(null);
  readonly slipChoice = signal<SlipChoice>({ of: 'all' });
  /** Where the reader jumped from. */
  readonly trail = new Trail();
  /** Where on the screen the chosen or marked place of the recording or picture is; null where that is not known. */
  coordsOfMarked: () => { readonly left: number; readonly top: number; readonly bottom: number } | null = () => null;
  /** The surface, once it is drawn. */
  surface: () => ReadingSurface | undefined = () => undefined;

  /** Where the reader is. */
  place(): Position {
    return { documentId: this.documentId()!, position: this.at() };
  }

  /** Brings a stretch into view; where that leads off the screen, what was there can be come back to. */
  goTo(stretch: Stretch): void {
    const surface = this.surface();
    if (!surface) return;
    if (!surface.shows(stretch.start)) this.trail.leave(this.place());
    surface.goTo(stretch);
  }

  readonly document = computed((): Document | undefined => this.documents()[this.documentId() ?? '']);
  /** Read from disk where it is not in memory; anew whenever a text has changed. */
  readonly loading = resource({
    params: () => ({ id: this.document()?.id, changes: this.texts.changes() }),
    loader: async ({ params }) => ({ changes: params.changes, text: params.id === undefined ? null : await this.texts.get(params.id) }),
  });
  /** From memory at once where it is there, else when it has been read. */
  readonly text = computed((): Text | undefined => {
    const id = this.document()?.id;
    if (id === undefined) return undefined;
    const changes = this.texts.changes();
    const loaded = this.loading.hasValue() ? this.loading.value() : undefined;
    const read = loaded?.changes === changes && loaded.text?.id === id ? loaded.text : undefined;
    return this.texts.peek(id) ?? read;
  });
  readonly language = computed(() => this.study()?.language ?? 'en');

  /** The page of a PDF that is seen beside its text; a document of the study only once something of it is coded. */
  readonly page = signal<Document | undefined>(undefined);
  /** The recording or the picture at hand: the document itself, what it belongs to, or a page of it; undefined where there is none. */
  readonly original = computed((): Document | undefined => {
    const document = this.document();
    if (!document || !hasText(document)) return document;
    if (document.seen) return this.page();
    const owner = this.documents()[document.belongsTo ?? ''];
    return owner && !hasText(owner) ? owner : undefined;
  });
  /** A span of the recording or an area of the picture that is marked and not coded yet. */
  readonly marked = signal<Place | null>(null);

  /** Every passage of the document, in reading order. */
  readonly allPassages = computed((): readonly Passage[] => {
    const columns = this.passageTable()[this.documentId() ?? ''];
    return columns ? unpackPassages(columns) : [];
  });
  /** Those that the scope and the chosen codes leave. */
  readonly passages = computed(() => this.passagesLeft(this.documentId()));
  /** The same of the recording or picture that a text belongs to; none where there is none, or it is the document itself. */
  readonly originalPassages = computed((): readonly Passage[] => {
    const original = this.original();
    return original && original.id !== this.documentId() ? this.passagesLeft(original.id) : [];
  });

  /** Whether the document that is read is in what everything looks at. */
  readonly inScope = computed(() => {
    const document = this.document();
    return !document || this.narrowing().holds(document, this.spoken()[document.id] ?? null);
  });

  /** Whether passages of the document may not be shown. */
  readonly leavesOut = computed(() => !this.narrowing().isEverything || this.only() !== null);

  /** What is in scope of a document; of one that is not in the scope itself, whatever was coded by whom and when one looks at. */
  private leftHere(columns: PassageColumns): PassageColumns | null {
    const document = this.documents()[columns.documentId];
    const [narrowing, spoken] = [this.narrowing(), this.spoken()[columns.documentId] ?? null];
    return document && narrowing.holds(document, spoken) ? narrowing.leftOf(columns, document, spoken) : narrowing.codedIn(columns);
  }

  private passagesLeft(documentId: Id | undefined): readonly Passage[] {
    const only = this.only();
    const columns = this.passageTable()[documentId ?? ''];
    const own = columns && this.leftHere(columns);
    const passages = own ? unpackPassages(own) : [];
    if (!only || !Object.hasOwn(this.codes(), only)) return passages;
    const under = new Set(withDescendants(this.codes(), only));
    return passages
      .map((passage) => ({ ...passage, codings: passage.codings.filter((coding) => under.has(coding.codeId)) }))
      .filter((passage) => passage.codings.length > 0);
  }

  /** A passage with all its codings, those that are not shown among them. */
  wholePassage({ documentId, id }: Passage): Passage | undefined {
    return passageOf(this.passageTable()[documentId], id);
  }
  readonly coding = computed(() => ({ passages: this.passages(), codes: this.codes() }));
  readonly wholeCoding = computed(() => ({ passages: this.allPassages(), codes: this.codes() }));
  readonly chosen = computed(() => [...this.passages(), ...this.originalPassages()].find((passage) => passage.id === this.chosenId()));
  /** The document that the chosen passage is of: the one that is read, or what it belongs to. */
  readonly chosenDocument = computed(() => this.documents()[this.chosen()?.documentId ?? '']);
  /** What belongs to the text that is read: pages of it, for instance. */
  readonly belonging = computed(() => Object.values(this.documents()).filter((one) => one.belongsTo === this.documentId()));
  /** Other passages that meet the chosen one: the same place by somebody else, what lies in it and around it. */
  readonly alsoHere = computed((): readonly Passage[] => {
    const chosen = this.chosen();
    if (!chosen) return [];
    const beside = chosen.documentId === this.documentId() ? this.passages() : this.originalPassages();
    return beside.filter((one) => one.id !== chosen.id && overlaps(one, chosen));
  });
  /** Marked and not coded yet: to be decided. */
  readonly undecided = computed(() => this.passages().filter((passage) => passage.codings.length === 0));

  private readonly passageMemos = computed(() =>
    Object.values(this.memoTable()).flatMap((memo) =>
      subjectsOf(memo).flatMap((subject) =>
        subject.type === 'passage' && (subject.documentId === this.documentId() || subject.documentId === this.original()?.id)
          ? [{ memo, passageId: subject.id }]
          : [],
      ),
    ),
  );
  readonly memoTitles = computed(() => new Map(this.passageMemos().map(({ memo, passageId }) => [passageId, memo.title])));
  readonly chosenMemos = computed(() =>
    this.passageMemos().flatMap(({ memo, passageId }) => (passageId === this.chosenId() ? [memo] : [])),
  );
  readonly glossFinder = computed(() => new GlossFinder(Object.values(this.glosses())));

  constructor() {
    const following = inject(MovedHere).moves.subscribe(({ at }) => this.trail.follow(at));
    inject(DestroyRef).onDestroy(() => following.unsubscribe());
    effect(() => {
      const choice = this.slipChoice();
      this.setMembers.wanted.set(choice.of === 'set' ? choice.id : null);
    });
  }

  /** Which codings the margin names. */
  readonly slipsOf = computed((): SlipFilter => {
    const choice = this.slipChoice();
    if (choice.of === 'all') return () => true;
    if (choice.of === 'coder') return (coding: Coding) => coding.coderId === choice.id;
    if (choice.of === 'set') {
      const members = this.setMembers.members();
      return (coding: Coding) => !members || members.has(coding.codeId);
    }
    const codes = new Set(choice.of === 'pinned' ? this.settings.pinned() : withDescendants(this.codes(), choice.id));
    return (coding: Coding) => codes.has(coding.codeId);
  });

  /** Who the document's words are, in a line: attributes of its one case. */
  readonly subject = computed(() => {
    const owners = Object.values(this.cases()).filter((one) => one.documentIds.includes(this.documentId() ?? ''));
    if (owners.length !== 1) return '';
    return Object.values(owners[0]!.values)
      .filter((value) => typeof value !== 'boolean')
      .slice(0, 4)
      .join(', ');
  });
}

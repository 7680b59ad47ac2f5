import type { Position } from '@core/change/moves-in';
import { columnsOfCoder } from '@core/passages/by-coder';
import { computed, DestroyRef, effect, inject, Injectable, resource, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { GlossFinder } from '@core/glosses/find-glosses';
import type { Document, Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Coding, Passage } from '@core/model/passage';
import { subjectsOf } from '@core/memos/references';
import { unpackPassages } from '@core/passages/columns';
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
  selectScope,
  selectStudy,
} from '../../state/study.selectors';
import { TextCache } from '../../state/text-cache';
import type { Stretch } from '@core/model/stretch';
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
  private readonly scope = this.store.selectSignal(selectScope);
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

  /** Every passage of the document, in reading order. */
  readonly allPassages = computed((): readonly Passage[] => {
    const columns = this.passageTable()[this.documentId() ?? ''];
    return columns ? unpackPassages(columns) : [];
  });
  /** Those that the scope and the chosen codes leave. */
  readonly passages = computed((): readonly Passage[] => {
    const { coderId } = this.scope();
    const only = this.only();
    const columns = this.passageTable()[this.documentId() ?? ''];
    const own = coderId && columns ? columnsOfCoder(columns, coderId) : columns;
    let passages = own ? unpackPassages(own) : [];
    if (only && Object.hasOwn(this.codes(), only)) {
      const under = new Set(withDescendants(this.codes(), only));
      passages = passages
        .map((passage) => ({ ...passage, codings: passage.codings.filter((coding) => under.has(coding.codeId)) }))
        .filter((passage) => passage.codings.length > 0);
    }
    return passages;
  });
  readonly coding = computed(() => ({ passages: this.passages(), codes: this.codes() }));
  readonly wholeCoding = computed(() => ({ passages: this.allPassages(), codes: this.codes() }));
  readonly chosen = computed(() => this.passages().find((passage) => passage.id === this.chosenId()));
  /** Other passages that share words with the chosen one: the same place by somebody else, what lies in it and around it. */
  readonly alsoHere = computed((): readonly Passage[] => {
    const chosen = this.chosen();
    return chosen ? this.passages().filter((one) => one.id !== chosen.id && one.start < chosen.end && one.end > chosen.start) : [];
  });
  /** Marked and not coded yet: to be decided. */
  readonly undecided = computed(() => this.passages().filter((passage) => passage.codings.length === 0));

  private readonly passageMemos = computed(() =>
    Object.values(this.memoTable()).flatMap((memo) =>
      subjectsOf(memo).flatMap((subject) =>
        subject.type === 'passage' && subject.documentId === this.documentId() ? [{ memo, passageId: subject.id }] : [],
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

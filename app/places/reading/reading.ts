import { DatePipe } from '@angular/common';
import {
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  resource,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { codePlace, removePassage } from '@core/change/commands/passages';
import { tidyLine } from '@core/text/normalise';
import { citation } from '@core/text/place';
import type { Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Passage } from '@core/model/passage';
import { unpackPassages } from '@core/passages/columns';
import type { Stretch } from '@core/passages/relations';
import { Notices } from '../../state/notices';
import { StudyActions } from '../../state/study.actions';
import { StudySession } from '../../state/study-session';
import { TextCache } from '../../state/text-cache';
import {
  selectData,
  selectCases,
  selectCoders,
  selectCodes,
  selectDocuments,
  selectMemos,
  selectPassages,
  selectRecentCodeIds,
  selectScope,
  selectScopedDocuments,
} from '../../state/study.selectors';
import { CodePicker, type Picked } from '../../ui/picker/code-picker';
import { MemoDialog } from '../../ui/memo/memo-dialog';
import { MatDialog } from '@angular/material/dialog';
import { Icon } from '../../ui/icon/icon';
import { CodeList } from './code-list';
import { DocumentFoot } from './document-foot';
import { DocumentMenu } from './document-menu';
import { PassagePanel } from './passage-panel';
import { correctTexts, passagesLost } from '@core/change/commands/correct-text';
import type { TextEdits } from '@core/text/edit';
import { Ask } from '../../ui/dialogs/ask';
import { correctionDrafts } from '../../state/correction-drafts';
import { lastPlaces } from '../../state/last-places';
import { CorrectSurface } from './correct/correct-surface';
import { TextMenu } from './text-menu';
import { ReadingSurface, type SurfaceCommand } from './surface/reading-surface';

/** Reading and coding one document, with the codebook at hand. */
@Component({
  selector: 'fl-reading',
  imports: [DatePipe, CodeList, CodePicker, DocumentFoot, DocumentMenu, PassagePanel, ReadingSurface, CorrectSurface, TextMenu, Icon],
  templateUrl: './reading.html',
  styleUrl: './reading.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Reading {
  /** From the route; without one the document read last. */
  readonly documentId = input<string>();
  /** From the address: the passage to show. */
  readonly passage = input<string>();
  /** From the address: where the researcher came from, to go back to. */
  readonly from = input<string>();

  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly session = inject(StudySession);
  private readonly texts = inject(TextCache);
  private readonly notices = inject(Notices);
  private readonly dialog = inject(MatDialog);
  private readonly ask = inject(Ask);
  private readonly data = this.store.selectSignal(selectData);
  private arrivedIn: Id | undefined;
  private readonly application = inject(ApplicationRef);
  private readonly surface = viewChild(ReadingSurface);
  private readonly codeList = viewChild(CodeList);
  private readonly panel = viewChild(PassagePanel);

  private readonly documents = this.store.selectSignal(selectDocuments);
  protected readonly scoped = this.store.selectSignal(selectScopedDocuments);
  private readonly passageTable = this.store.selectSignal(selectPassages);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly coders = this.store.selectSignal(selectCoders);
  private readonly cases = this.store.selectSignal(selectCases);
  private readonly memoTable = this.store.selectSignal(selectMemos);
  private readonly scope = this.store.selectSignal(selectScope);
  private readonly recent = this.store.selectSignal(selectRecentCodeIds);

  protected readonly document = computed(() => this.documents()[this.documentId() ?? '']);
  protected readonly loading = resource({ params: () => this.document()?.id, loader: ({ params }) => this.texts.get(params) });
  /** From memory at once where it is there, else when it has been read. */
  protected readonly text = computed((): Text | undefined => {
    const id = this.document()?.id;
    const loaded = this.loading.hasValue() ? this.loading.value() : undefined;
    return id === undefined ? undefined : loaded?.id === id ? loaded : this.texts.peek(id);
  });
  protected readonly passages = computed((): readonly Passage[] => {
    const columns = this.passageTable()[this.documentId() ?? ''];
    const all = columns ? unpackPassages(columns) : [];
    const { coderId } = this.scope();
    if (!coderId) return all;
    return all
      .map((passage) => ({ ...passage, codings: passage.codings.filter((coding) => coding.coderId === coderId) }))
      .filter((passage) => passage.codings.length > 0 || passage.coderId === coderId);
  });
  protected readonly coding = computed(() => ({ passages: this.passages(), codes: this.codes() }));
  protected readonly chosenId = signal<Id | null>(null);
  protected readonly chosen = computed(() => this.passages().find((passage) => passage.id === this.chosenId()));
  private readonly passageMemos = computed(() =>
    Object.values(this.memoTable()).filter((memo) => memo.about?.type === 'passage' && memo.about.documentId === this.documentId()),
  );
  protected readonly memoTitles = computed(() => new Map(this.passageMemos().map((memo) => [memo.about!.id, memo.title])));
  protected readonly chosenMemos = computed(() => this.passageMemos().filter((memo) => memo.about?.id === this.chosenId()));
  protected readonly at = signal(0);
  /** Where the code picker is open, and for what. */
  protected readonly picking = signal<{
    readonly place: Stretch;
    readonly left: number;
    readonly top: number;
    readonly words: string;
  } | null>(null);
  protected readonly listOpen = signal(false);
  /** Where the correcting of the text begins, or null while it is read. */
  protected readonly correctFrom = signal<number | null>(null);
  private readonly draftVersion = signal(0);
  /** Corrections that were begun in this document and neither kept nor dropped. */
  protected readonly begun = computed((): TextEdits => {
    this.draftVersion();
    const text = this.text();
    return text ? correctionDrafts.of(text.id, text.text) : [];
  });
  /** All passages, also those that the scope leaves out: a correction moves every one. */
  protected readonly wholeCoding = computed(() => {
    const columns = this.passageTable()[this.documentId() ?? ''];
    return { passages: columns ? unpackPassages(columns) : [], codes: this.codes() };
  });
  protected readonly caret = (): number => this.surface()?.caret() ?? 0;
  protected readonly selection = (): Stretch | null => this.surface()?.selection() ?? null;
  protected readonly coderName = (id: Id): string => this.coders()[id]?.name ?? 'somebody';

  /** Who the document's words are, in a line: attributes of its one case. */
  protected readonly subject = computed(() => {
    const owners = Object.values(this.cases()).filter((one) => one.documentIds.includes(this.documentId() ?? ''));
    if (owners.length !== 1) return '';
    return Object.values(owners[0]!.values)
      .filter((value) => typeof value !== 'boolean')
      .slice(0, 4)
      .join(', ');
  });

  constructor() {
    effect(() => this.chooseDocument());
    effect(() => this.showAddressed());
  }

  private chooseDocument(): void {
    if (this.document()) return;
    const scoped = this.scoped();
    const last = lastPlaces.lastDocument();
    const target = scoped.find((document) => document.id === last) ?? scoped[0];
    if (target) void this.router.navigate(['/study', this.router.url.split('/')[2], 'reading', target.id], { replaceUrl: true });
  }

  /** Shows the passage that the address names, or else where the reader was. */
  private showAddressed(): void {
    const text = this.text();
    const surface = this.surface();
    const passageId = this.passage();
    if (!text || !surface || text.id !== this.documentId()) return;
    untracked(() => {
      const passage = this.passages().find((one) => one.id === passageId);
      this.chosenId.set(passage?.id ?? null);
      this.picking.set(null);
      // the surface takes the text in in an effect of its own, which runs after this one
      setTimeout(() => {
        if (passage) surface.goTo(passage);
        else surface.scrollTo(lastPlaces.placeIn(text.id));
        this.arrivedIn = text.id;
      });
    });
  }

  protected onCommand(command: SurfaceCommand): void {
    switch (command) {
      case 'code':
        return this.openPicker();
      case 'same':
        return this.codeSame();
      case 'words':
        return this.codeWords();
      case 'memo':
        return void this.writeMemo(null);
      case 'comment':
        return this.comment();
      case 'previous':
        return this.step(-1);
      case 'next':
        return this.step(1);
      case 'remove':
        return this.removeChosen();
      case 'copy':
        return void this.copy();
      case 'find':
        return this.codeList()?.focusFind();
    }
  }

  protected openPicker(): void {
    const surface = this.surface();
    const place = surface?.selection() ?? this.chosen() ?? surface?.selectionOrParagraph();
    if (!surface || !place) return;
    const coords = surface.coordsOf(place.end) ?? surface.coordsOf(place.start) ?? { left: 300, bottom: 200, top: 180 };
    const below = coords.bottom + 6 + 340 < innerHeight;
    this.picking.set({
      place: { start: place.start, end: place.end },
      left: Math.max(90, Math.min(coords.left - 60, innerWidth - 370)),
      top: below ? coords.bottom + 6 : Math.max(8, coords.top - 350),
      words: tidyLine(this.text()!.text.slice(place.start, place.end)).slice(0, 120),
    });
    // drawn at once, so that the next key already goes to the picker however fast the hands are
    this.application.tick();
  }

  protected onPicked(picked: Picked): void {
    const picking = this.picking();
    if (picking) this.code(picking.place, picked);
  }

  protected closePicker(): void {
    this.picking.set(null);
    this.surface()?.collapse();
    this.surface()?.focus();
  }

  /** Codes a stretch and shows the passage as chosen. */
  protected code(place: Stretch, picked: Picked): void {
    const documentId = this.document()!.id;
    const done = this.session.run(
      codePlace({
        documentId,
        place,
        codeIds: 'codeId' in picked ? [picked.codeId] : [],
        newCodes: 'newCode' in picked ? [picked.newCode] : [],
      }),
    );
    if ('codeId' in picked) this.store.dispatch(StudyActions.codeUsed({ codeId: picked.codeId }));
    for (const change of done?.change ?? []) {
      if (change.type === 'passage' && change.after) {
        this.chosenId.set(change.after.id);
        if ('newCode' in picked) this.store.dispatch(StudyActions.codeUsed({ codeId: change.after.codings.at(-1)!.codeId }));
      }
    }
    // drawn in the same frame as the key
    this.application.tick();
  }

  /** From the list: the selection, else the chosen passage, else the paragraph at the caret. */
  protected codeFromList(codeId: Id): void {
    const place = this.surface()?.selection() ?? this.chosen() ?? this.surface()?.selectionOrParagraph();
    if (place) this.code({ start: place.start, end: place.end }, { codeId });
    this.surface()?.focus();
  }

  private codeSame(): void {
    const last = this.recent()[0];
    const place = this.surface()?.selectionOrParagraph();
    if (!last || !Object.hasOwn(this.codes(), last)) return this.notices.say('No code was used yet since the study was opened.');
    this.surface()?.collapse();
    if (place) this.code(place, { codeId: last });
  }

  private codeWords(): void {
    const place = this.surface()?.selection();
    if (!place) return this.notices.say('Select the words that are to become a code.');
    const name = tidyLine(this.text()!.text.slice(place.start, place.end)).slice(0, 120);
    const known = Object.values(this.codes()).find((code) => code.name === name);
    this.code(place, known ? { codeId: known.id } : { newCode: { name } });
    this.surface()?.collapse();
  }

  /** The chosen passage; else one marked, without a code, at the selection. */
  private passageHere(): Id | null {
    const place = this.surface()?.selection();
    if (this.chosen() && !place) return this.chosen()!.id;
    const stretch = place ?? this.surface()?.selectionOrParagraph();
    if (!stretch) return null;
    const there = this.passages().find((passage) => passage.start === stretch.start && passage.end === stretch.end);
    if (there) return there.id;
    const done = this.session.run(codePlace({ documentId: this.document()!.id, place: stretch, codeIds: [] }));
    const change = done?.change.find((one) => one.type === 'passage');
    return change?.type === 'passage' ? (change.after?.id ?? null) : null;
  }

  private comment(): void {
    const id = this.passageHere();
    if (!id) return;
    this.chosenId.set(id);
    // drawn at once, so that the first letter already goes into the comment
    this.application.tick();
    this.panel()?.focusComment();
  }

  protected async writeMemo(memoId: Id | null): Promise<void> {
    const id = memoId ? this.chosenId() : this.passageHere();
    if (!id) return;
    this.chosenId.set(id);
    await MemoDialog.open(this.dialog, memoId ? { memoId } : { about: { type: 'passage', id, documentId: this.document()!.id } });
    this.surface()?.focus();
  }

  private step(by: 1 | -1): void {
    const passages = this.passages();
    const caret = this.surface()?.caret() ?? 0;
    const at = passages.findIndex((passage) => passage.id === this.chosenId());
    const target =
      at >= 0
        ? passages[at + by]
        : by > 0
          ? passages.find((passage) => passage.start >= caret)
          : passages.findLast((passage) => passage.start < caret);
    if (!target) return this.notices.say(by > 0 ? 'This was the last passage.' : 'This was the first passage.');
    this.chosenId.set(target.id);
    this.surface()?.goTo(target);
  }

  private removeChosen(): void {
    const chosen = this.chosen();
    if (!chosen) return;
    this.session.run(removePassage(chosen.documentId, chosen.id));
    this.chosenId.set(null);
  }

  protected async copy(): Promise<void> {
    const place = this.surface()?.selection() ?? this.chosen();
    const text = this.text();
    if (!place || !text) return;
    await navigator.clipboard.writeText(citation(this.document()!, text, place.start, place.end));
    this.notices.say('Copied with its citation.');
  }

  protected choose(id: Id | null): void {
    this.chosenId.set(id);
  }

  protected onScrolled(position: number): void {
    this.at.set(position);
    // until the reader has been brought to where they were, the position is not theirs
    if (this.arrivedIn === this.documentId()) lastPlaces.read(this.arrivedIn!, position);
  }

  protected jump(position: number): void {
    this.surface()?.scrollTo(position);
  }

  /** Keeps a correction, after naming the passages that would lose all their words. */
  protected async keepCorrections(edits: TextEdits): Promise<void> {
    const text = this.text();
    const data = this.data();
    if (!text || !data) return;
    const correction = { text, edits };
    const lost = passagesLost(data, correction);
    const goOn =
      lost.length === 0 ||
      (await this.ask.confirm({
        title: lost.length === 1 ? 'A passage loses all its words' : `${lost.length} passages lose all their words`,
        lines: [
          ...lost.slice(0, 8).map((passage) => {
            const names = passage.codings.map((coding) => this.codes()[coding.codeId]?.name).join(', ');
            return `“${tidyLine(text.text.slice(passage.start, passage.end)).slice(0, 90)}” – ${names || 'no code'}`;
          }),
          ...(lost.length > 8 ? [`and ${lost.length - 8} more`] : []),
          'They go with their words. It can be undone.',
        ],
        yes: 'Keep the corrections',
        danger: true,
      }));
    if (!goOn) return;
    this.session.run(correctTexts([correction]));
    this.correctFrom.set(null);
    this.forgetTyped();
  }

  protected keepTyped(edits: TextEdits): void {
    const text = this.text();
    if (text) correctionDrafts.keep(text.id, text.text, edits);
  }

  protected forgetTyped(): void {
    correctionDrafts.drop(this.documentId()!);
    this.draftVersion.update((version) => version + 1);
  }

  protected async dropCorrections(changed: boolean): Promise<void> {
    const goOn =
      !changed ||
      (await this.ask.confirm({ title: 'Drop the corrections?', lines: ['The text stays as it was.'], yes: 'Drop them', danger: true }));
    if (!goOn) return;
    this.correctFrom.set(null);
    this.forgetTyped();
  }

  protected back(): void {
    history.back();
  }
}

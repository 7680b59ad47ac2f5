import { Counted } from '../../ui/counted/counted';
import { DatePipe, NgTemplateOutlet } from '@angular/common';
import {
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import type { Id } from '@core/model/ids';
import type { Stretch } from '@core/model/stretch';
import { tidyLine } from '@core/text/normalise';
import { lastPlaces } from '../../state/last-places';
import { ReaderSettings } from '../../state/reader-settings';
import { selectCoders, selectScopedDocuments } from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import { Glossary } from '../../ui/glossary/glossary';
import { Icon } from '../../ui/icon/icon';
import { arriving } from '../../ui/keep-scroll/arriving';
import { WritingDesk } from '../../ui/memo/writing-desk';
import { CodePicker } from '../../ui/picker/code-picker';
import { CodeList } from './code-list';
import { Correcting } from './correct/correcting';
import { CorrectSurface } from './correct/correct-surface';
import { DocumentFoot } from './document-foot';
import { DocumentMenu } from './document-menu';
import { FindBar } from './find-bar';
import { LineTable } from './lines/line-table';
import { PassageList } from './passage-list';
import { PassagePanel } from './passage-panel';
import { PassageWork } from './passage-work';
import { Picking } from './picking';
import { ReaderMenu } from './reader-menu';
import { ReadingHere } from './reading-here';
import { SetMembers } from './set-members';
import { ShownWays } from './shown-ways';
import type { FoundWords } from './surface/find-marks';
import { ReadingSurface, type SurfaceCommand } from './surface/reading-surface';
import { TextMenu } from './text-menu';
import { Travelling } from './travelling';

const NOTHING_FOUND: FoundWords = { hits: [], at: -1 };

/** Reading and coding one document, with the codebook at hand; or, beside it, another (or the same one again). */
@Component({
  selector: 'fl-reading',
  imports: [
    Counted,
    DatePipe,
    CodeList,
    CodePicker,
    CorrectSurface,
    DocumentFoot,
    DocumentMenu,
    FindBar,
    Icon,
    LineTable,
    NgTemplateOutlet,
    PassageList,
    PassagePanel,
    ReaderMenu,
    ReadingSurface,
    TextMenu,
  ],
  providers: [ReadingHere, SetMembers, PassageWork, Correcting, ShownWays, Picking, Travelling],
  templateUrl: './reading.html',
  styleUrl: './reading.scss',
  host: { '[class.two]': 'beside() && !pane()', '[class.pane]': 'pane()', '[class.arriving]': 'arriving()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Reading {
  /** From the route; without one the document read last. */
  readonly documentId = input<string>();
  /** From the address: the passage to show. */
  readonly passage = input<string>();
  /** From the address: where the researcher came from, to go back to. */
  readonly from = input<string>();
  /** From the address: the document shown beside this one. */
  readonly beside = input<string>();
  /** From the address: `lines` for the text as a table of units. */
  readonly as = input<string>();
  /** Whether this is the one beside another. */
  readonly pane = input(false);

  protected readonly here = inject(ReadingHere);
  protected readonly work = inject(PassageWork);
  protected readonly correcting = inject(Correcting);
  protected readonly picking = inject(Picking);
  protected readonly travelling = inject(Travelling);
  protected readonly settings = inject(ReaderSettings);
  private readonly ways = inject(ShownWays);
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly studyWays = inject(Ways);
  private readonly desk = inject(WritingDesk);
  private readonly dialog = inject(MatDialog);
  private readonly application = inject(ApplicationRef);
  protected readonly surface = viewChild(ReadingSurface);
  private readonly codeList = viewChild(CodeList);
  private readonly panel = viewChild(PassagePanel);
  private readonly findBar = viewChild(FindBar);
  private readonly coders = this.store.selectSignal(selectCoders);
  /** The text is shown before what stands around it. */
  protected readonly arriving = arriving();

  protected readonly scoped = this.store.selectSignal(selectScopedDocuments);
  protected readonly listOpen = signal(false);
  protected readonly finding = signal(false);
  protected readonly found = signal<FoundWords>(NOTHING_FOUND);
  /** The chosen passage, for those who hear the page. */
  protected readonly announced = computed(() => {
    const chosen = this.here.chosen();
    const text = this.here.text();
    if (!chosen || !text) return '';
    const names = [...new Set(chosen.codings.map((coding) => this.here.codes()[coding.codeId]?.name))].filter(Boolean).join(', ');
    return `Passage with ${names || 'no code yet'}: ${tidyLine(text.text.slice(chosen.start, Math.min(chosen.end, chosen.start + 120)))}`;
  });
  /** Width of the text: letters of the reading faces are about 0.54 of their size wide. */
  protected readonly measure = computed(() => `${Math.round(this.settings.type().measure * this.settings.type().size * 0.544)}px`);
  /** Whether the chosen passage is shown over the text: side by side, and while a memo is written, nothing else has room beside it. */
  protected readonly ownPanel = computed(() => this.pane() || this.beside() !== undefined || this.desk.task() !== null);
  protected readonly asLines = computed(() => this.as() === 'lines');
  protected readonly caret = (): number => this.surface()?.caret() ?? 0;
  protected readonly selection = (): Stretch | null => this.surface()?.selection() ?? null;
  protected readonly coderName = (id: Id): string => this.coders()[id]?.name ?? 'somebody';

  constructor() {
    this.here.surface = this.surface;
    effect(() => {
      const documentId = this.documentId();
      untracked(() => this.travelling.leaveFor(documentId));
      this.here.documentId.set(documentId);
      // what was typed in another document is kept as its draft
      this.correcting.from.set(null);
    });
    effect(() => this.chooseDocument());
    effect(() => this.travelling.arrive(this.documentId(), this.passage(), () => this.putAway()));
    effect(() => {
      if (!this.pane()) this.ways.tell();
    });
  }

  /** What was open over another text. */
  private putAway(): void {
    this.picking.open.set(null);
    this.stopFinding();
  }

  private chooseDocument(): void {
    if (this.here.document() || this.pane()) return;
    const scoped = this.scoped();
    const last = lastPlaces.lastDocument();
    const target = scoped.find((document) => document.id === last) ?? scoped[0];
    if (target) this.studyWays.go(['reading', target.id], { replaceUrl: true });
  }

  protected onCommand(command: SurfaceCommand): void {
    const { work } = this;
    if (command.startsWith('number ')) return work.codeNumber(Number(command.slice(7)));
    if (/^(start|end) /.test(command)) {
      const [side, sign, kind] = command.split(' ') as ['start' | 'end', '+' | '-', 'word' | 'sentence'];
      return work.moveEdge(side, sign === '+' ? 1 : -1, kind);
    }
    switch (command) {
      case 'code':
        return this.picking.begin();
      case 'same':
        return work.codeSame();
      case 'words':
        return work.codeWords();
      case 'memo':
        return void this.writeMemo(null);
      case 'comment':
        return this.comment();
      case 'mark':
        return work.mark();
      case 'recode':
        return this.picking.beginInstead();
      case 'other':
        return this.here.chosenId.set(this.surface()?.nextAt(this.caret()) ?? null);
      case 'sentence':
      case 'paragraph':
      case 'turn':
        return work.selectUnit(command);
      case 'grow':
        return work.resizeSelection(1);
      case 'shrink':
        return work.resizeSelection(-1);
      case 'previous':
        return work.step(-1);
      case 'next':
        return work.step(1);
      case 'uncoded':
        return work.stepUncoded(1);
      case 'uncoded before':
        return work.stepUncoded(-1);
      case 'unread':
        return work.nextUnread(1);
      case 'unread before':
        return work.nextUnread(-1);
      case 'back':
      case 'forward':
        return this.travelling.travel(command);
      case 'read to here':
        return work.readToHere();
      case 'remove':
        return work.removeChosen();
      case 'copy':
        return void work.copy();
      case 'find':
        return this.findCode();
      case 'search':
        return this.search();
      case 'gloss':
        return this.define();
      case 'leave passage':
        return this.here.chosenId.set(null);
    }
  }

  private comment(): void {
    const id = this.work.passageHere();
    if (!id) return;
    this.here.chosenId.set(id);
    // where there is little room, what stands beside the text is put away until it is asked for
    if (!this.ownPanel()) this.listOpen.set(true);
    // drawn at once, so that the first letter already goes into the comment
    this.application.tick();
    this.panel()?.focusComment();
  }

  protected async writeMemo(memoId: Id | null): Promise<void> {
    const id = memoId ? this.here.chosenId() : this.work.passageHere();
    if (!id) return;
    this.here.chosenId.set(id);
    await this.desk.open(memoId ? { memoId } : { about: { type: 'passage', id, documentId: this.here.document()!.id } });
    this.surface()?.focus();
  }

  private findCode(): void {
    // where the list has no room beside the text, the picker finds codes for what is selected
    if (this.pane() || this.desk.task()) return this.picking.begin();
    this.listOpen.set(true);
    this.application.tick();
    this.codeList()?.focusFind();
  }

  protected search(): void {
    this.finding.set(true);
    this.application.tick();
    this.findBar()?.focus(this.selection() ? this.here.text()!.text.slice(this.selection()!.start, this.selection()!.end) : '');
  }

  protected stopFinding(): void {
    this.finding.set(false);
    this.found.set(NOTHING_FOUND);
  }

  protected showFound(found: FoundWords): void {
    this.found.set(found);
    const hit = found.hits[found.at];
    if (hit) this.here.goTo(hit);
  }

  /** Defines the selected word, or the one at the caret. */
  protected define(): void {
    this.work.selectUnit('word');
    const place = this.selection();
    const words = place ? tidyLine(this.here.text()!.text.slice(place.start, place.end)) : '';
    void Glossary.open(this.dialog, words).then(() => this.surface()?.focus());
  }

  protected showBeside(documentId: Id | null): void {
    void this.router.navigate([], { queryParams: { beside: documentId, as: null }, queryParamsHandling: 'merge' });
  }

  protected showAs(as: 'lines' | null): void {
    void this.router.navigate([], { queryParams: { as, beside: null }, queryParamsHandling: 'merge' });
  }

  protected surfaceFocus(): void {
    this.surface()?.focus();
  }

  /** Chooses a passage and brings it into view. */
  protected showPassage(id: Id): void {
    const passage = this.here.passages().find((one) => one.id === id);
    this.here.chosenId.set(id);
    if (passage) this.here.goTo(passage);
  }

  protected back(): void {
    history.back();
  }
}

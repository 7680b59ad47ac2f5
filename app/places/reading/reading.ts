import { Counted } from '../../ui/counted/counted';
import { DatePipe, NgTemplateOutlet } from '@angular/common';
import {
  afterNextRender,
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  Injector,
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
import { Notices } from '../../state/notices';
import { ReaderSettings } from '../../state/reader-settings';
import { Visits } from '../../state/visits';
import { selectCoders, selectScopedDocuments } from '../../state/study.selectors';
import { Glossary } from '../../ui/glossary/glossary';
import { Icon } from '../../ui/icon/icon';
import { arriving } from '../../ui/keep-scroll/arriving';
import { WritingDesk } from '../../ui/memo/writing-desk';
import { CodePicker, type Picked } from '../../ui/picker/code-picker';
import { CodeList } from './code-list';
import { Correcting } from './correct/correcting';
import { CorrectSurface } from './correct/correct-surface';
import { DocumentFoot } from './document-foot';
import { DocumentMenu } from './document-menu';
import { FindBar } from './find-bar';
import { LineTable } from './lines/line-table';
import { PassagePanel } from './passage-panel';
import { PassageWork } from './passage-work';
import { ReaderMenu } from './reader-menu';
import { ReadingHere } from './reading-here';
import { SetMembers } from './set-members';
import { ShownWays } from './shown-ways';
import type { FoundWords } from './surface/find-marks';
import { ReadingSurface, type SurfaceCommand } from './surface/reading-surface';
import { TextMenu } from './text-menu';

/** Where the code picker is open, for which place, and instead of which code. */
interface Picking {
  readonly place: Stretch;
  readonly left: number;
  readonly top: number;
  readonly words: string;
  readonly instead: Id | null;
}

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
    PassagePanel,
    ReaderMenu,
    ReadingSurface,
    TextMenu,
  ],
  providers: [ReadingHere, SetMembers, PassageWork, Correcting, ShownWays],
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
  protected readonly settings = inject(ReaderSettings);
  private readonly ways = inject(ShownWays);
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);
  private readonly desk = inject(WritingDesk);
  private readonly dialog = inject(MatDialog);
  private readonly application = inject(ApplicationRef);
  private readonly visits = inject(Visits);
  private readonly injector = inject(Injector);
  protected readonly surface = viewChild(ReadingSurface);
  private readonly codeList = viewChild(CodeList);
  private readonly panel = viewChild(PassagePanel);
  private readonly findBar = viewChild(FindBar);
  private readonly coders = this.store.selectSignal(selectCoders);
  /** The text is shown before what stands around it. */
  protected readonly arriving = arriving();
  private arrivedIn: Id | undefined;
  private shownId: Id | undefined;
  private travellingTo: Id | undefined;

  protected readonly scoped = this.store.selectSignal(selectScopedDocuments);
  protected readonly picking = signal<Picking | null>(null);
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
      untracked(() => this.leaveFor(documentId));
      this.here.documentId.set(documentId);
      // what was typed in another document is kept as its draft
      this.correcting.from.set(null);
    });
    effect(() => this.chooseDocument());
    effect(() => this.showAddressed());
    effect(() => {
      if (!this.pane()) this.ways.tell();
    });
  }

  private chooseDocument(): void {
    if (this.here.document() || this.pane()) return;
    const scoped = this.scoped();
    const last = lastPlaces.lastDocument();
    const target = scoped.find((document) => document.id === last) ?? scoped[0];
    if (target) void this.router.navigate(['/study', this.router.url.split('/')[2], 'reading', target.id], { replaceUrl: true });
  }

  /** Shows the passage that the address names, or else where the reader was. */
  private showAddressed(): void {
    const text = this.here.text();
    const surface = this.surface();
    const passageId = this.passage();
    this.visits.count();
    this.arrivedIn = undefined;
    if (!text || !surface || text.id !== this.documentId()) return;
    untracked(() => {
      const passage = this.here.passages().find((one) => one.id === passageId);
      // coming back to the same document, the reader finds what was chosen there
      if (passage || this.shownId !== text.id) this.here.chosenId.set(passage?.id ?? null);
      this.shownId = text.id;
      this.picking.set(null);
      this.stopFinding();
      // the surface takes the text in in an effect of its own, after this one; the place is found before anything is painted
      const bringThere = (): void => {
        if (passage) surface.goTo(passage);
        else surface.scrollTo(lastPlaces.placeIn(text.id));
        this.arrivedIn = text.id;
      };
      afterNextRender({ write: bringThere }, { injector: this.injector });
    });
  }

  /** Another document comes up: what is left can be come back to, unless the reader is on the way back already. */
  private leaveFor(documentId: Id | undefined): void {
    const left = this.here.documentId();
    if (left && documentId && left !== documentId && this.travellingTo !== documentId)
      this.here.trail.leave({ documentId: left, position: lastPlaces.placeIn(left) });
    this.travellingTo = undefined;
  }

  /** Goes back to where the reader jumped from, or forward again. */
  private travel(way: 'back' | 'forward'): void {
    const { trail, documentId } = this.here;
    const to = trail[way](this.here.place());
    if (!to) return this.notices.say(way === 'back' ? 'There is nothing further back.' : 'There is nothing further on.');
    if (to.documentId === documentId()) return this.surface()?.scrollTo(to.position);
    lastPlaces.read(to.documentId, to.position);
    this.travellingTo = to.documentId;
    void this.router.navigate(['/study', this.router.url.split('/')[2], 'reading', to.documentId]);
  }

  /** Shows a position that was clicked in the line at the foot. */
  protected jump(position: number): void {
    this.here.trail.leave(this.here.place());
    this.surface()?.scrollTo(position);
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
        return this.openPicker();
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
        return this.recodeChosen();
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
        return this.travel(command);
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

  /** @param instead the code whose place the picked one takes on the chosen passage */
  protected openPicker(instead: Id | null = null): void {
    const surface = this.surface();
    const place = instead ? this.here.chosen() : this.work.place();
    if (!surface || !place) return;
    const coords = surface.coordsOf(place.end) ?? surface.coordsOf(place.start) ?? { left: 300, bottom: 200, top: 180 };
    const below = coords.bottom + 6 + 340 < innerHeight;
    this.picking.set({
      place: { start: place.start, end: place.end },
      left: Math.max(90, Math.min(coords.left - 60, innerWidth - 370)),
      top: below ? coords.bottom + 6 : Math.max(8, coords.top - 350),
      words: instead ? '' : tidyLine(this.here.text()!.text.slice(place.start, place.end)).slice(0, 120),
      instead,
    });
    // drawn at once, so that the next key already goes to the picker however fast the hands are
    this.application.tick();
  }

  protected onPicked(picked: Picked): void {
    const picking = this.picking();
    if (!picking) return;
    if (picking.instead) this.work.recode(picking.instead, picked);
    else this.work.code(picking.place, picked);
  }

  protected closePicker(): void {
    this.picking.set(null);
    this.surface()?.collapse();
    this.surface()?.focus();
  }

  private recodeChosen(): void {
    const chosen = this.here.chosen();
    if (!chosen) return this.notices.say('Choose a passage first.');
    if (chosen.codings.length !== 1) return this.notices.say('It carries several codes or none: choose in the panel which one to change.');
    this.openPicker(chosen.codings[0]!.codeId);
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
    if (this.pane() || this.desk.task()) return this.openPicker();
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

  protected onScrolled(position: number): void {
    this.here.at.set(position);
    // until the reader has been brought to where they were, the position is not theirs
    if (this.arrivedIn === this.documentId()) lastPlaces.read(this.arrivedIn!, position);
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

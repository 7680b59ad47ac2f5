import { Counted } from '../../ui/counted/counted';
import { DatePipe, NgTemplateOutlet } from '@angular/common';
import {
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { setTime } from '@core/commands/recordings';
import { hasText } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Stretch } from '@core/model/stretch';
import { clock } from '@core/text/clock';
import { tidyLine } from '@core/text/normalise';
import { timeAt, wordsSpoken } from '@core/text/timeline';
import { lastPlaces } from '../../state/last-places';
import { ReaderSettings } from '../../state/reader-settings';
import { StudySession } from '../../state/study-session';
import { selectCoders, selectScopedDocuments, selectStudy } from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import { Glossary } from '../../ui/glossary/glossary';
import { Icon } from '../../ui/icon/icon';
import { arriving } from '../../ui/keep-scroll/arriving';
import { WritingDesk } from '../../ui/memo/writing-desk';
import { CodePicker } from '../../ui/picker/code-picker';
import { Player } from '../../ui/sound/player';
import { PlayerSettings, SKIP } from '../../ui/sound/player-settings';
import { CodeList } from './code-list';
import { Correcting } from './correct/correcting';
import { CorrectSurface } from './correct/correct-surface';
import { timeHere, unclearHere } from './correct/transcribing';
import { DocumentFoot } from './document-foot';
import { DocumentMenu } from './document-menu';
import { FindBar } from './find-bar';
import { LineTable } from './lines/line-table';
import { PassagePanel } from './passage-panel';
import { PassageWork } from './passage-work';
import { Picking } from './picking';
import { PictureHere } from './picture/picture-here';
import { PicturePage } from './picture/picture-page';
import { ReaderMenu } from './reader-menu';
import { ReadingHere } from './reading-here';
import { FilmView, type FilmSize } from './recording/film-view';
import { ListenAgain } from './recording/listen-again';
import { RecordingFoot } from './recording/recording-foot';
import { RecordingHere } from './recording/recording-here';
import { RecordingPage } from './recording/recording-page';
import { TranscribingHere } from './recording/transcribing-here';
import { SetMembers } from './set-members';
import { ShownWays } from './shown-ways';
import type { FoundWords } from './surface/find-marks';
import type { HeardWords } from './surface/heard-marks';
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
    FilmView,
    FindBar,
    Icon,
    LineTable,
    ListenAgain,
    NgTemplateOutlet,
    PassagePanel,
    PicturePage,
    ReaderMenu,
    ReadingSurface,
    RecordingFoot,
    RecordingPage,
    RouterLink,
    TextMenu,
  ],
  providers: [
    ReadingHere,
    SetMembers,
    PassageWork,
    Correcting,
    ShownWays,
    Picking,
    Travelling,
    Player,
    RecordingHere,
    TranscribingHere,
    PictureHere,
  ],
  templateUrl: './reading.html',
  styleUrl: './reading.scss',
  host: {
    '[class.two]': 'beside() && !pane()',
    '[class.splitted]': 'splits()',
    '[class.pane]': 'pane()',
    '[class.arriving]': 'arriving()',
  },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Reading {
  /** From the route; without one the document read last. */
  readonly documentId = input<string>();
  /** From the address: the passage to show. */
  readonly passage = input<string>();
  /** From the address: words to show, as `start-end` in characters. */
  readonly words = input<string>();
  /** From the address: where the researcher came from, to go back to. */
  readonly from = input<string>();
  /** From the address: the document shown beside this one. */
  readonly beside = input<string>();
  /** From the address: `lines` for the text as a table of units. */
  readonly as = input<string>();
  /** Whether this is the one beside another. */
  readonly pane = input(false);
  /** Of the one beside another transcript of the same recording: the time that is read there, milliseconds. */
  readonly alignedTo = input<number | null>(null);

  protected readonly here = inject(ReadingHere);
  protected readonly work = inject(PassageWork);
  protected readonly correcting = inject(Correcting);
  protected readonly picking = inject(Picking);
  protected readonly travelling = inject(Travelling);
  protected readonly settings = inject(ReaderSettings);
  protected readonly recorded = inject(RecordingHere);
  protected readonly transcribing = inject(TranscribingHere);
  protected readonly pictured = inject(PictureHere);
  private readonly playerSettings = inject(PlayerSettings);
  private readonly session = inject(StudySession);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly correctSurface = viewChild(CorrectSurface);
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
  private readonly foot = viewChild<RecordingFoot>('foot');
  private readonly coders = this.store.selectSignal(selectCoders);
  private readonly study = this.store.selectSignal(selectStudy);
  /** The text is shown before what stands around it. */
  protected readonly arriving = arriving();

  protected readonly scoped = this.store.selectSignal(selectScopedDocuments);
  protected readonly listOpen = signal(false);
  protected readonly finding = signal(false);
  protected readonly listeningAgain = signal(false);
  protected readonly filmSize = signal<FilmSize>('small');
  /** Pages of a PDF that has no text: only they are read. */
  protected readonly isScan = computed(() => this.here.document()?.seen !== undefined && this.here.document()?.characters === 0);
  /** Whether a picture, or a page, stands beside the text. */
  protected readonly splits = computed(
    () =>
      !this.pane() &&
      this.beside() === undefined &&
      !this.asLines() &&
      this.here.text() !== undefined &&
      !this.isScan() &&
      (this.pictured.pages() > 0 || this.here.original()?.ground.of === 'picture'),
  );
  /** A film, where there is one and it is not put away. */
  protected readonly film = computed(() => this.recorded.media()?.type.startsWith('video/') === true && !this.recorded.leader());
  /** What stands in the text of what is heard. */
  protected readonly heard = computed((): HeardWords => ({ spoken: this.recorded.spoken(), unsure: this.here.text()?.unsure ?? [] }));
  protected readonly chosenHeard = computed(() => {
    const chosen = this.here.chosen();
    return chosen !== undefined && this.recorded.spanOf(chosen) !== null && this.recorded.player().element() !== null;
  });
  protected readonly found = signal<FoundWords>(NOTHING_FOUND);
  /** The chosen passage, for those who hear the page. */
  protected readonly announced = computed(() => {
    const chosen = this.here.chosen();
    const text = this.here.text();
    if (!chosen) return '';
    const names = [...new Set(chosen.codings.map((coding) => this.here.codes()[coding.codeId]?.name))].filter(Boolean).join(', ');
    if (!text || chosen.documentId !== text.id) return `Passage with ${names || 'no code yet'}`;
    return `Passage with ${names || 'no code yet'}: ${tidyLine(text.text.slice(chosen.start, Math.min(chosen.end, chosen.start + 120)))}`;
  });
  /** Width of the text: letters of the reading faces are about 0.54 of their size wide. */
  protected readonly measure = computed(() => `${Math.round(this.settings.type().measure * this.settings.type().size * 0.544)}px`);
  /** Whether the chosen passage is shown over the text: side by side, and while a memo is written, nothing else has room beside it. */
  protected readonly ownPanel = computed(() => this.pane() || this.beside() !== undefined || this.desk.task() !== null || this.splits());
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
      this.here.marked.set(null);
      this.listeningAgain.set(false);
    });
    // a transcript that was just begun is typed at once
    effect(() => {
      const transcribing = this.as() === 'transcribing' && this.recorded.recording() !== undefined;
      if (!(transcribing || this.as() === 'correcting') || !this.here.text()) return;
      untracked(() => {
        this.correcting.begin(this.here.text()!.text.length, transcribing);
        this.showAs(null);
      });
    });
    effect(() => {
      const spoken = this.recorded.spoken();
      if (!spoken) return;
      // while it plays the words stay well inside; gone to by hand, here or beside, they only must not be out of sight
      const playing = this.recorded.player().playing();
      if (!playing || this.recorded.follows()) untracked(() => this.surface()?.keepInView(spoken, playing));
    });
    // two transcripts of one recording are kept level
    effect(() => {
      const time = this.alignedTo();
      if (time === null || !this.recorded.leader()) return;
      const position = untracked(() => this.recorded.positionAt(time));
      if (position !== null) untracked(() => this.surface()?.scrollTo(position));
    });
    // a place without words is shown where its recording or picture is
    effect(() => {
      const document = this.here.document();
      const id = this.passage();
      const ready = this.recorded.player().element() !== null;
      if (!document || hasText(document)) return;
      untracked(() => {
        const passage = this.here.passages().find((one) => one.id === id);
        if (!passage) return;
        this.here.chosenId.set(passage.id);
        if (ready && document.ground.of === 'time') this.recorded.player().seek(passage.start);
      });
    });
    const keys = (event: KeyboardEvent): void => this.onPlayerKey(event);
    // before whatever has the caret: these keys are the recording's wherever one types
    window.addEventListener('keydown', keys, true);
    inject(DestroyRef).onDestroy(() => window.removeEventListener('keydown', keys, true));
    effect(() => this.chooseDocument());
    effect(() => this.travelling.arrive(this.documentId(), this.passage(), this.words(), () => this.putAway()));
    effect(() => {
      if (!this.pane()) this.ways.tell();
    });
  }

  /** Keys of the recording work wherever the caret is, in this place only. */
  private onPlayerKey(event: KeyboardEvent): void {
    if (this.pane() || !this.host.isConnected || !this.recorded.recording()) return;
    const command = this.playerSettings.commandOf(event);
    if (!command) return;
    event.preventDefault();
    event.stopPropagation();
    // a key that is held down is one key, but for going back and on
    if (event.repeat && command !== 'back' && command !== 'on') return;
    const player = this.recorded.player();
    switch (command) {
      case 'play and stop':
        return player.toggle();
      case 'back':
        return player.skip(-SKIP);
      case 'on':
        return player.skip(SKIP);
      case 'slower':
        return this.playerSettings.turnRate(-1);
      case 'faster':
        return this.playerSettings.turnRate(1);
      case 'again and again':
        return this.foot()?.again();
      case 'time here':
        return this.noteTime();
      case 'unclear word':
        return this.correctSurface()?.act(unclearHere);
    }
  }

  private noteTime(): void {
    const typing = this.correctSurface();
    if (typing) return typing.act(timeHere);
    const text = this.here.text();
    if (text) this.session.run(setTime(text, this.caret(), this.recorded.player().now()));
  }

  /** The time that comes first in view, for a transcript of the same recording beside this one. */
  protected readonly timeInView = computed(() => {
    const text = this.here.text();
    return text && this.recorded.timed() ? timeAt(text, this.here.at()) : null;
  });

  /** What is shown beside a document at first: of a recording another of its transcripts, else the same once more. */
  protected goesBeside(id: Id): Id {
    return this.recorded.transcripts().find((one) => one.id !== id)?.id ?? id;
  }

  /** A click in a transcript goes to where it is heard; the caret as well, while nothing plays. */
  protected caretPut({ position, click }: { readonly position: number; readonly click: boolean }): void {
    if (click || !this.recorded.player().playing()) this.recorded.goToWords(position);
  }

  protected playChosen(): void {
    const chosen = this.here.chosen();
    const span = chosen && this.recorded.spanOf(chosen);
    if (span) this.recorded.player().playSpan(span);
  }

  /** Shows the words that were clicked on the sound line. */
  protected toWords(position: number): void {
    this.surface()?.goTo({ start: position, end: position });
  }

  protected transcribe(): void {
    this.correcting.begin(this.caret(), true);
  }

  protected readonly clockOf = clock;
  protected readonly studyId = computed(() => this.study()?.id ?? '');

  protected openKeys(): void {
    void import('./recording/player-keys').then(({ PlayerKeys }) => PlayerKeys.open(this.dialog));
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
        this.here.marked.set(null);
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
    const documentId = this.here.chosenDocument()?.id ?? this.here.document()!.id;
    await this.desk.open(memoId ? { memoId } : { about: { type: 'passage', id, documentId } });
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
    const passage = [...this.here.passages(), ...this.here.originalPassages()].find((one) => one.id === id);
    this.here.chosenId.set(id);
    if (!passage) return;
    const words =
      passage.documentId === this.here.document()?.id
        ? passage
        : this.here.text() && this.recorded.timed()
          ? wordsSpoken(this.here.text()!, passage)
          : null;
    if (words) this.here.goTo(words);
  }

  protected back(): void {
    history.back();
  }
}

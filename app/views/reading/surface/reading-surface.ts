import {
  afterNextRender,
  CSP_NONCE,
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  output,
  type Signal,
  untracked,
  ViewEncapsulation,
} from '@angular/core';
import { Compartment, EditorSelection, EditorState, Prec, type Extension, type StateEffect } from '@codemirror/state';
import { EditorView, keymap, type Rect } from '@codemirror/view';
import { standardKeymap } from '@codemirror/commands';
import type { Document, Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Stretch } from '@core/model/stretch';
import { tidySelection, withoutLabels } from '@core/text/stretch';
import { paragraphAt } from '@core/text/paragraphs';
import { GlossFinder } from '@core/glosses/find-glosses';
import { FIRST_LOOKS } from '../../../state/reader-settings';
import { bubblesGiveWay } from './bubbles';
import { foundMarks, showFound, type FoundWords } from './find-marks';
import { glossMarks, showGlosses } from './gloss-marks';
import { grips } from './handles';
import { codingHover } from './hover';
import { heardMarks, showHeard, type HeardWords } from './heard-marks';
import { linesOf } from './lines-of';
import { paragraphNumbers, readingLooks, showLooks } from './looks';
import { paragraphLooks } from './paragraphs';
import { showSlipsOf, slips, type SlipFilter } from './slips';
import { choosePassage, chosenField, passagesAt, showCoding, threads, type Coding } from './threads';

/** What a key asks for while the caret is in the text. */
export type SurfaceCommand =
  | 'code'
  | 'same'
  | 'words'
  | 'memo'
  | 'comment'
  | 'previous'
  | 'next'
  | 'remove'
  | 'copy'
  | 'find'
  | 'mark'
  | 'recode'
  | 'other'
  | 'sentence'
  | 'paragraph'
  | 'turn'
  | 'grow'
  | 'shrink'
  | 'uncoded'
  | 'uncoded before'
  | 'unread'
  | 'unread before'
  | 'back'
  | 'forward'
  | 'search'
  | 'read to here'
  | 'gloss'
  | 'leave passage'
  | `number ${number}`
  | `${'start' | 'end'} ${'+' | '-'} ${'word' | 'sentence'}`;

/** Keys of the text, and what they ask for. The help sheet lists them in words. */
export const SURFACE_KEYS: Readonly<Record<string, SurfaceCommand>> = {
  c: 'code',
  '.': 'same',
  v: 'words',
  m: 'memo',
  k: 'comment',
  '[': 'previous',
  ']': 'next',
  Delete: 'remove',
  y: 'copy',
  '/': 'find',
  x: 'mark',
  r: 'recode',
  o: 'other',
  s: 'sentence',
  p: 'paragraph',
  t: 'turn',
  e: 'grow',
  E: 'shrink',
  u: 'uncoded',
  U: 'uncoded before',
  n: 'unread',
  N: 'unread before',
  b: 'back',
  B: 'forward',
  f: 'search',
  h: 'read to here',
  g: 'gloss',
  Escape: 'leave passage',
};

/** With Alt the arrows move the end of the chosen passage, by words and sentences; with Shift as well its start. */
const EDGE_KEYS: Readonly<Record<string, `${'+' | '-'} ${'word' | 'sentence'}`>> = {
  ArrowRight: '+ word',
  ArrowLeft: '- word',
  ArrowDown: '+ sentence',
  ArrowUp: '- sentence',
};

const NOTHING_HEARD: HeardWords = { spoken: null, unsure: [] };

/** The type a code has while it is dragged. */
export const CODE_DRAG_TYPE = 'application/x-filum-code';

/** The text with its threads and slips, on CodeMirror. It shows and selects; what is done is decided outside. */
@Component({
  selector: 'fl-reading-surface',
  template: '',
  styleUrl: './reading-surface.scss',
  host: { class: 'reading-surface' },
  encapsulation: ViewEncapsulation.None,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReadingSurface {
  readonly document = input.required<Document>();
  readonly text = input.required<Text>();
  readonly coding = input.required<Coding>();
  readonly memoTitles = input.required<ReadonlyMap<Id, string>>();
  readonly chosenId = input<Id | null>(null);
  readonly coderName = input.required<(coderId: Id) => string>();
  readonly looks = input(FIRST_LOOKS);
  readonly slipsOf = input<SlipFilter>(() => true);
  readonly glosses = input<GlossFinder>(new GlossFinder([]));
  readonly found = input<FoundWords>({ hits: [], at: -1 });
  /** Words that are spoken now, and those that are to be listened to again. */
  readonly heard = input<HeardWords>(NOTHING_HEARD);

  readonly asked = output<SurfaceCommand>();
  readonly chosen = output<Id | null>();
  /** A code was dropped on the text: on the selection, or on the paragraph under the pointer. */
  readonly codeDropped = output<{ readonly codeId: Id; readonly place: Stretch }>();
  /** An end of the chosen passage was dragged elsewhere. */
  readonly moved = output<{ readonly passageId: Id; readonly place: Stretch }>();
  /** First position in view. */
  readonly scrolled = output<number>();
  /** The caret was put somewhere by hand; with a click, and not by keys. */
  readonly caretPut = output<{ readonly position: number; readonly click: boolean }>();
  /** Somebody scrolls by hand. */
  readonly scrolledByHand = output();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly nonce = inject(CSP_NONCE, { optional: true });
  private readonly content = new Compartment();
  private readonly numbers = new Compartment();
  /** Made with the first text, so that nothing is laid out twice. */
  private view!: EditorView;
  private shownText: Text | null = null;
  private telling: ReturnType<typeof setTimeout> | undefined;
  private shownCoding: Coding | null = null;
  /** Where the caret goes with the next transaction, or null. */
  private caretTo: number | null = null;
  private shownMemos: ReadonlyMap<Id, string> | null = null;

  constructor() {
    inject(DestroyRef).onDestroy(() => {
      clearTimeout(this.telling);
      this.view?.destroy();
    });
    // CodeMirror would measure in the next frame; asked for a place it measures in this one, and all is painted once
    afterNextRender({ read: () => this.tellPlace() });
    effect(() => this.showText(this.document(), this.text()));
    effect(() => this.showCoding(this.coding(), this.memoTitles(), this.chosenId()));
    this.follow(this.slipsOf, (filter) => showSlipsOf.of(filter));
    this.follow(this.glosses, (finder) => showGlosses.of(finder));
    this.follow(this.found, (found) => showFound.of(found));
    this.follow(this.heard, (heard) => showHeard.of(heard));
    this.follow(this.looks, (looks) => [showLooks.of(looks), this.numbers.reconfigure(paragraphNumbers(looks.numbers))]);
  }

  /** Shows an input whenever it changes; what it is at first, the view is made with. */
  private follow<T>(input: Signal<T>, effectsOf: (value: T) => StateEffect<unknown> | readonly StateEffect<unknown>[]): void {
    let first = true;
    effect(() => {
      const value = input();
      if (!first) this.view.dispatch({ effects: effectsOf(value) });
      first = false;
    });
  }

  private extensions(looks: Extension, coding: Coding): Extension[] {
    return [
      EditorState.readOnly.of(true),
      EditorView.lineWrapping,
      // each paragraph runs as its own words do
      EditorView.perLineTextDirection.of(true),
      keymap.of(standardKeymap),
      this.nonce ? EditorView.cspNonce.of(this.nonce) : [],
      this.content.of(looks),
      threads(coding),
      readingLooks(untracked(this.looks)),
      this.numbers.of(paragraphNumbers(untracked(this.looks).numbers)),
      grips((passageId, place) => this.moved.emit({ passageId, place })),
      glossMarks(untracked(this.glosses)),
      bubblesGiveWay(),
      foundMarks,
      heardMarks(untracked(this.heard)),
      slips(
        { memoTitle: (id) => untracked(this.memoTitles).get(id) ?? null, choose: (id) => this.chosen.emit(id) },
        untracked(this.slipsOf),
      ),
      codingHover((id) => untracked(this.coderName)(id)),
      // before CodeMirror's own keys, which would swallow Delete even where nothing can be deleted
      Prec.highest(
        EditorView.domEventHandlers({
          keydown: (event) => this.onKey(event),
          mouseup: (event) => this.onClick(event),
          dragover: (event) => {
            if (!event.dataTransfer?.types.includes(CODE_DRAG_TYPE)) return false;
            event.preventDefault();
            return true;
          },
          drop: (event) => this.onDrop(event),
          wheel: () => (this.scrolledByHand.emit(), false),
          touchmove: () => (this.scrolledByHand.emit(), false),
          scroll: () => {
            // while it scrolls, scrolling is all that the browser should be busy with
            this.telling ??= setTimeout(() => this.tellPlace(), 120);
            return false;
          },
        }),
      ),
      EditorView.updateListener.of((update) => {
        for (const transaction of update.transactions)
          if (transaction.selection && transaction.isUserEvent('select') && transaction.selection.main.empty)
            this.caretPut.emit({ position: transaction.selection.main.head, click: transaction.isUserEvent('select.pointer') });
        if (update.geometryChanged) this.telling ??= setTimeout(() => this.tellPlace(), 120);
      }),
    ];
  }

  private showText(document: Document, text: Text): void {
    const label = EditorView.contentAttributes.of({
      'aria-label': `Text of ${document.title}`,
      'aria-readonly': 'true',
      tabindex: '0',
      // nothing is typed here: a finger that selects words brings no keyboard up
      inputmode: 'none',
      spellcheck: 'false',
      translate: 'no',
    });
    const looks = [label, paragraphLooks(document, text)];
    const start = EditorSelection.cursor(text.paragraphs[0]?.body ?? 0);
    if (this.view && this.shownText === text) {
      this.view.dispatch({ effects: this.content.reconfigure(looks) });
      return;
    }
    // another text comes with its own coding and anew: moving all that is marked along would take far longer
    this.shownCoding = untracked(this.coding);
    this.shownMemos = null;
    const state = EditorState.create({ doc: linesOf(text), selection: start, extensions: this.extensions(looks, this.shownCoding) });
    if (this.view) this.view.setState(state);
    else this.view = new EditorView({ parent: this.host, state });
    this.shownText = text;
  }

  /** What is new is shown in one transaction: each costs a layout. */
  private showCoding(coding: Coding, memoTitles: ReadonlyMap<Id, string>, chosenId: Id | null): void {
    const same = coding === this.shownCoding && (memoTitles === this.shownMemos || memoTitles.size + (this.shownMemos?.size ?? 0) === 0);
    this.shownCoding = coding;
    this.shownMemos = memoTitles;
    const effects = [
      ...(same ? [] : [showCoding.of(coding)]),
      ...(chosenId === this.view.state.field(chosenField).id ? [] : [choosePassage.of(chosenId)]),
    ];
    if (effects.length > 0 || this.caretTo !== null) this.view.dispatch({ effects, ...this.takeCaret() });
  }

  /** The selected stretch, tidied; with nothing selected null. */
  selection(): Stretch | null {
    const { main } = this.view.state.selection;
    if (main.empty) return null;
    const { start, end } = withoutLabels(this.text().paragraphs, { start: main.from, end: main.to });
    return tidySelection(this.text().text, start, end);
  }

  /** The selected stretch, or else the words of the paragraph at the caret. */
  selectionOrParagraph(position = this.view.state.selection.main.head): Stretch | null {
    const selected = this.selection();
    if (selected) return selected;
    const paragraph = this.text().paragraphs[paragraphAt(this.text().paragraphs, position)];
    return paragraph ? tidySelection(this.text().text, paragraph.body, paragraph.end) : null;
  }

  /** Selects a stretch, in view. */
  select(place: Stretch): void {
    this.view.dispatch({ selection: { anchor: place.start, head: place.end }, scrollIntoView: true });
  }

  caret(): number {
    return this.view.state.selection.main.head;
  }

  /** Where a position is on the screen, for what opens beside it. */
  coordsOf(position: number): Rect | null {
    return this.view.coordsAtPos(position);
  }

  focus(): void {
    this.settleCaret();
    this.view.focus();
  }

  /** Whether a position is on the screen. */
  shows(position: number): boolean {
    const { scrollDOM, documentPadding } = this.view;
    const block = this.view.lineBlockAt(Math.min(position, this.view.state.doc.length));
    const top = block.top + documentPadding.top - scrollDOM.scrollTop;
    return top + block.height > 0 && top < scrollDOM.clientHeight;
  }

  /** Brings a stretch into view with the caret at its start. */
  goTo(place: Stretch): void {
    this.view.dispatch({
      selection: EditorSelection.cursor(place.start),
      effects: EditorView.scrollIntoView(place.start, { y: 'center' }),
    });
  }

  /**
   * Keeps words in view that are spoken: in the upper half, moving on only when they come near an edge.
   * @param moving whether they go on being spoken; else it is enough that they are in sight
   */
  keepInView(place: Stretch, moving = true): void {
    const { scrollDOM } = this.view;
    const at = this.view.lineBlockAt(Math.min(place.start, this.view.state.doc.length));
    const coords = this.view.coordsAtPos(Math.min(place.start, this.view.state.doc.length));
    const box = scrollDOM.getBoundingClientRect();
    const [top, bottom] = coords
      ? [coords.top - box.top, coords.bottom - box.top]
      : [at.top - scrollDOM.scrollTop, at.bottom - scrollDOM.scrollTop];
    if (moving ? top >= 20 && bottom <= box.height * 0.8 : top >= 0 && bottom <= box.height) return;
    this.view.dispatch({ effects: EditorView.scrollIntoView(place.start, { y: 'start', yMargin: box.height * 0.3 }) });
  }

  /** Scrolls so that a position is at the top. */
  scrollTo(position: number): void {
    if (position === 0 && this.view.scrollDOM.scrollTop === 0) return;
    this.view.dispatch({ effects: EditorView.scrollIntoView(Math.min(position, this.view.state.doc.length), { y: 'start' }) });
  }

  /** Leaves the caret where a selection ended: with what is shown next, or else when the task is done. */
  collapse(): void {
    if (this.view.state.selection.main.empty) return;
    this.caretTo = this.view.state.selection.main.to;
    queueMicrotask(() => this.settleCaret());
  }

  private settleCaret(): void {
    if (this.caretTo !== null) this.view.dispatch(this.takeCaret());
  }

  private takeCaret(): { readonly selection?: EditorSelection } {
    const to = this.caretTo;
    this.caretTo = null;
    return to === null ? {} : { selection: EditorSelection.single(to) };
  }

  private onKey(event: KeyboardEvent): boolean {
    const command = commandOf(event);
    if (!command) return false;
    if (command === 'leave passage' && this.view.state.field(chosenField).id === null) return false;
    event.preventDefault();
    this.asked.emit(command);
    return true;
  }

  /** A plain click chooses the shortest passage there; clicking again goes to the next around it. */
  private onClick(event: MouseEvent): boolean {
    if (event.button !== 0 || !this.view.state.selection.main.empty) return false;
    if ((event.target as HTMLElement).closest('.slips')) return false;
    const position = this.view.posAtCoords({ x: event.clientX, y: event.clientY });
    if (position === null) return false;
    this.chosen.emit(this.nextAt(position));
    return false;
  }

  /** Of the passages that lie over one another at a position, the one after the chosen; the shortest comes first. */
  nextAt(position: number): Id | null {
    const here = passagesAt(this.view, position);
    const at = here.findIndex((passage) => passage.id === this.view.state.field(chosenField).id);
    return here[(at + 1) % Math.max(1, here.length)]?.id ?? null;
  }

  private onDrop(event: DragEvent): boolean {
    const codeId = event.dataTransfer?.getData(CODE_DRAG_TYPE);
    if (!codeId) return false;
    event.preventDefault();
    const position = this.view.posAtCoords({ x: event.clientX, y: event.clientY }, false);
    const place = this.selectionOrParagraph(position);
    if (place) this.codeDropped.emit({ codeId, place });
    return true;
  }

  private tellPlace(): void {
    clearTimeout(this.telling);
    this.telling = undefined;
    // off the screen nothing is scrolled to
    if (!this.host.isConnected) return;
    const { scrollDOM } = this.view;
    this.scrolled.emit(this.view.lineBlockAtHeight(scrollDOM.scrollTop - this.view.documentPadding.top + 1).from);
  }
}

/** What a key asks for, or undefined for one that is CodeMirror's or the browser's. */
export function commandOf(event: KeyboardEvent): SurfaceCommand | undefined {
  const command = event.ctrlKey || event.metaKey;
  if (command) return event.key.toLowerCase() === 'f' && !event.altKey ? 'search' : undefined;
  if (event.altKey) {
    const step = EDGE_KEYS[event.key];
    return step && `${event.shiftKey ? 'start' : 'end'} ${step}`;
  }
  // Caps Lock changes nothing
  const key = event.key.length > 1 ? event.key : event.shiftKey ? event.key.toUpperCase() : event.key.toLowerCase();
  if (/^[1-9]$/.test(event.key)) return `number ${Number(event.key)}`;
  return Object.hasOwn(SURFACE_KEYS, key) ? SURFACE_KEYS[key] : undefined;
}

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
  untracked,
  ViewEncapsulation,
} from '@angular/core';
import { Compartment, EditorSelection, EditorState, Prec, type Extension } from '@codemirror/state';
import { EditorView, keymap, type Rect } from '@codemirror/view';
import { standardKeymap } from '@codemirror/commands';
import type { Document, Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { Stretch } from '@core/passages/relations';
import { tidySelection } from '@core/text/stretch';
import { paragraphAt } from '@core/text/paragraphs';
import { codingHover } from './hover';
import { paragraphLooks } from './paragraphs';
import { slips } from './slips';
import { choosePassage, chosenField, passagesAt, showCoding, threads, type Coding } from './threads';

/** What a key asks for while the caret is in the text. */
export type SurfaceCommand = 'code' | 'same' | 'words' | 'memo' | 'comment' | 'previous' | 'next' | 'remove' | 'copy' | 'find';

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
};

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

  readonly asked = output<SurfaceCommand>();
  readonly chosen = output<Id | null>();
  /** A code was dropped on the text: on the selection, or on the paragraph under the pointer. */
  readonly codeDropped = output<{ readonly codeId: Id; readonly place: Stretch }>();
  /** First position in view. */
  readonly scrolled = output<number>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly nonce = inject(CSP_NONCE, { optional: true });
  private readonly content = new Compartment();
  /** Made with the first text, so that nothing is laid out twice. */
  private view!: EditorView;
  private shownText: Text | null = null;
  private shownCoding: Coding | null = null;
  /** Where the caret goes with the next transaction, or null. */
  private caretTo: number | null = null;
  private shownMemos: ReadonlyMap<Id, string> | null = null;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.view?.destroy());
    // CodeMirror would measure in the next frame; asked for a place it measures in this one, and all is painted once
    afterNextRender({ read: () => this.tellPlace() });
    effect(() => this.showText(this.document(), this.text()));
    effect(() => this.showCoding(this.coding(), this.memoTitles(), this.chosenId()));
  }

  private extensions(looks: Extension, coding: Coding): Extension[] {
    return [
      EditorState.readOnly.of(true),
      EditorView.lineWrapping,
      keymap.of(standardKeymap),
      this.nonce ? EditorView.cspNonce.of(this.nonce) : [],
      this.content.of(looks),
      threads(coding),
      slips({ memoTitle: (id) => untracked(this.memoTitles).get(id) ?? null, choose: (id) => this.chosen.emit(id) }),
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
          scroll: () => {
            this.tellPlace();
            return false;
          },
        }),
      ),
      EditorView.updateListener.of((update) => {
        if (update.geometryChanged) this.tellPlace();
      }),
    ];
  }

  private showText(document: Document, text: Text): void {
    const label = EditorView.contentAttributes.of({
      'aria-label': `Text of ${document.title}`,
      'aria-readonly': 'true',
      tabindex: '0',
      spellcheck: 'false',
      translate: 'no',
    });
    const looks = [label, paragraphLooks(document, text)];
    const start = EditorSelection.cursor(text.paragraphs[0]?.body ?? 0);
    if (!this.view) {
      this.shownCoding = untracked(this.coding);
      const state = EditorState.create({ doc: text.text, selection: start, extensions: this.extensions(looks, this.shownCoding) });
      this.view = new EditorView({ parent: this.host, state });
    } else {
      const changed = this.shownText !== text;
      this.view.dispatch({
        ...(changed
          ? { changes: { from: 0, to: this.view.state.doc.length, insert: text.text }, selection: start, scrollIntoView: true }
          : {}),
        // another text comes with its own coding: the one before does not fit it
        effects: changed
          ? [this.content.reconfigure(looks), showCoding.of((this.shownCoding = untracked(this.coding)))]
          : this.content.reconfigure(looks),
      });
    }
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
    return main.empty ? null : tidySelection(this.text().text, main.from, main.to);
  }

  /** The selected stretch, or else the words of the paragraph at the caret. */
  selectionOrParagraph(position = this.view.state.selection.main.head): Stretch | null {
    const selected = this.selection();
    if (selected) return selected;
    const paragraph = this.text().paragraphs[paragraphAt(this.text().paragraphs, position)];
    return paragraph ? tidySelection(this.text().text, paragraph.body, paragraph.end) : null;
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

  /** Brings a stretch into view with the caret at its start. */
  goTo(place: Stretch): void {
    this.view.dispatch({
      selection: EditorSelection.cursor(place.start),
      effects: EditorView.scrollIntoView(place.start, { y: 'center' }),
    });
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
    if (event.ctrlKey || event.metaKey || event.altKey) return false;
    const command = SURFACE_KEYS[event.key];
    if (!command) return false;
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
    const here = passagesAt(this.view, position);
    const at = here.findIndex((passage) => passage.id === this.view.state.field(chosenField).id);
    this.chosen.emit(here[(at + 1) % Math.max(1, here.length)]?.id ?? null);
    return false;
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
    const { scrollDOM } = this.view;
    this.scrolled.emit(this.view.lineBlockAtHeight(scrollDOM.scrollTop - this.view.documentPadding.top + 1).from);
  }
}

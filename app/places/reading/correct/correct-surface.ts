import {
  CSP_NONCE,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  type OnInit,
  output,
  signal,
  ViewEncapsulation,
} from '@angular/core';
import { type ChangeSet, EditorSelection, EditorState, RangeSet, StateField } from '@codemirror/state';
import { EditorView, keymap, type DecorationSet } from '@codemirror/view';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import type { Text } from '@core/model/document';
import type { Passage } from '@core/model/passage';
import { normaliseText } from '@core/text/normalise';
import { mapStretch, type TextEdit, type TextEdits } from '@core/text/edit';
import { layThreads } from '@core/passages/threads';
import { segmentMarks, type Coding } from '../surface/threads';

/**
 * The text as it is stored, labels and all, to be corrected by typing. Threads move with the words while they are
 * typed, and how many passages would lose all their words is counted as they do.
 */
@Component({
  selector: 'fl-correct-surface',
  template: `
    <div class="bar">
      <span>Correcting the text. Passages stay on their words. <span class="second">Ctrl Enter keeps, Esc leaves.</span></span>
      <span class="second" role="status"
        >{{ places() === 0 ? 'nothing changed yet' : places() === 1 ? '1 place changed' : places() + ' places changed'
        }}{{
          lost().length > 0 ? '; ' + (lost().length === 1 ? '1 passage loses' : lost().length + ' passages lose') + ' all words' : ''
        }}</span
      >
      <button class="do quiet" (click)="dropped.emit(places() > 0)">Drop</button>
      <button class="do" (click)="kept.emit(edits())" [disabled]="places() === 0">Keep the corrections</button>
    </div>
  `,
  styleUrls: ['../surface/reading-surface.scss', './correct-surface.scss'],
  host: { class: 'correct-surface reading-surface' },
  encapsulation: ViewEncapsulation.None,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CorrectSurface implements OnInit {
  readonly text = input.required<Text>();
  readonly coding = input.required<Coding>();
  readonly title = input('');
  /** Position to begin at. */
  readonly at = input(0);
  /** What was typed before and neither kept nor dropped. */
  readonly begun = input<TextEdits>([]);
  /** What is typed so far, told within half a second. */
  readonly typed = output<TextEdits>();
  readonly kept = output<TextEdits>();
  /** Leaves it, with whether there is something to lose. */
  readonly dropped = output<boolean>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly nonce = inject(CSP_NONCE, { optional: true });
  private readonly changes = signal<ChangeSet | null>(null);
  protected readonly edits = computed((): TextEdits => editsOf(this.changes()));
  protected readonly places = computed(() => this.edits().length);
  protected readonly lost = computed((): Passage[] =>
    this.coding().passages.filter((passage) => mapStretch(passage, this.edits()) === null),
  );
  private view: EditorView | undefined;
  private telling: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    inject(DestroyRef).onDestroy(() => {
      clearTimeout(this.telling);
      this.view?.destroy();
    });
  }

  ngOnInit(): void {
    const { passages, codes } = this.coding();
    const threads = layThreads(passages, (id) => Object.hasOwn(codes, id));
    const field = StateField.define<DecorationSet>({
      create: () => RangeSet.of(segmentMarks(threads, this.coding())),
      update: (marks, transaction) => marks.map(transaction.changes),
      provide: (own) => EditorView.decorations.from(own),
    });
    const position = Math.min(this.at(), this.text().text.length);
    this.view = new EditorView({
      parent: this.host,
      state: EditorState.create({
        doc: this.text().text,
        selection: EditorSelection.cursor(position),
        extensions: [
          EditorView.lineWrapping,
          history(),
          keymap.of([
            { key: 'Mod-s', run: () => this.finish(), preventDefault: true },
            { key: 'Mod-Enter', run: () => this.finish() },
            // the dialog that asks must not see the key that opened it
            { key: 'Escape', run: () => (this.dropped.emit(this.places() > 0), true), stopPropagation: true },
            ...historyKeymap,
            ...defaultKeymap,
          ]),
          this.nonce ? EditorView.cspNonce.of(this.nonce) : [],
          field,
          EditorView.clipboardInputFilter.of((text) => normaliseText(text)),
          EditorView.contentAttributes.of({ 'aria-label': `Correcting the text of ${this.title()}`, spellcheck: 'true', tabindex: '0' }),
          EditorView.updateListener.of((update) => {
            if (!update.docChanged) return;
            this.changes.update((known) => (known ? known.compose(update.changes) : update.changes));
            clearTimeout(this.telling);
            this.telling = setTimeout(() => this.typed.emit(this.edits()), 400);
          }),
        ],
      }),
    });
    if (this.begun().length > 0) this.view.dispatch({ changes: [...this.begun()] });
    this.view.dispatch({ effects: EditorView.scrollIntoView(position, { y: 'start' }) });
    this.view.focus();
    // a menu that led here gives the focus back to its button when it has closed
    requestAnimationFrame(() => this.view?.focus());
  }

  private finish(): boolean {
    if (this.places() > 0) this.kept.emit(this.edits());
    return true;
  }
}

/** What was typed, as edits of the text as it is stored; typed characters in the one form that texts have. */
function editsOf(changes: ChangeSet | null): TextEdits {
  const edits: TextEdit[] = [];
  changes?.iterChanges((from, to, _a, _b, inserted) => edits.push({ from, to, insert: normaliseText(inserted.toString()) }), true);
  return edits;
}

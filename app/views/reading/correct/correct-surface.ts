import {
  CSP_NONCE,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  type OnInit,
  output,
  signal,
  untracked,
  ViewEncapsulation,
} from '@angular/core';
import { anchorEdits, carryOver, type AnchoredEdit, type CarriedOver } from '@core/text/carry-over';
import { holdFocus } from '../../../ui/keys/hold-focus';
import { Drafts } from '../../../state/drafts';
import { type ChangeSet, EditorSelection, EditorState, RangeSet, StateField } from '@codemirror/state';
import { EditorView, keymap, type DecorationSet } from '@codemirror/view';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import type { TimeMark } from '@core/commands/correct-text';
import type { Text } from '@core/model/document';
import type { Passage } from '@core/model/passage';
import { normaliseText } from '@core/text/normalise';
import { diffEdits } from '@core/text/diff-edits';
import { mapPosition, mapStretch, type TextEdit, type TextEdits } from '@core/text/edit';
import { layThreads } from '@core/passages/threads';
import { segmentMarks, type Coding } from '../surface/threads';
import { retimed, timesOf, transcribing, type Listening } from './transcribing';

/** What is typed over a text. */
export interface Corrections extends CarriedOver {
  /** The text that the edits are of. */
  readonly text: Text;
  /** Of a transcript that is typed while it is listened to: times as they are now, by position of what is typed. */
  readonly times?: readonly TimeMark[];
}

const sameTimes = (one: readonly TimeMark[], other: readonly TimeMark[]): boolean => JSON.stringify(one) === JSON.stringify(other);

/**
 * The text as it is stored, labels and all, to be corrected by typing. Threads move with the words while they are
 * typed, and how many passages would lose all their words is counted as they do.
 */
@Component({
  selector: 'fl-correct-surface',
  template: `
    <div class="bar">
      @if (listening()) {
        <span>Transcribing. <span class="second">Enter: the next speaker, Alt 1 to 9: a speaker.</span></span>
        <ng-content />
      } @else {
        <span>Correcting the text. Passages stay on their words. <span class="second">Ctrl Enter keeps, Esc leaves.</span></span>
      }
      <span class="second" role="status"
        >{{ places() === 0 ? 'nothing changed yet' : places() === 1 ? '1 place changed' : places() + ' places changed'
        }}{{
          lost().length > 0 ? '; ' + (lost().length === 1 ? '1 passage loses' : lost().length + ' passages lose') + ' all words' : ''
        }}</span
      >
      <button class="do quiet" (click)="dropped.emit(holds())">Drop</button>
      <button class="do" (click)="finish()" [disabled]="!changed()">{{ listening() ? 'Keep' : 'Keep the corrections' }}</button>
    </div>
    @if (refusal() || news()) {
      <p class="writing-note" role="alert">{{ refusal() || news() }}</p>
    }
    @if (uncertain().length > 0) {
      <section class="uncertain" aria-label="Corrections without a place">
        <p>
          The text was changed where you had corrected it. Below is the text as it is now; this is what you had typed, to be put in again
          where it still belongs.
        </p>
        <ul>
          @for (one of uncertain(); track $index) {
            <li>
              {{ one.was ? '“' + one.was + '” to' : 'added' }}
              <strong dir="auto">{{ one.insert ? '“' + one.insert + '”' : 'nothing' }}</strong>
              <span class="second">in “…{{ one.before }}[ ]{{ one.after }}…”</span>
              <button class="act small" (click)="place(one)">Done</button>
            </li>
          }
        </ul>
      </section>
    }
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
  readonly begun = input<CarriedOver>({ edits: [], uncertain: [] });
  /** Why the corrections could not be kept. */
  readonly refusal = input<string | null>(null);
  /** What is listened to while it is typed; null where a text is only corrected. */
  readonly listening = input<Listening | null>(null);
  /** Times that were noted before and neither kept nor dropped. */
  readonly begunTimes = input<readonly TimeMark[] | null>(null);
  /** What is typed so far, told at every key. */
  readonly typed = output<Corrections>();
  readonly kept = output<Corrections>();
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
  /** The text that is corrected here: what is typed are edits of this one. */
  private base!: Text;
  /** Corrections that lost their place when the text changed underneath. */
  protected readonly uncertain = signal<readonly AnchoredEdit[]>([]);
  /** What became of the corrections when the text changed underneath. */
  protected readonly news = signal('');
  /** Times as they are typed, where one listens. */
  private readonly times = signal<readonly TimeMark[]>([]);
  private firstTimes: readonly TimeMark[] = [];
  protected readonly changed = computed(() => this.places() > 0 || !sameTimes(this.times(), this.firstTimes));
  protected readonly holds = computed(() => this.changed() || this.uncertain().length > 0);
  private view: EditorView | undefined;

  constructor() {
    effect(() => {
      const text = this.text();
      untracked(() => {
        if (this.view && text.text !== this.base.text) this.moveTo(text);
      });
    });
    const unwatch = inject(Drafts).watch(() => this.holds());
    inject(DestroyRef).onDestroy(() => {
      unwatch();
      this.view?.destroy();
    });
  }

  /** The text was changed underneath, by undo or elsewhere: what is typed goes over where its place is certain. */
  private moveTo(text: Text): void {
    const { edits, uncertain } = carryOver(anchorEdits(this.base.text, this.edits()), text.text);
    const top = this.view!.scrollDOM.scrollTop;
    const typed = this.view!.state.doc.toString();
    const times = this.times();
    this.base = text;
    this.changes.set(null);
    this.uncertain.update((known) => [...known, ...uncertain]);
    this.view!.setState(this.stateOf(Math.min(this.view!.state.selection.main.head, text.text.length)));
    if (edits.length > 0) this.view!.dispatch({ changes: [...edits] });
    if (this.listening() && !sameTimes(times, this.times())) {
      // times go along with the words they were noted at
      const moved = diffEdits(typed, this.view!.state.doc.toString());
      const at = (position: number): number => mapPosition(Math.min(position, typed.length), moved, 1, typed.length);
      this.view!.dispatch({ effects: retimed(times.map((time) => ({ ...time, at: at(time.at) }))) });
    }
    this.view!.scrollDOM.scrollTop = top;
    this.news.set(
      edits.length > 0
        ? 'The text was changed meanwhile. Your corrections stand in the text as it is now, where their place is certain.'
        : '',
    );
    this.tell();
  }

  /** A correction without a place is dealt with. */
  protected place(one: AnchoredEdit): void {
    this.uncertain.update((known) => known.filter((other) => other !== one));
    this.tell();
  }

  private tell(): void {
    this.typed.emit(this.corrections());
  }

  private corrections(): Corrections {
    const times = this.listening() ? { times: this.times() } : {};
    return { text: this.base, edits: this.edits(), uncertain: this.uncertain(), ...times };
  }

  /** Does something with the text where the caret is, for keys that are not the text's own. */
  act(action: (view: EditorView, listening: Listening) => void): void {
    const listening = this.listening();
    if (this.view && listening) action(this.view, listening);
  }

  ngOnInit(): void {
    this.base = this.text();
    const position = Math.min(this.at(), this.base.text.length);
    this.view = new EditorView({ parent: this.host, state: this.stateOf(position) });
    const { edits, uncertain } = this.begun();
    this.uncertain.set(uncertain);
    const begunTimes = this.listening() ? this.begunTimes() : null;
    if (edits.length > 0 || begunTimes) this.view.dispatch({ changes: [...edits], effects: begunTimes ? retimed(begunTimes) : [] });
    this.view.dispatch({ effects: EditorView.scrollIntoView(position, { y: 'start' }) });
    holdFocus(() => this.view?.focus());
  }

  private stateOf(position: number): EditorState {
    const listening = this.listening();
    this.firstTimes = listening?.times ?? [];
    this.times.set(this.firstTimes);
    const { passages, codes } = this.coding();
    const threads = layThreads(passages, (id) => Object.hasOwn(codes, id));
    const field = StateField.define<DecorationSet>({
      create: () => RangeSet.of(segmentMarks(threads, this.coding())),
      update: (marks, transaction) => marks.map(transaction.changes),
      provide: (own) => EditorView.decorations.from(own),
    });
    return EditorState.create({
      doc: this.base.text,
      selection: EditorSelection.cursor(position),
      extensions: [
        EditorView.lineWrapping,
        history(),
        listening ? transcribing(listening) : [],
        keymap.of([
          { key: 'Mod-s', run: () => this.finish(), preventDefault: true },
          { key: 'Mod-Enter', run: () => this.finish() },
          // the dialog that asks must not see the key that opened it
          { key: 'Escape', run: () => (this.dropped.emit(this.holds()), true), stopPropagation: true },
          ...historyKeymap,
          ...defaultKeymap,
        ]),
        this.nonce ? EditorView.cspNonce.of(this.nonce) : [],
        field,
        EditorView.clipboardInputFilter.of((text) => normaliseText(text)),
        EditorView.contentAttributes.of({
          'aria-label': `${listening ? 'Transcribing' : 'Correcting'} the text of ${this.title()}`,
          spellcheck: 'true',
          tabindex: '0',
        }),
        EditorView.updateListener.of((update) => {
          if (listening) {
            const times = timesOf(update.state);
            if (!sameTimes(times, this.times())) {
              this.times.set(times);
              if (!update.docChanged) this.tell();
            }
          }
          if (!update.docChanged) return;
          this.changes.update((known) => (known ? known.compose(update.changes) : update.changes));
          this.tell();
        }),
      ],
    });
  }

  protected finish(): boolean {
    if (this.changed()) this.kept.emit(this.corrections());
    return true;
  }
}

/** What was typed, as edits of the text as it is stored; typed characters in the one form that texts have. */
function editsOf(changes: ChangeSet | null): TextEdits {
  const edits: TextEdit[] = [];
  changes?.iterChanges((from, to, _a, _b, inserted) => edits.push({ from, to, insert: normaliseText(inserted.toString()) }), true);
  return edits;
}

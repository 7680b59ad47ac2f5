import { counted } from '@core/text/counted';
import { ChangeDetectionStrategy, Component, computed, effect, type ElementRef, inject, output, signal, viewChild } from '@angular/core';
import { Store } from '@ngrx/store';
import { codePlaces } from '@core/commands/passages';
import { findInTexts } from '@core/text/find-replace';
import type { Stretch } from '@core/model/stretch';
import { unitAt } from '@core/text/units';
import { Notices } from '../../state/notices';
import { StudySession } from '../../state/study-session';
import { selectCodes } from '../../state/study.selectors';
import { Icon } from '../../ui/icon/icon';
import { CodePicker, codesOf, type Picked } from '../../ui/picker/code-picker';
import { ReadingHere } from './reading-here';
import type { FoundWords } from './surface/find-marks';

/** Hits that are shown at most; more are said to be more. */
const MOST = 5_000;

/** Finds words in the document at hand, goes from hit to hit, and codes them all. */
@Component({
  selector: 'fl-find-bar',
  imports: [Icon, CodePicker],
  template: `
    <input
      #box
      type="search"
      aria-label="Find in this document"
      placeholder="Find in this document"
      [value]="words()"
      (input)="words.set(box.value); at.set(0)"
      (keydown.enter)="$event.preventDefault(); step(1)"
      (keydown.shift.enter)="$event.preventDefault(); step(-1)"
      (keydown.escape)="$event.stopPropagation(); closed.emit()"
    />
    <span class="second" role="status">{{ said() }}</span>
    <button class="icon" (click)="step(-1)" [disabled]="hits().length === 0" aria-label="Previous hit"><fl-icon name="arrow-up" /></button>
    <button class="icon" (click)="step(1)" [disabled]="hits().length === 0" aria-label="Next hit"><fl-icon name="arrow-down" /></button>
    <label><input type="checkbox" #whole [checked]="wholeWords()" (change)="wholeWords.set(whole.checked)" />whole words</label>
    <label><input type="checkbox" #cased [checked]="matchCase()" (change)="matchCase.set(cased.checked)" />Aa as typed</label>
    <span class="code">
      <button class="act" (click)="picking.set(!picking())" [disabled]="hits().length === 0" [attr.aria-expanded]="picking()">
        Code {{ hits().length > 1 ? 'these ' + hits().length.toLocaleString() : 'it' }}
      </button>
      <select #unit aria-label="How much around each hit is coded" (change)="around.set(kindOf(unit.value))">
        @for (kind of kinds; track kind) {
          <option [value]="kind" [selected]="kind === around()">{{ kind === 'hit' ? 'the words found' : 'their ' + kind }}</option>
        }
      </select>
      @if (picking()) {
        <fl-code-picker class="floating" (picked)="code($event)" (closed)="picking.set(false)" />
      }
    </span>
    <button class="icon end" (click)="closed.emit()" aria-label="End the search"><fl-icon name="x" /></button>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 8px;
      padding: 5px 18px 5px 96px;
      border-bottom: 1px solid var(--rule);
      --icon-size: 15px;
      white-space: nowrap;
    }
    input[type='search'] {
      width: 200px;
    }
    label {
      display: flex;
      align-items: center;
      gap: 5px;
    }
    .code {
      position: relative;
      display: flex;
      align-items: center;
    }
    .floating {
      position: absolute;
      top: 30px;
      right: 0;
      z-index: 40;
    }
    .end {
      margin-left: auto;
    }
    @media (max-width: 1000px) {
      :host {
        padding-left: 18px;
        flex-wrap: wrap;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FindBar {
  readonly found = output<FoundWords>();
  readonly closed = output();

  private readonly here = inject(ReadingHere);
  private readonly session = inject(StudySession);
  private readonly notices = inject(Notices);
  private readonly codes = inject(Store).selectSignal(selectCodes);
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');
  protected readonly words = signal('');
  protected readonly at = signal(0);
  protected readonly matchCase = signal(false);
  protected readonly wholeWords = signal(false);
  protected readonly picking = signal(false);
  protected readonly kinds = ['hit', 'sentence', 'paragraph', 'turn'] as const;
  protected readonly around = signal<(typeof this.kinds)[number]>('sentence');

  protected readonly hits = computed((): readonly Stretch[] => {
    const text = this.here.text();
    if (!text || !this.words().trim()) return [];
    return findInTexts([text], { words: this.words(), matchCase: this.matchCase(), wholeWords: this.wholeWords() }, MOST);
  });
  protected readonly said = computed(() => {
    const count = this.hits().length;
    if (!this.words().trim()) return '';
    return count === 0
      ? 'not in this document'
      : `${Math.min(this.at() + 1, count)} of ${count.toLocaleString()}${count === MOST ? ' or more' : ''}`;
  });

  constructor() {
    effect(() => this.found.emit({ hits: this.hits(), at: this.hits().length > 0 ? Math.min(this.at(), this.hits().length - 1) : -1 }));
  }

  /** @param words to look for at first; empty to leave what stands there */
  focus(words: string): void {
    if (words && !words.includes('\n') && words.length < 80) {
      this.words.set(words);
      this.at.set(0);
    }
    this.box().nativeElement.focus();
    this.box().nativeElement.select();
  }

  protected kindOf(value: string): (typeof this.kinds)[number] {
    return this.kinds.find((kind) => kind === value) ?? 'hit';
  }

  protected step(by: 1 | -1): void {
    const count = this.hits().length;
    // what is typed may have left fewer than there were
    if (count > 0) this.at.update((at) => (Math.min(at, count - 1) + by + count) % count);
  }

  /** Codes every hit with as much around it as chosen; hits in the same sentence, paragraph or turn once. */
  protected code(picked: Picked): void {
    const text = this.here.text();
    const document = this.here.document();
    if (!text || !document) return;
    const kind = this.around();
    const places = this.hits().map((hit) => (kind === 'hit' ? hit : (unitAt(text, hit.start, kind, this.here.language()) ?? hit)));
    const name = 'codeId' in picked ? this.codes()[picked.codeId]?.name : picked.newCode.name;
    const { done, refused } = this.session.attempt(
      codePlaces({
        documentId: document.id,
        places,
        ...codesOf(picked),
      }),
    );
    if (refused !== null) return this.notices.refuse(refused);
    const count = done?.change.filter((one) => one.type === 'passage').length ?? 0;
    this.notices.say(count > 0 ? `${counted(count, 'passage')} coded with ${name}.` : `All of them carry ${name} already.`);
  }
}

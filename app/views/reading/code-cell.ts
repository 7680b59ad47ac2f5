import { ChangeDetectionStrategy, Component, computed, type ElementRef, inject, input, output, signal, viewChild } from '@angular/core';
import { Store } from '@ngrx/store';
import { removeCoding } from '@core/commands/passages';
import { codeNamed, findCodes } from '@core/codebook/find-codes';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import type { Passage } from '@core/model/passage';
import { samePlace } from '@core/passages/relations';
import type { Stretch } from '@core/model/stretch';
import { tidyLine } from '@core/text/normalise';
import { StudySession } from '../../state/study-session';
import { selectCodes, selectOfferedCodes, selectRecentCodeIds, selectStudy } from '../../state/study.selectors';
import type { Picked } from '../../ui/picker/code-picker';
import { Swatch } from '../../ui/swatch/swatch';

interface Choice {
  readonly code?: Code;
  readonly newName?: string;
}

/**
 * The codes of a unit in a cell: typed with completion from the codebook. Enter codes, or with nothing typed goes to
 * the next row; Backspace with nothing typed takes the last one off.
 */
@Component({
  selector: 'fl-code-cell',
  imports: [Swatch],
  template: `
    @for (code of own(); track code.id) {
      <span class="code"
        ><fl-swatch [mark]="code.mark" [colour]="code.colour" />{{ code.name
        }}<button (click)="takeOff(code.id)" tabindex="-1" [attr.aria-label]="'Take ' + code.name + ' off ' + label()">×</button></span
      >
    }
    @for (code of within(); track code.id) {
      <span class="code part" [title]="code.name + ' is on a part of this, or on more than this'"
        ><fl-swatch [mark]="code.mark" [colour]="code.colour" />{{ code.name }}</span
      >
    }
    <span class="box">
      <input
        #box
        role="combobox"
        autocomplete="off"
        spellcheck="false"
        placeholder="code"
        [attr.aria-label]="'Codes of ' + label()"
        [attr.aria-expanded]="open() && choices().length > 0"
        aria-autocomplete="list"
        [attr.aria-controls]="id() + '-choices'"
        [attr.aria-activedescendant]="open() && choices().length > 0 ? id() + '-' + marked() : null"
        [value]="typed()"
        (input)="onType(box.value)"
        (keydown)="onKey($event)"
        (focus)="focused.emit()"
        (blur)="open.set(false)"
      />
      @if (open() && choices().length > 0) {
        <ul [id]="id() + '-choices'" role="listbox" [attr.aria-label]="'Codes for ' + label()">
          @for (choice of choices(); track choice.code?.id ?? choice.newName; let at = $index) {
            <li
              [id]="id() + '-' + at"
              role="option"
              tabindex="-1"
              [attr.aria-selected]="at === marked()"
              [class.marked]="at === marked()"
              (mousedown)="$event.preventDefault(); take(choice)"
            >
              @if (choice.code; as code) {
                <fl-swatch [mark]="code.mark" [colour]="code.colour" />{{ code.name }}
              } @else {
                New code <strong>{{ choice.newName }}</strong>
              }
            </li>
          }
        </ul>
      }
    </span>
  `,
  styleUrl: './code-cell.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CodeCell {
  readonly documentId = input.required<Id>();
  readonly place = input.required<Stretch>();
  /** Passages that share words with the place. */
  readonly passages = input.required<readonly Passage[]>();
  /** What the unit is called to a screen reader. */
  readonly label = input.required<string>();
  /** Unique in the page. */
  readonly id = input.required<string>();
  readonly picked = output<Picked>();
  /** Goes on to the next row, or back. */
  readonly left = output<1 | -1>();
  readonly focused = output();

  private readonly session = inject(StudySession);
  private readonly store = inject(Store);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly offered = this.store.selectSignal(selectOfferedCodes);
  private readonly recent = this.store.selectSignal(selectRecentCodeIds);
  private readonly study = this.store.selectSignal(selectStudy);
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');
  protected readonly typed = signal('');
  protected readonly open = signal(false);
  protected readonly marked = signal(0);

  private readonly here = computed(() => this.passages().filter((passage) => samePlace(passage, this.place())));
  protected readonly own = computed(() => this.codesOf(this.here()));
  protected readonly within = computed(() => {
    const own = this.own();
    return this.codesOf(this.passages().filter((passage) => !samePlace(passage, this.place()))).filter((code) => !own.includes(code));
  });
  /** Codes that fit, then the name of one to be made. */
  protected readonly choices = computed((): readonly Choice[] => {
    const typed = tidyLine(this.typed());
    const found = findCodes(this.offered(), typed, this.recent(), 7).map(({ code }): Choice => ({ code }));
    return typed && !codeNamed(this.codes(), typed) ? [...found, { newName: typed }] : found;
  });

  focus(): void {
    this.box().nativeElement.focus();
  }

  private codesOf(passages: readonly Passage[]): Code[] {
    const ids = new Set(passages.flatMap((passage) => passage.codings.map((coding) => coding.codeId)));
    return [...ids].flatMap((id) => this.codes()[id] ?? []);
  }

  protected onType(value: string): void {
    this.typed.set(value);
    this.marked.set(0);
    this.open.set(value.trim() !== '');
  }

  protected onKey(event: KeyboardEvent): void {
    const last = this.choices().length - 1;
    if (event.key === 'ArrowDown' && this.open()) this.marked.update((at) => Math.min(last, at + 1));
    else if (event.key === 'ArrowUp' && this.open()) this.marked.update((at) => Math.max(0, at - 1));
    else if (event.key === 'ArrowDown' || (event.key === 'Enter' && !this.open())) this.left.emit(event.shiftKey ? -1 : 1);
    else if (event.key === 'ArrowUp') this.left.emit(-1);
    else if (event.key === 'Enter') this.take(this.choices()[this.marked()]);
    else if (event.key === 'Escape' && this.open()) this.onType('');
    else if (event.key === 'Backspace' && !this.typed() && this.own().length > 0) this.takeOff(this.own().at(-1)!.id);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  protected take(choice: Choice | undefined): void {
    if (!choice) return;
    this.picked.emit(choice.code ? { codeId: choice.code.id } : { newCode: { name: choice.newName! } });
    this.onType('');
    this.box().nativeElement.value = '';
  }

  /** Takes off what this coder gave; only where they gave none, what others did. */
  protected takeOff(codeId: Id): void {
    const passage = this.here().find((one) => one.codings.some((coding) => coding.codeId === codeId));
    if (!passage) return;
    const mine = passage.codings.some((coding) => coding.codeId === codeId && coding.coderId === this.study()!.currentCoderId);
    this.session.run(removeCoding(this.documentId(), passage.id, codeId, mine ? this.study()!.currentCoderId : null));
  }
}

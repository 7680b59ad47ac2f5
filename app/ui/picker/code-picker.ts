import {
  afterNextRender,
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { Store } from '@ngrx/store';
import type { WantedCodes } from '@core/commands/passages';
import { codeNamed, findCodes } from '@core/codebook/find-codes';
import type { NewCode } from '@core/codebook/new-code';
import type { Id } from '@core/model/ids';
import { tidyLine } from '@core/text/normalise';
import { selectOfferedCodes, selectRecentCodeIds, selectStudy } from '../../state/study.selectors';
import { holdFocus } from '../keys/hold-focus';
import { Swatch } from '../swatch/swatch';
import { CodeCounts, howOften } from '../../state/code-counts';

/** What was picked: a code that is there, or one to be made. */
export type Picked = { readonly codeId: Id } | { readonly newCode: NewCode };

/** What was picked, as commands want it. */
export const codesOf = (picked: Picked): WantedCodes =>
  'codeId' in picked ? { codeIds: [picked.codeId] } : { codeIds: [], newCodes: [picked.newCode] };

interface Choice {
  readonly key: string;
  readonly picked: Picked;
  readonly mark: string | null;
  readonly colour: number;
  readonly name: string;
  readonly category: string;
  readonly count: number | null;
}

/** Opens at the selection: finds a code by any part of its name, category or definition, or makes one. */
@Component({
  selector: 'fl-code-picker',
  imports: [Swatch],
  templateUrl: './code-picker.html',
  styleUrl: './code-picker.scss',
  host: { role: 'dialog', 'aria-label': 'Code the passage', '(keydown)': 'onKey($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CodePicker {
  /** The selected words, offered as a code. */
  readonly words = input('');
  /** Codes given so far while the picker was open. */
  readonly given = signal<readonly string[]>([]);
  readonly picked = output<Picked>();
  /** Closed for good; the text takes the focus back. */
  readonly closed = output<void>();

  private readonly store = inject(Store);
  private readonly codes = this.store.selectSignal(selectOfferedCodes);
  private readonly study = this.store.selectSignal(selectStudy);
  /** The codebook is frozen: new codes are proposed instead of made. */
  protected readonly frozen = computed(() => this.study()?.frozen !== undefined);
  private readonly counts = inject(CodeCounts).scoped;
  private readonly recent = this.store.selectSignal(selectRecentCodeIds);
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly typed = signal('');
  protected readonly marked = signal(0);
  /** A new code that waits for its definition, or null. */
  protected readonly defining = signal<NewCode | null>(null);
  private readonly definition = viewChild<ElementRef<HTMLTextAreaElement>>('definition');
  private readonly application = inject(ApplicationRef);

  protected readonly choices = computed((): Choice[] => {
    const typed = this.typed();
    const slash = typed.lastIndexOf('/');
    const category = slash >= 0 ? tidyLine(typed.slice(0, slash)) : '';
    const name = tidyLine(typed.slice(slash + 1));
    const found = findCodes(this.codes(), slash >= 0 ? `${category} ${name}` : typed, this.recent(), 8).map(
      ({ code, categories }): Choice => ({
        key: code.id,
        picked: { codeId: code.id },
        mark: code.mark,
        colour: code.colour,
        name: code.name,
        category: categories[0] ?? '',
        count: howOften(this.counts(), 'own', code.id),
      }),
    );
    return name ? [...found, ...this.newChoices(category, name, found[0]?.picked)] : found;
  });

  constructor() {
    afterNextRender(() => holdFocus(() => this.box().nativeElement.focus()));
  }

  /** A code under the category typed; else one at the top, and one beside the best find. */
  private newChoices(category: string, name: string, best: Picked | undefined): Choice[] {
    const codes = this.codes();
    const choice = (parentId: Id | null, under: string): Choice => ({
      key: `new ${parentId}`,
      picked: { newCode: { name, parentId } },
      mark: null,
      colour: 0,
      name,
      category: under,
      count: null,
    });
    if (category) {
      const parent = codeNamed(codes, category) ?? findCodes(codes, category, [], 1)[0]?.code;
      return parent && !codeNamed(codes, name, parent.id) ? [choice(parent.id, parent.name)] : [];
    }
    if (codeNamed(codes, name)) return [];
    const near = best && 'codeId' in best ? codes[best.codeId] : undefined;
    const parent = near?.parentId ? codes[near.parentId] : undefined;
    return parent ? [choice(null, ''), choice(parent.id, parent.name)] : [choice(null, '')];
  }

  protected onType(value: string): void {
    this.typed.set(value);
    this.marked.set(0);
  }

  protected onKey(event: KeyboardEvent): void {
    const last = this.choices().length - 1;
    switch (event.key) {
      case 'ArrowDown':
        this.mark(Math.min(last, this.marked() + 1));
        break;
      case 'ArrowUp':
        this.mark(Math.max(0, this.marked() - 1));
        break;
      case 'Enter':
        if (event.ctrlKey || event.metaKey) {
          this.define();
          break;
        }
        this.pick(this.choices()[this.marked()], event.shiftKey);
        break;
      case 'Tab':
        if (!this.words()) return;
        this.pick(
          { key: 'words', picked: this.inTheirWords(), mark: null, colour: 0, name: this.words(), category: '', count: null },
          false,
        );
        break;
      case 'Escape':
        this.closed.emit();
        break;
      default:
        event.stopPropagation();
        return;
    }
    event.preventDefault();
    event.stopPropagation();
  }

  /** Asks what the new code that was typed is to mean, before it is made. */
  private define(): void {
    const choice = [this.choices()[this.marked()], ...this.choices()].find((one) => one && 'newCode' in one.picked);
    if (!choice || !('newCode' in choice.picked)) return;
    this.defining.set(choice.picked.newCode);
    this.application.tick();
    this.definition()?.nativeElement.focus();
  }

  /** In the field for the definition: Enter makes the code, Escape goes back to its name. */
  protected onDefinitionKey(event: KeyboardEvent, definition: string): void {
    event.stopPropagation();
    const made = this.defining();
    if (event.key === 'Escape') {
      this.defining.set(null);
      this.box().nativeElement.focus();
    } else if (event.key === 'Enter' && !event.shiftKey && made) {
      this.picked.emit({ newCode: { ...made, definition } });
      this.closed.emit();
    } else return;
    event.preventDefault();
  }

  private mark(at: number): void {
    this.marked.set(Math.max(0, at));
    this.host.querySelector(`#choice-${at}`)?.scrollIntoView({ block: 'nearest' });
  }

  private inTheirWords(): Picked {
    const known = codeNamed(this.codes(), this.words());
    return known ? { codeId: known.id } : { newCode: { name: this.words() } };
  }

  protected pick(choice: Choice | undefined, another: boolean): void {
    if (!choice) return;
    this.picked.emit(choice.picked);
    if (!another) {
      this.closed.emit();
      return;
    }
    this.given.update((given) => [...given, choice.name]);
    this.onType('');
    this.box().nativeElement.value = '';
    this.box().nativeElement.focus();
  }
}

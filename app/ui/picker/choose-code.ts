import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, type MatDialog, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { codeNamed, findCodes } from '@core/codebook/find-codes';
import type { WantedCodes } from '@core/commands/passages';
import type { Id } from '@core/model/ids';
import { tidyLine } from '@core/text/normalise';
import { selectCodes } from '../../state/study.selectors';
import { Swatch } from '../swatch/swatch';

/** What is to be chosen, and what may be. */
export interface CodeQuestion {
  readonly title: string;
  readonly lines?: readonly string[];
  readonly except?: ReadonlySet<Id>;
  /** Offers this as a first choice that is no code: the top of the codebook. */
  readonly top?: string;
  /** Offers to make a code of what was typed. */
  readonly mayMake?: boolean;
}

/** A code, the choice that is no code, or a name for a new one. */
export type ChosenCode = { readonly codeId: Id } | { readonly top: true } | { readonly name: string };

/** What a choice means for what is to be coded; null for none, and for the choice that is no code. @param parentId where a new code comes under */
export function wantedCodes(chosen: ChosenCode | null, parentId: Id | null = null): WantedCodes | null {
  if (!chosen || 'top' in chosen) return null;
  return 'codeId' in chosen ? { codeIds: [chosen.codeId] } : { codeIds: [], newCodes: [{ name: chosen.name, parentId }] };
}

interface Offer {
  readonly key: string;
  readonly chosen: ChosenCode;
  readonly name: string;
  readonly second: string;
  readonly mark: string | null;
  readonly colour: number;
}

/** Chooses one code of the codebook, by typing. */
@Component({
  selector: 'fl-choose-code',
  imports: [MatDialogModule, Swatch],
  template: `
    <h2 mat-dialog-title>{{ data.title }}</h2>
    <mat-dialog-content>
      @for (line of data.lines; track line) {
        <p class="second">{{ line }}</p>
      }
      <input
        #box
        cdkFocusInitial
        role="combobox"
        aria-expanded="true"
        aria-controls="offered-codes"
        aria-label="Find a code"
        placeholder="Find a code"
        autocomplete="off"
        [attr.aria-activedescendant]="offers().length > 0 ? 'offer-' + marked() : null"
        (input)="type(box.value)"
        (keydown)="onKey($event)"
      />
      <ul id="offered-codes" role="listbox" aria-label="Codes">
        @for (offer of offers(); track offer.key; let at = $index) {
          <li
            [id]="'offer-' + at"
            role="option"
            tabindex="-1"
            [attr.aria-selected]="at === marked()"
            [class.marked]="at === marked()"
            (click)="choose(offer)"
            (keydown.enter)="choose(offer)"
          >
            @if (offer.mark !== null) {
              <fl-swatch [mark]="offer.mark" [colour]="offer.colour" />
            }
            <span class="name">{{ offer.name }}</span>
            <span class="second small">{{ offer.second }}</span>
          </li>
        } @empty {
          <li class="second" role="option" aria-selected="false">No code fits.</li>
        }
      </ul>
    </mat-dialog-content>
    <mat-dialog-actions align="end"><button class="do quiet" mat-dialog-close>Cancel</button></mat-dialog-actions>
  `,
  styles: `
    ul {
      height: 290px;
      overflow: auto;
      margin-top: 8px;
    }
    li {
      display: flex;
      align-items: baseline;
      gap: 9px;
      min-height: 26px;
      padding: 3px 8px;
      cursor: pointer;
      border-radius: 4px;
    }
    .marked,
    li:hover {
      background: var(--accent-ground);
    }
    .name {
      flex: none;
      max-width: 70%;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    p {
      margin-bottom: 8px;
    }
    mat-dialog-actions {
      padding: 8px 24px 18px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChooseCode {
  protected readonly data = inject<CodeQuestion>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<ChooseCode, ChosenCode>>(MatDialogRef);
  private readonly codes = inject(Store).selectSignal(selectCodes);
  private readonly typed = signal('');
  protected readonly marked = signal(0);
  protected readonly offers = computed((): Offer[] => {
    const typed = this.typed();
    const found = findCodes(this.codes(), typed, [], 200)
      .filter(({ code }) => !this.data.except?.has(code.id))
      .slice(0, 60)
      .map(({ code, categories }): Offer => ({
        key: code.id,
        chosen: { codeId: code.id },
        name: code.name,
        second: categories.join(' · '),
        mark: code.mark,
        colour: code.colour,
      }));
    const plain = { second: '', mark: null, colour: 0 };
    const top: Offer[] = this.data.top && !typed.trim() ? [{ ...plain, key: 'top', chosen: { top: true }, name: this.data.top }] : [];
    const name = tidyLine(typed);
    const make: Offer[] =
      this.data.mayMake && name && !codeNamed(this.codes(), name)
        ? [{ ...plain, key: 'new', chosen: { name }, name: `New code ${name}` }]
        : [];
    return [...top, ...found, ...make];
  });

  /** Opens over the present place. @returns null for cancel */
  static async open(dialog: MatDialog, question: CodeQuestion): Promise<ChosenCode | null> {
    const opened = dialog.open<ChooseCode, CodeQuestion, ChosenCode>(ChooseCode, { data: question, width: '480px' });
    return (await firstValueFrom(opened.afterClosed())) ?? null;
  }

  protected type(value: string): void {
    this.typed.set(value);
    this.marked.set(0);
  }

  protected onKey(event: KeyboardEvent): void {
    const last = this.offers().length - 1;
    if (event.key === 'ArrowDown') this.marked.set(Math.min(last, this.marked() + 1));
    else if (event.key === 'ArrowUp') this.marked.set(Math.max(0, this.marked() - 1));
    else if (event.key === 'Enter') this.choose(this.offers()[this.marked()]);
    else return;
    event.preventDefault();
    document.getElementById(`offer-${this.marked()}`)?.scrollIntoView({ block: 'nearest' });
  }

  protected choose(offer: Offer | undefined): void {
    if (offer) this.dialog.close(offer.chosen);
  }
}

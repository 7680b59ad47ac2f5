import { ChangeDetectionStrategy, Component, computed, ElementRef, forwardRef, inject, input, output, signal } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import type { DocumentKind } from '@core/model/document';
import type { GroundName } from '@core/model/ground';
import {
  nestFrom,
  nestOf,
  NEARNESS_UNITS,
  PLACED,
  STANDINGS,
  type LiesIn,
  type NearnessUnit,
  type PassageCondition,
  type Stands,
} from '@core/model/passage-condition';
import { HeldWordsSchema } from '@core/model/word-search';
import { readExpression, type WordListsByName } from '@core/words/expression';
import { GROUNDS_IN_WORDS, KINDS_IN_WORDS, PLACED_IN_WORDS, STANDINGS_IN_WORDS } from '@core/queries/words';
import { Icon } from '../icon/icon';
import { choicesOf, SentencePart, type Choice } from './sentence-part';
import { AskedHere } from './asked-here';
import { CarriesPart } from './carries-part';
import { ChosenOf } from './chosen-of';
import { FactPart } from './fact-part';
import { NEW_PARTS, type NewPart } from './new-part';

// a part can hold a list of parts, and a list holds parts: the two know each other

/** Parts of a question under each other, each to be changed or taken away, and what can be added to them. */
@Component({
  selector: 'fl-condition-list',
  imports: [Icon, MatMenuModule, forwardRef(() => ConditionPart)],
  template: `
    <ul [attr.aria-label]="label()">
      @for (part of parts(); track $index; let at = $index; let first = $first) {
        <li>
          <div class="line">
            <span class="joint">{{ first ? '' : joint() }}</span>
            <fl-condition-part
              [asked]="part"
              [fresh]="(fresh() && first) || freshAt() === at"
              [attributesOf]="attributesOf()[at] ?? 'case'"
              (changed)="set(at, $event)"
            />
            <button class="icon" (click)="set(at, null)" [attr.aria-label]="'Take away part ' + (at + 1)"><fl-icon name="x" /></button>
          </div>
          @for (count of counts()?.[at] ?? []; track $index) {
            <span class="count number" [title]="countedAs()[$index] ?? ''">{{ count.toLocaleString() }}</span>
          }
        </li>
      }
    </ul>
    <button class="act add" [matMenuTriggerFor]="menu"><fl-icon name="plus" />{{ parts().length === 0 ? empty() : joint() }}</button>
    <mat-menu #menu="matMenu">
      <ng-template matMenuContent>
        @for (offer of offers(); track offer.name) {
          <button mat-menu-item (click)="add(offer)">{{ nameOf(offer) }}</button>
        }
      </ng-template>
    </mat-menu>
  `,
  styleUrl: './condition-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ConditionList {
  readonly parts = input.required<readonly PassageCondition[]>();
  readonly label = input.required<string>();
  readonly joint = input<'and' | 'or'>('and');
  /** It was just added: its first part opens what is to be chosen. */
  readonly fresh = input(false);
  /** What each part does, where that is known and the part is not still to be chosen: numbers in a row, the last the one that matters. */
  readonly counts = input<readonly (readonly number[] | null)[] | null>(null);
  /** What the numbers are. */
  readonly countedAs = input<readonly string[]>([]);
  /** What adds the first part is called. */
  readonly empty = input('choose what they do');
  /** What can be added. */
  readonly offered = input<readonly NewPart[]>(NEW_PARTS);
  readonly changed = output<PassageCondition[]>();
  protected readonly here = inject(AskedHere);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly freshAt = signal(-1);
  /** Of what an attribute is to be chosen, by part. */
  protected readonly attributesOf = signal<Readonly<Record<number, 'case' | 'document'>>>({});
  protected readonly offers = computed(() => this.offered().filter(({ needs }) => needs === undefined || this.has(needs)));

  private has(needed: NonNullable<NewPart['needs']>): boolean {
    switch (needed) {
      case 'attribute of case':
        return this.here.attributes().some((one) => one.of === 'case');
      case 'attribute of document':
        return this.here.attributes().some((one) => one.of === 'document');
      case 'case':
        return this.here.cases().length > 0;
      case 'question':
        return this.here.questions().length > 0;
      case 'query':
        return this.here.queries().length > 0;
      case 'speaker':
        return this.here.speakers().length + this.here.cases().length > 0;
      case 'date':
        return this.here.hasDates();
      case 'media':
        return this.here.hasMedia();
    }
  }

  protected nameOf({ name }: NewPart): string {
    return name.replace('a case', `a ${this.here.caseWord()}`).replace('some cases', `some ${this.here.caseWord()}s`);
  }

  protected add({ part, needs }: NewPart): void {
    const at = this.parts().length;
    this.attributesOf.update((all) => ({ ...all, [at]: needs === 'attribute of document' ? 'document' : 'case' }));
    this.freshAt.set(at);
    this.changed.emit([...this.parts(), part]);
  }

  protected set(at: number, part: PassageCondition | null): void {
    this.freshAt.set(-1);
    const parts = [...this.parts()];
    if (part) parts[at] = part;
    else parts.splice(at, 1);
    this.changed.emit(parts);
    // what had the focus is gone
    if (!part) this.host.querySelector<HTMLElement>(':scope > .add')?.focus();
  }
}

type Option<K extends string> = Extract<PassageCondition, Record<K, unknown>>;

/** One part of the question as words that can each be changed. */
@Component({
  selector: 'fl-condition-part',
  imports: [CarriesPart, ChosenOf, FactPart, SentencePart, forwardRef(() => ConditionList)],
  templateUrl: './condition-part.html',
  styleUrls: ['./sentence.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ConditionPart {
  readonly asked = input.required<PassageCondition>();
  readonly fresh = input(false);
  /** Of what the attributes are, where one is to be chosen. */
  readonly attributesOf = input<'case' | 'document'>('case');
  /** Null takes the part away. */
  readonly changed = output<PassageCondition | null>();
  protected readonly here = inject(AskedHere);

  protected readonly carries = computed(() => this.as('carries'));
  protected readonly stands = computed(() => this.as('standing'));
  protected readonly spoken = computed(() => this.as('spokenBy'));
  protected readonly answers = computed(() => this.as('answers'));
  protected readonly comment = computed(() => this.as('comment'));
  protected readonly hasWords = computed(() => this.as('hasWords'));
  protected readonly wordTrouble = computed(() => troubleIn(this.hasWords()?.hasWords.typed ?? '', this.here.wordLists()));
  protected readonly matches = choicesOf(HeldWordsSchema.shape.match.options);
  protected readonly memo = computed(() => this.as('memo'));
  protected readonly fact = computed(() => this.as('attributeId'));
  protected readonly liesIn = computed(() => this.as('liesIn'));
  protected readonly cases = computed(() => this.as('ofCases'));
  protected readonly kinds = computed(() => this.as('kinds'));
  protected readonly dated = computed(() => this.as('dated'));
  protected readonly placed = computed(() => this.as('placed'));
  protected readonly grounds = computed(() => this.as('grounds'));
  protected readonly query = computed(() => this.as('queryId'));
  protected readonly nest = computed(() => nestOf(this.asked()));
  protected readonly factOf = computed(() => this.here.attributeOf(this.fact()?.attributeId ?? '')?.of ?? this.attributesOf());
  /** What a passage stands to, as parts that all hold. */
  protected readonly others = computed(() => {
    const to = this.stands()?.to;
    return !to ? [] : 'all' in to ? to.all : [to];
  });

  protected readonly standings: readonly Choice<Stands['standing']>[] = STANDINGS.map((one) => ({
    value: one,
    name: STANDINGS_IN_WORDS[one],
  }));
  protected readonly standingWords = STANDINGS_IN_WORDS;
  protected readonly units: readonly Choice<NearnessUnit>[] = NEARNESS_UNITS.map((one) => ({ value: one, name: `${one}s` }));
  protected readonly nests: readonly Choice<'all' | 'any' | 'none'>[] = [
    { value: 'any', name: 'at least one of these holds' },
    { value: 'all', name: 'all of these hold' },
    { value: 'none', name: 'none of these holds' },
  ];
  protected readonly speakers: readonly Choice<Option<'spokenBy'>['spokenBy']>[] = [
    { value: 'others', name: 'not spoken by interviewers' },
    { value: 'interviewers', name: 'spoken by interviewers' },
    { value: 'these', name: 'spoken by' },
  ];
  protected readonly comments: readonly Choice<Option<'comment'>['comment']>[] = [
    { value: 'some', name: 'have a comment' },
    { value: 'none', name: 'have no comment' },
    { value: 'open question', name: 'have an open question as their comment' },
    { value: 'holds', name: 'have a comment with the words' },
  ];
  protected readonly memos: readonly Choice<boolean>[] = [
    { value: true, name: 'have a memo' },
    { value: false, name: 'have no memo' },
  ];
  protected readonly placedWords = PLACED_IN_WORDS;
  protected readonly placings: readonly Choice<Option<'placed'>['placed']>[] = PLACED.map((value) => ({
    value,
    name: PLACED_IN_WORDS[value],
  }));
  protected readonly foldersMeant: readonly Choice<boolean>[] = [
    { value: false, name: 'with folders under it' },
    { value: true, name: 'alone' },
  ];
  protected readonly groundOffers = Object.entries(GROUNDS_IN_WORDS).map(([id, name]) => ({ id, name }));
  /** Where passages can lie; of what the study has none, nothing is offered. */
  protected readonly places = computed(() =>
    [
      { of: 'document', ids: 'documentIds', none: 'any document', offers: this.here.documents() } as const,
      { of: 'folder', ids: 'folderIds', none: 'a folder', offers: this.here.folders() } as const,
      { of: 'set', ids: 'setIds', none: 'a set', offers: this.here.sets() } as const,
    ].filter(({ of, offers }) => of === 'document' || offers.length > 0),
  );
  protected readonly kindName = (kind: string): string => KINDS_IN_WORDS[kind as DocumentKind];
  protected readonly named = (of: 'document' | 'folder' | 'set' | 'question' | 'query' | 'case') => (id: string) =>
    this.here.names()(of, id);
  protected readonly queryChoices = computed((): Choice<string>[] => this.here.queries().map(({ id, name }) => ({ value: id, name })));
  /** Cases by their id, and speakers that are no case by their name. */
  protected readonly people = computed(() => [...this.here.cases(), ...this.here.speakers()]);

  private as<K extends string>(key: K): Option<K> | null {
    const asked = this.asked();
    return key in asked ? (asked as Option<K>) : null;
  }

  protected nestWords(how: 'all' | 'any' | 'none'): string {
    return this.nests.find((one) => one.value === how)!.name;
  }

  protected speakerWords(who: Option<'spokenBy'>['spokenBy']): string {
    return this.speakers.find((one) => one.value === who)!.name;
  }

  protected commentWords(how: Option<'comment'>['comment']): string {
    return this.comments.find((one) => one.value === how)!.name;
  }

  protected emit(part: PassageCondition): void {
    this.changed.emit(part);
  }

  protected setNest(how: 'all' | 'any' | 'none', parts: readonly PassageCondition[]): void {
    this.changed.emit(parts.length > 0 ? nestFrom(how, parts) : null);
  }

  protected setStanding(standing: Stands['standing']): void {
    const { within, to } = this.stands()!;
    const far =
      standing === 'near'
        ? (within ?? { count: 1, unit: 'paragraph' as const })
        : standing === 'before' || standing === 'after'
          ? within
          : undefined;
    this.changed.emit({ standing, to, ...(far && { within: far }) });
  }

  protected setWithin(fields: Partial<NonNullable<Stands['within']>> | null): void {
    const { within: before = { count: 1, unit: 'paragraph' as const }, ...rest } = this.stands()!;
    this.changed.emit({ ...rest, ...(fields && { within: { ...before, ...fields } }) });
  }

  protected setCount(typed: string): void {
    const count = Number(typed);
    if (typed.trim() !== '' && Number.isInteger(count) && count >= 0 && count <= 1_000_000) this.setWithin({ count });
  }

  protected setOthers(parts: readonly PassageCondition[]): void {
    const [only] = parts;
    if (!only) this.changed.emit(null);
    else this.changed.emit({ ...this.stands()!, to: parts.length === 1 ? only : { all: [...parts] } });
  }

  protected setPeople(chosen: readonly string[]): void {
    const cases = new Set(this.here.cases().map((one) => one.id));
    const known = new Set(this.spoken()!.caseIds);
    const isCase = (id: string): boolean => cases.has(id) || known.has(id);
    this.changed.emit({ spokenBy: 'these', caseIds: chosen.filter(isCase), names: chosen.filter((id) => !isCase(id)) });
  }

  protected setWords(fields: Partial<Option<'hasWords'>['hasWords']>): void {
    this.changed.emit({ hasWords: { ...this.hasWords()!.hasWords, ...fields } });
  }

  protected setPlaces(ids: keyof LiesIn, chosen: string[]): void {
    this.changed.emit({ liesIn: { ...this.liesIn()!.liesIn, [ids]: chosen } });
  }

  protected setFoldersAlone(alone: boolean): void {
    const { foldersAlone: _, ...liesIn } = this.liesIn()!.liesIn;
    this.changed.emit({ liesIn: { ...liesIn, ...(alone && { foldersAlone: alone }) } });
  }

  /** A day that is emptied is not asked for. */
  protected setDated(change: { readonly from?: string; readonly to?: string }): void {
    const { from, to } = { ...this.dated()!.dated, ...change };
    this.changed.emit({ dated: { ...(from && { from }), ...(to && { to }) } });
  }

  protected setCases(ofCases: string[]): void {
    this.changed.emit({ ofCases });
  }

  protected setKinds(kinds: string[]): void {
    this.changed.emit({ kinds: kinds as DocumentKind[] });
  }

  protected setGrounds(grounds: string[]): void {
    this.changed.emit({ grounds: grounds as GroundName[] });
  }
}

/** What is wrong with words that were typed; empty where they can be looked for. */
function troubleIn(typed: string, lists: WordListsByName): string {
  try {
    readExpression(typed, lists);
    return '';
  } catch (error) {
    return (error as Error).message;
  }
}

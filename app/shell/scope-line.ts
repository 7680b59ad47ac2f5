import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { DOCUMENT_KINDS, type DocumentKind } from '@core/model/document';
import type { Scope, ScopePart } from '@core/model/scope';
import { KINDS_IN_WORDS, scopeGivenWords, scopePartWords } from '@core/queries/words';
import { ScopeChoice } from '../state/scope-choice';
import { ScopeLeaves } from '../state/scope-leaves';
import { ShownHereList } from '../state/shown-here';
import { selectCoders, selectDocuments } from '../state/study.selectors';
import { Icon } from '../ui/icon/icon';
import { AskedHere } from '../ui/sentence/asked-here';
import { ScopePanel } from './scope-panel';

/**
 * The scope as a sentence on one line, then what it leaves: the same in every place. Each part goes away with a press, and
 * opens to be changed in the panel, where all of it stands under each other.
 */
@Component({
  selector: 'fl-scope-line',
  imports: [Icon, MatMenuModule, ScopePanel],
  providers: [AskedHere],
  templateUrl: './scope-line.html',
  styleUrl: './scope-line.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScopeLine {
  private readonly store = inject(Store);
  protected readonly choice = inject(ScopeChoice);
  protected readonly plurals = KINDS_IN_WORDS;
  protected readonly here = inject(ShownHereList);
  private readonly asked = inject(AskedHere);
  private readonly leaves = inject(ScopeLeaves);
  private readonly scope = this.choice.scope;
  private readonly documents = this.store.selectSignal(selectDocuments);
  private readonly coderTable = this.store.selectSignal(selectCoders);
  protected readonly coders = computed(() => Object.values(this.coderTable()));
  protected readonly open = signal(false);
  protected readonly narrowed = this.leaves.narrowed;
  protected readonly kindsPresent = computed(() =>
    DOCUMENT_KINDS.filter((kind) => Object.values(this.documents()).some((document) => document.kind === kind)),
  );
  /** The first part that asks for kinds: it stands first in the sentence, and opens by itself. */
  private readonly kindPart = computed(() => this.scope().parts.find((part) => 'kinds' in part));
  private readonly kinds = computed(() => this.kindPart()?.kinds ?? []);
  protected readonly kindWords = computed(() => scopePartWords({ kinds: this.kinds() }, this.asked.names()));
  /** The other parts, each with its place. */
  protected readonly parts = computed(() =>
    this.scope().parts.flatMap((part, at) => (part === this.kindPart() ? [] : [{ at, words: scopePartWords(part, this.asked.names()) }])),
  );
  protected readonly given = computed(() => {
    const { given } = this.scope();
    return given && scopeGivenWords(given, this.asked.names());
  });
  /** Codings are looked at by who gave them, whenever that was: then their word changes to another coder at once. */
  protected readonly onlyCoders = computed(() => {
    const { from, to } = this.scope().given ?? {};
    return from === undefined && to === undefined;
  });
  protected readonly left = computed(() => this.leaves.sentence(this.asked.caseWord()));

  protected chosen(kind: DocumentKind): boolean {
    return this.kinds().includes(kind);
  }

  protected toggle(kind: DocumentKind): void {
    const kinds = this.chosen(kind) ? this.kinds().filter((one) => one !== kind) : [...this.kinds(), kind];
    const others = this.scope().parts.filter((part) => part !== this.kindPart());
    this.set(kinds.length > 0 ? [{ kinds }, ...others] : others);
  }

  protected drop(at: number): void {
    this.set(this.scope().parts.filter((_, one) => one !== at));
  }

  protected setGiven(given: Scope['given']): void {
    void this.choice.choose({ parts: this.scope().parts, ...(given && { given }) });
  }

  private set(parts: ScopePart[]): void {
    void this.choice.choose({ ...this.scope(), parts });
  }
}

import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { DOCUMENT_KINDS, type DocumentKind } from '@core/model/document';
import { KINDS_IN_WORDS } from '@core/queries/words';
import { naturalOrder } from '@core/text/natural-order';
import { ShownHereList } from '../state/shown-here';
import { ScopeActions } from '../state/study.actions';
import { CoderScope } from '../state/coder-scope';
import { selectCoders, selectDocuments, selectFolders, selectScope, selectScopedDocuments, selectSets } from '../state/study.selectors';
import { Icon } from '../ui/icon/icon';

/** The scope as a sentence, each changeable part underlined, then what it leaves. The same in every place. */
@Component({
  selector: 'fl-scope-line',
  imports: [MatMenuModule, Icon],
  template: `
    <span class="lead second">Looking at</span>
    <button class="part" [matMenuTriggerFor]="kindMenu">{{ kindWords() }}</button>
    @if (folders().length > 0) {
      <span class="second" aria-hidden="true">·</span>
      <button class="part" [matMenuTriggerFor]="folderMenu">{{ folderWords() }}</button>
    }
    @if (sets().length > 0) {
      <span class="second" aria-hidden="true">·</span>
      <button class="part" [matMenuTriggerFor]="setMenu">{{ setWords() }}</button>
    }
    @if (coders().length > 1) {
      <span class="second" aria-hidden="true">·</span>
      <button class="part" [matMenuTriggerFor]="coderMenu">{{ coderWords() }}</button>
    }
    @for (part of here.parts(); track part.words) {
      <span class="second" aria-hidden="true">·</span>
      <button class="part here" (click)="part.off()" [attr.aria-label]="part.words + ': end this'">
        {{ part.words }}<fl-icon name="x" />
      </button>
    }
    <span class="second left" data-scope-left>{{ left() }}</span>
    @if (narrowed()) {
      <button class="act" (click)="clear()">look at all</button>
    }

    <mat-menu #kindMenu="matMenu">
      <ng-template matMenuContent>
        @for (kind of kindsPresent(); track kind) {
          <button mat-menu-item role="menuitemcheckbox" [attr.aria-checked]="chosen(kind)" (click)="toggle(kind); $event.stopPropagation()">
            <span class="tick"><fl-icon name="check" [class.off]="!chosen(kind)" /></span>{{ plurals[kind] }}
          </button>
        }
      </ng-template>
    </mat-menu>
    <mat-menu #folderMenu="matMenu">
      <ng-template matMenuContent>
        <button mat-menu-item (click)="chooseFolder(null)">any folder</button>
        @for (folder of folders(); track folder.id) {
          <button mat-menu-item (click)="chooseFolder(folder.id)">{{ folder.name }}</button>
        }
      </ng-template>
    </mat-menu>
    <mat-menu #setMenu="matMenu">
      <ng-template matMenuContent>
        <button mat-menu-item (click)="chooseSet(null)">in any set or none</button>
        @for (set of sets(); track set.id) {
          <button mat-menu-item (click)="chooseSet(set.id)">{{ set.name }}</button>
        }
      </ng-template>
    </mat-menu>
    <mat-menu #coderMenu="matMenu">
      <ng-template matMenuContent>
        <button mat-menu-item (click)="chooseCoder(null)">all coders</button>
        @for (coder of coders(); track coder.id) {
          <button mat-menu-item (click)="chooseCoder(coder.id)">{{ coder.name }}</button>
        }
      </ng-template>
    </mat-menu>
  `,
  styles: `
    :host {
      display: flex;
      align-items: baseline;
      gap: 7px;
      overflow: hidden;
      white-space: nowrap;
    }
    .part {
      overflow: hidden;
      text-overflow: ellipsis;
      max-width: 260px;
      border-bottom: 1.5px solid var(--ink-second);
      min-height: 0;
      padding: 3px 0 1px;
    }
    .here {
      display: inline-flex;
      align-items: center;
      gap: 4px;
      --icon-size: 12px;
      border-color: var(--here);
    }
    .left {
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .tick {
      display: inline-block;
      width: 22px;
      --icon-size: 15px;
    }
    .off {
      visibility: hidden;
    }
    @media (max-width: 1000px) {
      .lead {
        display: none;
      }
      .part {
        max-width: 110px;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScopeLine {
  private readonly store = inject(Store);
  protected readonly plurals = KINDS_IN_WORDS;
  protected readonly here = inject(ShownHereList);
  private readonly scope = this.store.selectSignal(selectScope);
  private readonly documents = this.store.selectSignal(selectDocuments);
  private readonly scoped = this.store.selectSignal(selectScopedDocuments);
  private readonly folderTable = this.store.selectSignal(selectFolders);
  private readonly coderScope = inject(CoderScope);
  private readonly coderTable = this.store.selectSignal(selectCoders);
  protected readonly folders = computed(() => Object.values(this.folderTable()));
  private readonly setTable = this.store.selectSignal(selectSets);
  protected readonly sets = computed(() => naturalOrder(Object.values(this.setTable()), (set) => set.name));
  protected readonly setWords = computed(() => {
    const set = this.setTable()[this.scope().setId ?? ''];
    return set ? `in the set ${set.name}` : 'in any set or none';
  });
  protected readonly coders = computed(() => Object.values(this.coderTable()));
  protected readonly kindsPresent = computed(() =>
    DOCUMENT_KINDS.filter((kind) => Object.values(this.documents()).some((document) => document.kind === kind)),
  );
  protected readonly kindWords = computed(
    () =>
      this.scope()
        .kinds.map((kind) => KINDS_IN_WORDS[kind])
        .join(' and ') || 'all documents',
  );
  protected readonly folderWords = computed(() => this.folderTable()[this.scope().folderId ?? '']?.name ?? 'any folder');
  protected readonly coderWords = computed(() => this.coderTable()[this.scope().coderId ?? '']?.name ?? 'all coders');
  protected readonly narrowed = computed(
    () => this.scope().kinds.length > 0 || [this.scope().folderId, this.scope().setId, this.scope().coderId].some((id) => id !== null),
  );
  protected readonly left = computed(
    () => `${this.scoped().length.toLocaleString()} of ${Object.keys(this.documents()).length.toLocaleString()} documents`,
  );

  protected chosen(kind: DocumentKind): boolean {
    return this.scope().kinds.includes(kind);
  }

  protected toggle(kind: DocumentKind): void {
    const kinds = this.scope().kinds;
    this.store.dispatch(ScopeActions.kindsChosen({ kinds: this.chosen(kind) ? kinds.filter((one) => one !== kind) : [...kinds, kind] }));
  }

  protected chooseFolder(folderId: string | null): void {
    this.store.dispatch(ScopeActions.folderChosen({ folderId }));
  }

  protected chooseSet(setId: string | null): void {
    this.store.dispatch(ScopeActions.setChosen({ setId }));
  }

  protected chooseCoder(coderId: string | null): void {
    void this.coderScope.choose(coderId);
  }

  protected clear(): void {
    // a coder that is still being sorted out is not wanted any more either
    void this.coderScope.choose(null);
    this.store.dispatch(ScopeActions.cleared());
  }
}

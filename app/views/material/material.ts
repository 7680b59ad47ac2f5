import { ViewTabs } from '../../ui/view-tabs';
import { WholeStudy } from '../../ui/whole-study';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { selectData, selectScopedDocuments, selectStudy } from '../../state/study.selectors';
import { Icon } from '../../ui/icon/icon';
import { AttributeList } from './attributes/attribute-list';
import { CaseGrid } from './cases/case-grid';
import { DocumentTable } from './documents/document-table';
import { QuestionList } from './questions/question-list';
import { PictureSheet } from './pictures/picture-sheet';
import { SetList } from './sets/set-list';

/** What the place shows, by the word in its address. */
type View = 'documents' | 'cases' | 'attributes' | 'questions' | 'sets' | 'pictures';

/** Documents and folders, cases, their attributes, questions, sets. */
@Component({
  selector: 'fl-material',
  imports: [RouterLink, Icon, DocumentTable, CaseGrid, AttributeList, QuestionList, SetList, PictureSheet, ViewTabs, WholeStudy],
  template: `
    <div class="place">
      <header class="place-head">
        <h1>Material</h1>
        <fl-view-tabs label="Parts of the material" home="documents" [views]="views()" [here]="shown()" />
        @if (shown() !== 'documents' && shown() !== 'pictures') {
          <fl-whole-study />
        }
        <div class="end">
          <a class="do" [routerLink]="['/study', study()!.id, 'material', 'import']"><fl-icon name="upload" />Bring in</a>
        </div>
      </header>
      @switch (shown()) {
        @case ('cases') {
          <fl-case-grid [shown]="caseId()" />
        }
        @case ('attributes') {
          <fl-attribute-list />
        }
        @case ('questions') {
          <fl-question-list />
        }
        @case ('sets') {
          <fl-set-list />
        }
        @case ('pictures') {
          @defer (on immediate) {
            <fl-picture-sheet />
          } @placeholder {
            <div></div>
          }
        }
        @default {
          <fl-document-table />
        }
      }
    </div>
  `,
  styles: `
    a.do {
      text-decoration: none;
      --icon-size: 16px;
    }
    fl-view-tabs {
      margin-left: 14px;
      align-self: end;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Material {
  /** From the address. */
  readonly view = input<string>();
  /** From the address: the case to show in the register. */
  readonly caseId = input<string>();
  private readonly store = inject(Store);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly data = this.store.selectSignal(selectData);
  private readonly scoped = this.store.selectSignal(selectScopedDocuments);

  protected readonly views = computed((): { view: View; name: string; count: number }[] => {
    const tables = this.data()?.tables;
    const word = this.study()?.caseWord ?? 'case';
    const pictures = this.scoped().filter((document) => document.ground.of === 'picture').length;
    const count = (table: object | undefined): number => Object.keys(table ?? {}).length;
    return [
      { view: 'documents', name: 'Documents', count: this.scoped().length },
      { view: 'cases', name: `${word.charAt(0).toLocaleUpperCase()}${word.slice(1)}s`, count: count(tables?.case) },
      { view: 'attributes', name: 'Attributes', count: count(tables?.attribute) },
      { view: 'questions', name: 'Questions', count: count(tables?.question) },
      { view: 'sets', name: 'Sets', count: count(tables?.set) },
      ...(pictures > 0 ? [{ view: 'pictures' as const, name: 'Pictures', count: pictures }] : []),
    ];
  });
  protected readonly shown = computed(() => this.views().find((one) => one.view === this.view())?.view ?? 'documents');
}

import { isAbout } from '@core/memos/references';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { showValue } from '@core/attributes/values';
import { attributesOf } from '@core/commands/attributes';
import { editCase } from '@core/commands/cases';
import type { Case } from '@core/model/case';
import { StudySession } from '../../../state/study-session';
import { selectData, selectStudy } from '../../../state/study.selectors';
import { Writing, type Keeping } from '../../../ui/writing/writing';
import { Icon } from '../../../ui/icon/icon';
import { WritingDesk } from '../../../ui/memo/writing-desk';

/** All that belongs to a case: what is known, its documents, its turns in others, parts of texts, memos. */
@Component({
  selector: 'fl-case-sheet',
  imports: [RouterLink, Icon, Writing],
  template: `
    <header>
      <h2 class="title">{{ one().name }}</h2>
      <button class="icon" (click)="closed.emit()" aria-label="Close"><fl-icon name="x" /></button>
    </header>
    <label class="field"
      ><span>Description</span
      ><textarea rows="3" flWriting="description" [of]="one().id" [stored]="one().description" [keeping]="describe"></textarea>
    </label>
    <dl>
      @for (fact of facts(); track fact.name) {
        <div>
          <dt>{{ fact.name }}</dt>
          <dd>{{ fact.value }}</dd>
        </div>
      }
    </dl>
    @for (group of groups(); track group.name) {
      <h3>{{ group.name }}</h3>
      <ul>
        @for (entry of group.entries; track $index) {
          <li>
            <a [routerLink]="['/study', study()!.id, 'reading', entry.documentId]">{{ entry.title }}</a>
            <span class="second">{{ entry.note }}</span>
          </li>
        } @empty {
          <li class="second">{{ group.none }}</li>
        }
      </ul>
    }
    <h3>Memos</h3>
    <ul>
      @for (memo of memos(); track memo.id) {
        <li>
          <button class="act" (click)="openMemo(memo.id)">{{ memo.title }}</button>
        </li>
      }
      <li><button class="act" (click)="newMemo()">Write a memo</button></li>
    </ul>
  `,
  styles: `
    :host {
      display: block;
      border-left: 1px solid var(--rule);
      padding: 12px 18px 24px;
      overflow: auto;
    }
    header {
      display: flex;
      justify-content: space-between;
      align-items: start;
      margin-bottom: 8px;
    }
    dl {
      margin: 10px 0 4px;
    }
    dl div {
      display: grid;
      grid-template-columns: 120px 1fr;
      gap: 8px;
      padding: 2px 0;
    }
    dt {
      color: var(--ink-second);
    }
    h3 {
      margin-top: 14px;
    }
    li {
      padding: 2px 0;
    }
    li .second {
      margin-left: 6px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CaseSheet {
  readonly one = input.required<Case>();
  readonly closed = output();
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly desk = inject(WritingDesk);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly data = this.store.selectSignal(selectData);

  protected readonly facts = computed(() =>
    attributesOf(this.data()!, 'case').map((attribute) => ({
      name: attribute.name,
      value: showValue(this.one().values[attribute.id]) || '–',
    })),
  );
  protected readonly groups = computed(() => {
    const { document: documents } = this.data()!.tables;
    const { id, documentIds, stretches } = this.one();
    const own = documentIds.flatMap((documentId) =>
      documents[documentId] ? [{ documentId, title: documents[documentId].title, note: '' }] : [],
    );
    const speaks = Object.values(documents)
      .filter((document) => document.speakers.some((speaker) => speaker.caseId === id))
      .map((document) => ({
        documentId: document.id,
        title: document.title,
        note: `as ${document.speakers.flatMap((speaker) => (speaker.caseId === id ? [speaker.name] : [])).join(', ')}`,
      }));
    const parts = stretches.map(({ documentId, start, end }) => ({
      documentId,
      title: documents[documentId]?.title ?? '',
      note: `${(end - start).toLocaleString()} characters`,
    }));
    return [
      { name: 'Whole documents', entries: own, none: 'none' },
      { name: 'Turns as a speaker', entries: speaks, none: 'none' },
      { name: 'Parts of documents', entries: parts, none: 'none' },
    ];
  });
  protected readonly memos = computed(() => Object.values(this.data()!.tables.memo).filter((memo) => isAbout(memo, 'case', this.one().id)));

  protected readonly describe: Keeping = (description, caseId) => this.session.attempt(editCase(caseId, { description })).refused;

  protected openMemo(memoId: string): void {
    void this.desk.open({ memoId });
  }

  protected newMemo(): void {
    void this.desk.open({ about: { type: 'case', id: this.one().id } });
  }
}

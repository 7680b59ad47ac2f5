import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { afterNextRender, ChangeDetectionStrategy, Component, computed, inject, input, output, viewChild } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Question } from '@core/model/query';
import type { FoundHit } from '@core/words/found-hit';
import { selectDocuments } from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import { AbsenceNote } from './absence-note';
import { ReadBehind } from './read-behind';
import { SearchFor } from './search-for';
import { SideHead } from './side-head';

/** Places where words stand, behind a number. */
export interface WordsBehind {
  readonly title: string;
  readonly where: string;
  /** Where it was looked, in words. */
  readonly place: string;
  /** What the cell asks; null where no question asks for just that. */
  readonly question: Question | null;
  readonly hits: readonly FoundHit[];
  /** As they are typed where words are looked for. */
  readonly typed: string;
  readonly forms: boolean;
}

/** The places behind a number of words, in their context, each leading to where it stands. */
@Component({
  selector: 'fl-word-hits-side',
  imports: [AbsenceNote, CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport, SideHead],
  template: `
    <fl-side-head [title]="behind().title" [where]="behind().where" (closed)="closed.emit()">
      <button class="act" (click)="search.go(behind().typed, behind().forms)">Look for it in Queries</button>
    </fl-side-head>
    @if (behind().hits.length > 0) {
      <cdk-virtual-scroll-viewport itemSize="92" role="list" aria-label="Places" tabindex="-1">
        <div class="hit" *cdkVirtualFor="let hit of behind().hits" role="listitem">
          <button class="second" (click)="read(hit)" [title]="titleOf(hit) + ': read in place'" dir="auto">
            {{ titleOf(hit) }}
            @if (hit.speaker) {
              <span>· {{ hit.speaker }}</span>
            }
          </button>
          <p dir="auto">
            <span class="context">{{ hit.before }}</span><mark>{{ hit.said }}</mark
            ><span class="context">{{ hit.after }}</span>
          </p>
        </div>
      </cdk-virtual-scroll-viewport>
    } @else {
      <fl-absence-note [question]="behind().question" [title]="behind().title + ' · ' + behind().place" />
    }
  `,
  styleUrls: ['./evidence-side.scss', '../../ui/evidence/in-context.scss'],
  styles: `
    :host {
      display: grid;
      grid-template-rows: auto minmax(0, 1fr);
      overflow: hidden;
    }
    .hit {
      height: 92px;
      overflow: hidden;
      padding: 7px 18px;
      border-bottom: 1px solid var(--rule);
    }
    .hit button {
      display: block;
      max-width: 100%;
      min-height: 24px;
      overflow: hidden;
      text-align: left;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .hit button:hover {
      color: var(--accent);
    }
    .hit p {
      display: -webkit-box;
      overflow: hidden;
      font: 400 14px / 1.5 var(--face-read);
      -webkit-box-orient: vertical;
      -webkit-line-clamp: 2;
    }
  `,
  host: { role: 'complementary', 'aria-label': 'Evidence', '(keydown.escape)': 'closed.emit()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WordHitsSide {
  readonly behind = input.required<WordsBehind>();
  readonly closed = output<void>();
  protected readonly search = inject(SearchFor);
  private readonly ways = inject(Ways);
  private readonly readBehind = inject(ReadBehind);
  private readonly list = viewChild(CdkVirtualScrollViewport);
  private readonly of = computed(() => `${this.behind().title}\n${this.behind().where}`);
  private readonly documents = inject(Store).selectSignal(selectDocuments);

  constructor() {
    afterNextRender(() => {
      const list = this.list();
      if (list) this.readBehind.comeBack(this.of(), list.elementRef.nativeElement);
    });
  }

  protected titleOf(hit: FoundHit): string {
    return this.documents()[hit.documentId]?.title ?? '';
  }

  protected read(hit: FoundHit): void {
    this.readBehind.leave(this.of(), 0, this.list()?.measureScrollOffset() ?? 0);
    this.ways.go(['reading', hit.documentId], { queryParams: { words: `${hit.start}-${hit.end}`, from: 'the pattern' } });
  }
}

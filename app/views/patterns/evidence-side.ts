import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { saveQuery } from '@core/commands/queries';
import type { Id } from '@core/model/ids';
import type { Question } from '@core/model/query';
import type { CellEvidence } from '@core/patterns/cross-table';
import type { Hit } from '@core/queries/evaluate';
import { counted } from '@core/text/counted';
import { Notices } from '../../state/notices';
import { QueryDraft } from '../../state/query-draft';
import { StudySession } from '../../state/study-session';
import { Ways } from '../../state/ways';
import { Ask } from '../../ui/dialogs/ask';
import { Evidence } from '../../ui/evidence/evidence';
import { AbsenceNote } from './absence-note';
import { MakeSet } from './make-set';
import { ReadBehind } from './read-behind';
import { SideHead } from './side-head';

/** What stands behind a number of a pattern. */
export interface Behind {
  /** What was found. */
  readonly title: string;
  /** Where, and how it counts. */
  readonly where: string;
  /** Where alone, in words. */
  readonly place?: string;
  readonly hits: readonly Hit[];
  /** Cases of the passages. */
  readonly cases: readonly Id[];
  /** The same as a question, so that all can be done with it; null where there is none. */
  readonly question: Question | null;
  /** What passages stand under, where that is not their document. */
  readonly headOf?: (hit: Hit) => string | null;
}

/** How many passages a number counts, and of how many cases; where coders marked the same more than once, as how many places. */
export function evidenceWords({ hits, places, cases }: CellEvidence, caseWord: string): string {
  const passages = counted(hits.length, 'passage');
  return [
    places === hits.length ? passages : `${counted(places, 'place')}, marked as ${passages} by several coders`,
    cases.length > 0 ? counted(cases.length, caseWord) : '',
  ]
    .filter(Boolean)
    .join(', ');
}

/** The passages behind a number, beside the pattern, and where they lead. */
@Component({
  selector: 'fl-evidence-side',
  imports: [AbsenceNote, Evidence, MatMenuModule, SideHead],
  template: `
    <fl-side-head [title]="behind().title" [where]="behind().where" (closed)="closed.emit()">
      @if (behind().question; as question) {
        <button class="act" (click)="askThis(question)">Ask this in Queries</button>
        <button class="act" (click)="keepQuery(question)">Keep as a query</button>
      }
      @if (behind().hits.length > 0) {
        <button class="act" [matMenuTriggerFor]="kinds">Make a set</button>
        <mat-menu #kinds="matMenu">
          <button mat-menu-item (click)="sets.of('document', documents(), behind().title)">
            of {{ sets.words('document', documents().length) }}
          </button>
          @if (behind().cases.length > 0) {
            <button mat-menu-item (click)="sets.of('case', behind().cases, behind().title)">
              of {{ sets.words('case', behind().cases.length) }}
            </button>
          }
        </mat-menu>
      }
    </fl-side-head>
    @if (behind().hits.length > 0) {
      <fl-evidence [hits]="behind().hits" [headOf]="behind().headOf ?? none" [(page)]="page" (read)="read($event)" />
    } @else {
      <fl-absence-note [question]="behind().question" [title]="behind().title + ' · ' + (behind().place ?? behind().where)" />
    }
  `,
  styleUrl: './evidence-side.scss',
  host: { role: 'complementary', 'aria-label': 'Evidence', '(keydown.escape)': 'closed.emit()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EvidenceSide {
  readonly behind = input.required<Behind>();
  readonly closed = output<void>();
  private readonly ways = inject(Ways);
  private readonly readBehind = inject(ReadBehind);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly sets = inject(MakeSet);
  private readonly draft = inject(QueryDraft);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly notices = inject(Notices);
  protected readonly none = (): null => null;
  protected readonly documents = computed(() => [...new Set(this.behind().hits.map((hit) => hit.documentId))]);

  /** What tells the number from others. */
  private readonly of = computed(() => `${this.behind().title}\n${this.behind().where}`);
  protected readonly page = linkedSignal({ source: this.of, computation: (of) => this.readBehind.pageOf(of) });

  constructor() {
    afterNextRender(() => this.readBehind.comeBack(this.of(), this.host));
  }

  protected read(hit: Hit): void {
    this.readBehind.leave(this.of(), this.page(), this.host.scrollTop);
    this.ways.go(['reading', hit.documentId], { queryParams: { passage: hit.passageId, from: 'the pattern' } });
  }

  protected askThis(question: Question): void {
    this.draft.scrolled = 0;
    this.draft.question.set(question);
    this.ways.go(['queries']);
  }

  /** The number under a name, to be asked again where material has come. */
  protected async keepQuery(question: Question): Promise<void> {
    const { title, place } = this.behind();
    const kept = await this.ask.keep(
      'Keep as a query',
      'Name of the query',
      (place ? `${title}, ${place}` : title).slice(0, 200),
      'Keep it',
      (name) => this.session.attempt(saveQuery(name, question)).refused,
    );
    if (kept !== null) this.notices.say('Kept among the queries.');
  }
}

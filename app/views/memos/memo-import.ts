import { Counted } from '../../ui/counted/counted';
import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { countKnown, importMemos } from '@core/commands/import-memos';
import type { ListedMemo } from '@core/memos/exchange/listed-memo';
import { StudySession } from '../../state/study-session';
import { selectMemos } from '../../state/study.selectors';
import { FilesService } from '../../workers/files-service';

/** Rows of the preview that are drawn. */
const DRAWN = 300;

/** Memos from a table or from Markdown files, shown before they are taken in. */
@Component({
  selector: 'fl-memo-import',
  imports: [Counted, DatePipe],
  template: `
    <div class="scroll" tabindex="0" role="region" aria-label="Bring memos in">
      @if (troubles().length > 0) {
        <div class="trouble" role="alert">
          @for (one of troubles(); track $index) {
            <p>{{ one }}</p>
          }
        </div>
      }
      @if (busy()) {
        <p class="second" role="status">Reading…</p>
      }
      @if (listed().length > 0) {
        <header>
          <h2 class="title">{{ listed().length | counted: 'entry' : 'entries' }} found</h2>
          <span class="second">{{ known() }} of them there already, passed over</span>
          <span class="end">
            <button class="do quiet" (click)="listed.set([])">Leave it</button>
            <button class="do" [disabled]="listed().length === known()" (click)="bringIn()">
              Take over {{ listed().length - known() }}
            </button>
          </span>
        </header>
        <table>
          <thead>
            <tr>
              <th>Title</th>
              <th>Kind</th>
              <th>Tags</th>
              <th>Written</th>
              <th>Text</th>
            </tr>
          </thead>
          <tbody>
            @for (one of listed().slice(0, drawn); track $index) {
              <tr [title]="one.source">
                <td>{{ one.title }}</td>
                <td>{{ one.kind }}</td>
                <td>{{ one.tags.join(', ') }}</td>
                <td>{{ one.writtenAt ? (one.writtenAt | date: 'd MMM y') : 'today' }}</td>
                <td class="second">{{ one.text.slice(0, 160) }}</td>
              </tr>
            }
          </tbody>
        </table>
      } @else {
        <h2 class="title">Bring memos in</h2>
        <p class="second">
          From a table (.xlsx, .ods, .csv, .tsv) with headings like title, kind, tags, written, text: a row an entry. Or from Markdown
          files, one memo each, many at once. They are shown before anything is stored.
        </p>
        <div class="ways">
          <label class="do file"
            >Choose files<input
              #files
              type="file"
              multiple
              accept=".csv,.tsv,.xlsx,.ods,.md,.txt"
              aria-label="Memo files"
              (change)="read(files)"
          /></label>
          <label class="do quiet file"
            >Choose a folder<input #folder type="file" webkitdirectory aria-label="Folder of memos" (change)="read(folder)"
          /></label>
        </div>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      min-height: 0;
    }
    .scroll {
      height: 100%;
      padding: 16px 22px 30px;
      display: grid;
      gap: 10px;
      align-content: start;
      justify-items: start;
    }
    header,
    .end,
    .ways {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 14px;
      align-items: center;
    }
    p {
      max-width: 640px;
    }
    table {
      border-collapse: collapse;
    }
    th {
      text-align: left;
      color: var(--ink-second);
      font-size: var(--size-small);
    }
    td,
    th {
      padding: 3px 14px 3px 0;
      border-bottom: 1px solid var(--rule);
      vertical-align: top;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MemoImport {
  private readonly session = inject(StudySession);
  private readonly files = inject(FilesService);
  private readonly router = inject(Router);
  private readonly memos = inject(Store).selectSignal(selectMemos);
  protected readonly drawn = DRAWN;
  protected readonly busy = signal(false);
  protected readonly troubles = signal<readonly string[]>([]);
  protected readonly listed = signal<readonly ListedMemo[]>([]);
  private source = '';
  protected readonly known = computed(() => countKnown(Object.values(this.memos()), this.listed()));

  protected async read(input: HTMLInputElement): Promise<void> {
    const chosen = [...(input.files ?? [])].filter((file) => /\.(csv|tsv|xlsx|ods|md|txt)$/i.test(file.name));
    input.value = '';
    this.busy.set(true);
    const listed: ListedMemo[] = [];
    const troubles: string[] = chosen.length === 0 ? ['There is no table and no Markdown file among these.'] : [];
    for (const file of chosen) {
      try {
        listed.push(...(await this.files.readMemos(file.name, file)));
      } catch (error) {
        troubles.push(`${file.name}: ${error instanceof Error ? error.message : String(error)}`);
      }
    }
    this.source = chosen.length === 1 ? chosen[0]!.name : `${chosen.length} files`;
    this.listed.set(listed);
    this.troubles.set(troubles);
    this.busy.set(false);
  }

  protected bringIn(): void {
    if (this.session.run(importMemos(this.listed(), this.source))) void this.router.navigate([], { queryParams: {} });
  }
}

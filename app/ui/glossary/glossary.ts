import { ChangeDetectionStrategy, Component, computed, inject, resource, signal, viewChildren } from '@angular/core';
import { MAT_DIALOG_DATA, type MatDialog, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { addGloss, deleteGloss, editGloss } from '@core/commands/glosses';
import { noteExport } from '@core/commands/study';
import { writeGlossaryCsv } from '@core/formats/csv/glossary-csv';
import type { Gloss } from '@core/model/gloss';
import type { Id } from '@core/model/ids';
import { naturalOrder } from '@core/text/natural-order';
import { StudySession } from '../../state/study-session';
import { selectCoders, selectData, selectGlosses, selectStudy } from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import { AnalysisService } from '../../workers/analysis-service';
import { Writing } from '../writing/writing';
import { Icon } from '../icon/icon';
import { saveFile } from '../save-file';

/** The words that the participants use, with their meanings: looked up, defined, exported. */
@Component({
  selector: 'fl-glossary',
  imports: [MatDialogModule, Icon, Writing],
  templateUrl: './glossary.html',
  styleUrl: './glossary.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Glossary {
  private readonly session = inject(StudySession);
  private readonly store = inject(Store);
  private readonly dialog = inject<MatDialogRef<Glossary>>(MatDialogRef);
  private readonly analysis = inject(AnalysisService);
  private readonly ways = inject(Ways);
  private readonly data = this.store.selectSignal(selectData);
  private readonly table = this.store.selectSignal(selectGlosses);
  private readonly coders = this.store.selectSignal(selectCoders);
  private readonly study = this.store.selectSignal(selectStudy);
  /** The word that is to be defined, or empty to look through all. */
  protected readonly asked = inject<string>(MAT_DIALOG_DATA);
  protected readonly glosses = computed(() => naturalOrder(Object.values(this.table()), (gloss) => gloss.term));
  protected readonly current = signal<Gloss | null>(this.known(this.asked));

  /** Opens over the present place, and is done when it closes. @param word to define */
  static open(dialog: MatDialog, word: string): Promise<void> {
    const opened = dialog.open(Glossary, { data: word, width: '620px', ariaLabel: 'Glossary' });
    return new Promise((resolve) => opened.afterClosed().subscribe(() => resolve()));
  }

  private known(word: string): Gloss | null {
    const wanted = word.toLocaleLowerCase();
    return (
      Object.values(this.table()).find((gloss) => [gloss.term, ...gloss.forms].some((form) => form.toLocaleLowerCase() === wanted)) ?? null
    );
  }

  /** Where the word stands, in any of its forms. */
  protected readonly uses = resource({
    params: () => (this.current() ? { gloss: this.current()!, data: this.data()! } : undefined),
    loader: ({ params, abortSignal }) => this.analysis.glossUse(params.data, params.gloss, abortSignal),
  });
  protected readonly used = computed(() =>
    ((this.uses.hasValue() ? this.uses.value() : null) ?? []).flatMap(({ documentId, count }) => {
      const document = this.data()?.tables.document[documentId];
      return document ? [{ document, count }] : [];
    }),
  );

  protected read(documentId: Id): void {
    this.dialog.close();
    this.ways.go(['reading', documentId], { queryParams: { from: 'the glossary' } });
  }

  /** What the fields belong to: a word there is, or the one that is being defined. */
  protected readonly of = computed(() => this.current()?.id ?? `new ${this.asked}`);
  protected readonly refusal = signal<string | null>(null);
  private readonly fields = viewChildren(Writing);

  protected keep(term: string, forms: string, meaning: string): void {
    const fields = { term, meaning, forms: forms.split(',') };
    const current = this.current();
    const { refused } = this.session.attempt(current ? editGloss(current.id, fields) : addGloss(fields));
    // a refusal stays open with what was typed; nothing changed is as good as kept
    this.refusal.set(refused);
    if (refused !== null) return;
    for (const field of this.fields()) field.done();
    this.dialog.close();
  }

  protected remove(gloss: Gloss): void {
    for (const field of this.fields()) field.done();
    this.session.run(deleteGloss(gloss.id));
    this.current.set(null);
  }

  protected exportAll(): void {
    const study = this.study()!;
    saveFile(`${study.title} – glossary.csv`, writeGlossaryCsv(this.glosses(), this.coders()), 'text/csv');
    this.session.run(noteExport('the glossary'));
  }
}

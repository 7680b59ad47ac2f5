import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { DOCUMENT_ORDERS, type SaturationAsked } from '@core/model/pattern';
import { nameOf } from '@core/patterns/axis';
import { baseAndRun } from '@core/patterns/base-and-run';
import { counted } from '@core/text/counted';
import { selectDocuments, selectStudy } from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import { LineChart, type LinePoint } from '../../ui/charts/line-chart';
import { NumberPart } from '../../ui/sentence/number-part';
import { choicesOf, SentencePart } from '../../ui/sentence/sentence-part';
import { AnalysisService } from '../../workers/analysis-service';
import { GroupsPart } from './groups-part';
import { curvesDrawing } from './drawing/curves-drawing';
import { PatternDraft } from './pattern-draft';
import { PatternPlace } from './pattern-place';
import type { TableOut } from './take-out';
import { workedOut } from './worked-out';

/** Whether new documents still bring new codes: document by document, and by the method of base and run, also within groups. */
@Component({
  selector: 'fl-saturation',
  imports: [GroupsPart, LineChart, NumberPart, PatternPlace, RouterLink, SentencePart],
  templateUrl: './saturation-view.html',
  styleUrls: ['./pattern.scss', './saturation-view.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SaturationView {
  private readonly store = inject(Store);
  private readonly analysis = inject(AnalysisService);
  private readonly draft = inject(PatternDraft);
  private readonly ways = inject(Ways);
  protected readonly study = this.store.selectSignal(selectStudy);
  protected readonly documents = this.store.selectSignal(selectDocuments);
  protected readonly asked = this.draft.of('saturation');
  private readonly counting = computed(() => {
    const { order, groups } = this.asked();
    return { order, groups };
  });
  protected readonly work = workedOut(this.counting, (data, asked, at) => this.analysis.codesOverDocuments(data, asked, at));
  protected readonly orders = choicesOf(DOCUMENT_ORDERS);
  /** Each group with its curve, and where saturation is met in it. */
  protected readonly curves = computed(() =>
    (this.work.shown() ?? []).map(({ group, documents }) => {
      const titleAt = (at: number): string => this.documents()[documents[at]?.documentId ?? '']?.title ?? 'a document that is gone';
      const found = baseAndRun(
        documents.map((one) => one.fresh),
        this.asked(),
      );
      return {
        name: nameOf(group),
        documents,
        found,
        points: documents.map(({ total, fresh }, at): LinePoint => ({
          name: titleAt(at),
          value: total,
          said: `${counted(total, 'code')}, ${fresh} new`,
        })),
        rows: documents.map(({ documentId, fresh, total }, at) => ({
          documentId,
          title: titleAt(at),
          fresh,
          total,
          share: found?.runs.find((run) => run.last === at)?.share ?? null,
          met: found?.metAt === at,
        })),
        said: this.saidOf(found, documents.length, titleAt),
      };
    }),
  );
  protected readonly grouped = computed(() => {
    const { groups } = this.asked();
    return !('by' in groups && groups.by === 'everything');
  });
  protected readonly out = computed((): TableOut | null =>
    this.work.shown()
      ? {
          name: 'Saturation',
          sheets: () => [
            {
              name: 'Saturation',
              rows: [
                ['group', 'document', 'new codes', 'codes so far', 'new in the run, % of the base'],
                ...this.curves().flatMap(({ name, rows }) =>
                  rows.map(({ title, fresh, total, share }) => [name, title, fresh, total, share === null ? '' : share * 100]),
                ),
              ],
            },
          ],
          drawing: () => curvesDrawing(this.curves().map(({ found, ...curve }) => ({ ...curve, metAt: found?.metAt ?? null }))),
          said: `Base and run (Guest, Namey & Chen 2020): base ${this.asked().base}, run ${this.asked().run}, threshold ${this.asked().threshold * 100} %; documents ${this.asked().order}. ${this.curves()
            .map(({ name, said }) => `${name}: ${said}`)
            .join(' ')}`,
        }
      : null,
  );

  protected set(change: Partial<SaturationAsked>): void {
    this.draft.set({ ...this.asked(), ...change });
  }

  protected read(documentId: string): void {
    this.ways.go(['reading', documentId], { queryParams: { from: 'the pattern' } });
  }

  protected percent(share: number): string {
    const value = share * 100;
    return value > 0 && value < 0.1 ? '< 0.1 %' : `${value.toLocaleString(undefined, { maximumFractionDigits: 1 })} %`;
  }

  private saidOf(found: ReturnType<typeof baseAndRun>, documents: number, titleAt: (at: number) => string): string {
    const { base, run } = this.asked();
    if (!found)
      return documents < base + run
        ? `Too few coded documents to say: ${counted(documents, 'document')}, and ${base + run} are needed.`
        : 'The base documents have no code.';
    const of = `${counted(found.base, 'code')} in the first ${base}`;
    if (found.metAt === null) return `${of}; not met.`;
    return `${of}; met with ${titleAt(found.metAt)}, the ${found.metAt + 1}${ordinal(found.metAt + 1)} document.`;
  }
}

const ordinal = (number: number): string => {
  const [ten, one] = [number % 100, number % 10];
  if (ten >= 11 && ten <= 13) return 'th';
  return one === 1 ? 'st' : one === 2 ? 'nd' : one === 3 ? 'rd' : 'th';
};

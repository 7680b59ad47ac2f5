import { quoted } from '@core/text/quoted';
import { Ask } from '../../../ui/dialogs/ask';
import { mayGo } from '../../../ui/dialogs/may-go';
import { ChangeDetectionStrategy, Component, computed, inject, resource, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { leaveFinding, lookAtAllFindings } from '@core/commands/checks';
import { moveCodes, retireCodes } from '@core/commands/codebook-work';
import { deleteCode } from '@core/commands/codes';
import { keyOf, USUAL_LIMITS, type CheckLimits, type Finding } from '@core/codebook/checks';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import { StudySession } from '../../../state/study-session';
import { selectCodes, selectData, selectStudy } from '../../../state/study.selectors';
import { AnalysisService } from '../../../workers/analysis-service';
import { Swatch } from '../../../ui/swatch/swatch';
import { JoinDialog } from '../join-dialog';

/** A finding with its codes and what is said of it. */
interface Shown {
  readonly finding: Finding;
  readonly codes: readonly Code[];
  readonly said: string;
}

const TITLES: Readonly<Record<Finding['kind'], string>> = {
  'never used': 'Never used',
  'similar names': 'Nearly the same name',
  'similar passages': 'Nearly the same passages',
  'too broad': 'Very broad',
  'one child': 'Categories with one code',
};

/** What may be wrong with the codebook, with what can be done about each; or it is left as it is. */
@Component({
  selector: 'fl-checks',
  imports: [Swatch],
  templateUrl: './checks.html',
  styles: `
    :host {
      display: block;
      min-height: 0;
    }
    .scroll {
      height: 100%;
      padding: 14px 22px 30px;
    }
    section {
      max-width: 860px;
      margin-bottom: 18px;
    }
    h2 {
      font: 600 15px / 1.5 var(--face-read);
      border-bottom: 1px solid var(--rule);
    }
    li,
    .limits {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 2px 12px;
      min-height: 30px;
    }
    .limits input {
      width: 70px;
    }
    .code {
      display: inline-flex;
      gap: 8px;
      align-items: baseline;
      min-height: 24px;
    }
    .code:hover {
      color: var(--accent);
    }
    .acts {
      margin-left: auto;
      display: flex;
      gap: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Checks {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly analysis = inject(AnalysisService);
  private readonly dialog = inject(MatDialog);
  private readonly router = inject(Router);
  private readonly data = this.store.selectSignal(selectData);
  private readonly codes = this.store.selectSignal(selectCodes);
  protected readonly limits = signal<CheckLimits>(USUAL_LIMITS);
  private readonly study = this.store.selectSignal(selectStudy);
  /** Findings that were looked at and left, by their keys. */
  private readonly left = computed(() => new Set(this.study()?.checksLeft?.map(keyOf)));
  protected readonly looking = resource({
    params: () => ({ data: this.data()!, limits: this.limits() }),
    loader: ({ params, abortSignal }) => this.analysis.checks(params.data, params.limits, abortSignal),
  });
  private readonly found = computed((): Shown[] => {
    const findings = (this.looking.hasValue() ? this.looking.value() : null) ?? [];
    return findings.flatMap((finding): Shown[] => {
      const codes = finding.codeIds.flatMap((id) => this.codes()[id] ?? []);
      return codes.length === finding.codeIds.length ? [{ finding, codes, said: saying(finding) }] : [];
    });
  });
  protected readonly leftCount = computed(() => this.found().filter((one) => this.left().has(keyOf(one.finding))).length);
  protected readonly groups = computed(() => {
    const open = this.found().filter((one) => !this.left().has(keyOf(one.finding)));
    return (Object.keys(TITLES) as Finding['kind'][])
      .map((kind) => ({ kind, title: TITLES[kind], findings: open.filter((one) => one.finding.kind === kind) }))
      .filter((group) => group.findings.length > 0);
  });

  protected setLimit(key: keyof CheckLimits, raw: string): void {
    const share = Number(raw) / 100;
    if (share > 0 && share <= 1) this.limits.update((limits) => ({ ...limits, [key]: share }));
  }

  protected open(id: Id): void {
    void this.router.navigate([], { queryParams: { code: id } });
  }

  protected leave(one: Shown): void {
    this.session.run(leaveFinding(one.finding));
  }

  protected lookAgain(): void {
    this.session.run(lookAtAllFindings());
  }

  protected async join(one: Shown): Promise<void> {
    await JoinDialog.open(this.dialog, one.finding.codeIds);
  }

  protected retire(one: Shown): void {
    this.session.run(retireCodes(one.finding.codeIds, true));
  }

  protected async remove(one: Shown): Promise<void> {
    const [code] = one.codes;
    if (await mayGo(this.ask, this.data()!, 'code', code!.id, `Delete ${quoted(code!.name)}?`)) this.session.run(deleteCode(code!.id));
  }

  /** Takes the only code of a category out of it, to where the category lies. */
  protected dissolve(one: Shown): void {
    const [category, child] = one.codes as [Code, Code];
    this.session.run(moveCodes([child.id], category.parentId));
  }
}

function saying(finding: Finding): string {
  const percent = (share: number): string => `${Math.round(share * 100)} %`;
  switch (finding.kind) {
    case 'similar passages':
      return `share ${percent(finding.share)} of the characters in passages of either`;
    case 'too broad':
      return `on ${percent(finding.share)} of all coded passages`;
    default:
      return '';
  }
}

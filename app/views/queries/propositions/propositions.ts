import { ChangeDetectionStrategy, Component, computed, effect, inject, resource, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  addProposition,
  deleteProposition,
  editProposition,
  noteOnCase,
  seeProposition,
  type PropositionFields,
} from '@core/commands/propositions';
import { noteExport } from '@core/commands/study';
import { writeCsv } from '@core/formats/csv/write-csv';
import { randomId, type Id } from '@core/model/ids';
import type { Claim, Proposition } from '@core/model/proposition';
import type { Hit } from '@core/queries/evaluate';
import { claimsAsked, saysSince, VERDICTS, type CaseSays, type Verdict } from '@core/queries/proposition';
import { conditionWords } from '@core/queries/words';
import { counted } from '@core/text/counted';
import { naturalOrder } from '@core/text/natural-order';
import { StudySession } from '../../../state/study-session';
import { selectCases, selectData, selectScope } from '../../../state/study.selectors';
import { Ways } from '../../../state/ways';
import { Ask } from '../../../ui/dialogs/ask';
import { Evidence } from '../../../ui/evidence/evidence';
import { Icon } from '../../../ui/icon/icon';
import { saveFile } from '../../../ui/save-file';
import { AskedHere } from '../../../ui/sentence/asked-here';
import type { Keeping } from '../../../ui/writing/writing';
import { Writing } from '../../../ui/writing/writing';
import { AnalysisService } from '../../../workers/analysis-service';
import { QueryTabs } from '../query-tabs';
import { dayOf } from '../since-words';
import { ClaimList } from './claim-list';
import { PropositionDraft } from './proposition-draft';

/** Sentences about cases, held against the material: who speaks for them, who against, and what there is to say of those. */
@Component({
  selector: 'fl-propositions',
  imports: [ClaimList, Evidence, Icon, QueryTabs, Writing],
  providers: [AskedHere],
  templateUrl: './propositions.html',
  styleUrl: './propositions.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Propositions {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly analysis = inject(AnalysisService);
  private readonly ask = inject(Ask);
  private readonly ways = inject(Ways);
  private readonly draft = inject(PropositionDraft);
  protected readonly here = inject(AskedHere);
  private readonly data = this.store.selectSignal(selectData);
  private readonly scope = this.store.selectSignal(selectScope);
  private readonly cases = this.store.selectSignal(selectCases);
  private readonly table = computed(() => this.data()?.tables.proposition ?? {});
  protected readonly all = computed(() => naturalOrder(Object.values(this.table()), (one) => one.name));
  protected readonly current = computed((): Proposition | null => this.table()[this.draft.id() ?? ''] ?? this.all()[0] ?? null);
  private readonly currentId = computed(() => this.current()?.id);
  /** The case whose passages are looked at. */
  protected readonly openId = signal<Id | null>(null);
  private readonly answer = resource({
    params: () => {
      const [data, current] = [this.data(), this.current()];
      return data && current && claimsAsked(current.then).length > 0 ? { data, current, scope: this.scope() } : undefined;
    },
    loader: async ({ params: { data, current, scope }, abortSignal }) => {
      const says = await this.analysis.proposition(data, current, scope, abortSignal);
      return says && { id: current.id, says };
    },
  });
  /** The last answer stays while the next is on its way. */
  private readonly shown = signal<{ readonly id: Id; readonly says: readonly CaseSays[] } | null>(null);
  protected readonly says = computed(() => (this.shown()?.id === this.current()?.id ? (this.shown()?.says ?? null) : null));
  protected readonly trouble = computed(() => this.answer.error()?.message ?? null);
  /** What heads the columns: each claim in words. */
  protected readonly heads = computed(() => {
    const current = this.current();
    return [...claimsAsked(current?.where ?? []), ...claimsAsked(current?.then ?? [])].map((claim) => ({
      words: conditionWords(claim.that, this.here.names()).replace(/^carry /, ''),
      has: claim.has,
    }));
  });
  protected readonly groups = computed(() =>
    VERDICTS.map((verdict) => ({
      verdict,
      name: this.verdictWords(verdict),
      rows: naturalOrder(
        (this.says() ?? []).filter((one) => one.verdict === verdict),
        (one) => this.nameOf(one.caseId),
      ),
    })),
  );
  /** Cases of which nothing is in scope. */
  protected readonly absent = computed(() => Object.keys(this.cases()).length - (this.says()?.length ?? 0));
  protected readonly summary = computed(() => {
    const [speakFor, against] = this.groups().map(({ rows }) => rows.length);
    return `${speakFor} for it, ${against} against it, of ${counted(this.says()?.length ?? 0, this.here.caseWord())}`;
  });
  private readonly since = computed(() => {
    const [current, says] = [this.current(), this.says()];
    return current && says && saysSince(current, says);
  });
  /** What it says otherwise than when it was last seen, in words. */
  protected readonly sinceWords = computed(() => {
    const [since, at] = [this.since(), this.current()?.seen?.at];
    if (!since || at === undefined) return null;
    const said = [
      since.forNow.length > 0 ? `${since.forNow.length} more for it` : '',
      since.noLongerFor.length > 0 ? `${since.noLongerFor.length} no longer for it` : '',
      since.againstNow.length > 0 ? `${since.againstNow.length} more against it` : '',
      since.noLongerAgainst.length > 0 ? `${since.noLongerAgainst.length} no longer against it` : '',
    ].filter(Boolean);
    const day = dayOf(at);
    return said.length > 0 ? `${said.join(', ')} since ${day}` : `nothing else since ${day}`;
  });
  /** Those that say something else than when it was last seen. */
  protected readonly fresh = computed(() => new Set([...(this.since()?.forNow ?? []), ...(this.since()?.againstNow ?? [])]));
  protected readonly noteOf = computed(() => new Map(this.current()?.notes.map(({ caseId, note }) => [caseId, note])));

  constructor() {
    this.here.gone.set(() => this.current()?.gone);
    effect(() => {
      const value = this.answer.hasValue() ? this.answer.value() : null;
      if (value) this.shown.set(value);
    });
    effect(() => {
      this.currentId();
      this.openId.set(null);
    });
  }

  protected nameOf(caseId: Id): string {
    return this.cases()[caseId]?.name ?? '';
  }

  private verdictWords(verdict: Verdict): string {
    return { for: 'Speak for it', against: 'Speak against it', nothing: 'Say nothing: what comes first is not true of them' }[verdict];
  }

  protected choose(id: Id): void {
    this.draft.id.set(id);
  }

  protected async make(): Promise<void> {
    const id = randomId();
    const name = await this.ask.keep(
      'A new proposition',
      'Name',
      '',
      'Make it',
      (typed) => this.session.attempt(addProposition({ name: typed, where: [], then: [] }, id)).refused,
    );
    if (name !== null) this.choose(id);
  }

  protected async rename({ id, name }: Proposition): Promise<void> {
    await this.ask.keep(
      'Rename the proposition',
      'Name',
      name,
      'Rename',
      (typed) => this.session.attempt(editProposition(id, { name: typed })).refused,
    );
  }

  protected set(fields: Partial<Pick<PropositionFields, 'where' | 'then'>>): void {
    const current = this.current();
    if (current) this.session.run(editProposition(current.id, fields));
  }

  protected setWhere(where: Claim[]): void {
    this.set({ where });
  }

  protected setThen(then: Claim[]): void {
    this.set({ then });
  }

  protected remove({ id }: Proposition): void {
    this.session.run(deleteProposition(id));
  }

  /** Says that all of it has been seen. */
  protected see({ id }: Proposition): void {
    const [speakFor, against] = this.groups().map(({ rows }) => rows.map(({ caseId }) => caseId));
    this.session.run(seeProposition(id, speakFor!, against!));
  }

  /** Everyone with what they say, what is found of them and what was noted, as a table. */
  protected takeOut({ name }: Proposition): void {
    const rows = this.groups().flatMap((group) =>
      group.rows.map((row) => [
        this.nameOf(row.caseId),
        group.verdict === 'nothing' ? 'says nothing' : group.verdict,
        ...row.hits.map((hits) => hits.length),
        this.noteOf().get(row.caseId) ?? '',
      ]),
    );
    const head = [this.here.caseWord(), 'speaks', ...this.heads().map(({ has, words }) => `${has ? '' : 'no '}${words}`), 'note'];
    saveFile(`${name}.csv`, writeCsv([head, ...rows]), 'text/csv');
    this.session.run(noteExport(`the proposition ${name}`));
  }

  /** Keeps a note on a case; of which proposition and case, its field says. */
  protected readonly keepNote: Keeping = (text, of) => {
    const [propositionId, caseId] = of.split(' ') as [Id, Id];
    return this.session.attempt(noteOnCase(propositionId, caseId, text)).refused;
  };

  protected hitsOf({ hits }: CaseSays): readonly Hit[] {
    return hits.flat();
  }

  protected readInPlace(hit: Hit): void {
    this.ways.go(['reading', hit.documentId], { queryParams: { passage: hit.passageId, from: 'the proposition' } });
  }
}

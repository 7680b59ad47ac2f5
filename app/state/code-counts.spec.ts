import { TestBed } from '@angular/core/testing';
import type { Store } from '@ngrx/store';
import { applyChange } from '@core/change/apply';
import { moveCode } from '@core/commands/codes';
import { carryOut } from '@core/commands/carry-out';
import type { Command } from '@core/change/command';
import { codePlace } from '@core/commands/passages';
import type { DocumentKind } from '@core/model/document';
import { sequentialIds, type Id } from '@core/model/ids';
import type { StudyState } from '@core/model/study-state';
import { columnsLeft } from '@core/passages/left-in';
import { EVERYTHING } from '@core/model/scope';
import { countCodes } from '@core/passages/counting';
import { buildLargeStudy } from '@core/sample/large-study';
import { openedStudy } from '../testing/opened-study';
import { until } from '../testing/until';
import { CodeCounts, howOften } from './code-counts';
import { ScopeActions, StudyActions } from './study.actions';
import { emptyStore } from '../testing/study-store';

describe('counting a large study', () => {
  const large = (seed: number): StudyState =>
    buildLargeStudy({ documents: 60, words: 60_000, passages: 40_000, codings: 60_000, codes: 80, cases: 10, attributes: 2 }, seed).state;
  /** Every other document is a field note. */
  const mixed = (state: StudyState): StudyState => {
    const documents = Object.entries(state.tables.document).map(([id, one], at) => [
      id,
      at % 2 ? one : { ...one, kind: 'field note' as const },
    ]);
    return { ...state, tables: { ...state.tables, document: Object.fromEntries(documents) as StudyState['tables']['document'] } };
  };
  const [one, other] = [mixed(large(1)), large(2)];
  const newId = sequentialIds(77);
  let state: StudyState;
  let seq: number;
  let store: Store;
  let counts: CodeCounts;

  const open = (opened: StudyState): void => {
    state = opened;
    const { history, ...rest } = openedStudy([]).opened;
    seq = history.seq;
    store.dispatch(StudyActions.opened({ opened: { ...rest, history, state }, role: 'writer' }));
  };
  const act = (command: Command): void => {
    const { change } = carryOut(command, state, { coderId: state.study.currentCoderId, now: 1, newId })!;
    state = applyChange(state, change);
    store.dispatch(
      StudyActions.acted({
        entry: { seq: ++seq, at: 1, coderId: state.study.currentCoderId, kind: 'act', of: null, sentence: 'x', change },
      }),
    );
  };
  const own = (coderId: Id | null = null) => {
    const looking = { rows: null, coderIds: coderId === null ? null : new Set([coderId]), from: -Infinity, until: Infinity };
    return countCodes(
      Object.values(state.passages).flatMap((columns) => columnsLeft(columns, looking) ?? []),
      state.tables.code,
    ).own;
  };
  const [first] = Object.keys(one.tables.code).filter((id) => countCodes(Object.values(one.passages), one.tables.code).own.has(id));

  beforeEach(() => {
    store = emptyStore();
    counts = TestBed.inject(CodeCounts);
    open(one);
  });

  it('says that it does not know yet, and then what is counted from nothing', async () => {
    expect(howOften(counts.all(), 'own', first!)).toBeNull();
    expect(counts.facts()).toBeNull();
    await until(() => counts.all().known);
    expect(counts.all().own).toEqual(own());
    expect(counts.facts()!.counts.own).toEqual(own());
    expect(counts.scoped()).toBe(counts.all());
  });

  it('gives what is to be acted on at once', () => {
    expect(counts.all().known).toBeFalse();
    expect(counts.factsNow().counts.own).toEqual(own());
  });

  it('takes in what is done while it counts, and counts what is done later at once', async () => {
    expect(counts.all().known).toBeFalse();
    const [documentId] = Object.keys(state.passages);
    act(codePlace({ documentId: documentId!, place: { start: 1, end: 3 }, codeIds: [first!] }));
    expect(counts.all().known).toBeFalse();
    await until(() => counts.all().known);
    expect(counts.all().own).toEqual(own());
    act(codePlace({ documentId: documentId!, place: { start: 5, end: 9 }, codeIds: [first!] }));
    expect([counts.all().known, howOften(counts.all(), 'own', first!)]).toEqual([true, own().get(first!)!]);
  });

  it('shows the numbers from before while a branch that was moved is counted', async () => {
    await until(() => counts.all().known);
    const before = counts.all().withUnder;
    const top = Object.values(state.tables.code).filter((code) => code.parentId === null);
    act(moveCode(top[0]!.id, top[1]!.id, 0));
    expect(counts.all().known).toBeFalse();
    expect(counts.all().withUnder).toBe(before);
    await until(() => counts.all().known);
    expect(counts.all().withUnder).toEqual(countCodes(Object.values(state.passages), state.tables.code).withUnder);
    expect(counts.all().withUnder).not.toEqual(before);
  });

  it('never shows the numbers of one scope in another', async () => {
    const ofKind = (kind: DocumentKind) => {
      const documents = Object.values(state.tables.document).filter((document) => document.kind === kind);
      return countCodes(
        documents.map(({ id }) => state.passages[id]!),
        state.tables.code,
      ).own;
    };
    for (const kind of ['field note', 'interview'] as const) {
      store.dispatch(ScopeActions.chosen({ scope: { parts: [{ kinds: [kind] }] } }));
      expect([counts.scoped().known, counts.scoped().own.size]).withContext(kind).toEqual([false, 0]);
      await until(() => counts.scoped().known);
      expect(counts.scoped().own).withContext(kind).toEqual(ofKind(kind));
    }
  });

  it('never shows one coder’s numbers as another’s, nor one study’s in another', async () => {
    await until(() => counts.scoped().known);
    const coderId = Object.keys(state.tables.coder).find((id) => own(id).size > 0)!;
    store.dispatch(ScopeActions.chosen({ scope: { parts: [], given: { coderIds: [coderId] } } }));
    expect(howOften(counts.scoped(), 'own', first!)).toBeNull();
    await until(() => counts.scoped().known);
    expect(counts.scoped().own).toEqual(own(coderId));
    store.dispatch(ScopeActions.chosen({ scope: EVERYTHING }));
    expect(counts.scoped().own).toEqual(own());
    open(other);
    expect([counts.all().known, counts.all().own.size]).toEqual([false, 0]);
    await until(() => counts.all().known);
    expect(counts.all().own).toEqual(own());
  });
});

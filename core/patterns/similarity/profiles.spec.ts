import assert from 'node:assert/strict';
import fc from 'fast-check';
import type { Id } from '../../model/ids';
import { COMPARED, OCCURRING_IN, type SimilarityAsked } from '../../model/pattern';
import { EVERYTHING, type Scope } from '../../model/scope';
import type { StudyState } from '../../model/study-state';
import { caseFinderOf } from '../../passages/case-finder';
import { unpackPassages } from '../../passages/columns';
import { Narrowing } from '../../queries/narrowing';
import { someScope } from '../../testing/some-conditions';
import { studyToAsk } from '../../testing/study-to-ask';
import { profileOf } from './profile';
import { ProfileCounter, type Profiles } from './profiles';
import { MOST_COMPARED, similarityOf } from './similarity';

describe('profiles', () => {
  const { bench, asked, someStudy, studyOf } = studyToAsk();
  const rows = { of: 'codes', codeIds: null, withUnder: false } as const;
  type Asked = Pick<SimilarityAsked, 'compared' | 'occurring' | 'rows' | 'coders'>;

  function profilesOf(state: StudyState, asking: Asked, scope: Scope): Profiles {
    const study = studyOf(state);
    const narrowing = new Narrowing(scope, study);
    const counter = new ProfileCounter(asking, study, narrowing);
    for (const document of Object.values(state.tables.document)) {
      const text = bench.texts.get(document.id) ?? null;
      if (narrowing.holds(document, text)) counter.add(state.passages[document.id] ?? null, document, text);
    }
    return counter.result(Object.values(state.passages));
  }

  /** Every marked passage once more, one by one: `code unit` and how often. */
  function naive(state: StudyState, { compared, occurring }: Asked, scope: Scope): Record<string, number> {
    const narrowing = new Narrowing(scope, studyOf(state));
    const finder = caseFinderOf(state.tables.case);
    const found: Record<string, number> = {};
    for (const document of Object.values(state.tables.document)) {
      const text = bench.texts.get(document.id) ?? null;
      const left = narrowing.holds(document, text) && narrowing.leftOf(state.passages[document.id]!, document, text);
      if (!left) continue;
      for (const passage of unpackPassages(left))
        for (const code of new Set(passage.codings.map((coding) => coding.codeId))) {
          const unit = compared === 'codes' ? occurring : compared;
          const units =
            unit === 'documents'
              ? [document.id]
              : unit === 'cases'
                ? finder.of(document, text, passage)
                : (text?.paragraphs ?? []).flatMap((one, at) =>
                    Math.max(one.start, passage.start) < Math.min(one.end, passage.end) ? [`${document.id} ${at}`] : [],
                  );
          for (const one of new Set(units)) found[`${code} ${one}`] = (found[`${code} ${one}`] ?? 0) + 1;
        }
    }
    return found;
  }

  it('count where codes occur, or what documents and cases have, as passage by passage', () => {
    const asking = fc.record({
      compared: fc.constantFrom(...COMPARED),
      occurring: fc.constantFrom(...OCCURRING_IN),
      rows: fc.constant(rows),
      coders: fc.constant('each passage' as const),
    });
    fc.assert(
      fc.property(someStudy(), asking, fc.oneof(fc.constant(EVERYTHING), someScope(asked)), (state, one, scope) => {
        const { things, rows: profiles } = profilesOf(state, one, scope);
        const wanted = naive(state, one, scope);
        const byThing = new Map<string, number[]>();
        for (const [pair, count] of Object.entries(wanted)) {
          const [code, ...unit] = pair.split(' ');
          const thing = one.compared === 'codes' ? code! : unit.join(' ');
          byThing.set(thing, [...(byThing.get(thing) ?? []), count]);
        }
        const sorted = (some: Iterable<number>) => [...some].sort((a, b) => a - b);
        assert.deepEqual(
          Object.fromEntries(things.map(({ id }, at) => [id, sorted(profiles[at]!.counts)])),
          Object.fromEntries([...byThing].map(([id, counts]) => [id, sorted(counts)])),
        );
      }),
      { numRuns: 120 },
    );
  });

  it('take what coders marked over each other as one, where they count together', () => {
    fc.assert(
      fc.property(someStudy(), (state) => {
        const of = (coders: Asked['coders']) => profilesOf(state, { compared: 'codes', occurring: 'documents', rows, coders }, EVERYTHING);
        const [together, each] = [of('together'), of('each passage')];
        assert.deepEqual(together.things, each.things);
        together.rows.forEach((row, at) => {
          assert.deepEqual(row.features, each.rows[at]!.features);
          row.counts.forEach((count, unit) => assert.ok(count >= 1 && count <= each.rows[at]!.counts[unit]!));
        });
      }),
      { numRuns: 40 },
    );
  });

  it('make what is compared by attributes also those of which only a fact is known', () => {
    const none: Profiles = { things: [], rows: [] };
    const ask = (attributeIds: Id[]) =>
      similarityOf({ compared: 'cases', by: 'presence', attributeIds }, none, bench.state.tables, asked.cases as Id[]).things.map(
        ({ path }) => path[0],
      );
    // Tom's age is not known; the place is an attribute of documents
    expect([ask([]), ask([asked.attributes[0]!]), ask([asked.attributes[1]!])]).toEqual([[], ['Ann'], []]);
  });

  it('leave out those with the least where there are too many, and say how many', () => {
    const things = Array.from({ length: MOST_COMPARED + 3 }, (_, at) => ({ key: `${at}`, path: [`${at}`] }));
    const rows = things.map((_, at) => profileOf(new Map([[at % 7, at < 3 ? 1 : 2]])));
    const found = similarityOf({ compared: 'codes', by: 'counts', attributeIds: [] }, { things, rows }, bench.state.tables, []);
    expect([found.things.length, found.left, found.things[0]!.key]).toEqual([MOST_COMPARED, 3, '3']);
  });
});

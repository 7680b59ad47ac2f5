import fc from 'fast-check';
import { saveQuery, seeAnswer } from '../commands/queries';
import type { Id } from '../model/ids';
import type { PassageCondition } from '../model/passage-condition';
import { Bench } from '../testing/make';
import { queryAsJson, QueryFormatError, queryFromJson } from './exchange';
import { seenOf, sinceSeen } from './seen';
import { conditionWords, namesIn, questionWords } from './words';

const carries = (...codeIds: Id[]): PassageCondition => ({
  carries: 'any',
  codes: { codeIds, setIds: [], withUnder: false },
  reach: 'passage',
});

describe('a query as JSON', () => {
  const here = new Bench(1);
  const top = here.addCode('Sea');
  const waiting = here.addCode('Waiting', top);
  here.addCode('Waiting');
  const document = here.addDocument('Interview 1', ['We waited.']);
  here.run(saveQuery('Worries', { all: [carries(waiting)] }));
  const [queryId] = Object.keys(here.state.tables.query) as [Id];
  const all: PassageCondition[] = [
    { standing: 'near', to: { any: [carries(waiting), { queryId }] }, within: { count: 2, unit: 'turn' } },
    { liesIn: { documentIds: [document.id], folderIds: [], setIds: [] } },
  ];
  const json = queryAsJson(here.state, 'Near waiting', { all });

  it('names codes by their path, and comes back the same', () => {
    expect(json).toContain('"Sea / Waiting"');
    expect(json).not.toContain(waiting);
    expect(queryFromJson(here.state, json, here.newId)).toEqual({ name: 'Near waiting', question: { all }, missing: [] });
  });

  it('finds its codes in another study, and says by name what is not there', () => {
    const there = new Bench(2);
    const sea = there.addCode('Sea');
    const code = there.addCode('Waiting', sea);
    const { question, missing } = queryFromJson(there.state, json, there.newId);
    expect(missing).toEqual(['Worries', 'Interview 1']);
    expect(Object.values(question.gone!)).toEqual(missing);
    expect(conditionWords(question.all[0]!, namesIn(there.state, question.gone))).toBe(
      'come within 2 turns of any that (carry Waiting or answer the query “Worries (deleted)”)',
    );
    expect(JSON.stringify(question.all)).toContain(code);
    // kept and sent on, it still names what neither study had
    expect(JSON.parse(queryAsJson(there.state, 'x', question)).all).toEqual(JSON.parse(json).all);
  });

  it('is refused in words where it is none, whatever it is', () => {
    const refusal = (text: string) => {
      try {
        queryFromJson(here.state, text, here.newId);
      } catch (error) {
        if (error instanceof QueryFormatError) return error.message;
        throw error;
      }
      return 'taken';
    };
    expect(refusal('Dear Sir')).toMatch(/not JSON/);
    expect(refusal('{}')).toMatch(/lacks "format"/);
    expect(refusal('{"format":"filum-query","version":2,"all":[]}')).toMatch(/version 2/);
    expect(refusal('{"format":"filum-query","version":1,"all":[{"carries":"some"}]}')).toMatch(/cannot be read: at all/);
    const deep = '{"all":['.repeat(5_000) + ']}'.repeat(5_000);
    expect(refusal(`{"format":"filum-query","version":1,"all":[${deep}]}`)).toMatch(/deeper/);
    fc.assert(
      fc.property(fc.json(), fc.jsonValue(), (any, value) => {
        const texts = [any, JSON.stringify({ format: 'filum-query', version: 1, all: [value] })];
        return texts.every((text) => typeof refusal(text) === 'string');
      }),
    );
  });
});

describe('a question in words', () => {
  it('reads as a sentence', () => {
    const bench = new Bench();
    const [a, b] = [bench.addCode('Waiting'), bench.addCode('Help')];
    const names = namesIn(bench.state, {});
    const words = (...all: PassageCondition[]) => questionWords({ all }, names);
    expect(words(carries(a))).toBe('carry Waiting');
    expect(words({ ...carries(a, b), carries: 'none' } as PassageCondition, { comment: 'none', words: '' })).toBe(
      'carry none of Waiting, Help and have no comment',
    );
    expect(words({ standing: 'before', to: { ...carries(b), given: { ratedFrom: 3 } } as PassageCondition })).toBe(
      'come before any that carry Help rated 3 to 10',
    );
    expect(words({ any: [{ spokenBy: 'others', caseIds: [], names: [] }, { kinds: ['interview', 'recording'] }] })).toBe(
      '(are not spoken by interviewers or lie in interviews or recordings)',
    );
    expect(words()).toBe('anything');
  });
});

describe('an answer that was seen', () => {
  it('tells what is new and what is gone', () => {
    const bench = new Bench();
    const ids = Array.from({ length: 50 }, () => bench.newId());
    fc.assert(
      fc.property(fc.subarray(ids), fc.subarray(ids), (before, now) => {
        const { fresh, gone } = sinceSeen(now, { at: 1, ...seenOf(before) });
        return (
          gone === before.filter((id) => !now.includes(id)).length && [...fresh].join() === now.filter((id) => !before.includes(id)).join()
        );
      }),
    );
    bench.run(saveQuery('Q', { all: [] }));
    expect(bench.run(seeAnswer(Object.keys(bench.state.tables.query)[0]!, seenOf(ids)))!.sentence).toBe(
      'has seen all that the query Q finds',
    );
  });
});

import { EVERYTHING } from '../model/scope';
import { danglingIn } from '../integrity/check-study';
import type { Document } from '../model/document';
import type { Id } from '../model/ids';
import type { AskedPattern, KeptPattern, WordsAsked } from '../model/pattern';
import { Bench } from '../testing/make';
import { noteAbsence } from './absences';
import { addAttribute, joinChoices } from './attributes';
import { deleteDocuments } from './documents';
import { deletePattern, keepPattern } from './patterns';
import { joinDocuments } from './split-join';

describe('kept patterns', () => {
  const asked: AskedPattern = {
    ...{ pattern: 'frequencies', rows: { of: 'top codes' }, coders: 'together', counting: 'passages', minimum: 0 },
  };

  it('are kept with their scope, replaced only when that is said, and deleted', () => {
    const bench = new Bench();
    const kept = () => Object.values(bench.state.tables.pattern);
    const scope = { parts: [{ kinds: ['interview' as const] }] };
    expect(bench.run(keepPattern('  What comes   up ', asked, scope))!.sentence).toBe('kept the pattern What comes up');
    expect(kept()).toEqual([jasmine.objectContaining({ name: 'What comes up', asked, scope })]);
    expect(bench.run(keepPattern('What comes up', asked, scope))).toBeNull();
    expect(() => bench.run(keepPattern('What comes up', asked, EVERYTHING))).toThrowError(/shows something else/);
    expect(() => bench.run(keepPattern(' ', asked, EVERYTHING))).toThrowError(/needs a name/);
    const [before] = kept();
    bench.run(keepPattern('What comes up', asked, EVERYTHING, true));
    expect(kept()).toEqual([{ ...before!, scope: EVERYTHING }]);
    bench.run(deletePattern(before!.id));
    expect(kept()).toEqual([]);
  });

  describe('of what is typical of one group', () => {
    const typicalOf = (typical: WordsAsked['typical']): WordsAsked => ({
      ...{ pattern: 'words', run: 1, forms: false, withoutStopWords: true, kept: [], left: [], minimum: 2 },
      ...(typical && { typical }),
    });
    const typical = (bench: Bench) => {
      const [{ asked: kept }] = Object.values(bench.state.tables.pattern) as [KeptPattern];
      return (kept as WordsAsked).typical;
    };

    it('follow the group to the document or case that another was joined with, and do without one that is gone', () => {
      const bench = new Bench();
      const [one, two] = ['One', 'Two'].map((title) => bench.addDocument(title, ['We waited.'])) as [Document, Document];
      bench.run(keepPattern('Of two', typicalOf({ groups: { by: 'document' }, key: two.id }), EVERYTHING));
      bench.do(joinDocuments(bench.texts.get(one.id)!, bench.texts.get(two.id)!));
      expect(typical(bench)).toEqual({ groups: { by: 'document' }, key: one.id });
      bench.do(deleteDocuments([one.id], [...bench.texts.values()]));
      expect(typical(bench)).toBeUndefined();
      // what is in no group, and kinds, are no records
      for (const [by, key] of [['folder', ''] as const, ['kind', 'interview'] as const]) {
        bench.run(keepPattern(by, typicalOf({ groups: { by }, key }), EVERYTHING));
        expect(danglingIn(bench.state)).toEqual([]);
      }
    });

    it('follow a value that was joined into another, also in their scope, and so does what was marked as not found', () => {
      const bench = new Bench();
      bench.run(addAttribute('case', 'home', 'choice', ['Gull Bay', 'The bay', 'Saltpans']));
      const [attributeId] = Object.keys(bench.state.tables.attribute) as [Id];
      const fact = (value: string) => ({ attributeId, comparison: 'is' as const, values: [value] });
      const asks = typicalOf({ groups: { nested: [{ attributeId }] }, key: JSON.stringify(['=Gull Bay']) });
      bench.run(keepPattern('Of the bay', asks, { parts: [fact('Gull Bay')] }));
      bench.run(
        noteAbsence({ question: { all: [fact('Gull Bay')] }, scope: { parts: [fact('Saltpans')] }, title: 'Not found', note: 'x' }),
      );
      bench.run(joinChoices(attributeId, ['Gull Bay'], 'The bay'));
      expect(typical(bench)!.key).toBe(JSON.stringify(['=The bay']));
      expect(Object.values(bench.state.tables.pattern)[0]!.scope.parts).toEqual([fact('The bay')]);
      const [absence] = Object.values(bench.state.tables.absence);
      expect([absence!.question.all, absence!.scope.parts]).toEqual([[fact('The bay')], [fact('Saltpans')]]);
    });

    it('let keys be that are none', () => {
      const bench = new Bench();
      bench.run(addAttribute('case', 'home', 'choice', ['Gull Bay', 'Saltpans']));
      const [attributeId] = Object.keys(bench.state.tables.attribute) as [Id];
      bench.run(keepPattern('Of all', typicalOf({ groups: { nested: [{ attributeId }] }, key: '[not a key' }), EVERYTHING));
      bench.run(joinChoices(attributeId, ['Gull Bay'], 'Saltpans'));
      expect(typical(bench)!.key).toBe('[not a key');
    });
  });
});

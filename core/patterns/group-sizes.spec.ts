import assert from 'node:assert/strict';
import fc from 'fast-check';
import { hasText } from '../model/document';
import { GROUPED_BY, type GroupsAsked } from '../model/pattern';
import { EVERYTHING } from '../model/scope';
import { Narrowing } from '../queries/narrowing';
import { someScope } from '../testing/some-conditions';
import { studyToAsk } from '../testing/study-to-ask';
import { findWords } from '../text/words';
import { isWhole } from './axis';
import { groupAxisOf } from './group-axis';
import { GroupSizes } from './group-sizes';

describe('the sizes of groups', () => {
  const { bench, asked, someStudy, studyOf } = studyToAsk();
  const [age, place] = asked.attributes;
  const someGroups = fc.constantFrom<GroupsAsked>(
    ...GROUPED_BY.map((by) => ({ by })),
    { nested: [{ attributeId: age! }] },
    { nested: [{ attributeId: place! }, { attributeId: age!, cuts: [30, 50] }] },
  );

  it('are what looking at every character says, in all scopes', () => {
    fc.assert(
      fc.property(someStudy(), someGroups, fc.oneof(fc.constant(EVERYTHING), someScope(asked)), (state, by, scope) => {
        const study = studyOf(state);
        const narrowing = new Narrowing(scope, study);
        const textOf = (id: string) => bench.texts.get(id) ?? null;
        const inScope = Object.values(state.tables.document).filter((one) => narrowing.holds(one, textOf(one.id)));
        const axis = groupAxisOf(by, study, inScope);
        const sizes = new GroupSizes(axis, study, narrowing);
        const any = axis.entries.length;
        const naive = Array.from({ length: any + 1 }, () => ({
          documents: new Set<string>(),
          cases: new Set<string>(),
          words: new Set<string>(),
        }));
        for (const document of inScope) {
          const text = textOf(document.id);
          sizes.add(document, text);
          const groups = axis.of({ document, spoken: text });
          const words = hasText(document) && text ? wordsOf(text) : [];
          for (let start = 0; start < Math.max(1, document.characters); start++) {
            const here = { start, end: start + 1 };
            if (!narrowing.keeps(document, text, [here])(0)) continue;
            const own = isWhole(groups) ? groups : groups.at(here);
            for (const group of [...own, any]) {
              naive[group]!.documents.add(document.id);
              for (const word of words)
                if (word.start <= start && start < word.end) naive[group]!.words.add(`${document.id} ${word.start}`);
            }
            for (const id of study.finder.of(document, text, here))
              for (const group of [...(isWhole(groups) ? groups : groups.atAs(here, id)), any]) naive[group]!.cases.add(id);
          }
        }
        assert.deepEqual(
          sizes.result().map((one) => ({ ...one, words: one.words ?? 'not told' })),
          naive.map(({ documents, cases, words }, group) => ({
            documents: documents.size,
            cases: cases.size,
            words: axis.coders && group !== any ? 'not told' : words.size,
          })),
        );
      }),
      { numRuns: 150 },
    );
  });

  /** Words beside the labels of speakers. */
  const wordsOf = ({ text, paragraphs }: { text: string; paragraphs: readonly { body: number; end: number }[] }) =>
    paragraphs.flatMap(({ body, end }) =>
      findWords(text.slice(body, end)).map((word) => ({ start: body + word.start, end: body + word.end })),
    );
});

import type { Carries, PassageCondition } from '../model/passage-condition';
import { chosenPart } from './open-parts';

describe('a part that is still to be chosen', () => {
  const open: Carries = { carries: 'any', codes: { codeIds: [], setIds: [], withUnder: false }, reach: 'passage' };
  const memo: PassageCondition = { memo: true };

  it('is not asked, nor is what stands to it, and the rest is', () => {
    expect(chosenPart(open)).toBeNull();
    expect(chosenPart({ standing: 'near', to: open })).toBeNull();
    expect(chosenPart({ any: [open, memo, { none: [open] }] })).toEqual({ any: [memo] });
    expect(chosenPart({ attributeId: '', comparison: 'is known', values: [] })).toBeNull();
    expect(chosenPart({ hasWords: { typed: ' ', match: 'whole words', capitals: false, accents: false, unit: 'words' } })).toBeNull();
  });

  it('is no part that means something without a name: no code at all, any code that somebody gave', () => {
    const none: Carries = { ...open, carries: 'none' };
    const given: Carries = { ...open, given: { ratedFrom: 3 } };
    for (const part of [none, given, memo]) expect(chosenPart(part)).toEqual(part);
  });
});

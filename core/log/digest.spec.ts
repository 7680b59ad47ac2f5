import fc from 'fast-check';
import type { JournalEntry } from '../change/journal-schema';
import { fold } from '../text/fold';
import { blockOf, digestOf, DIGEST_SPAN, mayHold } from './digest';
import { wishTest } from './wish';

const entry = (seq: number, sentence: string, coderId = 'ada'): JournalEntry => ({
  seq,
  at: 1_000 * seq,
  coderId,
  kind: 'act',
  of: null,
  sentence,
  change: [],
});

describe('a digest of the log', () => {
  it('numbers blocks so that each holds as many entries', () => {
    expect(blockOf(1)).toBe(0);
    expect(blockOf(DIGEST_SPAN)).toBe(0);
    expect(blockOf(DIGEST_SPAN + 1)).toBe(1);
  });

  it('says what is not there: coders, kinds and words', () => {
    const digest = digestOf(0, [entry(1, 'coded “the last boat” with Waiting'), entry(2, 'exported the codings')]);
    expect(mayHold({ coderId: 'ada' })(digest)).toBeTrue();
    expect(mayHold({ coderId: 'ben' })(digest)).toBeFalse();
    expect(mayHold({ kind: 'exports' })(digest)).toBeTrue();
    expect(mayHold({ kind: 'memos' })(digest)).toBeFalse();
    expect(mayHold({ words: ['boat', 'wait'] })(digest)).toBeTrue();
    expect(mayHold({ words: ['boat', 'bridge'] })(digest)).toBeFalse();
    expect([digest.from, digest.to]).toEqual([1_000, 2_000]);
  });

  it('cannot rule out a single letter, and says so by saying maybe', () => {
    expect(mayHold({ words: ['q'] })(digestOf(0, [entry(1, 'made the code Waiting')]))).toBeTrue();
  });

  it('rules out nearly every block for a word that is in none of them', () => {
    const words = ['ferry', 'queue', 'help', 'night', 'fare', 'grief', 'council', 'doors', 'school', 'island'];
    let maybe = 0;
    for (let block = 0; block < 50; block++) {
      const entries = Array.from({ length: DIGEST_SPAN }, (_, at) =>
        entry(
          at + 1,
          `coded “${words[(at * 7 + block) % 10]} ${words[(at * 3) % 10]} ${(block * 7_919 + at * 104_729) % 99_991}” with ${words[at % 10]}`,
        ),
      );
      if (mayHold({ words: ['lighthouse'] })(digestOf(block, entries))) maybe++;
    }
    expect(maybe).toBeLessThan(3);
  });

  it('never rules out a block with an entry that is looked for, in any script', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ sentence: fc.string({ unit: 'grapheme', maxLength: 40 }), coderId: fc.constantFrom('ada', 'ben') }), {
          minLength: 1,
          maxLength: 20,
        }),
        fc.nat(),
        fc.nat(),
        fc.nat(12),
        (some, which, from, length) => {
          const entries = some.map(({ sentence, coderId }, at) => entry(at + 1, sentence, coderId));
          const one = entries[which % entries.length]!;
          const folded = fold(one.sentence);
          const start = from % (folded.length + 1);
          const wish = { coderId: one.coderId, words: [folded.slice(start, start + length)] };
          expect(wishTest(wish)({ ...one, change: () => one.change })).toBeTrue();
          expect(mayHold(wish)(digestOf(0, entries))).toBeTrue();
        },
      ),
    );
  });
});

import { stopWordsOf } from './stop-words';

describe('stop words', () => {
  it('are those of the language, with what English joins to them', () => {
    const english = stopWordsOf('en-GB')!;
    for (const word of ['the', 'she', 'not', "it's", "we'd", "don't", "can't"]) expect([word, english(word)]).toEqual([word, true]);
    for (const word of ['boat', "boat's", 'bridge', 'well-known']) expect([word, english(word)]).toEqual([word, false]);
    expect(stopWordsOf('de')!('und')).toBeTrue();
    expect(stopWordsOf('de')!('the')).toBeFalse();
  });

  it('are none where there is no list for a language', () => {
    expect(stopWordsOf('gd')).toBeNull();
    expect(stopWordsOf('')).toBeNull();
  });
});

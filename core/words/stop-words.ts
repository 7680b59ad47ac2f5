import * as stopword from 'stopword';

/** By name of the language; what else the package exports is no list. */
const lists: Readonly<Record<string, unknown>> = { ...stopword };

/** The list of each language (BCP 47, without its region), by its name in the package `stopword` (ISO 639-3). */
const LISTS: Readonly<Record<string, string>> = {
  ...{ ar: 'ara', bg: 'bul', bn: 'ben', br: 'bre', ca: 'cat', cs: 'ces', da: 'dan', de: 'deu', el: 'ell', en: 'eng', eo: 'epo', es: 'spa' },
  ...{ et: 'est', eu: 'eus', fa: 'fas', fi: 'fin', fr: 'fra', ga: 'gle', gl: 'glg', gu: 'guj', he: 'heb', hi: 'hin', hr: 'hrv', hu: 'hun' },
  ...{ hy: 'hye', id: 'ind', it: 'ita', ja: 'jpn', ko: 'kor', lt: 'lit', lv: 'lav', mr: 'mar', nb: 'nob', nl: 'nld', nn: 'nob', no: 'nob' },
  ...{
    pl: 'pol',
    pt: 'por',
    ro: 'ron',
    ru: 'rus',
    sk: 'slk',
    sl: 'slv',
    sv: 'swe',
    th: 'tha',
    tr: 'tur',
    uk: 'ukr',
    ur: 'urd',
    vi: 'vie',
    zh: 'zho',
  },
};

/** The English list of the Snowball project (Porter), of which the package has about half. */
const ENGLISH =
  'i me my myself we our ours ourselves you your yours yourself yourselves he him his himself she her hers herself it its itself they them ' +
  'their theirs themselves what which who whom this that these those am is are was were be been being have has had having do does did doing ' +
  'would should could ought a an the and but if or because as until while of at by for with about against between into through during ' +
  'before after above below to from up down in out on off over under again further then once here there when where why how all any both ' +
  'each few more most other some such no nor not only own same so than too very can will just';

/** What English joins to the words of its list: “it's”, “we'd”, “don't”. */
const JOINED = /(?:'(?:s|d|ll|ve|re|m)|n't)$/;

/**
 * Whether words of a language say so little by themselves that counts leave them out.
 * @param language BCP 47 tag
 * @returns what tells it of a word in lower case, with straight apostrophes; null where there is no list for the language
 */
export function stopWordsOf(language: string): ((word: string) => boolean) | null {
  const [short = ''] = language.toLowerCase().split('-');
  const list = lists[LISTS[short] ?? ''];
  if (!Array.isArray(list)) return null;
  if (short !== 'en') {
    const words = new Set(list as string[]);
    return (word) => words.has(word);
  }
  const words = new Set([...(list as string[]), ...ENGLISH.split(' ')]);
  return (word) => words.has(word) || (JOINED.test(word) && (words.has(word.replace(JOINED, '')) || word === "can't" || word === "won't"));
}

import { decodeText, ENCODINGS } from './encoding';
import { guessEncoding } from './guess-encoding';
import { UnreadableFileError } from '../reading';

/** The bytes of a text in an encoding of one byte a sign. */
function written(text: string, encoding: string): Uint8Array {
  const decoder = new TextDecoder(encoding);
  const signs = new Map(Array.from({ length: 256 }, (_, byte) => [decoder.decode(new Uint8Array([byte])), byte]));
  return Uint8Array.from([...text].map((sign) => signs.get(sign)!));
}

describe('the encoding of a text that is not Unicode', () => {
  const texts: readonly (readonly [encoding: string, text: string])[] = [
    ['windows-1252', 'Ich heiße Müller und das Boot gehörte meinem Großvater.'],
    ['windows-1252', 'The Café on the pier'],
    ['windows-1252', 'Mara: Où est le café?\nShona: À côté du môle, près de la grève.'],
    ['iso-8859-2', 'Żółw i łódka stały przy brzegu, a mój wujek mówił.'],
    ['windows-1251', 'имя;возраст\nАнна;34'],
    ['koi8-r', 'Меня зовут Анна, и лодка принадлежала моему деду.'],
    ['windows-1253', 'Με λένε Άννα και η βάρκα ήταν του παππού μου.'],
    ['windows-1254', 'Benim adım Ayşe ve tekne büyükbabamındı, şimdi yok.'],
    ['windows-1255', 'שמי אנה והסירה הייתה של סבא שלי'],
    ['windows-1256', 'اسمي آنا والقارب كان لجدي'],
  ];
  for (const [encoding, text] of texts)
    it(`is guessed where one clearly fits: ${encoding}, “${text.slice(0, 20)}…”`, () => {
      const read = decodeText(written(text, encoding));
      expect([read.text, read.encoding]).toEqual([text, encoding]);
      expect(read.guesses[0]!.encoding).toBe(encoding);
      for (const word of read.guesses[0]!.words) expect(word).toMatch(/\P{ASCII}/u);
    });

  it('is asked for where two fit about as well, with the words that tell them apart', () => {
    const bytes = written('Señor Peña habló de la niñez en A Coruña, y de cómo se marchó.', 'windows-1252');
    const { samples, clear } = guessEncoding(bytes, ENCODINGS);
    expect(clear).toBe(false);
    expect(samples.map((one) => [one.encoding, one.words[0]]).slice(0, 2)).toEqual([
      ['windows-1252', 'Señor'],
      ['iso-8859-2', 'Seńor'],
    ]);
    try {
      decodeText(bytes);
      fail('it was read');
    } catch (error) {
      expect((error as UnreadableFileError).message).toContain('Choose the encoding');
      expect((error as UnreadableFileError).remedy.encodings).toEqual(samples);
    }
  });

  it('is not guessed where one is named, and what reads the same is offered once', () => {
    const bytes = written('Café', 'windows-1252');
    expect(decodeText(bytes, 'macintosh')).toEqual({ text: 'CafÈ', encoding: 'macintosh', guesses: [] });
    const shown = guessEncoding(bytes, ENCODINGS).samples.map((one) => one.words.join());
    expect(new Set(shown).size).toBe(shown.length);
    expect(decodeText(new TextEncoder().encode('Café')).guesses).toEqual([]);
  });

  it('is asked of bytes that no text has', () => {
    expect(() => decodeText(Uint8Array.from([0x41, 0x81, 0x00, 0xff, 0x8d, 0x90, 0x03]))).toThrowError(UnreadableFileError);
  });

  it('is told by the whole of a long text', () => {
    const bytes = new Uint8Array(300_000).fill(0x61);
    bytes[299_990] = 0x20;
    bytes[299_991] = 0xe9;
    expect(decodeText(bytes).text.endsWith(' éaaaaaaaa')).toBe(true);
  });
});

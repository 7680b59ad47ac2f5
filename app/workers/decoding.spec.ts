import { decodeText, ENCODINGS } from '@core/formats/plain-text/encoding';

/** Here and not beside the code: a browser decodes what Node does otherwise, and a browser is where it is used. */
describe('decoding in the browser', () => {
  const bytes = (hex: string) => Uint8Array.from(hex.match(/../g)!, (pair) => parseInt(pair, 16));
  const written: Readonly<Record<string, readonly [hex: string, text: string]>> = {
    'utf-8': ['e2809c436166c3a9e2809d', '“Café”'],
    'utf-16le': ['1c20430061006600e9001d20', '“Café”'],
    'utf-16be': ['201c004300610066 00e9201d'.replace(' ', ''), '“Café”'],
    'windows-1252': ['93436166e9949780', '“Café”—€'],
    'iso-8859-2': ['b1e6eab3f1b6bcbf', 'ąćęłńśźż'],
    'windows-1250': ['93b99cbff5fb94', '“ąśżőű”'],
    'windows-1251': ['cce5edff', 'Меня'],
    'koi8-r': ['ede5ced1', 'МЕня'],
    'windows-1253': ['ccdd2ca2', 'Μέ,Ά'],
    'windows-1254': ['fdfef0dd', 'ışğİ'],
    'windows-1255': ['f9eee9', 'שמי'],
    'windows-1256': ['c7d3e3ed', 'اسمي'],
    'windows-1257': ['e0e7e8fe', 'ąēčž'],
    shift_jis: ['8e8482cc', '私の'],
    'euc-jp': ['bbe4a4ce', '私の'],
    gb18030: ['b6c9b4ac', '渡船'],
    big5: ['b4e7b2ee', '渡船'],
    'euc-kr': ['b9e8', '배'],
    macintosh: ['d2436166 8ed3'.replace(' ', ''), '“Café”'],
  };

  it('knows every encoding on offer', () => {
    expect(Object.keys(written).sort()).toEqual([...ENCODINGS].sort());
    for (const encoding of ENCODINGS) {
      const [hex, text] = written[encoding]!;
      expect(decodeText(bytes(hex), encoding).text)
        .withContext(encoding)
        .toBe(text);
    }
  });

  it('guesses quotation marks of Windows, which are control characters elsewhere', () => {
    const read = decodeText(bytes('934974927320616c6c20676f6e652c94207368652073616964'));
    expect([read.text, read.encoding]).toEqual(['“It’s all gone,” she said', 'windows-1252']);
    expect(read.guesses[0]!.words).toEqual(['“It’s', 'gone,”']);
  });
});

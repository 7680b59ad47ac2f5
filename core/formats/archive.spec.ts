import { strToU8, zipSync } from 'fflate';
import { ArchiveError, looksLikeZip, unpackArchive } from './archive';
import { JsonError, parseJson } from './study-file/parse-json';

const LIMITS = { entries: 3, entryBytes: 5_000_000, totalBytes: 8_000_000, ratio: 50 };

describe('unpacking an archive', () => {
  it('gives the wanted entries, and counts the others too', () => {
    const bytes = zipSync({ 'a.txt': strToU8('A'), 'b/c.txt': strToU8('C') });
    expect([...unpackArchive(bytes, LIMITS, (name) => name === 'b/c.txt')]).toEqual([['b/c.txt', strToU8('C')]]);
    const four = zipSync(Object.fromEntries(['1', '2', '3', '4'].map((name) => [name, strToU8(name)])));
    expect(() => unpackArchive(four, LIMITS, () => false)).toThrowError(ArchiveError, /more than 3 files/);
  });

  it('refuses paths that leave the archive, in every spelling', () => {
    for (const name of ['../x', 'a/../../x', '..\\x', '/etc/x', 'C:\\x']) {
      expect(() => unpackArchive(zipSync({ [name]: strToU8('x') }), LIMITS))
        .withContext(name)
        .toThrowError(ArchiveError, /forbidden path/);
    }
    expect(() => unpackArchive(zipSync({ 'a..b/..c': strToU8('x') }), LIMITS)).not.toThrow();
  });

  it('refuses entries and archives beyond their size, and packing tighter than text can be', () => {
    const noise = (size: number) => Uint8Array.from({ length: size }, (_, at) => (at * 2_654_435_761) >>> 24);
    expect(() => unpackArchive(zipSync({ a: noise(5_000_001) }, { level: 0 }), LIMITS)).toThrowError(ArchiveError, /more than the 5 MB/);
    expect(() => unpackArchive(zipSync({ a: noise(4_500_000), b: noise(4_500_000) }, { level: 0 }), LIMITS)).toThrowError(
      ArchiveError,
      /more than 8 MB/,
    );
    expect(() => unpackArchive(zipSync({ a: new Uint8Array(2_000_000) }), LIMITS)).toThrowError(ArchiveError, /zip bomb/);
  });

  it('says that other bytes are no archive, and that a cut one is damaged', () => {
    expect(looksLikeZip(strToU8('PK'))).toBeFalse();
    expect(() => unpackArchive(strToU8('hello'), LIMITS)).toThrowError(ArchiveError, /not a zip/);
    const whole = zipSync({ a: strToU8('x'.repeat(500)) });
    expect(() => unpackArchive(whole.slice(0, 50), LIMITS)).toThrowError(ArchiveError, /damaged/);
  });
});

describe('parsing JSON from outside', () => {
  const parse = (text: string) => parseJson(strToU8(text), 'x.json');

  it('takes the forbidden words as values, not as keys', () => {
    expect(parse('{"name":"__proto__","text":"constructor"}')).toEqual({ name: '__proto__', text: 'constructor' });
    for (const key of ['__proto__', 'constructor', 'prototype', '__pro\\u0074o__'])
      expect(() => parse(`{"a":[{"${key}":1}]}`)).toThrowError(JsonError, /forbidden key/);
  });

  it('names the file that is not JSON or not UTF-8', () => {
    expect(() => parse('{')).toThrowError(JsonError, /“x.json”/);
    expect(() => parseJson(new Uint8Array([0x22, 0xff, 0x22]), 'y.json')).toThrowError(JsonError, /“y.json”/);
  });
});

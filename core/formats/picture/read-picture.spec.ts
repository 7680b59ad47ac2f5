import { readFileSync } from 'node:fs';
import { imageSize } from 'image-size';
import { UnreadableFileError } from '../reading';
import { readPicture } from './read-picture';
import { safeSvg } from './safe-svg';
import { withoutMetadata } from './without-metadata';

const JPEG = new Uint8Array(readFileSync('demo/media/the-bot.jpg'));
const PNG = new Uint8Array(readFileSync('demo/media/plan-of-the-pier.png'));
const blob = (...parts: readonly (string | Uint8Array<ArrayBuffer>)[]): Blob => new Blob([...parts]);
const trouble = (ending: string, file: Blob): Promise<string> =>
  readPicture(ending, file).then(
    () => 'read',
    (error: unknown) => (error instanceof UnreadableFileError ? error.message : `not in words: ${String(error)}`),
  );

/** What a camera writes (Exif 2.3): which way up, when, and where on earth: 56° 30' N, 6° 15' W. */
function exif(orientation: number): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(400);
  const view = new DataView(bytes.buffer);
  let free = 8;
  const entry = (at: number, tag: number, type: number, count: number, value: number): void => {
    view.setUint16(at, tag);
    view.setUint16(at + 2, type);
    view.setUint32(at + 4, count);
    if (type === 3) view.setUint16(at + 8, value);
    else view.setUint32(at + 8, value);
  };
  const words = (text: string, at: number): void => [...text].forEach((letter, by) => view.setUint8(at + by, letter.charCodeAt(0)));
  const degrees = (at: number, ...parts: number[]): void =>
    parts.forEach((part, by) => (view.setUint32(at + by * 8, part), view.setUint32(at + by * 8 + 4, 1)));
  words('MM', 0);
  view.setUint16(2, 42);
  view.setUint32(4, free);
  view.setUint16(free, 3);
  entry(free + 2, 0x0112, 3, 1, orientation);
  entry(free + 14, 0x8769, 4, 1, 60);
  entry(free + 26, 0x8825, 4, 1, 120);
  free = 60;
  view.setUint16(free, 1);
  entry(free + 2, 0x9003, 2, 20, 90);
  words('2025:10:26 14:30:00\0', 90);
  free = 120;
  view.setUint16(free, 4);
  entry(free + 2, 1, 2, 2, 0x4e000000);
  entry(free + 14, 2, 5, 3, 200);
  entry(free + 26, 3, 2, 2, 0x57000000);
  entry(free + 38, 4, 5, 3, 240);
  degrees(200, 56, 30, 0);
  degrees(240, 6, 15, 0);
  const body = Uint8Array.from([...'Exif\0\0'].map((letter) => letter.charCodeAt(0)).concat([...bytes]));
  const length = body.length + 2;
  return Uint8Array.from([0xff, 0xe1, length >> 8, length & 0xff, ...body]);
}
const taken = (orientation: number): Blob => blob(JPEG.slice(0, 2), exif(orientation), JPEG.slice(2));

describe('A picture that comes in', () => {
  it('says how large it is and what it is, whatever its ending says', async () => {
    expect(await readPicture('.png', blob(JPEG))).toEqual(
      jasmine.objectContaining({ width: 1_400, height: 1_000, type: 'image/jpeg', facts: [] }),
    );
    expect(await readPicture('.jpg', blob(PNG))).toEqual(
      jasmine.objectContaining({ width: 1_600, height: 1_100, type: 'image/png', date: null }),
    );
  });

  it('stands upright by its own mark, and says when and where it was taken', async () => {
    const facts = await readPicture('.jpg', taken(6));
    expect([facts.width, facts.height]).toEqual([1_000, 1_400]);
    expect(facts.date).toBe('2025-10-26');
    expect(facts.facts).toEqual([
      { name: 'taken on', value: '2025-10-26' },
      { name: 'taken at', value: '56.50000, -6.25000' },
    ]);
  });

  it('is kept without what the camera wrote, and still stands upright', async () => {
    const bytes = new Uint8Array(await (await readPicture('.jpg', taken(6))).bare.arrayBuffer());
    const again = await readPicture('.jpg', blob(bytes));
    expect([again.width, again.height, again.date, again.facts]).toEqual([1_000, 1_400, null, []]);
    expect(imageSize(bytes).orientation).toBe(6);
    // nothing of the picture itself is touched
    expect(bytes.slice(-1_000)).toEqual(JPEG.slice(-1_000));
    expect(withoutMetadata(JPEG, 'image/jpeg', 1)).toBe(JPEG);
    expect(withoutMetadata(new Uint8Array(), 'image/avif', 1)).toBeNull();
  });

  it('of other kinds loses its words, and nothing else', () => {
    const text = Uint8Array.from([0, 0, 0, 4, ...[...'tEXt'].map((letter) => letter.charCodeAt(0)), 65, 0, 66, 66, 1, 2, 3, 4]);
    const worded = Uint8Array.from([...PNG.slice(0, 33), ...text, ...PNG.slice(33)]);
    expect(withoutMetadata(worded, 'image/png', 1)).toEqual(PNG);
    const chunk = (name: string, ...content: number[]): number[] => [
      ...[...name].map((letter) => letter.charCodeAt(0)),
      content.length,
      0,
      0,
      0,
      ...content,
    ];
    const webp = (flags: number, ...more: number[]): Uint8Array<ArrayBuffer> => {
      const body = [
        ...[...'WEBP'].map((letter) => letter.charCodeAt(0)),
        ...chunk('VP8X', flags, 0, 0, 0, 9, 0, 0, 9, 0, 0),
        ...more,
        ...chunk('VP8 ', 1, 2),
      ];
      return Uint8Array.from([...[...'RIFF'].map((letter) => letter.charCodeAt(0)), body.length, 0, 0, 0, ...body]);
    };
    expect(withoutMetadata(webp(0x0c, ...chunk('EXIF', 7, 7)), 'image/webp', 1)).toEqual(webp(0));
  });

  it('is refused in words where it is empty, damaged, too large, or none that browsers show', async () => {
    expect(await trouble('.png', blob())).toBe('The file is empty.');
    expect(await trouble('.heic', blob('x'))).toBe(
      'Browsers do not show pictures ending in .heic. Save it as JPEG or PNG, and bring that in.',
    );
    expect(await trouble('.jpg', blob('Dear Sir, this is no picture.'))).toMatch(/damaged, cut off, or none/);
    for (const length of [3, 9, 20, 24]) expect(await trouble('.png', blob(PNG.slice(0, length)))).not.toMatch(/^not in words/);
    const huge = PNG.slice();
    new DataView(huge.buffer).setUint32(16, 30_000);
    new DataView(huge.buffer).setUint32(20, 30_000);
    expect(await trouble('.png', blob(huge))).toMatch(/30,000 × 30,000 pixels; browsers show 150 million at most/);
  });
});

describe('An SVG', () => {
  const svg = (inner: string, attributes = 'viewBox="0 0 40 30"'): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inner}</svg>`;

  it('runs nothing and fetches nothing', () => {
    const hostile = svg(
      `<script>alert(1)</script><rect onclick="alert(2)" width="9"/><a href="javascript:alert(3)"><text>Pier</text></a>
       <image href="http://elsewhere.example/a.png"/><image xlink:href="data:image/png;base64,AAAA"/><use href="#pier"/>
       <foreignObject><iframe src="x"/></foreignObject><style>@import "a.css"; .a{fill:url(http://elsewhere.example)} .b{fill:url(#c)}</style>
       <rect style="fill:url('//elsewhere.example/x')"/><animate attributeName="href" to="javascript:alert(4)"/><x:script xmlns:x="http://www.w3.org/2000/svg">alert(5)</x:script>`,
    );
    const { svg: safe, leftOut } = safeSvg(`<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY e SYSTEM "file:///etc/passwd">]>${hostile}`);
    expect(safe).not.toMatch(/script|alert|elsewhere|foreignObject|iframe|animate|import|ENTITY|onclick/i);
    expect(safe).toContain('<text>Pier</text>');
    expect(safe).toContain('data:image/png;base64,AAAA');
    expect(safe).toContain('href="#pier"');
    expect(safe).toContain('fill:url(#c)');
    expect(leftOut).toBeGreaterThan(6);
    // what is safe stays as it is when it is made safe once more
    expect(safeSvg(safe)).toEqual(jasmine.objectContaining({ svg: safe, leftOut: 0 }));
  });

  it('gets pixels: those it says, or as many as are needed to point at something', () => {
    expect(safeSvg(svg('', 'width="800" height="600"'))).toEqual(jasmine.objectContaining({ width: 800, height: 600 }));
    expect(safeSvg(svg('', 'width="100%" viewBox="0 0 24 12"'))).toEqual(jasmine.objectContaining({ width: 1_600, height: 800 }));
    expect(safeSvg(svg('', 'width="24px" height="24px"')).svg).toContain('width="1600" height="1600" viewBox="0 0 24 24"');
  });

  it('is refused where it is none, or without end', async () => {
    expect(() => safeSvg('<html><svg/></html>')).toThrowError(/no SVG/);
    expect(() => safeSvg('')).toThrowError(/no SVG/);
    expect(() => safeSvg(svg('<g>'.repeat(2_000)))).toThrowError(/nested/);
    expect(await trouble('.svg', blob('<svg'))).not.toMatch(/^not in words/);
  });
});

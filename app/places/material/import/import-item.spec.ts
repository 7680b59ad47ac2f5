import type { ReadFile } from '@core/formats/read-file';
import { sequentialIds } from '@core/model/ids';
import { newItem, toDocument, withRead } from './import-item';

const read = (fields: Partial<ReadFile> = {}): ReadFile => ({
  title: 'Interview',
  sha256: 'a'.repeat(64),
  paragraphs: ['I: Yes?', 'Shona: No.'].map((text) => ({ text, style: 'body' as const, emphasis: [] })),
  speakers: [
    { name: 'I', turns: 1 },
    { name: 'Shona', turns: 1 },
  ],
  notes: [],
  encoding: 'utf-8',
  lineEnds: 'paragraphs',
  ...fields,
});

describe('a file on its way in', () => {
  it('guesses kind and date, takes all speakers, and comes in unless it is known', () => {
    const item = withRead(newItem(1, '2025-01-22 Shona.txt', new Uint8Array()), read(), null);
    expect([item.kind, item.date, [...item.speakers], item.wanted]).toEqual(['interview', '2025-01-22', ['I', 'Shona'], true]);
    expect(withRead(newItem(1, 'again.txt', new Uint8Array()), read(), 'Interview 3').wanted).toBeFalse();
  });

  it('takes a text without speakers for a public document, and many speakers for a focus group', () => {
    const kind = (fields: Partial<ReadFile>) => withRead(newItem(1, 'x.txt', new Uint8Array()), read(fields), null).kind;
    expect(kind({ speakers: [] })).toBe('public document');
    expect(kind({ speakers: ['A', 'B', 'C', 'D'].map((name) => ({ name, turns: 2 })) })).toBe('focus group');
    expect(kind({ title: 'Field note – the queue', speakers: [] })).toBe('field note');
  });

  it('keeps what was decided when it is read again', () => {
    const first = withRead(newItem(1, 'x.txt', new Uint8Array()), read(), null);
    const decided = { ...first, title: 'Mine', kind: 'article' as const, wanted: false, speakers: new Set(['Shona']) };
    const again = withRead(decided, read({ title: 'Other' }), null);
    expect([again.title, again.kind, again.wanted, [...again.speakers]]).toEqual(['Mine', 'article', false, ['Shona']]);
  });

  it('becomes a document with its text, its source and the speakers that were taken', () => {
    const item = { ...withRead(newItem(1, 'shona.txt', new Uint8Array()), read(), null), speakers: new Set(['Shona']) };
    const { document, text } = toDocument(item, null, sequentialIds(), 7);
    expect(document.id).toBe(text.id);
    expect(document.speakers.map((speaker) => speaker.name)).toEqual(['Shona']);
    expect(text.paragraphs.map((paragraph) => paragraph.speaker)).toEqual([-1, 0]);
    expect(document.source).toEqual({ fileName: 'shona.txt', sha256: 'a'.repeat(64) });
    expect(document.words).toBe(3);
    expect(toDocument({ ...item, pasted: true }, null, sequentialIds(), 7).document.source).toBeNull();
  });
});

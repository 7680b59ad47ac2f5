import type { Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import type { StudyStorage } from '../storage/study-storage';
import { TextCache } from './text-cache';

const text = (id: Id, words = 'words'): Text => ({ id, text: words, paragraphs: [], emphasis: [], marks: [] });

describe('texts in memory', () => {
  let read: Id[];
  let onDisk: Map<Id, Text>;
  let cache: TextCache;

  beforeEach(() => {
    read = [];
    onDisk = new Map();
    cache = new TextCache();
    cache.use({ text: (id: Id) => Promise.resolve(void read.push(id)).then(() => onDisk.get(id)) } as unknown as StudyStorage);
  });

  it('are read from disk once', async () => {
    onDisk.set('a', text('a'));
    expect(cache.peek('a')).toBeUndefined();
    expect((await cache.get('a'))!.text).toBe('words');
    await cache.get('a');
    expect(read).toEqual(['a']);
    expect(cache.peek('a')!.id).toBe('a');
    expect(await cache.get('gone')).toBeNull();
  });

  it('come and go with changes, before the disk knows', async () => {
    cache.put(text('a', 'before'), null);
    expect((await cache.get('a'))!.text).toBe('before');
    cache.put(text('a', 'after'), text('a', 'before'));
    expect(cache.peek('a')!.text).toBe('after');
    cache.put(null, text('a', 'after'));
    expect(cache.peek('a')).toBeUndefined();
    expect(read).toEqual([]);
  });

  it('make room for others when there are many, those asked for longest ago first', async () => {
    for (const id of ['a', 'b', 'c', 'd', 'e']) onDisk.set(id, text(id, 'x'.repeat(2_500_000)));
    for (const id of ['a', 'b', 'c']) await cache.get(id);
    await cache.get('a');
    await cache.get('d');
    expect(['a', 'b', 'c', 'd'].map((id) => cache.peek(id) !== undefined)).toEqual([true, false, true, true]);
    // one that is larger than all the room is kept while it is the last
    onDisk.set('huge', text('huge', 'x'.repeat(9_000_000)));
    expect((await cache.get('huge'))!.text.length).toBe(9_000_000);
    expect(cache.peek('huge')).toBeDefined();
  });

  it('are forgotten with the study', async () => {
    cache.put(text('a'), null);
    cache.use(null);
    expect(cache.peek('a')).toBeUndefined();
    expect(await cache.get('a')).toBeNull();
  });
});

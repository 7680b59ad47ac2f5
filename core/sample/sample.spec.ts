import { readdirSync, readFileSync } from 'node:fs';
import { readRecording } from '../formats/recording/read-recording';
import { readPicture } from '../formats/picture/read-picture';
import { wordsSpoken } from '../text/timeline';
import { demoSources } from '../testing/demo-sources';
import { checkStudy } from '../integrity/check-study';
import { unpackPassages } from '../passages/columns';
import { buildDemoStudy, demoMedia, demoSourcePaths } from './demo-study';
import { buildLargeStudy } from './large-study';
import { readMarked } from './marked-text';

describe('marked sources', () => {
  it('give the words without marks, and nested marks where they were', () => {
    const source = readMarked('#title: T\n#date: 2025-01-22\n\nA: <c k="x">one <c k="y z">two</c></c> three\n\nB: four');
    expect(source.header).toEqual({ title: 'T', date: '2025-01-22' });
    const text = source.paragraphs.join('\n');
    expect(source.marks.map((mark) => [text.slice(mark.start, mark.end), mark.keys])).toEqual([
      ['one two', ['x']],
      ['two', ['y', 'z']],
    ]);
  });

  it('are refused with marks that are not closed or not opened', () => {
    expect(() => readMarked('#title: T\n\n<c k="x">open')).toThrowError(SyntaxError);
    expect(() => readMarked('#title: T\n\nclosed</c>')).toThrowError(SyntaxError);
  });
});

describe('the demo study', () => {
  const bundle = buildDemoStudy(demoSources());
  const { tables } = bundle.state;
  const documents = Object.values(tables.document);
  const titled = (title: string) => documents.find((document) => document.title.startsWith(title))!;

  it('holds together', () => expect(checkStudy(bundle.state, bundle.texts)).toEqual([]));

  it('uses every source there is', () => {
    const files = ['marked', 'structured', 'media'].flatMap((folder) => readdirSync(`demo/${folder}`).map((name) => `${folder}/${name}`));
    expect(
      [...demoSourcePaths(), ...[...demoMedia(demoSources()).values()].map((one) => one.path)].filter((path) => path.includes('/')).sort(),
    ).toEqual(files.sort());
  });

  it('has documents in folders by kind, the survey among them', () => {
    const folders = new Map<string, number>();
    for (const { folderId } of documents)
      folders.set(tables.folder[folderId!]!.name, (folders.get(tables.folder[folderId!]!.name) ?? 0) + 1);
    expect([...folders]).toEqual(
      jasmine.arrayWithExactContents([
        ['Interviews', 15],
        ['Focus groups', 2],
        ['Field notes', 3],
        ['Public documents', 3],
        ['Pier interviews', 7],
        ['Survey', 48],
        ['Pictures', 4],
      ]),
    );
  });

  it('has codes with definitions under categories, and both coders’ codings', () => {
    const codes = Object.values(tables.code);
    expect(codes.filter((code) => code.parentId === null).length).toBe(8);
    expect(codes.every((code) => code.definition)).toBeTrue();
    expect(new Set(codes.map((code) => code.mark)).size).toBe(codes.length);
    const coders = (title: string) =>
      new Set(
        unpackPassages(bundle.state.passages[titled(title).id]!).flatMap((passage) =>
          passage.codings.map((coding) => tables.coder[coding.coderId]!.name),
        ),
      );
    expect(coders('Interview 03')).toEqual(new Set(['Mara', 'Jon']));
    expect(coders('Interview 01')).toEqual(new Set(['Mara']));
  });

  it('codes exactly the words that the sources mark', () => {
    const shona = titled('Interview 03');
    const text = bundle.texts.get(shona.id)!.text;
    const marked = unpackPassages(bundle.state.passages[shona.id]!).map((passage) => text.slice(passage.start, passage.end));
    expect(marked).toContain("I've read it. I think I signed on the wrong line.");
    expect(marked).toContain("You'd work it out in ten minutes in the shop");
  });

  it('ties speakers to participants with their attributes', () => {
    const speaker = titled('Focus group – Parents').speakers.find((one) => one.name === 'Dan')!;
    const dan = tables.case[speaker.caseId!]!;
    const role = Object.values(tables.attribute).find((attribute) => attribute.name === 'role')!;
    expect([dan.name, dan.values[role.id]]).toEqual(['Dan Petrie', 'fish-farm hand']);
    expect(titled('At the pier – Ellen').speakers.map((one) => one.name)).toEqual(['Interviewer', 'Ellen']);
  });

  it('has a recording with its transcript, whose sentences know when they are heard, and both are coded', async () => {
    const recording = documents.find((document) => document.kind === 'recording')!;
    const ground = recording.ground as Extract<typeof recording.ground, { of: 'time' }>;
    const [sha256, { path, type }] = [...demoMedia(demoSources())][0]!;
    const facts = await readRecording('.mp3', new Blob([readFileSync(`demo/${path}`)]));
    expect([ground.media.sha256, ground.media.bytes, type]).toEqual([facts.sha256, facts.bytes, facts.type]);
    expect(sha256).toBe(facts.sha256);
    expect(Math.abs(ground.milliseconds - facts.milliseconds)).toBeLessThan(120);
    const transcript = titled('At the pier – Ellen');
    expect(transcript.belongsTo).toBe(recording.id);
    const text = bundle.texts.get(transcript.id)!;
    const spans = unpackPassages(bundle.state.passages[recording.id]!);
    const heard = spans.map((span) => wordsSpoken(text, span)!);
    expect(heard.map(({ start, end }) => text.text.slice(start, end))).toEqual([
      'Well, this.',
      "I don't care about bunting, I don't care about a plaque.",
    ]);
    expect(unpackPassages(bundle.state.passages[transcript.id]!).length).toBe(6);
  });

  it('has pictures with coded areas, one of them described', async () => {
    const pictures = documents.filter((document) => document.kind === 'picture');
    const files = [...demoMedia(demoSources())];
    for (const { ground, id, title } of pictures) {
      if (ground.of !== 'picture') throw new Error(title);
      const [, { path, type }] = files.find(([sum]) => sum === ground.media.sha256)!;
      const facts = await readPicture(path.slice(-4), new Blob([readFileSync(`demo/${path}`)]));
      expect([facts.width, facts.height, facts.sha256, type]).toEqual([ground.width, ground.height, ground.media.sha256, facts.type]);
      expect(bundle.state.passages[id]!.ground).toBe('picture');
    }
    expect(pictures.map((one) => bundle.state.passages[one.id]!.starts.length)).toEqual([3, 2, 2]);
    const described = documents.find((one) => one.title === 'The bot, by Mattie (6), described')!;
    expect(described.belongsTo).toBe(pictures[2]!.id);
  });

  it('has passages over paragraphs, touching one another and in what the interviewer says, and stretches that are somebody’s', () => {
    const places = (title: string) => unpackPassages(bundle.state.passages[titled(title).id]!);
    const text = (title: string) => bundle.texts.get(titled(title).id)!.text;
    expect(places('Interview 12').filter(({ start, end }) => text('Interview 12').slice(start, end).includes('\n')).length).toBe(2);
    expect(places('Interview 12').some(({ start, end }) => text('Interview 12').slice(start, end) === 'You can swear.')).toBeTrue();
    const dot = places('At the pier – Dot');
    expect(dot.some(({ end }) => dot.some(({ start }) => start === end))).toBeTrue();
    const owners = Object.values(tables.case).filter(({ stretches }) => stretches.length > 0);
    expect(owners.map(({ name }) => name)).toEqual(
      jasmine.arrayWithExactContents(['Hamish Brock', 'Wendy Cass', 'Callum Rigg', 'Peter Loam']),
    );
  });

  it('keeps searches, queries and patterns', () =>
    expect([tables.search, tables.query, tables.pattern].map((one) => Object.keys(one).length)).toEqual([2, 2, 3]));

  it('has memos about codes and documents, with dated entries', () => {
    const memos = Object.values(tables.memo);
    expect(memos.length).toBe(16);
    expect(new Set(memos.map((memo) => memo.about?.type))).toEqual(new Set([undefined, 'code', 'document']));
    expect(memos.find((memo) => memo.title === 'Where I stand in this')!.entries.length).toBe(3);
  });

  it('is the same every time', () => expect(buildDemoStudy(demoSources())).toEqual(bundle));
});

describe('a synthetic study', () => {
  const size = { documents: 10, words: 5_000, passages: 200, codings: 300, codes: 50, cases: 10, attributes: 12 };
  const { state, texts } = buildLargeStudy(size);

  it('has the size it was asked for and holds together', () => {
    expect(checkStudy(state, texts)).toEqual([]);
    expect(Object.values(state.tables.document).reduce((sum, document) => sum + document.words, 0)).toBe(5_000);
    expect(Object.values(state.passages).reduce((sum, columns) => sum + columns.starts.length, 0)).toBe(200);
    expect(Object.keys(state.tables.code).length).toBe(50);
  });

  it('is the same for a seed and another for another', () => {
    expect(buildLargeStudy(size).texts).toEqual(texts);
    expect(buildLargeStudy(size, 2).texts).not.toEqual(texts);
  });
});

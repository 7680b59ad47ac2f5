import { Bench } from '../../testing/make';
import { correctTexts } from '../../commands/correct-text';
import { codePlace } from '../../commands/passages';
import { beginTranscript } from '../../commands/recordings';
import { unpackPassages } from '../../passages/columns';
import { readCaptions } from '../timed/captions';
import { clipFileName, clipOf, clipsCsv, codesVtt, inOrder, type Clip } from './clips';

describe('Clips of a code', () => {
  let bench: Bench;
  let clips: Clip[];

  beforeEach(() => {
    bench = new Bench();
    const recording = bench.record('Ellen: "the pier"', 60_000);
    const [queue, worry] = [bench.addCode('Queue'), bench.addCode('=Worry & <hurry>')];
    bench.do(beginTranscript(recording.id, 'Words', bench.newId()));
    const text = [...bench.texts.values()][0]!;
    const typed = 'Ellen: Well, this. You would not know it.';
    const times = [
      { at: 7, value: 1_000 },
      { at: 19, value: 4_000 },
      { at: 41, value: 6_200 },
    ];
    bench.do(correctTexts([{ text, edits: [{ from: 0, to: 0, insert: typed }], heard: { times, speakers: new Set(['Ellen']) } }]));
    bench.do(codePlace({ documentId: text.id, place: { start: 19, end: 41 }, codeIds: [worry, queue] }));
    bench.do(codePlace({ documentId: recording.id, place: { start: 900, end: 2_000 }, codeIds: [queue] }));
    const document = bench.addDocument('Letter', ['Dear Sir.']);
    bench.do(codePlace({ documentId: document.id, place: { start: 0, end: 4 }, codeIds: [queue] }));
    const all = Object.values(bench.state.passages).flatMap((columns) => unpackPassages(columns));
    const { document: documents, code } = bench.state.tables;
    const said = bench.texts.get(text.id)!;
    clips = inOrder(
      all.flatMap(
        (passage) => clipOf(passage, documents, code, passage.documentId === document.id ? bench.texts.get(document.id)! : said) ?? [],
      ),
    );
  });

  it('are spans of the recording and words whose time is known, and nothing else', () => {
    expect(clips.map(({ span, words, codes }) => [span.start, span.end, words, codes.join(', ')])).toEqual([
      [900, 2_000, 'Well,', 'Queue'],
      [4_000, 6_200, 'You would not know it.', 'Queue, =Worry & <hurry>'],
    ]);
  });

  it('go out as a table of times that spreadsheets run nothing of', () => {
    const lines = clipsCsv(clips, [
      { start: 0, end: 1_100 },
      { start: 1_600, end: 3_800 },
    ]).split('\r\n');
    expect(lines[0]).toContain('from (s)');
    expect(lines[2]).toContain('4.000,6.200,2.200,Queue; =Worry & <hurry>,You would not know it.,,1.600,3.800');
    expect(clipsCsv([{ ...clips[0]!, comment: '=1+1' }])).toContain("'=1+1");
  });

  it('go out as subtitles that other programs read: every cue says its codes and words', () => {
    const vtt = codesVtt(clips);
    expect(vtt).toContain('00:00:04.000 --> 00:00:06.200\n[Queue, =Worry &amp; &lt;hurry&gt;]\nYou would not know it.');
    const { captions } = readCaptions(vtt);
    expect(captions.map(({ start, end }) => [start, end])).toEqual([
      [900, 2_000],
      [4_000, 6_200],
    ]);
  });

  it('have names that every system takes', () => {
    expect(clipFileName(clips[1]!, 1)).toBe('002 Ellen- -the pier- 00-00-04-000.wav');
  });
});

import { isTimed, spanOf, timeAt } from '../text/timeline';
import { composeTranscript } from './compose-transcript';
import type { Segment } from './service';

const said = (start: number, end: number, speaker: string | null, words: string, unsure: readonly string[] = []): Segment => ({
  start,
  end,
  speaker,
  words: words.split(' ').map((text) => ({ text, confidence: unsure.includes(text) ? 0.3 : 0.98 })),
});
const ID = '00000000-0000-4000-8000-000000000001';

describe('A transcript of what a service heard', () => {
  it('has a paragraph for each turn, its speakers, and the time of every segment', () => {
    const { text, speakers, words } = composeTranscript(ID, [
      said(3_000, 4_000, 'Ellen', 'By the shed.'),
      said(1_000, 2_000, 'I', 'Standing where?'),
      said(4_200, 6_000, 'Ellen', 'There is a nail there.'),
      said(9_000, 10_000, 'Ellen', 'For the board.'),
    ]);
    expect(text.text).toBe('I: Standing where?\nEllen: By the shed. There is a nail there.\nEllen: For the board.');
    expect(speakers.map((one) => [one.name, one.interviewer])).toEqual([
      ['I', true],
      ['Ellen', false],
    ]);
    expect(words).toBe(13);
    expect(timeAt(text, text.text.indexOf('There is'))).toBe(4_200);
    // words do not last as long as the silence after them
    const nail = text.text.indexOf('there.');
    expect(spanOf(text, { start: nail, end: nail + 6 }).end).toBeLessThanOrEqual(6_000);
  });

  it('marks the words that are to be listened to again, wherever they stand', () => {
    const { text } = composeTranscript(ID, [
      said(0, 900, 'A: B', 'a brake', ['brake']),
      said(5_000, 6_000, null, 'two  cattle', ['cattle']),
    ]);
    expect(text.unsure!.map(({ start, end, confidence }) => [text.text.slice(start, end), confidence])).toEqual([
      ['brake', 0.3],
      ['cattle', 0.3],
    ]);
    expect(text.text).toBe('A B: a brake\ntwo cattle');
  });

  it('leaves turns to be written where it is only known that somebody speaks', () => {
    const { text, speakers } = composeTranscript(ID, [
      { start: 1_000, end: 3_000, speaker: null, words: [] },
      { start: 74_000, end: 80_000, speaker: null, words: [] },
    ]);
    expect(text.text).toBe('(unclear 0:01)\n(unclear 1:14)');
    expect(isTimed(text) && speakers.length === 0 && text.unsure === undefined).toBeTrue();
  });
});

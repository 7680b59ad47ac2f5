import { readFile } from '../formats/read-file';
import { readTimed } from '../formats/timed/read-timed';
import { composeText, type DraftParagraph } from './draft-text';
import { findSpeakers, joinNameLines, labelsOf } from './speakers';
import { liftTimes } from './times';

const lines = (...texts: string[]): DraftParagraph[] => texts.map((text) => ({ text, style: 'body', emphasis: [] }));
const lifted = (...texts: string[]) => {
  const { paragraphs, times } = liftTimes(lines(...texts));
  return [times, ...paragraphs.map((one) => [one.text, ...(one.marks ?? []).map((mark) => mark.value)])];
};

describe('times in a transcript', () => {
  it('become marks, wherever they stand', () => {
    expect(lifted('[02:31] Mara: One?', '(00:02:35) Shona: Two.')).toEqual([2, ['Mara: One?', 151_000], ['Shona: Two.', 155_000]]);
    expect(lifted('Mara [0:01]: One?', 'Shona 00:00:02.5', 'Two.')).toEqual([2, ['Mara: One?', 1_000], ['Shona', 2_500], ['Two.']]);
    expect(lifted('One? [00:01]', 'Two. [00:02]')).toEqual([2, ['One?', 1_000], ['Two.', 2_000]]);
    expect(lifted('00:01', 'One?', '00:02', 'Two.')).toEqual([2, ['One?', 1_000], ['Two.', 2_000]]);
  });

  it('stay where they are no times of a recording: one alone, or running backwards', () => {
    expect(lifted('10:30 the boat left.', 'We waited.')[0]).toBe(0);
    expect(lifted('18:05 the last boat', '07:40 the first boat', '09:00 the next', '06:00 hail')[0]).toBe(0);
  });

  it('move emphasis with the words', () => {
    const { paragraphs } = liftTimes([
      { text: '[00:01] loud', style: 'body', emphasis: [{ start: 8, end: 12, emphasis: 'bold' }] },
      { text: '[00:02] soft', style: 'body', emphasis: [] },
    ]);
    expect(paragraphs[0]!.emphasis).toEqual([{ start: 0, end: 4, emphasis: 'bold' }]);
  });
});

describe('speakers in their common forms', () => {
  const names = (...texts: string[]) =>
    findSpeakers(lines(...texts))
      .filter((speaker) => speaker.taken)
      .map((speaker) => `${speaker.name} ${speaker.turns}`);

  it('are found with colon, brackets, short labels, capitals and tabs', () => {
    expect(names('I: One?', 'P1: Two.', 'I: Three?')).toEqual(['I 2', 'P1 1']);
    expect(names('[Mara] One?', '[Shona] Two.', '[laughs] no')).toEqual(['Mara 1', 'Shona 1']);
    expect(names('MARA One?', 'SHONA Two words.', 'MARA Three?', 'SHONA Four.')).toEqual(['MARA 2', 'SHONA 2']);
    expect(names('Mara\tOne?', 'Shona\tTwo.', 'Mara\tThree?', 'Shona\tFour.')).toEqual(['Mara 2', 'Shona 2']);
    expect(names('BBC said so.', 'We heard it.', 'NHS too.')).toEqual([]);
  });

  it('on lines of their own are put in front of what they say', () => {
    const { paragraphs, joined } = joinNameLines(
      lines('Mara', 'And the thumb?', 'Shona Adair', 'Rang the boat.', 'They held her.', 'Mara', 'And?', 'Shona Adair', 'He lived.'),
    );
    expect(joined).toBe(4);
    expect(paragraphs.map((one) => one.text)).toEqual([
      'Mara: And the thumb?',
      'Shona Adair: Rang the boat.',
      'They held her.',
      'Mara: And?',
      'Shona Adair: He lived.',
    ]);
    expect(joinNameLines(lines('Summary', 'It was long.', 'Conclusion', 'It ended.')).joined).toBe(0);
  });
});

describe('names above what is said, with blank lines between turns', () => {
  const turns = async (text: string) => {
    const { paragraphs, lineEnds } = await readFile('a.txt', new TextEncoder().encode(text));
    return [lineEnds, ...paragraphs.map((one) => one.text)];
  };

  it('stay apart from the words, also where these are wrapped', async () => {
    const short = 'Mara\nWhere were you?\n\nShona Adair\nAt the pier.\n\nMara\nAll night?\n\nShona Adair\nAll of it.\n';
    expect(await turns(short)).toEqual([
      'paragraphs',
      'Mara: Where were you?',
      'Shona Adair: At the pier.',
      'Mara: All night?',
      'Shona Adair: All of it.',
    ]);
    const words =
      'And I stood there with the others until the lights\nwent out, and nobody came to tell us anything at\nall about the boat';
    const long = ['Mara', 'Where were you?', '', 'Shona Adair', words, '', 'Mara', 'All night?', '', 'Shona Adair', words, ''].join('\n');
    const one = words.replace(/\n/g, ' ');
    expect(await turns(long)).toEqual([
      'wrapped',
      'Mara: Where were you?',
      `Shona Adair: ${one}`,
      'Mara: All night?',
      `Shona Adair: ${one}`,
    ]);
  });
});

describe('subtitles', () => {
  it('are joined into paragraphs by speaker and pause, each caption keeping its time', () => {
    const { paragraphs } = readTimed(
      'WEBVTT\n\n1\n00:01.000 --> 00:03.000\n<v Shona>Rang the boat &amp;\n\n00:03.100 --> 00:04.000\n<v Shona>they <i>held</i> her.\n\nNOTE no words\n\n00:09.000 --> 00:10.000\n<v Mara>And?\n',
    );
    expect(paragraphs.map((one) => one.text)).toEqual(['Shona: Rang the boat & they held her.', 'Mara: And?']);
    const { text } = composeText('d', paragraphs, labelsOf(new Set(['Shona', 'Mara'])));
    expect(text.marks.map((mark) => [mark.value, text.text.slice(mark.at, mark.at + 4)])).toEqual([
      [1_000, 'Rang'],
      [3_100, 'they'],
      [9_000, 'And?'],
    ]);
  });

  /** Captions two seconds long, one after another. */
  const captions = (...said: string[]) =>
    readTimed(said.map((words, at) => `${at + 1}\n00:00:${10 + at * 2},000 --> 00:00:${12 + at * 2},000\n${words}\n`).join('\n'));
  const read = (...said: string[]) => captions(...said).paragraphs.map((one) => (one.nobody ? `(somebody) ${one.text}` : one.text));

  it('name the speaker by a name and a colon, in capitals or not, and keep the name out of the words', () => {
    expect(read('Mara: Where were you?', 'SHONA: At the pier,', 'waiting for\nhim.', 'Mara: All night?')).toEqual([
      'Mara: Where were you?',
      'SHONA: At the pier, waiting for him.',
      'Mara: All night?',
    ]);
    expect(read('Remember: bring gloves', 'and a hat', 'for the boat', 'is cold')).toEqual([
      'Remember: bring gloves and a hat for the boat is cold',
    ]);
  });

  it('give each voice within a caption its own words', () => {
    expect(read('<v Mara>Where?</v> <v Shona>At the pier.', '<v.loud Shona>All <i>night</i>.', 'A bell rings.')).toEqual([
      'Mara: Where?',
      'Shona: At the pier. All night.',
      '(somebody) A bell rings.',
    ]);
    const tagged = captions('<v Mara>Where?', '<v Shona>Here.', '<v Mara>When?', '<v Mara>Oh.').paragraphs;
    expect(
      findSpeakers(tagged)
        .filter((one) => one.taken)
        .map((one) => one.name),
    ).toEqual(['Mara', 'Shona']);
    expect(read('Mara: Where?\nShona: At the pier.', 'Mara: Oh.')).toEqual(['Mara: Where?', 'Shona: At the pier.', 'Mara: Oh.']);
    expect(read('<v speaker_1>Yes.', '<v speaker_2>No.')).toEqual(['[speaker_1] Yes.', '[speaker_2] No.']);
  });

  it('begin another voice at a dash or arrows, and give it to nobody where the others are named', () => {
    expect(read('- Where were you?\n- At the pier.', 'All night.')).toEqual(['Where were you?', 'At the pier. All night.']);
    expect(read('-Where?\n-At the pier.')).toEqual(['Where?', 'At the pier.']);
    expect(read('Twenty\n-two of them')).toEqual(['Twenty -two of them']);
    expect(read('Mara: Where?', '>> At the pier.', 'All night.', '>> Mara: Oh.')).toEqual([
      'Mara: Where?',
      '(somebody) At the pier. All night.',
      'Mara: Oh.',
    ]);
  });

  it('are read in time that grows with their length, whatever is broken in them', () => {
    const time = (broken: string, times: number): number => {
      const text = `1\n00:00:01,000 --> 00:00:02,000\nYes ${broken.repeat(times)}\n`;
      const begun = performance.now();
      readTimed(text);
      return performance.now() - begun;
    };
    // the time of sixteen times as much, in times of once: about 16, or 256 where it grows with the square
    const growth = (broken: string): number => time(broken, 80_000) / Math.max(time(broken, 5_000), 2);
    for (const broken of ['<v ', '<', '<v.', '{\\', '\n ', '>> ', ' - ', '&', '<v a>', 'A: ']) {
      time(broken, 1_000);
      // a machine that stands still for a moment does so in one of these, and not in all
      const grows = () => growth(broken) > 100;
      expect(grows() && grows() && grows())
        .withContext(broken)
        .toBeFalse();
    }
  });

  it('read SubRip, and refuse a file without captions', () => {
    expect(readTimed('1\n00:00:01,500 --> 00:00:04,000\nRang\nthe boat.\n').paragraphs[0]).toEqual(
      jasmine.objectContaining({ text: 'Rang the boat.', marks: [{ at: 0, kind: 'time', value: 1_500 }] }),
    );
    expect(() => readTimed('no captions')).toThrowError(/no captions/);
  });
});

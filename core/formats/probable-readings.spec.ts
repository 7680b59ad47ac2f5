import { readFile } from './read-file';

describe('the ways in which a text can be read', () => {
  const read = (text: string, options = {}) => readFile('a.txt', new TextEncoder().encode(text), options);
  const ways = async (text: string, options = {}) =>
    (await read(text, options)).readings.map(({ lineEnds, namesApart, paragraphs, speakers, chosen }) =>
      [lineEnds, namesApart ? 'apart' : 'joined', paragraphs, speakers.map(({ name, turns }) => `${name} ${turns}`).join(), chosen].join(
        '; ',
      ),
    );
  const turn = (name: string, ...lines: string[]) => `${name}\n${lines.join('\n')}`;
  const above = [
    turn('Mara', 'Where did you wait for it?', 'On the pier?'),
    turn('Shona', 'On the pier, in the cold.'),
    turn('Mara', 'For how long?'),
    turn('Shona', 'Until it came.', 'Or did not.'),
  ].join('\n\n');

  it('are shown where names stand above what is said, and each can be chosen', async () => {
    expect(await ways(above)).toEqual([
      'paragraphs; joined; 6; Mara 2,Shona 2; true',
      'paragraphs; apart; 10; ; false',
      'wrapped; joined; 4; Mara 2,Shona 2; false',
    ]);
    const chosen = await read(above, { lineEnds: 'wrapped', namesApart: false });
    expect(chosen.paragraphs.map((one) => one.text)[0]).toBe('Mara: Where did you wait for it? On the pier?');
    expect(chosen.readings.find((one) => one.chosen)!.begins[0]).toBe('Mara: Where did you wait for it? On the pier?');
    const apart = await read(above, { lineEnds: 'paragraphs', namesApart: true });
    expect(apart.readings.filter((one) => one.chosen).map((one) => one.paragraphs)).toEqual([10]);
  });

  it('are shown where lines may be wrapped or not', async () => {
    const verse = [
      'They held her on the pier',
      'all night',
      'and in the morning she was gone,',
      'gone',
      '',
      'Nobody',
      'asked about it at all.',
    ];
    expect((await ways(verse.join('\n'))).map((one) => one.split(';')[0])).toEqual(['paragraphs', 'wrapped']);
  });

  it('are not shown where there is but one', async () => {
    expect(await ways('Mara: Where?\n\nShona: Here.\n\nMara: When?\n\nShona: Now.')).toEqual([]);
    expect(await ways('Just words.')).toEqual([]);
  });
});

import { plainParagraph } from '../formats/plain-text/read-plain-text';
import type { Markers } from '../questions/find-questions';
import { speakersIn } from '../text/speakers';
import { composeImport, speakersAsWritten } from './compose-import';
import { doubtsOf } from './doubts';

describe('what looks wrong in a text on its way in', () => {
  const interview = [
    'Mara: Where were you?',
    'Shona: At the pier.',
    'Mara: All night?',
    'Shona: All of it.',
    'Mara: And then?',
    'Shona: Home.',
  ];
  const doubts = (texts: readonly string[], names?: readonly string[], markers: Markers | null = null) => {
    const paragraphs = texts.map(plainParagraph);
    const choices = { speakers: speakersAsWritten(names ?? speakersIn(paragraphs)), nobody: [], markers };
    return doubtsOf(composeImport('d', paragraphs, choices), paragraphs, choices).map((doubt) => doubt.words);
  };

  it('is nothing in a plain interview, and in a short exchange', () => {
    expect(doubts(interview)).toEqual([]);
    expect(doubts(['I: How often?', 'Shona: Twice a week.'])).toEqual([]);
  });

  it('is a speaker of one turn, or of none', () => {
    expect(doubts([...interview, 'Summary: She waited.'], ['Mara', 'Shona', 'Summary'])).toEqual([
      '“Summary” speaks only once, in paragraph 7: a speaker, or a heading?',
    ]);
    expect(doubts([...interview, 'Iain:', 'Mara: Oh.'], ['Mara', 'Shona', 'Iain'])).toEqual(['“Iain” is named and says nothing.']);
  });

  it('is a name that may be another, misspelt, and says which', () => {
    expect(doubts([...interview, 'Shnoa: Yes.', 'Shnoa: No.'])).toEqual(['“Shnoa” may be “Shona”, misspelt.']);
    // not said twice where the name comes once
    expect(doubts([...interview, 'Shnoa: Yes.'])).toEqual(['“Shnoa” may be “Shona”, misspelt.']);
  });

  it('is a turn longer than anybody speaks, over all its paragraphs', () => {
    const long = Array.from({ length: 4 }, () => 'and then we waited for the boat again '.repeat(100));
    expect(doubts([...interview, 'Shona: So.', ...long])).toEqual([
      '“Shona” speaks 3,201 words on end from paragraph 7: was somebody’s name not seen?',
    ]);
    expect(doubts([...interview, 'Shona: So.', ...long.slice(0, 2), 'Mara: Go on.', ...long.slice(0, 2)])).toEqual([]);
  });

  it('is an answer whose question was not seen, and questions that are not there', () => {
    const markers: Markers = { question: { kind: 'label', name: 'Q' }, answer: { kind: 'label', name: 'A' } };
    expect(doubts(['A: Twice.', 'Q: How often?', 'A: Once.'], [], markers)).toEqual([
      '1 answer before the first question: what was asked was not seen.',
    ]);
    expect(doubts(['Q. How often?', 'A. I think twice.'], [], markers)).toEqual([]);
    expect(doubts(['Nothing.'], [], { question: { kind: 'number' }, answer: null })).toEqual(['No question was found by these marks.']);
  });

  it('is told in few words where there is much of it', () => {
    const many = Array.from({ length: 9 }, (_, at) => `Person ${String.fromCharCode(65 + at).repeat(6)}: Yes.`);
    const told = doubts([...interview, ...interview, ...interview, ...many], ['Mara', 'Shona', ...many.map((line) => line.slice(0, 13))]);
    expect(told.length).toBe(6);
    expect(told.at(-1)).toBe('…and 4 more like this.');
  });
});

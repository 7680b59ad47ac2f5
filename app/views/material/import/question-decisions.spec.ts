import { lineUp } from '@core/questions/line-up';
import { askedOnce, takenFor } from './question-decisions';

describe('decisions about questions', () => {
  it('give a question that is one of its own a row of its own, and leave the others', () => {
    const lined = lineUp([['Why are you crossing today?'], ['Why do you cross today?']]);
    expect(takenFor(lined, [7, 9], new Map()).list).toEqual(['Why are you crossing today?']);
    const { list, files } = takenFor(lined, [7, 9], new Map([['9:0', 'own']]));
    expect(list).toEqual(['Why are you crossing today?', 'Why do you cross today?']);
    expect(files.map((file) => file.map((one) => [one.row, one.likeness]))).toEqual([[[0, 'new']], [[1, 'new']]]);
  });

  it('tell which questions one file alone asks, where the study does not know them', () => {
    const files = [
      ['Why do you cross?', 'Who owns the boat?', 'Where do you live?'],
      ['Why do you cross?', 'Contact the office'],
    ];
    const lined = lineUp(files, ['Where do you live?']);
    expect([...askedOnce(lined, [7, 9], new Map(), 1)]).toEqual([
      [7, ['Who owns the boat?']],
      [9, ['Contact the office']],
    ]);
    expect(askedOnce(lineUp(files.slice(0, 1)), [7], new Map(), 0).size).toBe(0);
  });
});

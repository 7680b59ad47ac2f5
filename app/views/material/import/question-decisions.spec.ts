import { lineUp } from '@core/questions/line-up';
import { takenFor } from './question-decisions';

describe('decisions about questions', () => {
  it('give a question that is one of its own a row of its own, and leave the others', () => {
    const lined = lineUp([['Why are you crossing today?'], ['Why do you cross today?']]);
    expect(takenFor(lined, [7, 9], new Map()).list).toEqual(['Why are you crossing today?']);
    const { list, files } = takenFor(lined, [7, 9], new Map([['9:0', 'own']]));
    expect(list).toEqual(['Why are you crossing today?', 'Why do you cross today?']);
    expect(files.map((file) => file.map((one) => [one.row, one.likeness]))).toEqual([[[0, 'new']], [[1, 'new']]]);
  });
});

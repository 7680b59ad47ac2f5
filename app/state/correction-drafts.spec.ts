import { correctionDrafts } from './correction-drafts';

describe('corrections being typed', () => {
  const id = '00000000-0000-4000-8000-00000000000c';
  const edits = [
    { from: 2, to: 4, insert: 'x' },
    { from: 6, to: 6, insert: 'yy' },
  ];
  afterEach(() => correctionDrafts.drop(id));

  it('are there again for the same text, and gone when they are dropped', () => {
    correctionDrafts.keep(id, 'the ferry', edits);
    expect(correctionDrafts.of(id, 'the ferry')).toEqual(edits);
    correctionDrafts.drop(id);
    expect(correctionDrafts.of(id, 'the ferry')).toEqual([]);
  });

  it('are not put into a text that has changed meanwhile', () => {
    correctionDrafts.keep(id, 'the ferry', edits);
    expect(correctionDrafts.of(id, 'the barge')).toEqual([]);
  });

  it('are nothing where the typing was taken back or what is stored is damaged', () => {
    correctionDrafts.keep(id, 'the ferry', edits);
    correctionDrafts.keep(id, 'the ferry', []);
    expect(localStorage.getItem(`filum-correcting ${id}`)).toBeNull();
    localStorage.setItem(`filum-correcting ${id}`, '{"base":');
    expect(correctionDrafts.of(id, 'the ferry')).toEqual([]);
  });
});

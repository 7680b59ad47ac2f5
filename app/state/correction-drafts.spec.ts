import { correctionDrafts } from './correction-drafts';

describe('corrections being typed', () => {
  const [study, id] = ['s', '00000000-0000-4000-8000-00000000000c'];
  const edits = [
    { from: 2, to: 4, insert: 'x' },
    { from: 6, to: 6, insert: 'yy' },
  ];
  afterEach(() => localStorage.clear());

  it('are there again for the same text of the same study, and gone when they are dropped', () => {
    correctionDrafts.keep(study, id, 'the ferry', edits);
    expect(correctionDrafts.of(study, id, 'the ferry')).toEqual({ edits, uncertain: [] });
    expect(correctionDrafts.of('other', id, 'the ferry').edits).toEqual([]);
    correctionDrafts.drop(study, id);
    expect(correctionDrafts.of(study, id, 'the ferry').edits).toEqual([]);
  });

  it('go over into a text that has changed where their place is certain, and are kept aside where it is not', () => {
    const text = 'We waited at the pier. Then it was dark, and nobody came to tell us why the boat had not left.';
    correctionDrafts.keep(study, id, text, [{ from: 17, to: 21, insert: 'quay' }]);
    const longer = `A word before. ${text}`;
    expect(correctionDrafts.of(study, id, longer).edits).toEqual([{ from: 32, to: 36, insert: 'quay' }]);
    const { edits: none, uncertain } = correctionDrafts.of(study, id, 'We waited at the jetty. Then it was dark.');
    expect([none, uncertain.map((one) => [one.was, one.insert])]).toEqual([[], [['pier', 'quay']]]);
  });

  it('are nothing where the typing was taken back or what is stored is damaged', () => {
    correctionDrafts.keep(study, id, 'the ferry', edits);
    correctionDrafts.keep(study, id, 'the ferry', []);
    expect(Object.keys(localStorage).filter((key) => key.startsWith(`filum-draft ${study}`))).toEqual([]);
    localStorage.setItem(`filum-draft ${study} correction ${id}`, '{"base":');
    expect(correctionDrafts.of(study, id, 'the ferry').edits).toEqual([]);
  });
});

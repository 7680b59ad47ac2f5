import { invert } from '../change/change';
import { applyChange } from '../change/apply';
import { unpackPassages } from '../passages/columns';
import { Bench } from '../testing/make';
import { codeFromAnswer, codePassages, commentPassages, ratePassages } from './code-passages';
import { freezeCodebook } from './freeze';

describe('coding what was found', () => {
  let bench: Bench;
  let places: { documentId: string; passageId: string }[];
  let waiting: string;
  beforeEach(() => {
    bench = new Bench();
    waiting = bench.addCode('Waiting');
    for (const title of ['One', 'Two']) {
      const document = bench.addDocument(title, ['We waited at the pier all night.']);
      bench.code(document, 0, 9, waiting);
      bench.code(document, 10, 20, waiting);
    }
    places = Object.values(bench.state.passages).flatMap((columns) =>
      unpackPassages(columns).map(({ documentId, id }) => ({ documentId, passageId: id })),
    );
  });
  const codesOf = () =>
    Object.values(bench.state.passages).flatMap((columns) =>
      unpackPassages(columns).map((passage) => passage.codings.map(({ codeId }) => bench.state.tables.code[codeId]!.name).join()),
    );

  it('gives a code to just those passages, and passes over what carries it', () => {
    const night = bench.addCode('Night');
    expect(bench.run(codePassages(places.slice(0, 3), { codeIds: [night] }))!.sentence).toBe('gave Night to 3 passages');
    expect(codesOf()).toEqual(['Waiting,Night', 'Waiting,Night', 'Waiting,Night', 'Waiting']);
    expect(bench.run(codePassages(places, { codeIds: [night] }))!.sentence).toBe('gave Night to 1 passage');
    expect(bench.run(codePassages(places, { codeIds: [night] }))).toBeNull();
  });

  it('makes a code of an answer that says where it came from, and undo takes all of it back', () => {
    const before = bench.state;
    const action = bench.run(codeFromAnswer('At the pier', 'carry Waiting', places))!;
    const made = Object.values(bench.state.tables.code).find((code) => code.name === 'At the pier')!;
    expect(made.notes).toBe('Made of the 4 passages that carry Waiting.');
    expect(codesOf()).toEqual(Array(4).fill('Waiting,At the pier'));
    expect(applyChange(bench.state, invert(action.change)).tables).toEqual(before.tables);
  });

  it('refuses a passage that is gone, a name that is taken, an empty answer, and a frozen codebook', () => {
    const gone = { ...places[0]!, passageId: bench.newId() };
    expect(() => bench.run(codePassages([gone], { codeIds: [waiting] }))).toThrowError(/no longer there/);
    expect(() => bench.run(codeFromAnswer('Waiting', 'x', places))).toThrowError(/Waiting/);
    expect(() => bench.run(codeFromAnswer('New', 'x', []))).toThrowError(/nothing to carry/);
    bench.run(freezeCodebook(true));
    expect(() => bench.run(codeFromAnswer('New', 'x', places))).toThrowError(/frozen/);
  });

  it('comments on passages, under what stands there already, as one step', () => {
    const [first] = places;
    bench.run(commentPassages([first!], 'Again?'));
    const { change } = bench.do(commentPassages(places, ' Compare these. '))!;
    const comments = () => Object.values(bench.state.passages).flatMap((columns) => columns.comments.map((one) => one.text));
    expect(comments()).toEqual(['Again?\nCompare these.', 'Compare these.', 'Compare these.', 'Compare these.']);
    bench.state = applyChange(bench.state, invert(change));
    expect(comments()).toEqual(['Again?']);
    expect(() => bench.run(commentPassages(places, '  '))).toThrowError('A comment needs words.');
  });

  it('rates every coding with a code on passages, and takes ratings off', () => {
    const other = bench.addCode('Night');
    bench.run(codePassages(places.slice(0, 1), { codeIds: [other] }));
    expect(() => bench.run(ratePassages(places, waiting, 2))).toThrowError('This study does not use ratings.');
    bench.state = { ...bench.state, study: { ...bench.state.study, ratings: 3 } };
    const ratings = () =>
      Object.values(bench.state.passages).flatMap((columns) =>
        unpackPassages(columns).flatMap((passage) => passage.codings.map((coding) => coding.rating ?? 0)),
      );
    bench.run(ratePassages(places, waiting, 2));
    expect(ratings()).toEqual([2, 0, 2, 2, 2]);
    bench.run(ratePassages(places.slice(0, 2), waiting, null));
    expect(ratings()).toEqual([0, 0, 0, 2, 2]);
    expect(() => bench.run(ratePassages(places, waiting, 4))).toThrowError('A rating is a whole number from 1 to 3.');
  });
});

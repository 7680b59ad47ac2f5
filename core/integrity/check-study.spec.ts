import type { Document } from '../model/document';
import { Bench } from '../testing/make';
import { packPassages, unpackPassages } from '../passages/columns';
import { checkStudy } from './check-study';

describe('the integrity check', () => {
  const make = () => {
    const bench = new Bench();
    const document = bench.addDocument('One', ['Some words to code.']);
    const code = bench.addCode('Code');
    bench.code(document, 0, 4, code);
    return { bench, document, code };
  };

  it('finds nothing in a sound study', () => {
    const { bench } = make();
    expect(checkStudy(bench.state, bench.texts)).toEqual([]);
  });

  it('finds a coding with a code that is gone', () => {
    const { bench } = make();
    const state = { ...bench.state, tables: { ...bench.state.tables, code: {} } };
    expect(checkStudy(state, bench.texts)).toEqual([jasmine.stringContaining('carries a code that is missing')]);
  });

  it('finds a passage outside its text, a text of another length and a document that is gone', () => {
    const { bench, document } = make();
    const [passage] = unpackPassages(bench.state.passages[document.id]!);
    const outside = { ...bench.state, passages: { [document.id]: packPassages(document.id, [{ ...passage!, end: 999 }]) } };
    expect(checkStudy(outside, null)).toEqual([jasmine.stringContaining('lies outside its text')]);
    expect(checkStudy(bench.state, new Map())).toEqual([jasmine.stringContaining('missing or of another length')]);
    const without = { ...bench.state, tables: { ...bench.state.tables, document: {} } };
    expect(checkStudy(without, null)).toEqual([jasmine.stringContaining('a document that is missing')]);
  });

  it('finds what stands in another ground, has a text it cannot have, or belongs to what belongs itself', () => {
    const { bench, document } = make();
    const tape = bench.record('Tape', 1_000);
    const faults = (...changed: readonly Document[]): string[] => {
      const tables = { ...bench.state.tables, document: { ...bench.state.tables.document } };
      for (const one of changed) tables.document[one.id] = one;
      return checkStudy({ ...bench.state, tables }, bench.texts);
    };
    expect(faults()).toEqual([]);
    expect(faults({ ...document, belongsTo: tape.id })).toEqual([]);
    expect(faults({ ...document, ground: tape.ground })).toContain(jasmine.stringContaining('stand in another ground'));
    expect(faults({ ...document, ground: tape.ground })).toContain(jasmine.stringContaining('has a text it cannot have'));
    expect(faults({ ...document, belongsTo: tape.id }, { ...tape, belongsTo: document.id })).toContain(
      jasmine.stringContaining('which belongs to another itself'),
    );
    expect(faults({ ...tape, readTo: 1_001 })).toEqual([jasmine.stringContaining('read beyond its end')]);
  });

  it('finds reading marks and idea-units outside the text, and glosses by nobody', () => {
    const { bench, document } = make();
    const faults = (fields: object): string[] => {
      const changed = { ...document, ...fields };
      return checkStudy({ ...bench.state, tables: { ...bench.state.tables, document: { [document.id]: changed } } }, null);
    };
    expect(faults({ readTo: 19, units: [0, 5, 19] })).toEqual([]);
    expect(faults({ readTo: 99 })).toEqual([jasmine.stringContaining('read beyond its end')]);
    for (const units of [[3], [0, 5, 5], [0, 99]]) expect(faults({ units })).toEqual([jasmine.stringContaining('out of order')]);
    const gloss = { id: bench.newId(), term: 'haar', forms: [], meaning: '', coderId: bench.newId(), createdAt: 0 };
    expect(checkStudy({ ...bench.state, tables: { ...bench.state.tables, gloss: { [gloss.id]: gloss } } }, null)).toEqual([
      jasmine.stringContaining('points at a coder that is missing'),
    ]);
  });

  it('finds codes and folders that lie under themselves', () => {
    const { bench, code } = make();
    const loop = { ...bench.state.tables.code[code]!, parentId: code };
    expect(checkStudy({ ...bench.state, tables: { ...bench.state.tables, code: { [code]: loop } } }, null)).toEqual([
      jasmine.stringContaining('under itself'),
    ]);
    const id = bench.newId();
    expect(
      checkStudy({ ...bench.state, tables: { ...bench.state.tables, folder: { [id]: { id, name: 'F', parentId: id } } } }, null),
    ).toEqual([jasmine.stringContaining('lies under itself')]);
  });
});

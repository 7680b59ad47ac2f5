import type { Bench } from '../testing/make';
import { benchWithEverything } from '../testing/everything';
import { standingOn } from './standing-on';

describe('what stands on something', () => {
  let bench: Bench;
  beforeAll(async () => {
    bench = await benchWithEverything();
  });
  const idOf = (type: 'code' | 'document' | 'attribute' | 'query' | 'folder' | 'set', name?: string): string =>
    Object.values(bench.state.tables[type]).find((one) => name === undefined || ('name' in one && one.name === name))!.id;

  it('is named by what becomes of it', () => {
    expect(standingOn(bench.state, 'code', [idOf('code', 'Speed')])).toEqual([
      // one is linked to it, one only speaks of it
      'The memo “Crossing” speaks of it, and will say by name that it is gone.',
      'The memo “Of everything” is linked to it, and stays.',
      'The query “Speed without loss” speaks of it, and will say by name that it is gone.',
      'One relation goes with it.',
      'The sorting table “Monday” loses it.',
      '5 kept patterns lose it.',
    ]);
    expect(standingOn(bench.state, 'attribute', [idOf('attribute', 'Age')])).toEqual([
      'The set “Over forty” asks for it: filled by hand from then on, with what is in it now.',
      'The kept scope “Some” speaks of it, and will say by name that it is gone.',
      'The proposition “Who waits also worries” speaks of it, and will say by name that it is gone.',
      '4 kept patterns lose it.',
    ]);
    expect(standingOn(bench.state, 'folder', [idOf('folder')])).toEqual([
      'The set “In the folder” asks for it: filled by hand from then on, with what is in it now.',
      'The kept scope “Some” speaks of it, and will say by name that it is gone.',
    ]);
    expect(standingOn(bench.state, 'query', [idOf('query')])).toEqual([
      'The memo “Of everything” is linked to it, and stays.',
      'The set “Who is found” asks for it: filled by hand from then on, with what is in it now.',
    ]);
  });

  it('counts what stands on passages of a document, and several things at once', () => {
    const documents = Object.keys(bench.state.tables.document);
    expect(standingOn(bench.state, 'document', documents)).toContain('The memos “Crossing”, “Of everything” are linked to them, and stay.');
    expect(standingOn(bench.state, 'document', documents)).toContain('The proposed code “Bridge talk” loses them.');
  });

  it('is nothing where nothing points there', () => {
    expect(standingOn(bench.state, 'set', [Object.keys(bench.state.tables.set).at(-1)!])).toEqual([]);
  });
});

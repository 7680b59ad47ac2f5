import { Bench } from '../testing/make';
import { checkStudy } from '../integrity/check-study';
import { deleteCode } from './codes';
import { addGroup, addSorting, deleteSorting, editGroup, groupsToCategories, layCodes, removeGroup } from './sortings';

describe('a sorting table', () => {
  const build = () => {
    const bench = new Bench();
    const codes = ['Fare', 'Fog', 'Queue', 'Grief'].map((name) => bench.addCode(name));
    bench.run(addSorting('First try', codes));
    const id = Object.keys(bench.state.tables.sorting)[0]!;
    const table = () => bench.state.tables.sorting[id]!;
    return { bench, codes, id, table };
  };

  it('lays slips down, gathers them in groups, and forgets none', () => {
    const { bench, codes, id, table } = build();
    bench.run(layCodes(id, [codes[0]!, codes[1]!], { x: 20, y: 10 }));
    expect(table().slips.map((slip) => [slip.x, slip.y])).toEqual([
      [20, 10],
      [20, 40],
    ]);
    bench.run(addGroup(id, 'Weather', { x: 300, y: 0 }, [codes[1]!]));
    const group = table().groups[0]!;
    expect(table().slips.find((slip) => slip.codeId === codes[1])!.groupId).toBe(group.id);
    expect(() => addGroup(id, 'weather', { x: 0, y: 0 })(bench.state, bench.context())).toThrowError(/already a group/);
    bench.run(editGroup(id, group.id, { name: 'Bad weather', x: 5 }));
    expect(table().groups[0]).toEqual({ id: group.id, name: 'Bad weather', x: 5, y: 0 });
    bench.run(layCodes(id, [codes[0]!], null));
    bench.run(removeGroup(id, group.id));
    expect(table().slips).toEqual([]);
    expect(table().codeIds).toEqual(codes);
    bench.run(deleteCode(codes[3]!));
    expect(table().codeIds).toEqual(codes.slice(0, 3));
    bench.run(deleteSorting(id));
    expect(bench.state.tables.sorting).toEqual({});
  });

  it('makes categories of groups in one step: new ones, or those of the name that are there', () => {
    const { bench, codes, id } = build();
    bench.run(addGroup(id, 'Getting across', { x: 0, y: 0 }, [codes[0]!, codes[2]!]));
    bench.run(addGroup(id, 'Fog', { x: 0, y: 0 }, [codes[3]!]));
    const action = bench.run(groupsToCategories(id))!;
    expect(action.sentence).toContain('3 codes moved');
    const all = Object.values(bench.state.tables.code);
    const made = all.find((code) => code.name === 'Getting across')!;
    expect(all.filter((code) => code.parentId === made.id).map((code) => code.name)).toEqual(['Fare', 'Queue']);
    expect(bench.state.tables.code[codes[3]!]!.parentId).toBe(codes[1]!);
    expect(checkStudy(bench.state, null)).toEqual([]);
    expect(bench.run(groupsToCategories(id))).toBeNull();
  });

  it('refuses groups that would put two codes under each other', () => {
    const { bench, codes, id } = build();
    bench.run(addGroup(id, 'Fare', { x: 0, y: 0 }, [codes[1]!]));
    bench.run(addGroup(id, 'Fog', { x: 0, y: 0 }, [codes[0]!]));
    expect(() => groupsToCategories(id)(bench.state, bench.context())).toThrowError(/under itself/);
  });
});

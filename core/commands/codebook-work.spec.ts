import fc from 'fast-check';
import { unpackPassages } from '../passages/columns';
import { countCodes } from '../passages/counting';
import { Bench, somePassages } from '../testing/make';
import type { StudyState } from '../model/study-state';
import { packPassages } from '../passages/columns';
import { applyChange } from '../change/apply';
import { invert } from '../change/change';
import { anchorPassages, colourByCategory, copyCode, moveCodes, renameCodes, retireCodes } from './codebook-work';
import { addCodeSet } from './code-sets';
import { editCode } from './codes';
import { acceptProposal, declineProposal, freezeCodebook, proposeCode } from './freeze';
import { JoinAhead, joinCodes, joinedDescription } from './join-codes';
import { addMemo } from './memos';
import { moveCodings } from './move-codings';
import { codePlace, removePassage } from './passages';
import { addRelation, deleteRelation } from './relations';
import { checkStudy } from '../integrity/check-study';
import { FAMILY_SIZE } from '../model/code';

const LINE = 'We waited at the pier and the boat did not come.';
const passagesOf = (state: StudyState) => Object.values(state.passages).flatMap((columns) => [...unpackPassages(columns)]);

describe('joining codes', () => {
  it('unites passages, removes what becomes the same, and keeps all that was said of them', () => {
    const bench = new Bench();
    const document = bench.addDocument('One', [LINE]);
    const stay = bench.addCode('Waiting');
    const go = bench.addCode('Hanging about');
    const child = bench.addCode('In the rain', go);
    bench.run(editCode(stay, { definition: 'Time spent waiting.' }));
    bench.run(editCode(go, { definition: 'Standing around.' }));
    bench.code(document, 0, 9, stay, go);
    bench.code(document, 10, 20, go);
    bench.run(addMemo({ title: 'Why wait', kind: 'analytic', about: { type: 'code', id: go }, text: 'x' }));
    bench.run(addCodeSet('Time', [go]));
    bench.run(addRelation(go, child, 'leads to'));
    const action = bench.run(joinCodes(stay, [go]))!;
    const { tables } = bench.state;
    expect(action.sentence).toBe('joined Hanging about into Waiting, with 2 passages');
    expect(passagesOf(bench.state).map((one) => one.codings.map((coding) => coding.codeId))).toEqual([[stay], [stay]]);
    expect(tables.code[go]).toBeUndefined();
    expect(tables.code[stay]!.definition).toBe('Time spent waiting.\n\n(Hanging about) Standing around.');
    expect(tables.code[stay]!.joined).toEqual(['Hanging about']);
    expect(tables.code[child]!.parentId).toBe(stay);
    expect(Object.values(tables.memo)[0]!.about).toEqual({ type: 'code', id: stay });
    expect(Object.values(tables.codeSet)[0]!.codeIds).toEqual([stay]);
    expect(Object.values(tables.relation).map((one) => [one.fromId, one.toId])).toEqual([[stay, child]]);
    expect(checkStudy(bench.state, null)).toEqual([]);
  });

  it('is refused where the code that stays lies under one that goes, and renames a child of a name that is taken', () => {
    const bench = new Bench();
    const above = bench.addCode('Feelings');
    const below = bench.addCode('Worry', above);
    expect(() => joinCodes(below, [above])(bench.state, bench.context())).toThrowError(/Worry lies under Feelings/);
    const other = bench.addCode('Moods');
    const same = bench.addCode('Worry', other);
    bench.run(joinCodes(above, [other]));
    expect(bench.state.tables.code[same]!.name).toBe('Worry (Moods)');
  });

  it('worked out ahead, some documents at a time, is the same join', () => {
    const bench = new Bench();
    const [stay, go, other] = ['Waiting', 'Hanging about', 'Weather'].map((name) => bench.addCode(name)) as [string, string, string];
    const documents = [1, 2, 3, 4, 5].map((n) => bench.addDocument(`Day ${n}`, ['We waited at the pier and the boat did not come.']));
    for (const [at, document] of documents.entries()) {
      bench.code(document, 0, 9, go, ...(at % 2 ? [stay] : []));
      bench.code(document, 10, 20, other);
    }
    const before = bench.state;
    const ahead = new JoinAhead(before, stay, [stay, go]);
    expect(ahead.step(2)).toBeTrue();
    const plain = joinCodes(stay, [stay, go])(before, bench.context())!;
    const quick = joinCodes(stay, [stay, go], undefined, ahead)(before, bench.context())!;
    expect(quick).toEqual(plain);
    const after = applyChange(before, quick.change);
    expect(after).toEqual(applyChange(before, plain.change));
    expect(applyChange(after, invert(quick.change)).tables).toEqual(before.tables);
    expect(ahead.step(1)).toBeFalse();
  });

  it('worked out ahead is not used once the study has changed, or other codes are joined', () => {
    const bench = new Bench();
    const [stay, go, third] = ['Waiting', 'Hanging about', 'Idling'].map((name) => bench.addCode(name)) as [string, string, string];
    const document = bench.addDocument('Day 1', ['We waited at the pier and the boat did not come.']);
    bench.code(document, 0, 9, go);
    const stale = new JoinAhead(bench.state, stay, [stay, go]);
    stale.step(Infinity);
    bench.code(document, 10, 20, go);
    bench.code(document, 21, 30, third);
    bench.run(joinCodes(stay, [stay, go], undefined, stale));
    expect(passagesOf(bench.state).filter((one) => one.codings.some((coding) => coding.codeId === stay)).length).toBe(2);
    const others = new JoinAhead(bench.state, stay, [stay]);
    bench.run(joinCodes(stay, [stay, third], undefined, others));
    expect(passagesOf(bench.state).every((one) => one.codings.every((coding) => coding.codeId === stay))).toBeTrue();
  });

  it('keeps every passage and every coder’s judgement, and undo brings all back', () => {
    const documentId = '00000000-0000-4000-8000-00000000000d';
    const [a, b, c] = [0, 1, 2].map((n) => `000000a0-0000-4000-8000-00000000000${n}`) as [string, string, string];
    fc.assert(
      fc.property(somePassages(documentId), (some) => {
        const bench = new Bench();
        const first = Object.values(
          bench.run((state, context) => ({
            change: [a, b, c, `${a.slice(0, -1)}3`, `${a.slice(0, -1)}4`].map((id, at) => ({
              type: 'code' as const,
              before: null,
              after: {
                id,
                name: `N${at}`,
                mark: `M${at}`,
                colour: 0,
                parentId: null,
                order: at,
                definition: '',
                useWhen: '',
                doNotUseWhen: '',
                example: '',
                createdAt: context.now,
                coderId: context.coderId,
              },
            })),
            sentence: String(Object.keys(state).length),
          }))!.change,
        );
        expect(first.length).toBe(5);
        const before: StudyState = { ...bench.state, passages: some.length > 0 ? { [documentId]: packPassages(documentId, some) } : {} };
        const action = joinCodes(a, [b, c])(before, bench.context())!;
        const after = applyChange(before, action.change);
        const carried = (state: StudyState, ids: string[]) =>
          new Set(
            passagesOf(state).flatMap((one) =>
              one.codings.filter((coding) => ids.includes(coding.codeId)).map((coding) => `${one.id} ${coding.coderId}`),
            ),
          );
        expect(carried(after, [a])).toEqual(carried(before, [a, b, c]));
        expect(passagesOf(after).map((one) => one.id)).toEqual(passagesOf(before).map((one) => one.id));
        for (const one of passagesOf(after))
          expect(new Set(one.codings.map((coding) => coding.codeId + coding.coderId)).size).toBe(one.codings.length);
        expect(countCodes(Object.values(after.passages), after.tables.code).own.get(b)).toBeUndefined();
        const back = applyChange(after, invert(action.change));
        expect(back.tables).toEqual(before.tables);
        expect(passagesOf(back)).toEqual(passagesOf(before));
      }),
      { numRuns: 60 },
    );
  });

  it('puts descriptions side by side only where there are several', () => {
    const bench = new Bench();
    const [one, two] = [bench.addCode('One'), bench.addCode('Two')];
    bench.run(editCode(two, { useWhen: 'at night', notes: 'a remark' }));
    const codes = [one, two].map((id) => bench.state.tables.code[id]!);
    expect(joinedDescription(codes)).toEqual({ definition: '', useWhen: 'at night', doNotUseWhen: '', example: '', notes: 'a remark' });
  });
});

describe('splitting a code', () => {
  it('moves passages to new codes with coder and time, gives both, or takes the code off', () => {
    const bench = new Bench();
    const document = bench.addDocument('One', [LINE]);
    const wide = bench.addCode('Sea');
    for (const [start, end] of [
      [0, 9],
      [10, 20],
      [22, 30],
    ] as const)
      bench.code(document, start, end, wide);
    const places = passagesOf(bench.state).map((one) => ({ documentId: document.id, passageId: one.id }));
    const times = passagesOf(bench.state).map((one) => one.codings[0]!.createdAt);
    bench.run(moveCodings(wide, [places[0]!], { codeIds: [], newCodes: [{ name: 'Waiting' }] }));
    const made = Object.values(bench.state.tables.code).find((code) => code.name === 'Waiting')!;
    bench.run(moveCodings(wide, [places[1]!], { codeIds: [made.id] }, true));
    bench.run(moveCodings(wide, [places[2]!], { codeIds: [] }));
    expect(passagesOf(bench.state).map((one) => one.codings.map((coding) => coding.codeId))).toEqual([[made.id], [wide, made.id]]);
    expect(passagesOf(bench.state).map((one) => one.codings.at(-1)!.createdAt)).toEqual(times.slice(0, 2));
    expect(() => moveCodings(wide, places.slice(1, 2), { codeIds: [wide] })(bench.state, bench.context())).toThrowError(
      /carry Sea already/,
    );
  });
});

describe('work on several codes', () => {
  const build = () => {
    const bench = new Bench();
    const top = bench.addCode('Top');
    const under = bench.addCode('Under', top);
    const other = bench.addCode('Other');
    return { bench, top, under, other, code: (id: string) => bench.state.tables.code[id]! };
  };

  it('moves branches whole, and refuses what would lie under itself or beside its own name', () => {
    const { bench, top, under, other, code } = build();
    bench.run(moveCodes([top, under], other));
    expect([code(top).parentId, code(under).parentId]).toEqual([other, top]);
    expect(() => moveCodes([other], under)(bench.state, bench.context())).toThrowError(/cannot go under itself/);
    const twin = bench.addCode('Top');
    expect(() => moveCodes([twin], other)(bench.state, bench.context())).toThrowError(/already a code “Top”/);
  });

  it('renames all or none', () => {
    const { bench, top, under, other, code } = build();
    bench.run(
      renameCodes(
        new Map([
          [top, 'F: Top'],
          [under, 'Under'],
        ]),
      ),
    );
    expect(code(top).name).toBe('F: Top');
    expect(() =>
      renameCodes(
        new Map([
          [top, 'Same'],
          [other, 'same'],
        ]),
      )(bench.state, bench.context()),
    ).toThrowError(/already a code/);
    expect(code(other).name).toBe('Other');
    // two that exchange their names are no clash
    bench.run(
      renameCodes(
        new Map([
          [top, 'Other'],
          [other, 'F: Top'],
        ]),
      ),
    );
    expect([code(top).name, code(other).name]).toEqual(['Other', 'F: Top']);
  });

  it('colours each branch in one family of hues', () => {
    const { bench, top, under, other, code } = build();
    bench.run(colourByCategory());
    expect(Math.floor(code(top).colour / FAMILY_SIZE)).toBe(Math.floor(code(under).colour / FAMILY_SIZE));
    expect(code(top).colour).not.toBe(code(under).colour);
    bench.run(retireCodes([other], true));
    expect(code(other).retired).toBeTrue();
    bench.run(retireCodes([other], false));
    expect('retired' in code(other)).toBeFalse();
  });

  it('copies a description, with the passages if wanted, and remembers example passages', () => {
    const { bench, under, code } = build();
    const document = bench.addDocument('One', [LINE]);
    bench.code(document, 0, 9, under);
    bench.run(editCode(under, { definition: 'Below.' }));
    const [passage] = passagesOf(bench.state);
    bench.run(anchorPassages(under, [{ documentId: document.id, passageId: passage!.id }], true));
    expect(code(under).anchors).toEqual([{ documentId: document.id, passageId: passage!.id }]);
    expect(bench.run(copyCode(under, 'Below too', true))!.sentence).toContain('with 1 passage');
    const copy = Object.values(bench.state.tables.code).find((one) => one.name === 'Below too')!;
    expect([copy.parentId, copy.definition]).toEqual([code(under).parentId, 'Below.']);
    expect(passagesOf(bench.state)[0]!.codings.map((coding) => coding.codeId)).toEqual([under, copy.id]);
    bench.run(anchorPassages(under, [{ documentId: document.id, passageId: passage!.id }], false));
    expect('anchors' in code(under)).toBeFalse();
  });

  it('draws relations once, not to themselves, and takes them away', () => {
    const { bench, top, other } = build();
    bench.run(addRelation(top, other, 'leads to'));
    expect(() => addRelation(top, other, 'leads to')(bench.state, bench.context())).toThrowError(/there already/);
    expect(() => addRelation(top, top, 'leads to')(bench.state, bench.context())).toThrowError(/related to itself/);
    bench.run(addRelation(other, top, 'leads to'));
    bench.run(deleteRelation(Object.keys(bench.state.tables.relation)[0]!));
    expect(Object.keys(bench.state.tables.relation).length).toBe(1);
  });
});

describe('a frozen codebook', () => {
  it('refuses every change of codes, but not coding with them, and collects proposals', () => {
    const bench = new Bench();
    const document = bench.addDocument('One', [LINE]);
    const code = bench.addCode('Sea');
    bench.run(freezeCodebook(true));
    const refuse = (command: Parameters<Bench['run']>[0]) => expect(() => command(bench.state, bench.context())).toThrowError(/frozen/);
    refuse(editCode(code, { name: 'Ocean' }));
    refuse(moveCodes([code], null));
    refuse(joinCodes(code, []));
    // where a coder asks for a new code, the passage is marked and the code proposed
    bench.run(codePlace({ documentId: document.id, place: { start: 10, end: 20 }, codeIds: [], newCodes: [{ name: 'Standing' }] }));
    expect(Object.values(bench.state.tables.proposal).map((one) => [one.name, one.places.length])).toEqual([['Standing', 1]]);
    expect(passagesOf(bench.state).map((one) => one.codings)).toEqual([[]]);
    bench.run(declineProposal(Object.keys(bench.state.tables.proposal)[0]!));
    bench.run(removePassage(document.id, passagesOf(bench.state)[0]!.id));
    bench.code(document, 0, 9, code);
    bench.run(editCode(code, { notes: 'talk about this one' }));
    const [passage] = passagesOf(bench.state);
    const place = { documentId: document.id, passageId: passage!.id };
    bench.run(proposeCode({ name: 'Waiting' }, [place]));
    expect(bench.run(proposeCode({ name: 'waiting' }, [place]))).toBeNull();
    bench.run(proposeCode({ name: 'Fog' }));
    const named = (name: string) => Object.values(bench.state.tables.proposal).find((one) => one.name === name)!.id;
    bench.run(declineProposal(named('Fog')));
    bench.run(acceptProposal(named('Waiting')));
    expect(Object.values(bench.state.tables.code).map((one) => one.name)).toEqual(['Sea', 'Waiting']);
    expect(passagesOf(bench.state)[0]!.codings.length).toBe(2);
    expect(Object.keys(bench.state.tables.proposal)).toEqual([]);
    bench.run(freezeCodebook(false));
    expect('frozen' in bench.state.study).toBeFalse();
    bench.run(editCode(code, { name: 'Ocean' }));
    expect(bench.state.tables.code[code]!.name).toBe('Ocean');
  });
});

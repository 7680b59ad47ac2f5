import fc from 'fast-check';
import { anchorEdits, carryOver } from './carry-over';
import { applyEdits, type TextEdit } from './edit';

describe('carrying corrections over into another edition of the text', () => {
  it('finds them by the words around, wherever these have moved', () => {
    const text = 'The first ferry went at six. The last ferry never came back to the island that night.';
    const at = text.indexOf('never');
    const anchored = anchorEdits(text, [{ from: at, to: at + 5, insert: 'hardly ever' }]);
    const now = `Shona, again:\n${text}`;
    const { edits, uncertain } = carryOver(anchored, now);
    expect(applyEdits(now, edits)).toContain('The last ferry hardly ever came back');
    expect(uncertain).toEqual([]);
  });

  it('merges nothing by guess: changed surroundings, or the same ones twice, leave it to the writer', () => {
    const yes = 'Yes.\nYes.\nYes.\n';
    const twice = anchorEdits('Yes.\nNo.', [{ from: 0, to: 4, insert: 'Aye.' }]);
    expect(carryOver([{ ...twice[0]!, after: '\nYes.' }], yes).uncertain.length).toBe(1);
    expect(carryOver(twice, 'Yes.\nPerhaps.').uncertain.length).toBe(1);
    // somebody else wrote at the very end as well
    const atEnd = anchorEdits('In the rain.', [{ from: 12, to: 12, insert: ' Mine' }]);
    expect(carryOver(atEnd, 'In the rain. Theirs').uncertain.length).toBe(1);
    expect(carryOver(atEnd, 'We stood in the rain.').uncertain.length).toBe(1);
    expect(carryOver(atEnd, 'There. In the rain.').edits).toEqual([{ from: 19, to: 19, insert: ' Mine' }]);
    expect(carryOver(anchorEdits('', [{ from: 0, to: 0, insert: 'new' }]), 'now there is a text').uncertain.length).toBe(1);
  });

  it('keeps every edit, either placed on just the words it replaces or aside, and never two over each other', () => {
    const words = fc
      .array(fc.constantFrom('ferry ', 'pier ', 'Yes. ', 'the ', '\n', 'ä ', '渡 '), { maxLength: 40 })
      .map((parts) => parts.join(''));
    fc.assert(
      fc.property(words, words, fc.array(fc.nat(200), { maxLength: 8 }), (before, after, cuts) => {
        const places = [...new Set(cuts.map((cut) => cut % (before.length + 1)))].sort((a, b) => a - b);
        const edits: TextEdit[] = [];
        for (let at = 0; at + 1 < places.length; at += 2) edits.push({ from: places[at]!, to: places[at + 1]!, insert: '×' });
        const anchored = anchorEdits(before, edits);
        const same = carryOver(anchored, before);
        expect(same.edits.length + same.uncertain.length).toBe(edits.length);
        for (const edit of same.edits) expect(edits).toContain(edit);
        const { edits: carried, uncertain } = carryOver(anchored, after);
        expect(carried.length + uncertain.length).toBe(edits.length);
        carried.forEach((edit, at) => {
          if (at > 0) expect(edit.from).toBeGreaterThanOrEqual(carried[at - 1]!.to);
          expect(edits.map(({ from, to }) => before.slice(from, to))).toContain(after.slice(edit.from, edit.to));
        });
      }),
    );
  });
});

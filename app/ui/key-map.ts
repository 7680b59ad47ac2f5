/** A key and what it does, for the sheet at `?`. The reading place's keys act while the caret is in the text. */
export interface KeyEntry {
  readonly keys: readonly string[];
  readonly does: string;
}

export const KEY_MAP: readonly { readonly where: string; readonly entries: readonly KeyEntry[] }[] = [
  {
    where: 'While reading, with the caret in the text',
    entries: [
      { keys: ['C'], does: 'code what is selected, or the turn the caret is in' },
      { keys: ['.'], does: 'code with the code used last' },
      { keys: ['V'], does: 'make a code of the selected words' },
      { keys: ['M'], does: 'write a memo at the passage' },
      { keys: ['K'], does: 'comment on the passage' },
      { keys: ['['], does: 'previous passage' },
      { keys: [']'], does: 'next passage' },
      { keys: ['Delete'], does: 'remove the chosen passage' },
      { keys: ['Y'], does: 'copy the passage with its citation' },
      { keys: ['/'], does: 'find a code in the list' },
    ],
  },
  {
    where: 'In the code picker',
    entries: [
      { keys: ['Enter'], does: 'code with the marked code' },
      { keys: ['Shift', 'Enter'], does: 'code and choose another' },
      { keys: ['Tab'], does: 'a new code in their words' },
      { keys: ['category / code'], does: 'typed so, makes a code under a category' },
      { keys: ['Esc'], does: 'leave without coding' },
    ],
  },
  {
    where: 'In the codebook',
    entries: [
      { keys: ['↑', '↓'], does: 'go through the codes' },
      { keys: ['Alt', '↑'], does: 'move the code up; Alt ↓ moves it down' },
      { keys: ['Alt', '→'], does: 'put the code under the one above; Alt ← takes it out' },
      { keys: ['N'], does: 'new code beside this one' },
      { keys: ['Delete'], does: 'delete the code, after naming what goes' },
    ],
  },
  {
    where: 'Everywhere',
    entries: [
      { keys: ['Ctrl', 'Z'], does: 'undo, also what was done yesterday' },
      { keys: ['Ctrl', 'Shift', 'Z'], does: 'redo' },
      { keys: ['?'], does: 'this sheet' },
    ],
  },
];

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
      { keys: ['1', '9'], does: 'code with a pinned code, or one of those used last (1 to 9)' },
      { keys: ['S'], does: 'select the sentence' },
      { keys: ['P'], does: 'select the paragraph' },
      { keys: ['T'], does: 'select the turn' },
      { keys: ['E'], does: 'select more: word, sentence, paragraph, turn; Shift E less' },
      { keys: ['X'], does: 'mark without a code, to be decided later' },
      { keys: ['R'], does: 'another code in the place of this one' },
      { keys: ['O'], does: 'the next of several passages at the caret' },
      { keys: ['Alt', '→'], does: 'move the end of the passage by a word, Alt ↓ by a sentence; with Shift its start' },
      { keys: ['M'], does: 'write a memo at the passage' },
      { keys: ['K'], does: 'comment on the passage' },
      { keys: ['['], does: 'previous passage' },
      { keys: [']'], does: 'next passage' },
      { keys: ['Delete'], does: 'remove the chosen passage' },
      { keys: ['U'], does: 'next words that are not coded; Shift U those before' },
      { keys: ['H'], does: 'read up to here' },
      { keys: ['N'], does: 'next document that is not read to its end; Shift N the one before' },
      { keys: ['B'], does: 'back to where you jumped from; Shift B forward again' },
      { keys: ['F'], does: 'find words in the document (also Ctrl F)' },
      { keys: ['G'], does: 'define the word' },
      { keys: ['Esc'], does: 'leave the chosen passage' },
      { keys: ['Y'], does: 'copy the passage with its citation' },
      { keys: ['/'], does: 'find a code in the list' },
    ],
  },
  {
    where: 'With a recording, wherever one types (these keys can be others, for a foot pedal too)',
    entries: [
      { keys: ['Ctrl', 'Space'], does: 'play and stop' },
      { keys: ['Ctrl', '←'], does: 'two seconds back; Ctrl → on' },
      { keys: ['Ctrl', '↓'], does: 'slower; Ctrl ↑ faster' },
      { keys: ['Ctrl', 'Shift', 'L'], does: 'play what is marked again and again' },
      { keys: ['Ctrl', 'Shift', 'Space'], does: 'note the time of the words at the caret' },
      { keys: ['Ctrl', '.'], does: 'while transcribing: an unclear word, with its time' },
      { keys: ['Enter'], does: 'while transcribing: the turn of the next speaker; Shift Enter goes on, Alt 1 to 9 a speaker' },
    ],
  },
  {
    where: 'On the sound, and on a picture',
    entries: [
      { keys: ['←', '→'], does: 'on the sound: a second back or on, with Shift five' },
      { keys: ['I', 'O'], does: 'on the sound: where a span begins and ends; on a picture I marks an area in the middle' },
      { keys: ['C'], does: 'code what is marked; all other keys of reading as well' },
      { keys: ['←', '→'], does: 'on a picture: move the area, with Alt its lower corner, with Shift ten times as far' },
      { keys: ['+', '−', '0'], does: 'on a picture: larger, smaller, all of it' },
    ],
  },
  {
    where: 'In the code picker',
    entries: [
      { keys: ['Enter'], does: 'code with the marked code' },
      { keys: ['Shift', 'Enter'], does: 'code and choose another' },
      { keys: ['Tab'], does: 'a new code in their words' },
      { keys: ['Ctrl', 'Enter'], does: 'a new code, with its definition' },
      { keys: ['category / code'], does: 'typed so, makes a code under a category' },
      { keys: ['Esc'], does: 'leave without coding' },
    ],
  },
  {
    where: 'Line by line, and by question',
    entries: [
      { keys: ['Tab'], does: 'from the words to their codes, and on' },
      { keys: ['Enter'], does: 'code with what is typed; with nothing typed the next row' },
      { keys: ['↑', '↓'], does: 'the row before or after' },
      { keys: ['Backspace'], does: 'with nothing typed: take the last code off' },
      { keys: ['Enter'], does: 'in the words of an idea-unit: divide it at the caret; Backspace at its beginning joins' },
    ],
  },
  {
    where: 'In the codebook',
    entries: [
      { keys: ['↑', '↓'], does: 'go through the codes' },
      { keys: ['Alt', '↑'], does: 'move the code up; Alt ↓ moves it down' },
      { keys: ['Alt', '→'], does: 'put the code under the one above; Alt ← takes it out' },
      { keys: ['→', '←'], does: 'unfold and fold a category' },
      { keys: ['Shift', '↓'], does: 'choose several; Ctrl ↓ goes on without choosing, Space chooses one more, Ctrl A all' },
      { keys: ['N'], does: 'new code beside this one' },
      { keys: ['U'], does: 'put the chosen codes under another' },
      { keys: ['J'], does: 'join the chosen codes' },
      { keys: ['F2'], does: 'rename' },
      { keys: ['Delete'], does: 'delete the chosen, after naming what goes' },
    ],
  },
  {
    where: 'On a sorting table, with a slip in focus',
    entries: [
      { keys: ['1', '9'], does: 'put it into a group; 0 takes it off' },
      { keys: ['N'], does: 'a new group with it' },
      { keys: ['G'], does: 'choose where it goes' },
    ],
  },
  {
    where: 'Going through a code’s passages to split it',
    entries: [
      { keys: ['N'], does: 'a code to split off; this passage goes to it' },
      { keys: ['1', '9'], does: 'move the passage to one of these' },
      { keys: ['0'], does: 'take the code off the passage' },
      { keys: ['→'], does: 'leave it as it is, and show the next' },
    ],
  },
  {
    where: 'While writing a memo',
    entries: [
      { keys: ['@'], does: 'link to a code, document, case, query or memo' },
      { keys: ['Ctrl', 'Enter'], does: 'keep it' },
      { keys: ['Esc'], does: 'back to the work; what is written stays as a draft' },
    ],
  },
  {
    where: 'Everywhere',
    entries: [
      { keys: ['M'], does: 'write a memo beside what you are looking at' },
      { keys: ['Ctrl', 'Z'], does: 'undo, also what was done yesterday' },
      { keys: ['Ctrl', 'Shift', 'Z'], does: 'redo' },
      { keys: ['?'], does: 'this sheet' },
    ],
  },
];

import { addAttribute, attributesOf, setValues } from '@core/commands/attributes';
import { addCase, ownDocuments, ownStretch } from '@core/commands/cases';
import { codePlace } from '@core/commands/passages';
import { applyChange } from '@core/change/apply';
import type { Command } from '@core/change/command';
import type { Document } from '@core/model/document';
import { sequentialIds } from '@core/model/ids';
import { openedStudy } from '../../../testing/opened-study';
import { columnsFor, rowsOf } from './columns';

describe('columns of the document table', () => {
  const { opened, codes, coderId } = openedStudy(['Worry']);
  const newId = sequentialIds(5);
  let { state } = opened;
  const run = (command: Command): void => {
    const action = command(state, { coderId, now: 1, newId });
    if (action) state = applyChange(state, action.change);
  };
  const add = (title: string): string => {
    const document: Document = {
      id: newId(),
      title,
      ground: { of: 'text' },
      kind: 'interview',
      date: '2025-01-22',
      folderId: null,
      description: '',
      speakers: [],
      characters: 100,
      words: 20,
      source: null,
      values: {},
      answers: [],
      createdAt: 0,
    };
    state = applyChange(state, [{ type: 'document', before: null, after: document }]);
    return document.id;
  };
  const [first, second] = [add('One'), add('Two')];
  const owner = newId();
  run(addCase('Moira', owner));
  run(ownDocuments(owner, [first], true));
  run(ownStretch(owner, { documentId: second, start: 5, end: 20 }, true));
  run(addAttribute('case', 'age', 'number'));
  run(addAttribute('document', 'place', 'choice'));
  run(setValues([{ ownerId: owner, attributeId: attributesOf(state, 'case')[0]!.id, raw: '58' }]));
  run(setValues([{ ownerId: first, attributeId: attributesOf(state, 'document')[0]!.id, raw: 'surgery' }]));
  run(codePlace({ documentId: first, place: { start: 0, end: 25 }, codeIds: [codes['Worry']!] }));
  const rows = rowsOf(state, Object.values(state.tables.document), (id) => (id === second ? Date.UTC(2025, 0, 1) : null));
  const shown = (name: string) => {
    const column = columnsFor(state, 'Participant').find((one) => one.name === name)!;
    return rows.map((row) => column.text(row));
  };

  it('show the attributes of documents and of their cases, beside what is counted', () => {
    expect([shown('Participant'), shown('age'), shown('place')]).toEqual([
      ['Moira', 'Moira'],
      ['58', '58'],
      ['surgery', '–'],
    ]);
    expect([shown('Passages'), shown('Codes'), shown('Coded'), shown('Memos')]).toEqual([
      ['1', '–'],
      ['1', '–'],
      ['25 %', '–'],
      ['–', '–'],
    ]);
    expect(shown('Last read')[0]).toBe('–');
  });

  it('sort numbers by size and dates by day', () => {
    const column = (name: string) => columnsFor(state, 'Participant').find((one) => one.name === name)!;
    expect(column('Coded').compare(rows[0]!, rows[1]!)).toBeGreaterThan(0);
    expect(column('Date').compare(rows[0]!, rows[1]!)).toBe(0);
  });
});

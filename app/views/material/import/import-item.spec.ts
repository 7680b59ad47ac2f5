import type { TableSummary, TextSummary } from '@core/filing/read-material';
import { newItem, withTable, withText } from './import-item';

const TEXT: TextSummary = {
  title: 'Shona',
  notes: [],
  sha256: '0'.repeat(64),
  speakers: [
    { name: 'Interviewer', turns: 2, taken: true },
    { name: 'Shona', turns: 1, taken: true },
    { name: 'Place', turns: 1, taken: false },
  ],
  encoding: 'utf-8',
  encodings: [],
  facts: [],
  readings: [],
  lineEnds: 'paragraphs',
  times: 0,
  formatted: false,
  changedAt: null,
  total: 3,
  nobody: [],
  guesses: [{ question: { kind: 'label', name: 'Interviewer' }, answer: null, because: '' }],
};
const item = (fileName: string) => newItem(1, fileName, new Blob());

describe('a file on its way in', () => {
  it('takes what was read as a proposal: title, kind, date in the name, every label that names a speaker', () => {
    const read = withText(item('2025-01-22 Shona.txt'), TEXT, null);
    expect([read.title, read.kind, read.date, read.wanted]).toEqual(['Shona', 'interview', '2025-01-22', true]);
    expect(read.speakers).toEqual({
      Interviewer: { name: 'Interviewer', interviewer: true, caseId: null },
      Shona: { name: 'Shona', interviewer: false, caseId: null },
    });
    expect(withText(item('x.txt'), { ...TEXT, title: 'Focus group, parents' }, null).kind).toBe('focus group');
  });

  it('is structured where its questions are marked as such, not by an interviewer alone', () => {
    expect(withText(item('x.txt'), TEXT, null).markers).toBeNull();
    const guesses = [{ question: { kind: 'label', name: 'Q' }, answer: { kind: 'label', name: 'A' }, because: '' }] as const;
    expect(withText(item('x.txt'), { ...TEXT, guesses }, null).markers).toEqual(guesses[0]);
  });

  it('keeps what the researcher decided when it is read again', () => {
    const decided = { ...withText(item('x.txt'), TEXT, null), title: 'Mine', kind: 'article' as const, speakers: {} };
    const again = withText(decided, TEXT, null);
    expect([again.title, again.kind, again.speakers]).toEqual(['Mine', 'article', {}]);
  });

  it('takes labels that another way of reading brings, and keeps what was decided about those that were there', () => {
    const decided = { ...withText(item('x.txt'), TEXT, null), speakers: {} };
    const more = { ...TEXT, speakers: [...TEXT.speakers.slice(1), { name: 'Iain', turns: 2, taken: true }] };
    expect(Object.keys(withText(decided, more, null).speakers)).toEqual(['Iain']);
  });

  it('stays out, unless wanted, when the study has its content', () => {
    expect(withText(item('x.txt'), TEXT, { id: null, title: 'Interview' }).wanted).toBeFalse();
  });

  it('becomes cases where a table asks no questions', () => {
    const table: TableSummary = {
      header: ['name', 'age'],
      sheets: ['table'],
      sheet: 'table',
      encoding: 'utf-8',
      encodings: [],
      delimiter: ',',
      headerRow: 1,
      above: [],
      heads: [],
      notes: [],
      total: 2,
      first: [],
      sha256: '',
      asDocuments: [{ name: 'name', role: 'title', type: 'text', because: '' }],
      asCases: [{ name: 'name', role: 'title', type: 'text', because: 'its name says so' }],
    };
    const read = withTable(item('people.csv'), table, null);
    expect([read.rowsBecome, read.columns]).toEqual(['cases only', table.asCases]);
  });
});

import { memoDrafts, type MemoDraft, type MemoTask } from './memo-drafts';

describe('drafts of memos', () => {
  const studyId = 's';
  const code: MemoTask = { about: { type: 'code', id: 'c' } };
  const draft: MemoDraft = { task: { about: null }, title: 'T', kind: 'analytic', tags: '', question: false, text: 'Half a thought' };
  afterEach(() => localStorage.clear());

  it('lie side by side, each by what it is written to and by study', () => {
    memoDrafts.keep(studyId, draft);
    memoDrafts.keep(studyId, { ...draft, task: code, text: 'Another' });
    expect(memoDrafts.of(studyId, { about: null })).toEqual(draft);
    expect(memoDrafts.of(studyId, code)!.text).toBe('Another');
    expect(memoDrafts.of('other', code)).toBeNull();
    expect(memoDrafts.all(studyId).length).toBe(2);
    memoDrafts.drop(studyId, code);
    expect(memoDrafts.all(studyId)).toEqual([draft]);
  });

  it('come up again after a reload where they lay open, as long as they are there', () => {
    memoDrafts.setOpen(studyId, code);
    expect(memoDrafts.open(studyId)).toBeNull();
    memoDrafts.keep(studyId, { ...draft, task: code });
    expect(memoDrafts.open(studyId)).toEqual(code);
    memoDrafts.setOpen(studyId, null);
    expect(memoDrafts.open(studyId)).toBeNull();
    expect(memoDrafts.of(studyId, code)).not.toBeNull();
  });

  it('are passed over where something else has written in their place', () => {
    localStorage.setItem('filum-draft s memo new', '{"task":1');
    expect(memoDrafts.of(studyId, { about: null })).toBeNull();
    localStorage.setItem('filum-draft s memo new', '{"text":7}');
    expect(memoDrafts.all(studyId)).toEqual([]);
  });
});

import { memoDrafts, type MemoDraft } from './memo-drafts';

describe('drafts of memos', () => {
  const draft: MemoDraft = { task: { about: null }, title: 'T', kind: 'analytic', tags: '', question: false, text: 'Half a thought' };
  afterEach(() => memoDrafts.drop('s'));

  it('are kept by study until they are kept or dropped', () => {
    memoDrafts.keep('s', draft);
    expect(memoDrafts.of('s')).toEqual(draft);
    expect(memoDrafts.of('other')).toBeNull();
    memoDrafts.keep('s', { ...draft, text: '  ' });
    expect(memoDrafts.of('s')).toBeNull();
  });

  it('forget what something else has written in their place', () => {
    localStorage.setItem('filum-writing s', '{"task":1');
    expect(memoDrafts.of('s')).toBeNull();
    localStorage.setItem('filum-writing s', '{"text":7}');
    expect(memoDrafts.of('s')).toBeNull();
  });
});

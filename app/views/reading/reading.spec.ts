import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { Document } from '@core/model/document';
import type { Id } from '@core/model/ids';
import { codePlace } from '@core/commands/passages';
import { Bench } from '@core/testing/make';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { until } from '../../testing/until';
import { Reading } from './reading';

describe('the reading place', () => {
  let bench: Bench;
  let page: Drawn<Reading>;
  let document: Document;
  let worry: Id;
  const show = async (inputs: Readonly<Record<string, unknown>>) => {
    for (const [name, value] of Object.entries(inputs)) page.fixture.componentRef.setInput(name, value);
    await page.settle();
  };
  const lines = () => page.texts('.cm-line').filter(Boolean);
  const panel = () =>
    until(
      () => page.all('fl-passage-panel').length > 0,
      () => page.fixture.detectChanges(),
    );
  const key = (pressed: string, init: KeyboardEventInit = {}) => page.press('.cm-content', pressed, init);

  beforeEach(async () => {
    bench = new Bench();
    worry = bench.addCode('Worry');
    document = bench.addDocument('Interview 03', ['They held the boat.', 'Nobody asked us.']);
    bench.code(document, 0, 19, worry);
    bench.addDocument('Interview 04', ['It was dark.']);
    page = await drawn(Reading, bench, { documentId: document.id }, [], { width: 1_100, height: 700 });
  });

  it('shows the text, and the passage that the address names beside it', async () => {
    expect(lines()).toEqual(['They held the boat.', 'Nobody asked us.']);
    const [passage] = bench.state.passages[document.id]!.ids.match(/.{36}/g)!;
    await show({ passage });
    await panel();
    expect(page.find('fl-passage-panel').textContent).toContain('Worry');
  });

  it('opens the picker by a key, codes with what is picked, and gives the text its keys back', async () => {
    await key('c');
    await page.type('fl-code-picker input', 'Fear');
    await page.press('fl-code-picker input', 'Enter');
    expect(page.session.sentences.at(-1)).toContain('with Fear');
    expect(page.all('fl-code-picker').length).toBe(0);
    await key('c');
    await page.press('fl-code-picker input', 'Escape');
    expect(page.all('fl-code-picker').length).toBe(0);
    expect(page.session.done.length).toBe(1);
  });

  it('lists the passages of a recording, which has no text', async () => {
    const tape = bench.record('Ferry horn', 90_000);
    bench.run(codePlace({ documentId: tape.id, place: { start: 12_000, end: 44_000 }, codeIds: [worry] }));
    TestBed.resetTestingModule();
    page = await drawn(Reading, bench, { documentId: tape.id }, [], { width: 1_100, height: 700 });
    await until(
      () => page.all('fl-passage-list li').length > 0,
      () => page.fixture.detectChanges(),
    );
    expect(page.texts('fl-passage-list li')).toEqual([jasmine.stringContaining('0:12–0:44')]);
    expect(page.find('fl-passage-list').textContent).toContain('A recording of 1:30, 36 % of it coded');
    // keys that need a text do nothing, and break nothing
    await page.press('fl-passage-list', 'c');
    expect(page.session.done).toEqual([]);
  });

  it('goes to another document without being told which study it is in', async () => {
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await show({ documentId: undefined });
    expect(navigate).toHaveBeenCalledWith(['/study', bench.state.study.id, 'reading', jasmine.any(String)], { replaceUrl: true });
  });
});

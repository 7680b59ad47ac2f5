import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import type { Id } from '@core/model/ids';
import { unpackPassages } from '@core/passages/columns';
import { Bench } from '@core/testing/make';
import { of } from 'rxjs';
import { Store } from '@ngrx/store';
import { selectPassages } from '../../../state/study.selectors';
import { TextCache } from '../../../state/text-cache';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { SplitCode } from './split-code';

describe('splitting a code', () => {
  let desk: Drawn<SplitCode>;
  let chosen: object | undefined;
  const ids = {} as Record<'Help' | 'Lifeboat' | 'Neighbours', Id>;
  const passages = () => Object.values(TestBed.inject(Store).selectSignal(selectPassages)()).flatMap((columns) => unpackPassages(columns));
  const carried = () =>
    passages().map((one) =>
      one.codings
        .map((coding) => (Object.keys(ids) as (keyof typeof ids)[]).find((name) => ids[name] === coding.codeId) ?? 'new')
        .join(', '),
    );
  const shownWords = () => desk.host.textContent;
  const press = (key: string) => desk.press('.desk', key);

  beforeEach(async () => {
    const bench = new Bench();
    for (const name of ['Help', 'Lifeboat', 'Neighbours'] as const) ids[name] = bench.addCode(name);
    const document = bench.addDocument('One', ['The lifeboat came at night. Everybody lent a hand. Somebody rang us.']);
    for (const [start, end] of [
      [4, 12],
      [28, 37],
      [51, 59],
    ])
      bench.code(document, start!, end!, ids['Help']);
    const hits = Object.values(bench.state.passages).flatMap((columns) =>
      unpackPassages(columns).map((one) => ({ documentId: document.id, passageId: one.id, start: one.start, end: one.end })),
    );
    const dialog = { open: () => ({ afterClosed: () => of(chosen) }) };
    desk = await drawn(SplitCode, bench, { code: bench.state.tables.code[ids['Help']], hits }, [{ provide: MatDialog, useValue: dialog }]);
    for (const text of bench.texts.values()) TestBed.inject(TextCache).put(text, null);
    await desk.settle();
  });

  it('shows one passage after the other, forward and back, and stays within them', async () => {
    await press('ArrowLeft');
    await press('ArrowRight');
    await press('ArrowRight');
    await press('ArrowRight');
    expect(shownWords()).toContain('Somebody');
    expect(desk.session.done.length).toBe(0);
  });

  it('gives a passage to a code, which has a key from then on, and goes to the next', async () => {
    chosen = { codeId: ids['Lifeboat'] };
    await press('n');
    expect(carried()).toEqual(['Lifeboat', 'Help', 'Help']);
    chosen = { name: 'Kindness' };
    await press('n');
    expect(carried()).toEqual(['Lifeboat', 'new', 'Help']);
    await press('1');
    expect(carried()).toEqual(['Lifeboat', 'new', 'Lifeboat']);
    await press('ArrowLeft');
    expect(desk.session.done.length).toBe(3);
  });

  it('takes the code off a passage with 0, and does nothing for a key without a code', async () => {
    await press('5');
    expect(desk.session.done.length).toBe(0);
    await press('ArrowRight');
    await press('0');
    expect(carried()).toEqual(['Help', 'Help']);
    desk.session.undo();
    expect(carried()).toEqual(['Help', 'Help', 'Help']);
  });

  it('is left with Escape', async () => {
    let closed = 0;
    desk.fixture.componentInstance.closed.subscribe(() => closed++);
    await press('Escape');
    expect(closed).toBe(1);
  });
});

import { TestBed } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { editCode } from '@core/commands/codes';
import { JoinAhead } from '@core/commands/join-codes';
import type { Id } from '@core/model/ids';
import { unpackPassages } from '@core/passages/columns';
import { Bench } from '@core/testing/make';
import { selectCodes, selectPassages } from '../../state/study.selectors';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { until } from '../../testing/until';
import { JoinDialog } from './join-dialog';

describe('joining codes in a dialog', () => {
  let dialog: Drawn<JoinDialog>;
  let closed: unknown[];
  let steps: jasmine.Spy<JoinAhead['step']>;
  const ids: Record<string, Id> = {};
  const codes = () => Object.values(TestBed.inject(Store).selectSignal(selectCodes)());
  const carried = () =>
    Object.values(TestBed.inject(Store).selectSignal(selectPassages)()).flatMap((columns) =>
      unpackPassages(columns).map((one) => one.codings.map((coding) => codes().find((code) => code.id === coding.codeId)?.name)),
    );
  /** Until the whole join was worked out beside the reading. */
  const workedOutAhead = () => until(() => steps.calls.all().at(-1)?.returnValue === false);
  const definition = () => dialog.find<HTMLTextAreaElement>('textarea').value;

  beforeEach(async () => {
    closed = [];
    steps = spyOn(JoinAhead.prototype, 'step').and.callThrough();
    const bench = new Bench();
    for (const name of ['Waiting', 'Hanging about']) ids[name] = bench.addCode(name);
    bench.run(editCode(ids['Waiting']!, { definition: 'Time at the pier.' }));
    bench.run(editCode(ids['Hanging about']!, { definition: 'Standing around.' }));
    const document = bench.addDocument('One', ['We waited at the pier and stood about.']);
    bench.code(document, 0, 9, ids['Waiting']!, ids['Hanging about']!);
    bench.code(document, 26, 37, ids['Hanging about']!);
    dialog = await drawn(JoinDialog, bench, {}, [
      { provide: MAT_DIALOG_DATA, useValue: [ids['Waiting'], ids['Hanging about']] },
      { provide: MatDialogRef, useValue: { close: (value: unknown) => closed.push(value) } },
    ]);
  });

  it('says how many passages are concerned, and lays what the codes say side by side', () => {
    expect(dialog.host.textContent).toContain('2 passages in all');
    expect(definition()).toBe('Time at the pier.\n\n(Hanging about) Standing around.');
  });

  it('joins into the one that was chosen to stay, with the words as they were edited, in one step', async () => {
    await dialog.type('textarea', 'Time spent waiting.');
    await workedOutAhead();
    await dialog.click(dialog.button('Join the codes'));
    expect(codes().map((code) => [code.name, code.definition])).toEqual([['Waiting', 'Time spent waiting.']]);
    expect(carried()).toEqual([['Waiting'], ['Waiting']]);
    expect(closed).toEqual([ids['Waiting']]);
    expect(dialog.session.done.length).toBe(1);
    dialog.session.undo();
    expect(carried()).toEqual([['Waiting', 'Hanging about'], ['Hanging about']]);
  });

  it('follows another choice of the code that stays, and what changed meanwhile', async () => {
    await dialog.click(dialog.all('input[type=radio]')[1]!);
    (dialog.all('input[type=radio]')[1] as HTMLInputElement).dispatchEvent(new Event('change'));
    await dialog.settle();
    expect(definition()).toBe('Standing around.\n\n(Waiting) Time at the pier.');
    await workedOutAhead();
    dialog.session.run((state) => {
      const [columns] = Object.values(state.passages);
      const [first] = unpackPassages(columns!);
      return { change: [{ type: 'passage', before: first!, after: { ...first!, codings: [] } }], sentence: 'took the codes off' };
    });
    await dialog.settle();
    await dialog.click(dialog.button('Join the codes'));
    expect(carried()).toEqual([[], ['Hanging about']]);
  });
});

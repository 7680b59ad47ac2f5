import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { codePlace } from '@core/commands/passages';
import { deleteDocuments } from '@core/commands/documents';
import type { Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { selectData } from '../../state/study.selectors';
import { analysisHere } from '../../testing/analysis-here';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { PatternHere } from '../../testing/pattern-here';
import { until } from '../../testing/until';
import { weaveDrawing } from './drawing/weave-drawing';
import { WeaveView } from './weave-view';

describe('a weave on the screen', () => {
  let view: Drawn<WeaveView>;
  let here: PatternHere<'weave'>;
  const ids: Record<string, Id> = {};
  let two: Text;
  const names = () => view.texts('.names .name');

  beforeEach(async () => {
    const bench = new Bench();
    for (const name of ['Boats', 'Waiting', 'Worry']) ids[name] = bench.addCode(name);
    for (const title of ['One', 'Two']) {
      const document = bench.addDocument(title, ['Ann: We waited for the boat.', 'Bob: Late again.'], ['Ann', 'Bob']);
      ids[title] = document.id;
      two = bench.texts.get(document.id)!;
      bench.code(document, 5, 15, ids['Waiting']!);
    }
    view = await drawn(WeaveView, bench, {}, [analysisHere]);
    here = new PatternHere(view, 'weave');
    await until(() => view.all('.piece').length > 0);
  });

  it('draws a thread for each code that is found, what is uncoded, and who speaks', async () => {
    expect(view.all('section').length).toBe(1);
    expect(names()).toEqual(['Waiting']);
    expect(view.texts('.names .speaker')).toEqual(['Ann', 'Bob']);
    expect(view.all('.ground .line:not(.bare) .piece').length).toBe(1);
    view.session.run(codePlace({ documentId: ids['One']!, place: { start: 32, end: 40 }, codeIds: [ids['Worry']!] }));
    await until(() => names().length === 2);
  });

  it('lays threads in the order that is chosen', async () => {
    for (const start of [0, 20, 32])
      view.session.run(codePlace({ documentId: ids['One']!, place: { start, end: start + 4 }, codeIds: [ids['Worry']!] }));
    await until(() => names().length === 2);
    expect(names()).toEqual(['Waiting', 'Worry']);
    await here.choose('as in the codebook', 'by where they begin');
    expect(names()).toEqual(['Worry', 'Waiting']);
    await here.choose('by where they begin', 'as in the codebook');
    expect('order' in here.asked()).toBeFalse();
    await here.choose('as in the codebook', 'the most first');
    expect(names()).toEqual(['Worry', 'Waiting']);
  });

  it('lays several documents under each other with the same threads', async () => {
    await here.ask({ documentIds: [ids['One']!, ids['Two']!] });
    view.session.run(codePlace({ documentId: ids['Two']!, place: { start: 32, end: 40 }, codeIds: [ids['Worry']!] }));
    await until(() => names().length === 4);
    expect(view.texts('.counts')).toEqual(['1–', '11']);
    expect(names()).toEqual(['Waiting', 'Worry', 'Waiting', 'Worry']);
    // what only the second has comes where the codebook has it, not behind all others
    view.session.run(codePlace({ documentId: ids['Two']!, place: { start: 34, end: 39 }, codeIds: [ids['Boats']!] }));
    await until(() => names().length === 6);
    expect(names().slice(0, 3)).toEqual(['Boats', 'Waiting', 'Worry']);
    // a document that goes is no longer asked for
    view.session.run(deleteDocuments([ids['Two']!], [two]));
    await until(() => view.all('section').length === 1);
  });

  it('is walked by the keys, and read from', async () => {
    const went = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const picture = view.find('.picture');
    await view.press(picture, 'ArrowRight');
    await until(() => view.find('.reading').textContent!.includes('We waited'));
    await view.press(picture, 'Enter');
    expect(went.calls.mostRecent().args[0]).toContain(ids['One']!);
  });

  it('is taken out as a drawing with its names, threads and speakers', () => {
    const piece = { start: 0, end: 5, from: 0.25, to: 0.5, passageId: ids['One']! };
    const svg = weaveDrawing(
      [
        {
          title: 'One <&>',
          marks: [{ at: 0.5, name: 'Why?' }],
          threads: [{ entry: { key: ids['Waiting']!, path: ['Waiting'], id: ids['Waiting']! }, place: 0, passages: 1, pieces: [piece] }],
          weave: {
            ...{ documentId: ids['One']!, threads: [], open: [{ start: 5, end: 9, from: 0.5, to: 1 }], marks: [] },
            speakers: [{ name: 'Ann', interviewer: false, pieces: [piece] }],
          },
        },
      ],
      TestBed.inject(Store).selectSignal(selectData)()!.tables.code,
    );
    expect([...svg.querySelectorAll('text')].map((one) => one.textContent)).toEqual([
      'One <&>',
      '1',
      'Wa',
      'Waiting',
      '1',
      'uncoded',
      'Ann',
    ]);
    const widths = [...svg.querySelectorAll('rect')].map((one) => Number(one.getAttribute('width')));
    expect(widths[0]! * 2).toBeCloseTo(widths[1]!);
    expect(svg.viewBox.baseVal.height).toBeGreaterThan(80);
  });
});

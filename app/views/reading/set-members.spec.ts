import { until as untilSo } from '../../testing/until';
import { TestBed } from '@angular/core/testing';
import { addCodeSet } from '@core/commands/code-sets';
import type { Id } from '@core/model/ids';
import type { CodeUse } from '@core/passages/code-use';
import { AnalysisService } from '../../workers/analysis-service';
import { readingPane, type ReadingPane } from '../../testing/reading-pane';
import { SetMembers } from './set-members';

describe('the members of a set of codes', () => {
  let pane: ReadingPane;
  let members: SetMembers;
  let answers: (ReadonlyMap<Id, CodeUse> | null)[];
  let asked: number;
  const codes: Record<string, Id> = {};
  const names = () => [...(members.members() ?? [])].map((id) => pane.here.codes()[id]!.name);
  const setNamed = (name: string) =>
    Object.values(pane.session.done.flatMap((one) => one.change)).find((one) => one.type === 'codeSet' && one.after?.name === name)!.after!
      .id;
  const look = (id: Id) => {
    pane.here.slipChoice.set({ of: 'set', id });
    TestBed.tick();
  };
  const until = (there: () => boolean) => untilSo(there, () => TestBed.tick());

  beforeEach(() => {
    answers = [];
    asked = 0;
    TestBed.configureTestingModule({
      providers: [
        { provide: AnalysisService, useValue: { codeUse: async () => (asked++, answers.length > 1 ? answers.shift() : answers[0]) } },
      ],
    });
    pane = readingPane(['We waited.'], (bench, document) => {
      codes['Waiting'] = bench.addCode('Waiting');
      codes['Help'] = bench.addCode('Help');
      bench.code(document, 0, 9, codes['Waiting']);
    });
    members = TestBed.inject(SetMembers);
  });

  it('are those put in by hand, or those that meet its conditions, as the study is now', () => {
    pane.session.run(addCodeSet('By hand', [codes['Help']!]));
    pane.session.run(addCodeSet('Used', [], [{ about: 'passages fewer than', number: 1, opposite: true }]));
    look(setNamed('By hand'));
    expect(names()).toEqual(['Help']);
    look(setNamed('Used'));
    expect(names()).toEqual(['Waiting']);
    pane.surface.selectWords('We');
    pane.work.code(pane.work.place()!, { codeId: codes['Help']! });
    expect(names().sort()).toEqual(['Help', 'Waiting']);
    look('gone');
    expect(members.members()).toBeNull();
    expect(asked).toBe(0);
  });

  it('wait for the worker where cases have to be counted, and ask again where another question came between', async () => {
    const use = (cases: number) => ({ cases }) as CodeUse;
    answers = [null, new Map([[codes['Waiting']!, use(3)]])];
    pane.session.run(addCodeSet('Rare', [], [{ about: 'cases fewer than', number: 2, opposite: false }]));
    look(setNamed('Rare'));
    expect(members.members()).toBeNull();
    await until(() => members.members() !== null);
    expect(names()).toEqual(['Help']);
    expect(asked).toBe(2);
  });
});

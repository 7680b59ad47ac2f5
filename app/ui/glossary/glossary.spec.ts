import { TestBed } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import { addGloss } from '@core/commands/glosses';
import { Bench } from '@core/testing/make';
import { Store } from '@ngrx/store';
import { selectGlosses } from '../../state/study.selectors';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { analysisHere } from '../../testing/analysis-here';
import { Glossary } from './glossary';

describe('the glossary', () => {
  let glossary: Drawn<Glossary>;
  let closed = 0;
  const glosses = () =>
    Object.values(TestBed.inject(Store).selectSignal(selectGlosses)())
      .map(({ term, forms, meaning }) => [term, forms.join('; '), meaning])
      .sort();
  const field = (at: number) => glossary.all('form input, form textarea')[at] as HTMLInputElement;
  const submit = async () => {
    glossary.find('form').dispatchEvent(new Event('submit', { cancelable: true }));
    await glossary.settle();
  };

  beforeEach(async () => {
    localStorage.clear();
    closed = 0;
    const bench = new Bench();
    bench.run(addGloss({ term: 'haar', forms: [], meaning: 'sea fog' }));
    bench.run(addGloss({ term: 'slip', forms: ['slips'], meaning: 'where boats land' }));
    glossary = await drawn(Glossary, bench, {}, [
      { provide: MAT_DIALOG_DATA, useValue: '' },
      { provide: MatDialogRef, useValue: { close: () => closed++ } },
      analysisHere,
    ]);
  });
  afterEach(() => localStorage.clear());

  it('keeps the other forms of a word with that word, whichever was looked at meanwhile', async () => {
    await glossary.click(glossary.button('haar'));
    await glossary.type(field(1), 'haars');
    await glossary.click(glossary.button('slip'));
    expect(field(1).value).toBe('slips');
    await submit();
    expect(glosses()).toEqual([
      ['haar', '', 'sea fog'],
      ['slip', 'slips', 'where boats land'],
    ]);
    // what was typed for the first is there when it comes up again
    await glossary.click(glossary.button('haar'));
    expect(field(1).value).toBe('haars');
    await submit();
    expect(glosses()[0]).toEqual(['haar', 'haars', 'sea fog']);
  });

  it('says beside the form why a word is refused, and lets all stand as it was typed', async () => {
    await glossary.type(field(0), 'Haar');
    await glossary.type(field(2), 'another meaning');
    await submit();
    expect(closed).toBe(0);
    expect(glossary.find('[role=alert]').textContent).toContain('“haar” is defined already');
    expect(field(2).value).toBe('another meaning');
  });
});

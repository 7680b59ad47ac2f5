import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { addAttribute, attributesOf, setValues } from '@core/commands/attributes';
import { addCase } from '@core/commands/cases';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { selectData } from '../../../state/study.selectors';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { AttributeList } from './attribute-list';

describe('the attributes of a study', () => {
  let list: Drawn<AttributeList>;
  const state = () => TestBed.inject(Store).selectSignal(selectData)()!;
  const names = (of: 'case' | 'document' = 'case') => attributesOf(state(), of).map((one) => one.name);
  const named = (name: string) => attributesOf(state(), 'case').find((one) => one.name === name)!;
  const table = () => list.all('tbody tr').map((row) => [...row.querySelectorAll('th, .number')].map((cell) => cell.textContent.trim()));
  const pick = (name: string) => list.click(list.all('.pick').find((one) => one.textContent.includes(name))!);
  const tick = async (value: string) => {
    const label = list.all('tbody label').find((one) => one.textContent.trim() === value)!;
    label.querySelector('input')!.click();
    await list.settle();
  };
  const values = (name: string) => {
    const { id } = named(name);
    return Object.values(state().tables.case).map((one) => one.values[id]);
  };

  beforeEach(async () => {
    const bench = new Bench();
    const owners: Id[] = [];
    for (const name of ['Shona', 'Calum', 'Mhairi', 'Iain']) {
      owners.push(bench.newId());
      bench.run(addCase(name, owners.at(-1)));
    }
    bench.run(addAttribute('case', 'age', 'number'));
    bench.run(addAttribute('case', 'home', 'choice', ['Gull Bay', 'gull bay', 'Saltpans']));
    bench.run(addAttribute('case', 'note', 'text'));
    const [age, home, note] = attributesOf(bench.state, 'case');
    const raw = (attributeId: Id, ...given: string[]) => given.map((one, at) => ({ ownerId: owners[at]!, attributeId, raw: one }));
    bench.run(setValues(raw(age!.id, '44', '9', '58')));
    bench.run(setValues(raw(home!.id, 'Gull Bay', 'gull bay', 'Saltpans')));
    bench.run(setValues(raw(note!.id, '12', 'twelve', '7')));
    list = await drawn(AttributeList, bench);
  });

  it('show how their values are distributed, and how many are not known', async () => {
    expect(table()).toEqual([
      ['9', '1'],
      ['44', '1'],
      ['58', '1'],
      ['not known', '1'],
    ]);
    expect(list.host.textContent).toContain('Counts participants: 3 of 4 have a value.');
    await pick('home');
    expect(table().map(([value]) => value)).toEqual(['Gull Bay', 'gull bay', 'Saltpans', 'not known']);
  });

  it('are added, moved and renamed', async () => {
    const box = list.find<HTMLInputElement>('[aria-label="New attribute of documents"]');
    box.value = 'weather';
    box.closest('form')!.dispatchEvent(new Event('submit', { cancelable: true }));
    await list.settle();
    expect(names('document')).toEqual(['weather']);
    await list.click(list.button('Move home up'));
    expect(names()).toEqual(['home', 'age', 'note']);
    await pick('age');
    list.answers.text = 'years of age';
    await list.click(list.button('Rename'));
    expect(names()).toEqual(['home', 'years of age', 'note']);
  });

  it('change their type only after showing what does not fit', async () => {
    await pick('note');
    list.answers.yes = false;
    await list.type('header select', 'number', 'change');
    expect(list.answers.asked).toEqual(['Make “note” a number?']);
    expect(named('note').type).toBe('text');
    expect(list.find<HTMLSelectElement>('header select').value).toBe('text');
    list.answers.yes = true;
    await list.type('header select', 'number', 'change');
    expect(values('note')).toEqual([12, undefined, 7, undefined]);
    list.session.undo();
    expect(values('note')).toEqual(['12', 'twelve', '7', undefined]);
  });

  it('join values that mean the same, and keep the order they are given', async () => {
    await pick('home');
    await tick('Gull Bay');
    await tick('gull bay');
    list.answers.text = 'Gull Bay';
    await list.click(list.button('Join 2 values'));
    expect(values('home')).toEqual(['Gull Bay', 'Gull Bay', 'Saltpans', undefined]);
    await list.click(list.button('Move Saltpans up'));
    expect(named('home').choices).toEqual(['Saltpans', 'Gull Bay']);
    expect(table()[0]![0]).toBe('Saltpans');
  });

  it('are grouped in bands as a new attribute, and what are no bands is refused', async () => {
    list.answers.text = '40, 20';
    await list.click(list.button('Group in bands'));
    expect(list.answers.refusals.at(-1)).toContain('These are no bands');
    list.answers.text = '20, 50';
    await list.click(list.button('Group in bands'));
    // beside the one it was made from
    expect(names()).toEqual(['age', 'age in bands', 'home', 'note']);
    expect(new Set(values('age in bands')).size).toBe(4);
    expect(values('age')).toEqual([44, 9, 58, undefined]);
  });

  it('are deleted after saying how many values go', async () => {
    await list.click(list.button('Delete'));
    expect(list.answers.asked).toEqual(['Delete “age”?']);
    expect(names()).toEqual(['home', 'note']);
    expect(Object.values(state().tables.case).every((one) => Object.keys(one.values).length <= 2)).toBeTrue();
  });
});

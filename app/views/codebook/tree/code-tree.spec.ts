import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { addCodeSet } from '@core/commands/code-sets';
import type { Code } from '@core/model/code';
import type { Id } from '@core/model/ids';
import { Bench } from '@core/testing/make';
import { analysisHere } from '../../../testing/analysis-here';
import { selectCodes } from '../../../state/study.selectors';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { CodeTree } from './code-tree';
import { TreeSettings } from './tree-settings';

describe('the tree of codes', () => {
  let tree: Drawn<CodeTree>;
  const ids: Record<string, Id> = {};
  const code = (name: string): Code => Object.values(TestBed.inject(Store).selectSignal(selectCodes)()).find((one) => one.name === name)!;
  const row = (name: string) => tree.find(`[data-code="${ids[name]}"]`);
  /** Names of the rows, indented by level. */
  const shown = () =>
    tree
      .all('[role=treeitem]')
      .map((one) => '>'.repeat(Number(one.getAttribute('aria-level')) - 1) + one.querySelector('.name')!.textContent);
  const drag = async (name: string, onto: string, part = 0.7) => {
    const dataTransfer = new DataTransfer();
    row(name).dispatchEvent(new DragEvent('dragstart', { bubbles: true, dataTransfer }));
    const box = row(onto).getBoundingClientRect();
    for (const type of ['dragover', 'drop'])
      row(onto).dispatchEvent(new DragEvent(type, { bubbles: true, cancelable: true, dataTransfer, clientY: box.top + box.height * part }));
    await tree.settle();
  };

  beforeEach(async () => {
    localStorage.clear();
    const bench = new Bench();
    ids['Feelings'] = bench.addCode('Feelings');
    ids['Worry'] = bench.addCode('Worry', ids['Feelings']);
    ids['Relief'] = bench.addCode('Relief', ids['Feelings']);
    ids['Crossing'] = bench.addCode('Crossing');
    ids['Waiting'] = bench.addCode('Waiting', ids['Crossing']);
    const document = bench.addDocument('One', ['We waited at the pier and were worried all night.']);
    bench.code(document, 0, 9, ids['Waiting']);
    bench.code(document, 10, 20, ids['Worry'], ids['Waiting']);
    bench.run(addCodeSet('Mine', [ids['Worry']]));
    tree = await drawn(CodeTree, bench, {}, [analysisHere]);
  });
  afterEach(() => {
    TestBed.inject(TreeSettings).typed.set('');
    localStorage.clear();
  });

  it('shows codes under their categories with passages counted once for each, and unused structure apart', () => {
    expect(shown()).toEqual(['Feelings', '>Worry', '>Relief', 'Crossing', '>Waiting']);
    expect(row('Feelings').querySelector('.passages')!.textContent).toBe('1');
    expect(row('Crossing').querySelector('.passages')!.textContent).toBe('2');
    expect(row('Relief').querySelector('.passages')!.textContent).toBe('–');
    expect(row('Crossing').classList).toContain('structure');
  });

  it('is walked, folded and unfolded by keyboard, as trees are', async () => {
    await tree.click(row('Feelings'));
    await tree.press(row('Feelings'), 'ArrowDown');
    expect(document.activeElement).toBe(row('Worry'));
    await tree.press(row('Worry'), 'ArrowLeft');
    expect(document.activeElement).toBe(row('Feelings'));
    await tree.press(row('Feelings'), 'ArrowLeft');
    expect(shown()).toEqual(['Feelings', 'Crossing', '>Waiting']);
    expect(row('Feelings').getAttribute('aria-expanded')).toBe('false');
    await tree.press(row('Feelings'), 'ArrowRight');
    expect(shown().length).toBe(5);
    await tree.press(row('Feelings'), 'End');
    expect(document.activeElement).toBe(row('Waiting'));
  });

  it('moves a code by keyboard among its siblings, out of its category and into another', async () => {
    await tree.click(row('Relief'));
    await tree.press(row('Relief'), 'ArrowUp', { altKey: true });
    expect(shown().slice(0, 3)).toEqual(['Feelings', '>Relief', '>Worry']);
    await tree.press(row('Relief'), 'ArrowLeft', { altKey: true });
    expect(shown()).toEqual(['Feelings', '>Worry', 'Relief', 'Crossing', '>Waiting']);
    await tree.press(row('Relief'), 'ArrowRight', { altKey: true });
    expect(code('Relief').parentId).toBe(ids['Feelings']!);
    expect(document.activeElement).toBe(row('Relief'));
  });

  it('moves by drag: onto a code under it, onto its upper edge before it, and never under itself', async () => {
    await drag('Waiting', 'Feelings');
    expect(code('Waiting').parentId).toBe(ids['Feelings']!);
    await drag('Crossing', 'Feelings', 0.1);
    expect(shown()[0]).toBe('Crossing');
    await drag('Feelings', 'Worry');
    expect(code('Feelings').parentId).toBeNull();
    expect(tree.session.refused.length).toBe(1);
  });

  it('moves several chosen codes together as one step', async () => {
    await tree.click(row('Worry'));
    await tree.click(row('Relief'), { shiftKey: true });
    expect(tree.texts('[role=toolbar] strong')).toEqual(['2 codes chosen']);
    await drag('Worry', 'Crossing');
    expect([code('Worry').parentId, code('Relief').parentId]).toEqual([ids['Crossing']!, ids['Crossing']!]);
    expect(tree.session.done.length).toBe(1);
    await tree.press(row('Worry'), 'Escape');
    expect(tree.all('[role=toolbar]').length).toBe(0);
  });

  it('chooses further ones with Space, and does nothing to what a filter or a folded category hides', async () => {
    await tree.click(row('Worry'));
    await tree.press(row('Worry'), 'ArrowDown', { ctrlKey: true });
    await tree.press(row('Relief'), ' ');
    await tree.press(row('Relief'), 'ArrowDown', { ctrlKey: true });
    await tree.press(row('Crossing'), ' ');
    expect(tree.find('.bar strong').textContent).toBe('3 codes chosen');
    await tree.type('[aria-label="Find a code"]', 'Worry');
    tree.answers.yes = false;
    await tree.press(row('Worry'), 'Delete');
    expect(tree.answers.asked).toEqual(['Delete “Worry”?']);
    await tree.type('[aria-label="Find a code"]', '');
    await tree.press(row('Relief'), 'Delete');
    expect(tree.answers.asked.at(-1)).toBe('Delete 3 codes?');
    // chosen with Space, one is taken back the same way
    await tree.press(row('Crossing'), ' ');
    expect(tree.find('.bar strong').textContent).toBe('2 codes chosen');
  });

  it('takes a key for the row that has the focus, not for the code chosen before', async () => {
    await tree.click(row('Worry'));
    row('Waiting').focus();
    tree.answers.yes = false;
    await tree.press(row('Waiting'), 'Delete');
    expect(tree.answers.asked).toEqual(['Delete “Waiting”?']);
    await tree.press(row('Relief'), 'N', { shiftKey: false });
    expect(tree.answers.asked.at(-1)).toBe('New code under Feelings');
  });

  it('finds by letters, in any field, without the tree’s indentation hiding anything', async () => {
    await tree.type('[aria-label="Find a code"]', 'wai');
    expect(shown().map((name) => name.replace(/>/g, ''))).toEqual(['Waiting']);
    await tree.type('[aria-label="Find a code"]', 'no such code');
    expect(tree.find('.none').textContent).toContain('No code fits');
  });

  it('says where a code is that was made while a filter leaves it out, and shows all with it', async () => {
    await tree.type('[aria-label="Find a code"]', 'wai');
    tree.answers.text = 'Something else';
    await tree.click(tree.button('New code'));
    expect(shown().map((name) => name.replace(/>/g, ''))).toEqual(['Waiting']);
    expect(tree.find('.none').textContent).toContain('“Something else” was made');
    await tree.click(tree.button('Show all codes'));
    expect(shown()).toContain('Something else');
    expect(tree.all('.none').length).toBe(0);
    expect(TestBed.inject(TreeSettings).typed()).toBe('');
  });

  it('says of a code that was made with all in sight nothing when one filters later', async () => {
    tree.answers.text = 'Something else';
    await tree.click(tree.button('New code'));
    await tree.type('[aria-label="Find a code"]', 'no such code');
    expect(tree.find('.none').textContent).toContain('No code fits');
  });

  it('shows a set alone, and goes back to all', async () => {
    const settings = TestBed.inject(TreeSettings);
    settings.setId.set(Object.keys(tree.fixture.componentInstance['setTable']())[0]!);
    await tree.settle();
    expect(shown().map((name) => name.replace(/>/g, ''))).toEqual(['Worry']);
    settings.setId.set(null);
    await tree.settle();
    expect(shown().length).toBe(5);
  });

  it('deletes after naming what goes, and shows the code that comes to stand there', async () => {
    await tree.click(row('Worry'));
    tree.answers.yes = false;
    await tree.press(row('Worry'), 'Delete');
    expect(tree.answers.asked).toEqual(['Delete “Worry”?']);
    expect(shown().length).toBe(5);
    tree.answers.yes = true;
    await tree.press(row('Worry'), 'Delete');
    expect(shown()).toEqual(['Feelings', '>Relief', 'Crossing', '>Waiting']);
  });

  it('makes a code beside or under the one at hand', async () => {
    await tree.click(row('Worry'));
    tree.answers.text = 'Longing';
    await tree.press(row('Worry'), 'n');
    expect(tree.answers.asked).toEqual(['New code under Feelings']);
    expect(code('Longing').parentId).toBe(ids['Feelings']!);
  });
});

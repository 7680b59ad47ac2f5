import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { addFolder, moveDocuments } from '@core/commands/documents';
import { Bench } from '@core/testing/make';
import { selectDocuments } from '../../../state/study.selectors';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { DocumentTable } from './document-table';

describe('the table of documents', () => {
  let table: Drawn<DocumentTable>;
  let bench: Bench;
  const titles = () => table.texts('.row:not(.head) .title');
  const documents = () => Object.values(TestBed.inject(Store).selectSignal(selectDocuments)());
  const select = async (...chosen: string[]) => {
    for (const title of chosen) {
      const box = table.find<HTMLInputElement>(`[aria-label="Select ${title}"]`);
      box.checked = !box.checked;
      box.dispatchEvent(new Event('change'));
      await table.settle();
    }
  };
  const menu = async (button: string, entry: string) => {
    await act(button);
    await table.click(table.button(entry));
  };
  /** A button of the line at the foot, about what is selected. */
  const act = (words: string) => table.click(table.all('footer button').find((one) => one.textContent.trim() === words)!);

  beforeEach(async () => {
    localStorage.clear();
    bench = new Bench();
    bench.addDocument('Interview 10', ['We waited at the pier for the boat.']);
    bench.addDocument('Interview 9', ['One word.']);
    const note = bench.addDocument('Field note', ['Dark, and very dark.']);
    bench.run(addFolder('Notes', null));
    bench.run(moveDocuments([note.id], Object.keys(bench.state.tables.folder)[0]!));
    table = await drawn(DocumentTable, bench, {}, [], { width: 1_200, height: 600 });
  });
  afterEach(() => localStorage.clear());

  it('sorts titles as people expect, and by any column, either way', async () => {
    expect(titles()).toEqual(['Field note', 'Interview 9', 'Interview 10']);
    await table.click(table.button('Words'));
    expect(titles()).toEqual(['Interview 9', 'Field note', 'Interview 10']);
    await table.click(table.button('Words'));
    expect(titles()[0]).toBe('Interview 10');
  });

  it('finds in titles and in what the columns say, and shows a folder alone', async () => {
    await table.type('[aria-label="Find in the table"]', 'interview 9');
    expect(titles()).toEqual(['Interview 9']);
    expect(table.find('[role=status]').textContent).toBe('1 of 3');
    await table.type('[aria-label="Find in the table"]', '');
    await table.click(table.button('Notes 1'));
    expect(titles()).toEqual(['Field note']);
  });

  it('says what kind several documents are in one step', async () => {
    await select('Interview 9', 'Interview 10');
    await menu('Kind', 'focus group');
    expect(
      documents()
        .map((one) => one.kind)
        .sort(),
    ).toEqual(['focus group', 'focus group', 'interview']);
    expect(table.session.sentences).toEqual(['made 2 documents of the kind focus group']);
    table.session.undo();
    expect(documents().every((one) => one.kind === 'interview')).toBeTrue();
  });

  it('moves, dates and renames what is chosen, and refuses what is no date', async () => {
    await select('Interview 9');
    await menu('Move', 'Notes');
    expect(table.session.sentences.at(-1)).toBe('moved 1 document to Notes');
    table.answers.text = 'the other day';
    await act('Date');
    expect(table.answers.refusals.at(-1)).toContain('“the other day” is not a day there is');
    table.answers.text = '2025-02-30';
    await act('Date');
    expect(table.answers.refusals.at(-1)).toContain('“2025-02-30” is not a day there is');
    table.answers.text = '2025-03-01';
    await act('Date');
    expect(documents().find((one) => one.title === 'Interview 9')!.date).toBe('2025-03-01');
    table.answers.text = 'Interview nine';
    await act('Rename');
    expect(titles()).toContain('Interview nine');
  });

  it('offers joining for just two, and the things of one for just one', async () => {
    const offered = () => table.texts('footer button');
    await select('Interview 9');
    expect(offered()).toContain('Describe');
    expect(offered()).not.toContain('Join');
    await select('Interview 10');
    expect(offered()).toContain('Join');
    expect(offered()).not.toContain('Describe');
    await table.type('[aria-label="Select all"]', 'on', 'change');
  });

  it('shows other columns when they are wanted, and remembers them', async () => {
    expect(table.texts('[role=columnheader]').join(' ')).not.toContain('Last read');
    await table.click(table.button('Columns'));
    const box = [...document.querySelectorAll<HTMLLabelElement>('.column-choices label')].find((one) =>
      one.textContent.includes('Last read'),
    )!;
    box.querySelector('input')!.click();
    await table.settle();
    expect(table.texts('[role=columnheader]').join(' ')).toContain('Last read');
    expect(localStorage.getItem('filum-document-columns') ?? JSON.stringify(localStorage)).toContain('read');
  });

  it('opens a document on a double click', async () => {
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    table.all('.row:not(.head)')[0]!.dispatchEvent(new MouseEvent('dblclick', { bubbles: true }));
    expect(navigate.calls.mostRecent().args[0].slice(2, 3)).toEqual(['reading']);
  });

  it('deletes only after saying what goes', async () => {
    await select('Field note');
    table.answers.yes = false;
    await act('Delete');
    expect(table.answers.asked).toEqual(['Delete “Field note”?']);
    expect(documents().length).toBe(3);
  });
});

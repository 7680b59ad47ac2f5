import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { addAttribute } from '@core/commands/attributes';
import { writeXlsx } from '@core/formats/xlsx/write-xlsx';
import { Bench } from '@core/testing/make';
import { Notices } from '../../../state/notices';
import { selectData } from '../../../state/study.selectors';
import { drawn, type Drawn } from '../../../testing/component-with-study';
import { FilesAtHand } from '../../../testing/files-at-hand';
import { until } from '../../../testing/until';
import { FilesService } from '../../../workers/files-service';
import { Import } from './import';

describe('bringing files in', () => {
  let page: Drawn<Import>;
  let files: FilesAtHand;
  const tables = () => TestBed.inject(Store).selectSignal(selectData)()!.tables;
  const documents = () => Object.values(tables().document);
  const said = () => TestBed.inject(Notices).current()?.text ?? '';
  const listed = () => page.texts('.file .name');
  const preview = () => page.texts('.text .words');
  const file = (name: string, content: string) => new File([content], name);
  /** Until all is read that will be read, and the file that is shown has its preview. */
  const looked = () =>
    until(
      () => {
        const reading = page.texts('.file .second').filter((text) => text.startsWith('reading…')).length;
        if (listed().length === 0 || reading > files.endless.length) return false;
        return reading === listed().length || page.host.querySelector('.text, .plan, .body [role=alert]') !== null;
      },
      () => page.fixture.detectChanges(),
    );
  const choose = async (...some: File[]) => {
    const transfer = new DataTransfer();
    for (const one of some) transfer.items.add(one);
    const picker = page.find<HTMLInputElement>('[aria-label="Files to bring in"]');
    picker.files = transfer.files;
    picker.dispatchEvent(new Event('change'));
    await looked();
  };
  const bringIn = async (words: string) => {
    TestBed.inject(Notices).dismiss();
    await page.click(page.button(words));
    await until(() => said() !== '');
    await page.settle();
  };

  beforeEach(async () => {
    const bench = new Bench();
    files = new FilesAtHand(
      () => TestBed.inject(Store).selectSignal(selectData)()!,
      () => [...bench.texts.values()],
    );
    bench.addCode('Worry');
    page = await drawn(Import, bench, {}, [{ provide: FilesService, useValue: files }], { width: 1_200, height: 700 });
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
  });
  afterEach(() => TestBed.inject(Notices).dismiss());

  it('shows each file before anything is stored, and stores all as one step', async () => {
    await choose(file('one.txt', 'I: How often?\nShona: Twice a week.'), file('two.txt', 'Just a note.'));
    expect(listed()).toEqual(['one', 'two']);
    expect(preview()).toEqual(['How often?', 'Twice a week.']);
    expect(documents()).toEqual([]);
    await bringIn('Bring in 2 files');
    expect(
      documents()
        .map((one) => one.title)
        .sort(),
    ).toEqual(['one', 'two']);
    expect(page.session.sentences).toEqual(['brought in 2 documents']);
    expect(said()).toBe('2 documents are in.');
    page.session.undo();
    expect(documents()).toEqual([]);
  });

  it('says of a file that cannot be read what is wrong, and the others go on', async () => {
    await choose(file('broken.docx', '%PDF-1.7 not a Word file'), file('good.txt', 'Words.'));
    expect(page.texts('.file .bad')[0]).toContain('but a PDF');
    await bringIn('Bring in this document');
    expect(documents().map((one) => one.title)).toEqual(['good']);
    expect(said()).toContain('Left out: broken.docx could not be read.');
  });

  it('stops reading, and keeps what was read', async () => {
    files.endless = ['long.pdf'];
    await choose(file('good.txt', 'Words.'), file('long.pdf', '%PDF-'));
    expect(page.texts('.file .second')).toContain('reading…');
    await page.click(page.button('Stop'));
    expect(listed()).toEqual(['good']);
    expect(said()).toBe('Stopped. 1 file was not read; nothing is stored yet.');
    await bringIn('Bring in this document');
    expect(documents().length).toBe(1);
  });

  it('shows a guessed encoding with its words, and reads otherwise in a click', async () => {
    await choose(new File([new Uint8Array([0x43, 0x61, 0x66, 0xe9])], 'cafe.txt'));
    expect(preview()).toEqual(['Café']);
    expect(page.find('fl-encoding-samples').textContent).toContain('The encoding is a guess');
    expect([page.find('.taken strong').textContent, page.find('.taken .words').textContent]).toEqual(['windows-1252', 'Café']);
    await page.click(page.all('fl-encoding-samples button').find((one) => one.textContent.includes('macintosh'))!);
    await until(
      () => preview().join() === 'CafÈ',
      () => page.fixture.detectChanges(),
    );
    expect(page.host.querySelector('fl-encoding-samples')).toBeNull();
  });

  it('asks for the encoding where none clearly fits, by the words that tell', async () => {
    const words = 'Señor Peña habló de la niñez en A Coruña, y de cómo se marchó.';
    await choose(new File([Uint8Array.from(words, (sign) => sign.charCodeAt(0))], 'peña.txt'));
    expect(page.find('[role=alert]').textContent).toContain('Choose the encoding');
    await page.click(page.all('fl-encoding-samples button').find((one) => one.textContent.includes('niñez'))!);
    await until(
      () => preview().join() === words,
      () => page.fixture.detectChanges(),
    );
  });

  it('shows the ways in which a text can be read, and reads it in another one', async () => {
    const turns = ['Mara\nWhere did you wait?\nOn the pier?', 'Shona\nOn the pier.', 'Mara\nHow long?', 'Shona\nUntil it came.'];
    await choose(file('above.txt', turns.join('\n\n')));
    expect(page.texts('.speakers tbody tr').length).toBe(2);
    const ways = () => page.all('.readings button');
    expect(ways().map((one) => one.getAttribute('aria-pressed'))).toEqual(['true', 'false', 'false']);
    await page.click(ways().find((one) => one.textContent.includes('9 paragraphs'))!);
    await until(
      () => preview()[0] === 'Mara',
      () => page.fixture.detectChanges(),
    );
    await page.click(ways().find((one) => one.textContent.includes('4 paragraphs'))!);
    await until(
      () => preview()[0] === 'Where did you wait? On the pier?',
      () => page.fixture.detectChanges(),
    );
    expect(page.texts('.speakers tbody tr').length).toBe(2);
  });

  it('offers what a file says of itself as attributes of its document', async () => {
    const head = (more: string) => `---\nplace: The Mile\nwaves: 3\nsent: 2025-01-22\n${more}---\nDark.`;
    await choose(file('one.md', head('mood: low\n')), file('two.md', head('')));
    expect(page.texts('[aria-label="What the file says of itself"] label')).toEqual([
      'place: The Mile',
      'waves: 3',
      'sent: 2025-01-22',
      'mood: low',
    ]);
    (page.all('[aria-label="What the file says of itself"] input')[1] as HTMLInputElement).click();
    await bringIn('Bring in 2 files');
    const attributes = Object.values(tables().attribute);
    expect(attributes.map(({ name, of, type }) => [name, of, type])).toEqual([
      ['place', 'document', 'text'],
      ['sent', 'document', 'date'],
      ['mood', 'document', 'text'],
    ]);
    const valued = documents().map(({ title, values }) => [title, attributes.map(({ id }) => values[id])]);
    expect(valued.sort()).toEqual([
      ['one', ['The Mile', '2025-01-22', 'low']],
      ['two', ['The Mile', '2025-01-22', undefined]],
    ]);
    // a later file with the same field has the same attribute, whatever its case
    await choose(file('three.md', '---\nPlace: Home\nsent: unknown\n---\nLight.'));
    await bringIn('Bring in this document');
    expect(Object.values(tables().attribute).map(({ name, type }) => `${name} ${type}`)).toEqual([
      'place text',
      'sent date',
      'mood text',
      'sent text',
    ]);
    page.session.undo();
    expect(Object.values(tables().attribute).length).toBe(3);
  });

  it('lets a known choice offer what a file says of itself, and takes that back with the undo', async () => {
    page.session.run(addAttribute('document', 'mood', 'choice', ['low']));
    const mood = () => Object.values(tables().attribute).find((one) => one.name === 'mood')!;
    await choose(file('one.md', '---\nmood: high\n---\nLight.'), file('two.md', '---\nmood: low\n---\nDark.'));
    await bringIn('Bring in 2 files');
    expect(mood().choices).toEqual(['low', 'high']);
    expect(
      documents()
        .map((one) => one.values[mood().id])
        .sort(),
    ).toEqual(['high', 'low']);
    page.session.undo();
    expect(mood().choices).toEqual(['low']);
  });

  it('asks for the password of a locked file, and says when it is not the one', async () => {
    const outcome = (password: 'asked' | 'wrong') => ({ trouble: 'It is locked.', encodings: [], remedy: { password } });
    const reading = spyOn(files, 'read').and.callFake((_key, _name, _file, options) =>
      Promise.resolve(outcome(options.password ? 'wrong' : 'asked')),
    );
    await choose(file('locked.pdf', '%PDF-'));
    const field = () => page.find<HTMLInputElement>('.unlock input');
    expect(field().getAttribute('aria-invalid')).toBe('false');
    field().value = 'ferry';
    page.find('.unlock').dispatchEvent(new Event('submit', { cancelable: true }));
    await until(
      () => page.host.querySelector('.unlock input')?.getAttribute('aria-invalid') === 'true',
      () => page.fixture.detectChanges(),
    );
    expect(reading.calls.mostRecent().args[3].password).toBe('ferry');
    await until(
      () => document.activeElement === field(),
      () => page.fixture.detectChanges(),
    );
  });

  it('says of a question that one file alone asks that it may be none', async () => {
    const questions = (...some: string[]) => some.map((one) => `Q: ${one}\nA: Well.`).join('\n');
    await choose(
      file('one.txt', questions('Why do you cross?', 'Who owns the boat?')),
      file('two.txt', questions('Why do you cross?', 'Who owns the boat?', 'Ring the office first')),
    );
    await page.click(page.all('.file > button').find((one) => one.textContent.includes('two'))!);
    await until(
      () => page.texts('.doubts li').length === 1,
      () => page.fixture.detectChanges(),
    );
    expect(page.texts('.doubts li')[0]).toContain('“Ring the office first” is asked in this file only');
  });

  it('notices content that is there already, and leaves it out unless told otherwise', async () => {
    await choose(file('one.txt', 'The same words.'));
    await bringIn('Bring in this document');
    await choose(file('again.txt', 'The same words.'));
    expect(page.texts('.file .second').join()).toContain('same content as “one”');
    expect(page.find<HTMLButtonElement>('footer .do').disabled).toBeTrue();
    await page.type('.known select', 'as new', 'change');
    await bringIn('Bring in this document');
    expect(
      documents()
        .map((one) => one.title)
        .sort(),
    ).toEqual(['again', 'one']);
  });

  it('says what looks wrong, joins a misspelt name, and takes speakers over to all files', async () => {
    const one = [
      'Place: Saltpans',
      'Mara: Where?',
      'Shona: Here.',
      'Mara: When?',
      'Shona: Now.',
      'Mara: Why?',
      'Shona: Because.',
      'Shnoa: Ask him.',
      'Shnoa: Yes.',
    ];
    const other = ['Mara: One?', 'Shona: Two.', 'Mara: Three?', 'Shona: Four.', 'Note: five', 'Note: six'];
    await choose(file('one.txt', one.join('\n')), file('other.txt', other.join('\n')));
    expect(page.find('.speakers-said').textContent).toContain('Place (1)');
    expect(page.texts('.doubts li')[0]).toContain('“Shnoa” may be “Shona”, misspelt.');
    await page.click(page.button('Join them'));
    await until(
      () => page.texts('.doubts li').length === 0,
      () => page.fixture.detectChanges(),
    );
    await page.click(page.all('.file > button').find((one) => one.textContent.includes('other'))!);
    await until(
      () => page.texts('.speakers tbody tr').length === 3,
      () => page.fixture.detectChanges(),
    );
    (
      page.all('.speakers tbody input[type=checkbox]').find((box) => box.parentElement!.textContent.includes('Note')) as HTMLInputElement
    ).click();
    await page.click(page.button('Speakers as here in all 2 files'));
    await bringIn('Bring in 2 files');
    const spoken = documents().map((document) => [document.title, document.speakers.map((speaker) => speaker.name)]);
    expect(spoken).toEqual([
      ['one', ['Mara', 'Shona']],
      ['other', ['Mara', 'Shona']],
    ]);
  });

  it('plans a table with its roles, and makes documents and cases of its rows', async () => {
    await choose(file('survey.csv', 'id,age,What do you fear?\nR1,44,"The night, and the sea in it, when the boat is late."\nR2,9,'));
    expect(page.find('.plan').textContent).toMatch(/2/);
    await bringIn('Bring in this table');
    expect(documents().length).toBe(2);
    expect(
      Object.values(tables().case)
        .map((one) => one.name)
        .sort(),
    ).toEqual(['R1', 'R2']);
    expect(Object.values(tables().question).map((one) => one.text)).toEqual(['What do you fear?']);
    expect(said()).toContain('survey.csv: 2 documents, 2 new and 0 changed participants.');
  });

  it('takes a question of a table for one that the study has in other words, unless told otherwise', async () => {
    await choose(file('one.csv', 'id,What will you lose when the ferry stops?\nR1,"The night, and the sea in it, when the boat is late."'));
    await bringIn('Bring in this table');
    await choose(file('two.csv', 'id,When the ferry stops what will you lose?\nR2,"All of it, the night and the sea and the boat."'));
    expect(page.find('.plan').textContent).toContain('1 new document');
    expect(page.find('.like').textContent).toContain('taken for “What will you lose when the ferry stops?”');
    await page.click(page.button('not the same'));
    await until(
      () => page.find('.like').textContent!.includes('a question of its own'),
      () => page.fixture.detectChanges(),
    );
    await page.click(page.button('undo'));
    await until(
      () => page.find('.like').textContent!.includes('taken for'),
      () => page.fixture.detectChanges(),
    );
    await bringIn('Bring in this table');
    expect(Object.values(tables().question).length).toBe(1);
    expect(documents().length).toBe(2);
  });

  it('brings in several sheets of a workbook together', async () => {
    const workbook = await writeXlsx([
      {
        name: 'Home',
        rows: [
          ['name', 'age'],
          ['Shona', '44'],
          ['Iain', '61'],
        ],
      },
      {
        name: 'Away',
        rows: [
          ['name', 'age'],
          ['Moira', '58'],
          ['Ewan', '9'],
        ],
      },
    ]);
    await choose(new File([workbook as BlobPart], 'people.xlsx'));
    await page.click(page.button('Bring in its other sheet too'));
    await until(
      () =>
        page.texts('.file .name').join() === 'people.xlsx, Home,people.xlsx, Away' &&
        page.texts('.file .second').every((one) => one === 'people.xlsx'),
      () => page.fixture.detectChanges(),
    );
    expect(page.host.textContent).not.toContain('The same file is in this list already');
    expect(page.host.textContent).not.toContain('other sheet');
    await bringIn('Bring in 2 files');
    expect(
      Object.values(tables().case)
        .map((one) => one.name)
        .sort(),
    ).toEqual(['Ewan', 'Iain', 'Moira', 'Shona']);
  });

  it('takes pasted text through the same preview', async () => {
    await page.click(page.button('Paste a text'));
    await page.type('.paste input', 'From a letter');
    await page.type('.paste textarea', 'Dear all,\n\nthe boat is late.');
    page.find('.paste').dispatchEvent(new Event('submit', { cancelable: true }));
    await looked();
    expect(preview()).toEqual(['Dear all,', 'the boat is late.']);
    await bringIn('Bring in this document');
    expect(documents().map((one) => [one.title, one.source])).toEqual([['From a letter', null]]);
  });

  it('stops reading when the place is left', async () => {
    files.endless = ['long.pdf'];
    await choose(file('long.pdf', '%PDF-'));
    const stop = spyOn(files, 'stopReading').and.callThrough();
    page.fixture.destroy();
    expect(stop).toHaveBeenCalled();
  });
});

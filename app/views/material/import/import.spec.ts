import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
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

  it('reads anew with another encoding where the bytes are not what they seem', async () => {
    await choose(new File([new Uint8Array([0x43, 0x61, 0x66, 0xe9])], 'cafe.txt'));
    expect(page.find('[role=alert]').textContent).toContain('Choose the encoding');
    await page.type('.trouble ~ label select', 'windows-1252', 'change');
    await until(
      () => preview().join() === 'Café',
      () => page.fixture.detectChanges(),
    );
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

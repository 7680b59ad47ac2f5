import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { Bench } from '@core/testing/make';
import { selectBackup } from '../../state/study.selectors';
import { drawn, type Drawn } from '../../testing/component-with-study';
import { FilesService } from '../../workers/files-service';
import { WriteUp } from './write-up';

describe('exports', () => {
  let page: Drawn<WriteUp>;
  let saved: { readonly name: string; readonly text: string }[];
  let writing: {
    readonly progress: (share: number) => void;
    readonly done: (bytes: Uint8Array<ArrayBuffer>) => void;
    readonly fail: (why: string) => void;
  } | null;
  let cancelled: number;
  let blobs: Blob[];
  const files = {
    writeStudyFile: (_id: string, _without: boolean, progress: (share: number) => void, signal: AbortSignal) =>
      new Promise((resolve, reject) => {
        const done = (bytes: Uint8Array<ArrayBuffer>): void => resolve({ file: new Blob([bytes]), through: page.session.done.length });
        writing = { progress, done, fail: (why) => reject(new Error(why)) };
        signal.addEventListener('abort', () => {
          cancelled++;
          resolve(null);
        });
      }),
  };
  const wait = async () => {
    for (let turn = 0; turn < 3; turn++) await page.settle();
    for (const [at, blob] of blobs.entries()) saved[at] = { name: saved[at]!.name, text: await blob.text() };
  };

  beforeEach(async () => {
    saved = [];
    blobs = [];
    writing = null;
    cancelled = 0;
    spyOn(URL, 'createObjectURL').and.callFake((blob) => {
      blobs.push(blob as Blob);
      return 'blob:none';
    });
    spyOn(HTMLAnchorElement.prototype, 'click').and.callFake(function (this: HTMLAnchorElement) {
      saved.push({ name: this.download, text: '' });
    });
    const bench = new Bench();
    const code = bench.addCode('=Worry');
    const document = bench.addDocument('Interview 03', ['Shona: They held the boat.'], ['Shona']);
    bench.code(document, 7, 11, code);
    page = await drawn(WriteUp, bench, {}, [{ provide: FilesService, useValue: files }]);
  });

  it('write codings as a table that spreadsheets run nothing of, and the log says so', async () => {
    await page.click(page.button('Export the codings'));
    await wait();
    expect(saved[0]!.name).toMatch(/^A study – codings \d{4}-\d\d-\d\d\.csv$/);
    expect(saved[0]!.text).toContain('Interview 03');
    expect(saved[0]!.text).toContain("'=Worry");
    expect(page.session.sentences).toEqual(['exported the codings of 1 document as CSV']);
  });

  it('write the codebook as a table', async () => {
    await page.click(page.button('Export the codebook'));
    await wait();
    expect(saved[0]!.name).toContain('codebook');
    expect(page.session.sentences).toEqual(['exported the codebook as CSV']);
  });

  it('write the study file with progress, and say when it was last exported', async () => {
    expect(page.find('[data-backup]').textContent).toContain('No study file has been exported');
    await page.click(page.button('Export the study file'));
    writing!.progress(0.4);
    await page.settle();
    expect(page.find<HTMLProgressElement>('progress').value).toBe(0.4);
    expect(page.find<HTMLButtonElement>('section button').disabled).toBeTrue();
    writing!.done(new Uint8Array([80, 75]));
    await wait();
    expect(saved[0]!.name).toMatch(/^A study .*\.filum$/);
    expect(page.find('[data-backup]').textContent).toContain('nothing has changed since');
    expect(TestBed.inject(Store).selectSignal(selectBackup)()).not.toBeNull();
  });

  it('is no backup without the history', async () => {
    await page.click(page.button('Export without the history'));
    writing!.done(new Uint8Array([80, 75]));
    await wait();
    expect(saved[0]!.name).toContain('without history');
    expect(TestBed.inject(Store).selectSignal(selectBackup)()).toBeNull();
  });

  it('can be cancelled, and what fails says why and that nothing was exported', async () => {
    await page.click(page.button('Export the study file'));
    await page.click(page.button('Cancel'));
    expect(cancelled).toBe(1);
    expect(page.all('progress').length).toBe(0);
    await page.click(page.button('Export the study file'));
    writing!.fail('the disk is full');
    await wait();
    expect(page.find('[role=alert]').textContent).toBe('Writing the study file failed: the disk is full. Nothing was exported.');
    expect(saved).toEqual([]);
  });
});

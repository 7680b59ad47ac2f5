import { TestBed } from '@angular/core/testing';
import { randomId } from '@core/model/ids';
import { FilesService } from './files-service';

describe('files read and stored in workers', () => {
  const PLAIN = { speakers: {}, nobody: [], markers: null };
  const read = (files: FilesService, key: number, name: string, content: string) => files.read(key, name, new Blob([content]), {});
  const place = () => ({ studyId: randomId(), seq: 1, coderId: randomId(), now: 1 });

  it('are kept by one worker, whichever read them, and shown from there', async () => {
    const files = TestBed.inject(FilesService);
    const outcomes = await Promise.all([
      read(files, 1, 'one.txt', 'Shona: They held the boat.\nShona: Twice.'),
      read(files, 2, 'two.md', '# A note\n\nDark.'),
      read(files, 3, 'table.csv', 'id,age\nR1,44\nR2,9'),
      read(files, 4, 'broken.docx', 'not a Word file'),
    ]);
    expect(outcomes.map((one) => Object.keys(one!)[0])).toEqual(['text', 'text', 'table', 'trouble']);
    expect((await files.preview(1, PLAIN, 10))!.paragraphs.length).toBe(2);
    expect((await files.preview(2, PLAIN, 10))!.paragraphs.map((one) => one.style)).toEqual(['heading1', 'body']);
    files.forget([1]);
    expect(await files.preview(1, PLAIN, 10)).toBeNull();
  });

  it('fail where there is no such study, with the reason', async () => {
    const files = TestBed.inject(FilesService);
    await expectAsync(files.storeMaterial(place(), [], [], [], 'brought in nothing')).toBeRejectedWithError(/not in this browser/);
  });
});

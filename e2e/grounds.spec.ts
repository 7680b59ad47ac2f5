import { expect, test } from '@playwright/test';
import { EMPTY_HISTORY } from '../core/change/journal';
import { readStudyFile } from '../core/formats/study-file/read-study-file';
import { writeStudyFile } from '../core/formats/study-file/write-study-file';
import { benchWithEverything } from '../core/testing/everything';
import { Filum } from './support/filum';

const bytesOf = async (file: Blob): Promise<Buffer> => Buffer.from(await file.arrayBuffer());

test('a study with a recording and a picture comes in, is looked at, and goes out again with every byte', async ({ page }) => {
  const bench = await benchWithEverything();
  const bundle = { state: bench.state, texts: bench.texts, media: bench.media, journal: [], history: EMPTY_HISTORY };
  const filum = new Filum(page);
  await page.goto('/');
  const study = await bytesOf(await writeStudyFile(bundle, 0));
  await page.getByLabel('Study file').setInputFiles({ name: 'grounds.filum', mimeType: '', buffer: study });
  await filum.goTo('Material');
  await page.getByRole('link', { name: 'Plan of the pier' }).click();
  // nothing is drawn in it
  await expect(page.getByText(/cannot show “Plan of the pier”, 16 bytes/)).toBeVisible();
  await expect(page.getByRole('button', { name: /at 3, 2 \(12 × 9 pixels\)/ })).toBeVisible();
  await filum.goTo('Material');
  await page.getByRole('link', { name: 'Ferry horn' }).click();
  await expect(page.getByText('A recording of 0:00')).toBeVisible();
  await filum.goTo('Overview');
  await filum.goTo('Write-up');
  const out = await filum.download(() => page.getByRole('button', { name: 'Export the study file' }).click());
  const back = await readStudyFile(new Blob([new Uint8Array(out.bytes)]));
  expect(back.state.tables.document).toEqual(bundle.state.tables.document);
  expect(Object.keys(back.state.passages)).toEqual(Object.keys(bundle.state.passages));
  expect(await Promise.all([...back.media.values()].map((one) => one.text()))).toEqual(['Ferry horn', 'Plan of the pier']);
});

import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { bringIn, file } from './support/bringing-in';
import { Filum } from './support/filum';
import { expect, test } from './support/one-sitting';

const SOUND = 'demo/media/pier-01.mp3';

const line = (page: Page) => page.getByRole('slider', { name: 'The recording as a line' });
const now = (page: Page) => line(page).getAttribute('aria-valuenow').then(Number);

/** Chooses files by the hidden field that every browser has. */
async function choose(page: Page, files: Parameters<ReturnType<Page['locator']>['setInputFiles']>[0]): Promise<void> {
  await page.getByLabel('Files to bring in').setInputFiles(files);
}

/** Brings the demo's recording into a new study, alone. */
async function withRecording(page: Page): Promise<Filum> {
  const filum = new Filum(page);
  await filum.newStudy();
  await bringIn(page);
  await choose(page, SOUND);
  await expect(page.getByText('1:45')).toBeVisible();
  await page.getByRole('textbox', { name: 'Title' }).fill('Ellen at the pier');
  await page.getByRole('button', { name: 'Bring in this document' }).click();
  await page.getByRole('link', { name: 'Ellen at the pier' }).click();
  await expect(page.getByRole('heading', { name: 'Transcripts' })).toBeVisible();
  return filum;
}

test('a recording is played by keys while one reads, its words followed, and a click in them goes to the sound', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.read('At the pier – Ellen');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeEnabled();
  await filum.text.focus();
  await page.keyboard.press('Control+Space');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await expect(page.locator('.spoken')).toHaveText('The brace.');
  await page.keyboard.press('Control+Space');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  await filum.caretAt('Well, this.');
  await expect.poll(() => now(page)).toBeGreaterThanOrEqual(59);
  await expect(line(page)).toHaveAttribute('aria-valuetext', /1:00 of 1:45, under The queue as a meeting place/);
  const before = await now(page);
  await page.keyboard.press('Control+ArrowLeft');
  await expect.poll(() => now(page)).toBe(before - 2);
  // the keys are the recording's, and nothing was typed or coded by them
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  await filum.accessible();
});

test('a span without words is coded on the line, by the pointer and by keys, and is played in place', async ({ page }) => {
  await withRecording(page);
  const box = (await line(page).boundingBox())!;
  const at = (share: number) => [box.x + box.width * share, box.y + 20] as const;
  await page.mouse.move(...at(0.2));
  await page.mouse.down();
  await page.mouse.move(...at(0.25));
  await page.mouse.move(...at(0.3));
  await page.mouse.up();
  await line(page).focus();
  await page.keyboard.press('c');
  await page.keyboard.type('Laughter');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^0:21–0:31$/ })).toBeVisible();
  await expect(line(page)).toBeFocused();
  // from here to there by keys alone
  await page.keyboard.press('Home');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('i');
  await expect(line(page)).toHaveAttribute('aria-valuetext', /marked 0:05–/);
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('o');
  await expect(line(page)).toHaveAttribute('aria-valuetext', /marked 0:05–0:11/);
  await page.keyboard.press('.');
  await expect(page.getByRole('button', { name: '0:05–0:11' })).toBeVisible();
  await page.keyboard.press('Alt+ArrowDown');
  await expect(page.getByRole('button', { name: '0:05–0:12' })).toBeVisible();
  await page.getByRole('complementary', { name: 'Codes and passage' }).getByRole('button', { name: 'Play' }).click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await expect(page.locator('[data-coverage]')).toHaveText('17 % coded');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: '0:05–0:11' })).toBeVisible();
});

test('two turns are transcribed by keys, with their times, speakers and short forms, and survive a reload half way', async ({ page }) => {
  const filum = await withRecording(page);
  await page.getByRole('button', { name: 'Transcribe it' }).click();
  await page.getByRole('button', { name: 'Begin it' }).click();
  const typed = page.getByRole('textbox', { name: /Transcribing the text of/ });
  await expect(typed).toBeFocused();
  await page.getByLabel('Who speaks').fill('I, Ellen');
  await page.getByLabel('Who speaks').press('Tab');
  await typed.focus();
  await page.keyboard.press('Control+Space');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Why are you crossing today?');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await expect.poll(() => now(page)).toBeGreaterThanOrEqual(3);
  await page.keyboard.press('Control+Space');
  await page.keyboard.press('Enter');
  await page.keyboard.type('The brace ;p my ');
  await page.keyboard.press('Control+.');
  await page.keyboard.type('by the rail.');
  await filum.accessible();
  await page.reload();
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(typed).toContainText('The brace (pause) my');
  await expect(typed.locator('.time-sign')).toHaveCount(2);
  await expect(page.getByRole('textbox', { name: 'Who speaks' })).toHaveValue('I, Ellen');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  const lines = page.locator('.cm-line');
  await expect(lines).toHaveCount(2);
  await expect(lines.first()).toHaveAttribute('data-speaker', 'I');
  await expect(lines.nth(1)).toHaveAttribute('data-speaker', 'Ellen');
  await expect(lines.nth(1)).toHaveAttribute('data-time', /0:0[2-9]/);
  await expect(page.locator('.unclear')).toHaveText(/\(unclear 0:0\d\)/);
});

test('the stand-in for a service makes a transcript, is shown as simulated, and its unsure words are walked through', async ({ page }) => {
  const filum = await withRecording(page);
  await page.getByRole('button', { name: 'Have it transcribed (simulated)' }).click();
  await expect(page.locator('.cm-line').first()).toContainText('Why are you crossing today?');
  await expect(page.locator('.place-head')).toContainText('by the transcribing service (simulated)');
  await expect(page.locator('.unsure').first()).toHaveText('brake.');
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Listen again to 6 words' }).click();
  const box = page.getByRole('textbox', { name: 'What is said there' });
  await expect(box).toHaveValue('brake.');
  await expect(box).toBeFocused();
  await box.fill('brace.');
  await page.keyboard.press('Enter');
  await expect(box).toHaveValue('cattle,');
  await expect(page.locator('.cm-line').nth(1)).toContainText('The brace.');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Listen again, 1 of 4')).toBeVisible();
  await filum.accessible();
});

test('a transcript of the same name comes in with its recording; one that is here is attached, and let go again', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await filum.paste('Notes on gestures', 'She turns to the queue. She points at the rail.');
  await bringIn(page);
  await choose(page, [SOUND, 'demo/media/pier-01.vtt']);
  await page.getByRole('button', { name: 'pier-01 pier-01.vtt' }).click();
  await expect(page.getByLabel('Transcript or description of')).toHaveValue(/file \d/);
  await page.getByRole('button', { name: 'Bring in 2 files' }).click();
  await page.getByRole('link', { name: 'pier-01' }).first().click();
  await page.getByRole('button', { name: 'Attach a text that is here' }).click();
  await page.getByLabel('The text that is its transcript').selectOption({ label: 'Notes on gestures' });
  await page.getByRole('button', { name: 'Attach it' }).click();
  const transcripts = page.getByRole('region', { name: 'Transcripts' }).getByRole('listitem');
  await expect(transcripts).toHaveCount(2);
  await page.getByRole('link', { name: 'Notes on gestures' }).click();
  await expect(line(page)).toBeVisible();
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await page.getByRole('menuitem', { name: 'It is no transcript of this recording' }).click();
  await expect(line(page)).toHaveCount(0);
});

test('two transcripts stand side by side, level by time; a time is moved where its words are heard', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await bringIn(page);
  const turns = Array.from({ length: 40 }, (_, at) => `[00:${String(at * 2).padStart(2, '0')}] Ellen: Turn ${at}, said at the pier.`);
  const stamped = turns.map((turn, at) =>
    turn.replace(/\[.*?\]/, `[00:0${Math.floor((at * 2) / 60)}:${String((at * 2) % 60).padStart(2, '0')}]`),
  );
  await choose(page, [
    { name: 'pier-01.mp3', mimeType: '', buffer: readFileSync(SOUND) },
    file('pier-01.txt', stamped.join('\n\n')),
    file('gestures.vtt', 'WEBVTT\n\n00:00.000 --> 00:30.000\nHands on the rail.\n\n00:30.000 --> 01:40.000\nPoints at the ferry.\n'),
  ]);
  await page.getByRole('button', { name: 'Bring in 3 files' }).click();
  await page.getByRole('link', { name: 'pier-01', exact: true }).first().click();
  await page.getByRole('button', { name: 'Attach a text that is here' }).click();
  await page.getByLabel('The text that is its transcript').selectOption({ label: 'gestures' });
  await page.getByRole('button', { name: 'Attach it' }).click();
  await page.getByRole('region', { name: 'Transcripts' }).getByRole('link', { name: 'gestures' }).click();
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Another document beside this one' }).click();
  // the other transcript, without being asked for; going to a time in one shows it in both
  const [left, right] = [page.locator('.cm-content').first(), page.locator('.cm-content').last()];
  await expect(right).toContainText('Turn 0, said');
  await left.getByText('Points at the ferry.').click();
  await expect.poll(() => now(page)).toBeGreaterThanOrEqual(30);
  await expect(right.getByText('Turn 24, said at the pier.')).toBeInViewport();
  await page.getByRole('button', { name: 'End side by side' }).click();

  await page.getByRole('button', { name: 'a part larger' }).click();
  await line(page).focus();
  await page.keyboard.press('Home');
  const larger = page.getByRole('slider', { name: 'A part of the recording, larger' });
  const box = (await larger.boundingBox())!;
  const grip = (await page.locator('fl-sound-line [data-time-mark]').first().boundingBox())!;
  await page.mouse.move(grip.x, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(grip.x + 40, box.y + 20, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();
  const first = page.locator('.cm-line').first();
  await expect(first).toHaveAttribute('data-time', '0:01');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(first).toHaveAttribute('data-time', '0:00');
});

test('a film stands small beside its words, large above them, or is put away and shown again', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await bringIn(page);
  await choose(page, [
    { name: 'film.webm', mimeType: '', buffer: readFileSync('core/formats/recording/fixtures/film.webm') },
    file('film.vtt', 'WEBVTT\n\n00:00.000 --> 00:01.000\n<v Ellen>The brace.\n'),
  ]);
  await page.getByRole('button', { name: 'Bring in 2 files' }).click();
  await page.getByRole('link', { name: 'film', exact: true }).last().click();
  const film = page.getByLabel('The film', { exact: true });
  await expect(film).toBeVisible();
  expect(await film.evaluate((video: HTMLVideoElement) => video.videoWidth)).toBeGreaterThan(0);
  const small = (await film.boundingBox())!.width;
  await filum.accessible();
  await page.getByRole('button', { name: 'Larger', exact: true }).click();
  await expect.poll(async () => (await film.boundingBox())!.width).toBeGreaterThan(2 * small);
  await page.getByRole('button', { name: 'Put the film away' }).click();
  await expect(film).toBeHidden();
  await page.getByRole('button', { name: 'Show the film' }).click();
  await expect(film).toBeVisible();
});

test('a file that stays where it is, or was left out of a study file, is missed in words and found again', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await bringIn(page);
  await choose(page, SOUND);
  await page.getByLabel('Its file').selectOption('stays');
  await page.getByRole('button', { name: 'Bring in this document' }).click();
  await page.getByRole('link', { name: 'pier-01' }).click();
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeEnabled();
  // in another session the browser has forgotten where it lies
  await page.reload();
  await expect(page.getByText('The file is not here: “pier-01.mp3”, 634 kB.')).toBeVisible();
  await page.getByLabel('The file').setInputFiles(file('pier-01.mp3', readFileSync(SOUND).fill(0, 5_000, 5_001)));
  await expect(page.getByText(/the same name is not enough/)).toBeVisible();
  await page.getByLabel('The file').setInputFiles(SOUND);
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeEnabled();

  await filum.goTo('Overview');
  await page.goto('/');
  await filum.openDemo();
  await filum.goTo('Write-up');
  const out = await filum.download(() => page.getByRole('button', { name: 'Export without recordings and pictures' }).click());
  await page.goto('/');
  await page.getByLabel('Study file').setInputFiles({ name: 'small.filum', mimeType: '', buffer: Buffer.from(out.bytes) });
  await page.getByRole('button', { name: /copy/i }).click();
  await expect(page.getByRole('heading', { name: 'The Last Ferry (copy)' })).toBeVisible();
  await filum.read('At the pier – Ellen');
  await expect(page.getByText('The file is not here: “At the pier – Ellen, the sound”')).toBeVisible();
  await page.getByLabel('A folder to look through').setInputFiles('demo/media');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeEnabled();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeEnabled();
});

test('what is no recording, or none that browsers play, is refused in words, and nothing of it is stored', async ({ page }) => {
  const filum = new Filum(page);
  await filum.newStudy();
  await bringIn(page);
  const sound = readFileSync(SOUND);
  await choose(page, [
    file('empty.mp3', ''),
    file('letter.mp3', 'Dear Sir, '.repeat(100)),
    file('old.wma', sound.subarray(0, 4_000)),
    file('cut.mp4', sound.subarray(0, 300)),
  ]);
  const list = page.getByRole('list', { name: 'Files' });
  await expect(list).toContainText('The file is empty.');
  await expect(list).toContainText('neither sound nor film');
  await expect(list).toContainText('Convert it to MP3 or WAV');
  await expect(list.getByText('cannot be read')).toHaveCount(4);
  await expect(page.getByRole('button', { name: /^Bring in/ }).last()).toBeDisabled();
});

test('clips of a code go out as one sound with a list, as subtitles and as times; evidence plays and shows in place', async ({ page }) => {
  const filum = new Filum(page);
  await filum.openDemo();
  await filum.goTo('Codebook');
  await page.getByRole('treeitem', { name: /The queue as a meeting place/ }).click();
  await page
    .getByRole('link', { name: /Passages/ })
    .or(page.getByRole('tab', { name: /Passages/ }))
    .or(page.getByRole('button', { name: /^Passages/ }))
    .first()
    .click();
  const take = (form: RegExp, name: RegExp) =>
    filum.download(async () => {
      await page.getByRole('button', { name: 'Take clips out' }).click();
      await page.getByRole('menuitem', { name: form }).click();
    }, name);
  // the sound comes with its list
  const [sound, list] = await Promise.all([
    take(/as one sound/, /\.wav$/),
    page.waitForEvent('download', (one) => /list\.csv$/.test(one.suggestedFilename())),
  ]);
  expect(list.suggestedFilename()).toBe('The queue as a meeting place – list.csv');
  expect(sound.bytes.subarray(0, 4).toString()).toBe('RIFF');
  // three clips of 4.9, 3.6 and 1.2 seconds with silence between them, 16 bits at 22,050 Hz
  expect(sound.bytes.length / 2 / 22_050).toBeGreaterThan(9);
  const subtitles = await take(/subtitles/, /\.vtt$/);
  expect(subtitles.bytes.toString()).toMatch(
    /^WEBVTT\n\n1\n00:01:00\.\d{3} --> 00:01:0\d\.\d{3}\n\[The queue as a meeting place\]\nWell, this\.\n/,
  );
  expect((await take(/table of times/, /times\.csv$/)).bytes.toString()).toContain('The queue as a meeting place');
  // codes with few passages, so that they stand on the first page of the evidence
  await page.getByRole('treeitem', { name: /You get used to it/ }).click();
  await page.getByRole('button', { name: 'Play', exact: true }).first().click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await page.getByRole('treeitem', { name: /Holding out/ }).click();
  await expect(page.getByRole('img', { name: /The area in its surroundings/ }).first()).toBeVisible();
});

import type { Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { deflateSync } from 'node:zlib';
import { EMPTY_HISTORY } from '../core/change/journal';
import { writeStudyFile } from '../core/formats/study-file/write-study-file';
import { rowsOf, type Area } from '../core/model/area';
import type { Document, PlaceMark } from '../core/model/document';
import type { StudyState } from '../core/model/study-state';
import { packPassages } from '../core/passages/columns';
import { buildLargeStudy, seededRandom } from '../core/sample/large-study';
import { report, reportSpread } from './report';
import { openFile } from './timing';

const HOURS = 2;
const PICTURE = { width: 8_660, height: 5_774, areas: 500 };
const WORDS = 20_000;

/** A recording of two hours: the frames of the demo's, again and again, without what says how long that one is. */
export function longRecording(): { readonly bytes: Buffer; readonly milliseconds: number } {
  const demo = readFileSync('demo/media/pier-01.mp3');
  const sync = (from: number): number => {
    for (let at = from; at < demo.length - 1; at++) if (demo[at] === 0xff && (demo[at + 1]! & 0xfe) === 0xf2) return at;
    return demo.length;
  };
  const first = sync(0);
  const frames = demo.subarray(sync(first + 100));
  const times = Math.ceil((HOURS * 3_600_000) / 105_600);
  return { bytes: Buffer.concat(Array.from({ length: times }, () => frames)), milliseconds: times * 105_500 };
}

/** A picture of fifty million pixels, in bands of colour, as PNG. */
function largePicture({ width, height }: typeof PICTURE): Buffer {
  const raw = Buffer.alloc((width * 3 + 1) * height);
  for (let y = 0; y < height; y++) {
    const row = y * (width * 3 + 1);
    for (let x = 0; x < width; x += 10)
      raw.fill(((x / 10) * 7 + (y >> 4) * 13) & 0xff, row + 1 + x * 3, row + 1 + Math.min(width, x + 10) * 3);
  }
  const table = Uint32Array.from({ length: 256 }, (_, n) => {
    let c = n;
    for (let bit = 0; bit < 8; bit++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
    return c;
  });
  const chunk = (name: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(name), data]);
    let sum = 0xffffffff;
    for (const byte of body) sum = table[(sum ^ byte) & 0xff]! ^ (sum >>> 8);
    const out = Buffer.alloc(body.length + 8);
    out.writeUInt32BE(data.length, 0);
    body.copy(out, 4);
    out.writeUInt32BE((sum ^ 0xffffffff) >>> 0, body.length + 4);
    return out;
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 2, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(raw, { level: 1 })),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

const sumOf = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

/** A study with the recording, a transcript of 20,000 words that says when each paragraph is heard, and the picture with its areas. */
async function studyWithMedia(): Promise<{
  readonly file: Buffer;
  readonly title: string;
  readonly recording: Buffer;
  readonly milliseconds: number;
  readonly picture: Buffer;
}> {
  const study = buildLargeStudy({ documents: 3, words: WORDS, passages: 300, codings: 600, codes: 20, cases: 0, attributes: 0 });
  const { bytes: recording, milliseconds } = longRecording();
  const picture = largePicture(PICTURE);
  const [first, second, third] = Object.values(study.state.tables.document) as [Document, Document, Document];
  const text = study.texts.get(first.id)!;
  const marks = text.paragraphs.map(({ body }): PlaceMark => ({
    at: body,
    kind: 'time',
    value: Math.round((milliseconds * body) / text.text.length),
  }));
  const empty = { characters: 0, words: 0, speakers: [], answers: [] };
  const tape: Document = {
    ...second,
    ...empty,
    title: 'The tape',
    kind: 'recording',
    ground: { of: 'time', milliseconds, media: { sha256: sumOf(recording), bytes: recording.length, type: 'audio/mpeg' } },
  };
  const drawn: Document = {
    ...third,
    ...empty,
    title: 'The picture',
    kind: 'picture',
    ground: {
      of: 'picture',
      width: PICTURE.width,
      height: PICTURE.height,
      media: { sha256: sumOf(picture), bytes: picture.length, type: 'image/png' },
    },
  };
  const random = seededRandom(11);
  const codes = Object.keys(study.state.tables.code);
  const [coderId] = Object.keys(study.state.tables.coder) as [string];
  const areas = Array.from({ length: PICTURE.areas }, (_, at) => {
    const area: Area = {
      shape: at % 3 === 0 ? 'ellipse' : 'rectangle',
      x: Math.floor(random() * (PICTURE.width - 700)),
      y: Math.floor(random() * (PICTURE.height - 500)),
      width: 40 + Math.floor(random() * 600),
      height: 40 + Math.floor(random() * 400),
    };
    const codings = [{ codeId: codes[at % codes.length]!, coderId, createdAt: 1 }];
    return {
      id: `00000000-0000-4000-8000-${String(at).padStart(12, '0')}`,
      documentId: drawn.id,
      ...rowsOf(area),
      area,
      comment: '',
      coderId,
      createdAt: 1,
      codings,
    };
  });
  const texts = new Map(study.texts);
  texts.set(first.id, { ...text, marks });
  for (const one of [second, third]) texts.delete(one.id);
  const { [second.id]: _tape, [third.id]: _drawn, ...passages } = study.state.passages;
  const documents = {
    ...study.state.tables.document,
    [first.id]: { ...first, title: 'The words', belongsTo: tape.id },
    [tape.id]: tape,
    [drawn.id]: drawn,
  };
  const state: StudyState = {
    ...study.state,
    tables: { ...study.state.tables, document: documents },
    passages: { ...passages, [drawn.id]: packPassages(drawn.id, areas, 'picture') },
  };
  const media = new Map([
    [sumOf(recording), new Blob([new Uint8Array(recording)], { type: 'audio/mpeg' })],
    [sumOf(picture), new Blob([new Uint8Array(picture)], { type: 'image/png' })],
  ]);
  const written = await writeStudyFile({ state, texts, media, journal: [], history: EMPTY_HISTORY }, Date.UTC(2025, 0, 1));
  return { file: Buffer.from(await written.arrayBuffer()), title: state.study.title, recording, milliseconds, picture };
}

/** Memory of all processes of the browser together, MB. */
const memory = (): number =>
  execFileSync('ps', ['-eo', 'rss=,args='], { encoding: 'utf8' })
    .split('\n')
    .filter((line) => /chrom/.test(line) && !/ps -eo/.test(line))
    .reduce((sum, line) => sum + Number(line.trim().split(' ')[0]), 0) / 1000;

/** Shares of frames that came late while something went on, and how many there were. @param act done in each frame, as source */
const frames = (page: Page, act: string, count: number): Promise<{ late: number; all: number }> =>
  page.evaluate(
    async ([source, wanted]) => {
      const each = new Function('at', source as string) as (at: number) => void;
      const times: number[] = [];
      for (let at = 0; at <= (wanted as number); at++) {
        times.push(await new Promise<number>((resolve) => requestAnimationFrame(resolve)));
        each(at);
      }
      const gaps = times.slice(1).map((time, at) => time - times[at]!);
      return { late: gaps.filter((gap) => gap > 25).length, all: gaps.length };
    },
    [act, count] as const,
  );

/** Recordings and pictures, beside the bare library, the bare element and the bare surface. */
export async function media(page: Page, base: string, folder: string): Promise<void> {
  const { file, title, recording, milliseconds, picture } = await studyWithMedia();
  await page.goto(`${base}/bench/bare.html`);
  await page.route('**/bench/two-hours.mp3', (route) => route.fulfill({ body: recording, contentType: 'audio/mpeg' }));
  await page.route('**/bench/picture.png', (route) => route.fulfill({ body: picture, contentType: 'image/png' }));
  const decode = async (measured: boolean): Promise<{ took: number; most: number }> => {
    const before = memory();
    let most = before;
    const watch = setInterval(() => (most = Math.max(most, memory())), 150);
    const took = await page.evaluate(
      async ([milliseconds, measured]) => {
        const file = await (await fetch('/bench/two-hours.mp3')).blob();
        const worker = new Worker('/bench/sound.js');
        const took = await new Promise<number>((resolve) => {
          worker.onmessage = (event: MessageEvent<number>) => resolve(event.data);
          worker.postMessage({ file, milliseconds, measured });
        });
        worker.terminate();
        return took;
      },
      [milliseconds, measured] as const,
    );
    clearInterval(watch);
    return { took, most: most - before };
  };
  await decode(false);
  const pairs = [];
  for (let run = 0; run < 2; run++) pairs.push({ bare: await decode(false), ours: await decode(true) });
  const least = (values: readonly number[]): number => Math.min(...values);
  const [ours, bare] = [least(pairs.map((one) => one.ours.took)), least(pairs.map((one) => one.bare.took))];
  report({
    what: `loudness of a recording of ${HOURS} hours, in the worker`,
    value: ours / 1000,
    unit: 's',
    beside: { what: 'the library decoding it and doing nothing', value: bare / 1000 },
    promise: { words: 'at most 1.5 ×', kept: ours <= 1.5 * bare },
  });
  const most = least(pairs.map((one) => one.ours.most));
  report({
    what: 'memory of the browser meanwhile, more than before',
    value: most,
    unit: 'MB',
    promise: { words: 'under 250 MB', kept: most < 250 },
  });

  const path = join(folder, 'media.filum');
  writeFileSync(path, file);
  await openFile(page, base, path, title);
  await page.getByRole('link', { name: 'Material', exact: true }).click();
  await page.getByRole('link', { name: 'The words', exact: true }).click();
  await page.locator('fl-sound-line').first().waitFor();
  await page.waitForFunction(() => !document.body.textContent?.includes('looking into the sound'), null, { timeout: 120_000 });
  await page.locator('.cm-content').focus();
  await page.evaluate(() => {
    const watched = window as unknown as { key: number; heard: number[]; bareHeard: number[]; bare: HTMLAudioElement };
    watched.heard = [];
    watched.bareHeard = [];
    window.addEventListener('keydown', (event) => event.code === 'Space' && (watched.key = performance.now()), true);
    const { play } = HTMLMediaElement.prototype;
    HTMLMediaElement.prototype.play = function () {
      this.addEventListener('playing', () => watched.heard.push(performance.now() - watched.key), { once: true });
      return play.call(this);
    };
  });
  const keyed: number[] = [];
  for (let run = 0; run < 40; run++) {
    await page.keyboard.press('Control+Space');
    await page.waitForTimeout(160);
    await page.keyboard.press('Control+Space');
    await page.waitForTimeout(60);
  }
  keyed.push(...(await page.evaluate(() => (window as unknown as { heard: number[] }).heard)));
  const element: number[] = await page.evaluate(async () => {
    const audio = document.createElement('audio');
    const source = await new Promise<Blob>((resolve) => {
      const open = indexedDB.open(location.pathname.replace(/^\/study\/([^/]+).*/, 'filum-study-$1'));
      open.onsuccess = () => {
        const all = open.result.transaction('media').objectStore('media').getAll();
        all.onsuccess = () => resolve((all.result as { blob: Blob }[]).find((one) => one.blob.type.startsWith('audio'))!.blob);
      };
    });
    audio.src = URL.createObjectURL(source);
    await new Promise((resolve) => (audio.oncanplaythrough = resolve));
    const times: number[] = [];
    for (let run = 0; run < 40; run++) {
      const begun = performance.now();
      const playing = new Promise((resolve) => audio.addEventListener('playing', resolve, { once: true }));
      void audio.play();
      await playing;
      times.push(performance.now() - begun);
      await new Promise((resolve) => setTimeout(resolve, 120));
      audio.pause();
      await new Promise((resolve) => setTimeout(resolve, 60));
    }
    return times;
  });
  reportSpread('from the key to the sound', keyed, { what: 'the browser’s own element, asked at once', times: element }, 50);

  await page.keyboard.press('Control+Space');
  await page.waitForTimeout(500);
  const following = await frames(page, '', 480);
  await page.keyboard.press('Control+Space');
  await page.waitForTimeout(500);
  const still = await frames(page, '', 480);
  report({
    what: `frames that came late of ${following.all} while a text of ${WORDS.toLocaleString('en')} words follows what is heard`,
    value: following.late,
    unit: 'frames',
    beside: { what: 'the same place, nothing playing', value: Math.max(still.late, 0.5) },
    promise: {
      words: 'no more than where nothing plays, but for one in a hundred',
      kept: following.late <= still.late + following.all / 100,
    },
  });

  await page.getByRole('link', { name: 'Material', exact: true }).click();
  await page.getByRole('link', { name: 'The picture', exact: true }).click();
  await page.locator('fl-picture-surface canvas').waitFor();
  await page.waitForTimeout(4_000);
  const wheel = (zoom: boolean): string =>
    `document.querySelector('fl-picture-surface canvas').dispatchEvent(new WheelEvent('wheel', { deltaX: ${zoom ? 0 : '14 * Math.sin(at / 20)'}, deltaY: ${zoom ? '(at % 120 < 60 ? -9 : 9)' : '11 * Math.cos(at / 17)'}, ctrlKey: ${zoom}, clientX: 420, clientY: 420, bubbles: true, cancelable: true }))`;
  await frames(page, wheel(true), 50);
  const zoomed = await frames(page, wheel(true), 240);
  const panned = await frames(page, wheel(false), 240);
  await page.goto(`${base}/bench/bare.html`);
  await page.evaluate(async () => {
    const bitmap = await createImageBitmap(await (await fetch('/bench/picture.png')).blob());
    const levels = [bitmap];
    while (levels.at(-1)!.width > 512) {
      const last = levels.at(-1)!;
      levels.push(await createImageBitmap(last, { resizeWidth: Math.round(last.width / 2), resizeHeight: Math.round(last.height / 2) }));
    }
    document.body.innerHTML = '<canvas width="702" height="660"></canvas>';
    const context = document.querySelector('canvas')!.getContext('2d')!;
    (window as unknown as { show: unknown }).show = (scale: number, x: number, y: number) => {
      const level = levels.findLast((one) => one.width >= bitmap.width * scale) ?? bitmap;
      context.setTransform(scale, 0, 0, scale, x, y);
      context.clearRect(-x / scale, -y / scale, 702 / scale, 660 / scale);
      context.drawImage(level, 0, 0, bitmap.width, bitmap.height);
    };
  });
  const bareZoom = await frames(page, 'window.show(0.08 * Math.exp((at % 120 < 60 ? at % 60 : 60 - (at % 60)) * 0.03), 10, 100)', 240);
  const barePan = await frames(page, 'window.show(0.4, -300 + 200 * Math.sin(at / 20), -200 + 150 * Math.cos(at / 17))', 240);
  const moving = (what: string, mine: { late: number; all: number }, other: { late: number }): void =>
    report({
      what: `frames that came late of ${mine.all} while a picture of 50 million pixels with ${PICTURE.areas} areas ${what}`,
      value: mine.late,
      unit: 'frames',
      beside: { what: 'the bare picture on a bare surface', value: Math.max(other.late, 0.5) },
      promise: { words: 'no more than bare, but for one in a hundred', kept: mine.late <= other.late + mine.all / 100 },
    });
  moving('is made larger and smaller', zoomed, bareZoom);
  moving('is moved', panned, barePan);
}

// Draws the pictures of the demo study: a plan of the pier, a notice, a child's drawing of the ferry. Run by hand with
// `npx tsx scripts/make-demo-pictures.ts`; the drawings are kept in `demo/media`, and nothing here is needed to build,
// run or test Filum.
import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { chromiumHere } from './browser.cjs';

/** Numbers that wobble like a hand, the same every time. */
function wobble(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    return state / 2_147_483_648 - 0.5;
  };
}

/** A line drawn by hand: never straight, and a little thicker here and there. */
function crayon(points: readonly (readonly [number, number])[], colour: string, width: number, seed: number): string {
  const next = wobble(seed);
  const path = points
    .flatMap(([x, y], at) => {
      const [px, py] = points[at - 1] ?? [x, y];
      return Array.from({ length: at === 0 ? 1 : 6 }, (_, step) => {
        const share = at === 0 ? 1 : (step + 1) / 6;
        return `${(px + (x - px) * share + next() * width).toFixed(1)} ${(py + (y - py) * share + next() * width).toFixed(1)}`;
      });
    })
    .join(' L');
  return [1, 0.55, 0.3]
    .map(
      (share, layer) =>
        `<path d="M${path}" fill="none" stroke="${colour}" stroke-opacity="${0.35 + layer * 0.2}" stroke-width="${width * (1.5 - share * 0.7)}" stroke-linecap="round" stroke-linejoin="round"/>`,
    )
    .join('');
}

const label = (x: number, y: number, words: string, size = 30, more = ''): string =>
  `<text x="${x}" y="${y}" font-family="Hanken Grotesk, sans-serif" font-size="${size}" fill="#26323a" ${more}>${words}</text>`;

const plan = `<svg xmlns="http://www.w3.org/2000/svg" width="1600" height="1100" viewBox="0 0 1600 1100">
<rect width="1600" height="1100" fill="#f4f1e8"/>
<path d="M0 780C200 740 330 800 480 770S760 700 900 760S1300 830 1600 760V1100H0Z" fill="#e3dcc6" stroke="#7c7560" stroke-width="3"/>
${Array.from({ length: 14 }, (_, at) => `<path d="M${60 + ((at * 331) % 1450)} ${90 + ((at * 173) % 560)}q18 -12 36 0t36 0" fill="none" stroke="#9fb6bf" stroke-width="3"/>`).join('')}
<path d="M640 770V250H1010V420H770V770Z" fill="#d9d6cd" stroke="#3b444a" stroke-width="4"/>
<path d="M1010 290l170 40v60l-170 20Z" fill="#c9c6bc" stroke="#3b444a" stroke-width="3"/>
${label(1060, 470, 'ramp')}
<path d="M1075 440L1095 372" stroke="#3b444a" stroke-width="2"/>
<rect x="660" y="280" width="150" height="90" fill="#b9b29c" stroke="#3b444a" stroke-width="4"/>
${label(330, 330, 'shed, with the nail')}
<path d="M600 322H655" stroke="#3b444a" stroke-width="2"/>
<circle cx="812" cy="330" r="7" fill="#8a2f1d"/>
<rect x="540" y="800" width="190" height="110" fill="#b9b29c" stroke="#3b444a" stroke-width="4"/>
${label(500, 950, 'waiting room')}
<rect x="860" y="810" width="240" height="130" fill="#b9b29c" stroke="#3b444a" stroke-width="4"/>
${label(900, 985, 'the Stores')}
${Array.from({ length: 9 }, (_, at) => `<circle cx="${705 + (at % 2) * 14}" cy="${410 + at * 38}" r="11" fill="none" stroke="#8a2f1d" stroke-width="4"/>`).join('')}
${label(800, 600, 'where people stand,', 28, 'font-style="italic"')}${label(800, 636, 'boat or no boat', 28, 'font-style="italic"')}
${Array.from({ length: 5 }, (_, at) => `<rect x="${300 - at * 62}" y="${850 + at * 22}" width="54" height="30" rx="6" fill="none" stroke="#3b444a" stroke-width="3"/>`).join('')}
${label(40, 1010, 'cars, from six')}
<path d="M1330 180c-60 14 -60 150 0 164l150 -20v-124Z" fill="#fff" stroke="#3b444a" stroke-width="4"/>
${label(1340, 400, 'the ferry, 7.40')}
${label(60, 90, 'Pier at Saltpans, as Moira drew it', 44, 'font-weight="600"')}
<path d="M1480 1010v-90m-22 30l22 -34l22 34" fill="none" stroke="#3b444a" stroke-width="4"/>${label(1468, 1050, 'N')}
</svg>`;

const notice = `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="1600" viewBox="0 0 1200 1600">
<rect width="1200" height="1600" fill="#6f6a5e"/>
${Array.from({ length: 40 }, (_, at) => `<path d="M0 ${at * 41}q600 ${((at * 37) % 21) - 10} 1200 0" stroke="#645f54" stroke-width="6" fill="none"/>`).join('')}
<g transform="rotate(-1.6 600 800)">
<rect x="130" y="150" width="940" height="1290" fill="#fbf9f2" stroke="#cfc9b8" stroke-width="3"/>
<circle cx="600" cy="190" r="16" fill="#5c5c5c"/><circle cx="594" cy="184" r="5" fill="#b9b9b9"/>
<text x="600" y="350" text-anchor="middle" font-family="Hanken Grotesk, sans-serif" font-weight="700" font-size="92" fill="#12232a">NOTICE</text>
<path d="M230 400H970" stroke="#12232a" stroke-width="5"/>
${[
  'The last sailing of the ferry',
  'is on Sunday 2 November',
  'at 17.10 from Saltpans.',
  '',
  'From Monday the bridge is open',
  'to all vehicles. There is no',
  'waiting room at the bridge.',
  '',
  'Tickets that are not used are',
  'taken back at the Stores',
  'until the end of the year.',
]
  .map(
    (words, at) =>
      `<text x="230" y="${500 + at * 66}" font-family="Hanken Grotesk, sans-serif" font-size="50" fill="#12232a">${words}</text>`,
  )
  .join('')}
<text x="230" y="1392" font-family="Hanken Grotesk, sans-serif" font-size="34" fill="#51646a">Island Council, harbours and roads</text>
<g transform="rotate(-3 600 1280)"><text x="300" y="1290" font-family="Literata, serif" font-style="italic" font-size="52" fill="#1c3f94">and where do we stand then?</text>
<path d="M300 1312q120 14 240 2t380 4" fill="none" stroke="#1c3f94" stroke-width="4"/></g>
<path d="M880 700h170m-150 -14l150 30" stroke="#1c3f94" stroke-width="5" fill="none"/>
</g></svg>`;

const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="1400" height="1000" viewBox="0 0 1400 1000">
<rect width="1400" height="1000" fill="#fdfcf7"/>
${Array.from({ length: 7 }, (_, at) =>
  crayon(
    Array.from({ length: 13 }, (_, step) => [40 + step * 110, 760 + at * 34 + (step % 2 ? 18 : -14)] as const),
    '#2b78c9',
    11,
    at + 3,
  ),
).join('')}
${crayon(
  [
    [250, 560],
    [1090, 540],
    [980, 740],
    [360, 750],
    [250, 560],
  ],
  '#c8322b',
  16,
  21,
)}
${crayon(
  [
    [480, 550],
    [490, 400],
    [800, 390],
    [815, 545],
  ],
  '#222222',
  13,
  22,
)}
${crayon(
  [
    [860, 540],
    [862, 330],
    [940, 328],
    [945, 538],
  ],
  '#222222',
  13,
  23,
)}
${crayon(
  [
    [900, 320],
    [930, 240],
    [1010, 250],
    [1030, 170],
    [1120, 190],
  ],
  '#8b8b8b',
  18,
  24,
)}
${[540, 620, 700, 770]
  .map((x, at) =>
    [
      crayon(
        Array.from({ length: 13 }, (_, step) => [x + 26 * Math.cos(step / 2), 460 + 28 * Math.sin(step / 2)] as const),
        '#e0962b',
        8,
        30 + at,
      ),
      crayon(
        [
          [x - 10, 470],
          [x, 478],
          [x + 12, 469],
        ],
        '#222222',
        5,
        40 + at,
      ),
      `<circle cx="${x - 9}" cy="452" r="4"/><circle cx="${x + 9}" cy="453" r="4"/>`,
    ].join(''),
  )
  .join('')}
${crayon(
  Array.from({ length: 14 }, (_, step) => [190 + 85 * Math.cos(step / 2.05), 190 + 85 * Math.sin(step / 2.05)] as const),
  '#f0b722',
  18,
  51,
)}
${Array.from({ length: 9 }, (_, at) =>
  crayon(
    [
      [190 + 120 * Math.cos(at * 0.7), 190 + 120 * Math.sin(at * 0.7)],
      [190 + 180 * Math.cos(at * 0.7), 190 + 180 * Math.sin(at * 0.7)],
    ],
    '#f0b722',
    12,
    60 + at,
  ),
).join('')}
${crayon(
  [
    [1180, 760],
    [1190, 560],
    [1370, 540],
  ],
  '#6b4a2b',
  16,
  80,
)}
${[1215, 1265, 1320]
  .map((x, at) =>
    crayon(
      [
        [x, 545],
        [x, 470],
        [x - 18, 500],
        [x, 480],
        [x + 18, 500],
      ],
      '#3a8a3f',
      8,
      90 + at,
    ),
  )
  .join('')}
<text x="430" y="690" font-family="Literata, serif" font-size="64" fill="#222" transform="rotate(-2 600 690)">the bot with my gran on</text>
<text x="1080" y="960" font-family="Literata, serif" font-size="44" fill="#c8322b" transform="rotate(3 1100 960)">Mattie 6</text>
</svg>`;

const PICTURES = [
  { file: 'plan-of-the-pier.png', svg: plan, width: 1600, height: 1100, type: 'image/png' },
  { file: 'last-sailing.png', svg: notice, width: 1200, height: 1600, type: 'image/png' },
  { file: 'the-bot.jpg', svg: drawing, width: 1400, height: 1000, type: 'image/jpeg' },
] as const;

async function draw(): Promise<void> {
  const browser = await chromium.launch({ executablePath: chromiumHere(), args: ['--no-sandbox'] });
  const described = JSON.parse(readFileSync('demo/media/media.json', 'utf8')) as { pictures: { file: string }[] };
  for (const { file, svg, width, height, type } of PICTURES) {
    const page = await browser.newPage({ viewport: { width, height } });
    const face = (name: string, path: string): string =>
      `@font-face{font-family:"${name}";font-weight:200 900;src:url(data:font/woff2;base64,${readFileSync(path).toString('base64')})}`;
    const faces =
      face('Hanken Grotesk', 'node_modules/@fontsource-variable/hanken-grotesk/files/hanken-grotesk-latin-wght-normal.woff2') +
      face('Literata', 'node_modules/@fontsource-variable/literata/files/literata-latin-wght-normal.woff2');
    await page.setContent(`<style>${faces}body{margin:0}svg{display:block}</style>${svg}`);
    await page.evaluate(() => document.fonts.ready);
    const bytes = await page.screenshot(type === 'image/jpeg' ? { type: 'jpeg', quality: 82 } : { type: 'png' });
    writeFileSync(`demo/media/${file}`, bytes);
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    Object.assign(
      described.pictures.find((one) => one.file === file)!,
      { width, height, type, bytes: bytes.length, sha256 },
    );
    await page.close();
    console.log(`${file}: ${bytes.length} bytes`);
  }
  writeFileSync('demo/media/media.json', `${JSON.stringify(described, null, 2)}\n`);
  await browser.close();
}

void draw();

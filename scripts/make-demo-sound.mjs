// Makes the recording of the demo study: the words of one pier interview, spoken by two voices of a speech synthesiser,
// and the times of its sentences as WebVTT. Run by hand where espeak-ng and ffmpeg are installed; neither is needed to
// build, run or test Filum.
import { Buffer } from 'node:buffer';
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const SOURCE = 'demo/structured/pier-01.txt';
const VOICES = {
  Q: ['-v', 'en-gb-x-rp+m3', '-s', '128', '-p', '38'],
  A: ['-v', 'en-gb-scotland+f2', '-s', '122', '-p', '55'],
};
const RATE = 22_050;
/** Silences in seconds: after a sentence, after a turn, at the ends. */
const PAUSE = { sentence: 0.5, turn: 1.4, ends: 1 };

const folder = mkdtempSync(join(tmpdir(), 'demo-sound-'));
const pieces = [];
const cues = [];
let at = 0;

function silence(seconds) {
  pieces.push(Buffer.alloc(Math.round(seconds * RATE) * 2));
  at += seconds;
}

function say(words, voice) {
  const file = join(folder, 'piece.wav');
  execFileSync('espeak-ng', [...VOICES[voice], '-w', file, words]);
  const samples = readFileSync(file).subarray(44);
  pieces.push(samples);
  const start = at;
  at += samples.length / 2 / RATE;
  return { start, end: at };
}

const clock = (seconds) => new Date(Math.round(seconds * 1000)).toISOString().slice(11, 23);
const [, ...blocks] = readFileSync(SOURCE, 'utf8')
  .trim()
  .split(/\n{2,}/);
let voice = 'Q';
silence(PAUSE.ends);
for (const block of blocks) {
  const label = /^([QA]): /.exec(block);
  if (label) voice = label[1];
  const words = block.slice(label ? label[0].length : 0).replace(/\n/g, ' ');
  for (const { segment } of new Intl.Segmenter('en', { granularity: 'sentence' }).segment(words)) {
    const sentence = segment.trim();
    cues.push({ ...say(sentence, voice), words: `<v ${voice === 'Q' ? 'Interviewer' : 'Ellen'}>${sentence}` });
    silence(PAUSE.sentence);
  }
  silence(PAUSE.turn - PAUSE.sentence);
}
silence(PAUSE.ends);

const raw = join(folder, 'all.raw');
writeFileSync(raw, Buffer.concat(pieces));
execFileSync('ffmpeg', [
  '-y',
  '-loglevel',
  'error',
  '-f',
  's16le',
  '-ar',
  String(RATE),
  '-ac',
  '1',
  '-i',
  raw,
  '-map_metadata',
  '-1',
  '-b:a',
  '48k',
  'demo/media/pier-01.mp3',
]);
writeFileSync(
  'demo/media/pier-01.vtt',
  `WEBVTT\n\n${cues.map(({ start, end, words }) => `${clock(start)} --> ${clock(end)}\n${words}\n`).join('\n')}`,
);
rmSync(folder, { recursive: true });
const bytes = readFileSync('demo/media/pier-01.mp3');
const facts = JSON.parse(readFileSync('demo/media/media.json', 'utf8'));
Object.assign(
  facts.recordings.find((one) => one.file === 'pier-01.mp3'),
  { milliseconds: Math.round(at * 1000), bytes: bytes.length, sha256: createHash('sha256').update(bytes).digest('hex') },
);
writeFileSync('demo/media/media.json', `${JSON.stringify(facts, null, 2)}\n`);
console.log(`${at.toFixed(1)} s, ${cues.length} sentences`);

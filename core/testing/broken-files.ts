import { unzipSync, zipSync } from 'fflate';
import { readFileSync, readdirSync } from 'node:fs';
import { looksLikeZip } from '../formats/archive';

/** Real files of each format that is read, by name; those of text formats are written here. */
export function realFiles(): Map<string, Uint8Array> {
  const files = new Map<string, Uint8Array>();
  for (const name of readdirSync('core/formats/fixtures'))
    if (!name.endsWith('.txt')) files.set(name, new Uint8Array(readFileSync(`core/formats/fixtures/${name}`)));
  const text = (name: string, content: string) => files.set(name, new TextEncoder().encode(content));
  text('plain.txt', '[00:00:01] Interviewer: And the thumb?\n[00:00:04] Shona: Rang the boat.\n\nNobody asked us.');
  text('marked.md', '# Interview\n\n**Shona:** *rang* the boat\n\n- one\n- two\n\n| a | b |\n|---|---|\n| 1 | 2 |\n');
  text('timed.vtt', 'WEBVTT\n\n00:01.000 --> 00:04.000\n<v Shona>Rang the boat.\n\n00:05.000 --> 00:06.000\n<v Shona>They held her.\n');
  text(
    'timed.srt',
    '1\n00:00:01,000 --> 00:00:04,000\nMara: Where?\n- Rang the boat.\n\n2\n00:00:05,000 --> 00:00:06,000\nThey held her.\n',
  );
  text(
    'mail.eml',
    'From: Shona <s@example.org>\nTo: Mara <m@example.org>\nSubject: The boat\nDate: Wed, 22 Jan 2025 10:00:00 +0000\nContent-Type: text/plain; charset=utf-8\n\nThey held her.\n\n> Did they?\n',
  );
  text(
    'pier.svg',
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 30"><style>.a{fill:url(#b)}</style><rect class="a" width="9"/></svg>',
  );
  files.set('plan.png', new Uint8Array(readFileSync('demo/media/plan-of-the-pier.png')));
  files.set('bot.jpg', new Uint8Array(readFileSync('demo/media/the-bot.jpg')));
  files.set('survey.csv', new Uint8Array(readFileSync('demo/survey.csv')));
  return files;
}

/** Real recordings of each kind, by name. The library that reads them goes round endlessly in some that broke. */
export function realRecordings(): Map<string, Uint8Array> {
  const folder = 'core/formats/recording/fixtures';
  const files = new Map(readdirSync(folder).map((name) => [name, new Uint8Array(readFileSync(`${folder}/${name}`))]));
  return files.set('pier.mp3', new Uint8Array(readFileSync('demo/media/pier-01.mp3').subarray(0, 20_000)));
}

/** Bytes broken in one of several ways: some changed, cut short, a stretch lost, doubled or shuffled in. */
export function broken(bytes: Uint8Array, random: () => number): Uint8Array {
  const at = (): number => Math.floor(random() * bytes.length);
  const [a, b] = [at(), at()].sort((x, y) => x - y) as [number, number];
  switch (Math.floor(random() * 5)) {
    case 0: {
      const changed = bytes.slice();
      for (let times = 1 + Math.floor(random() * 12); times > 0; times--) changed[at()] = Math.floor(random() * 256);
      return changed;
    }
    case 1:
      return bytes.slice(0, a);
    case 2:
      return Uint8Array.from([...bytes.subarray(0, a), ...bytes.subarray(b)]);
    case 3:
      return Uint8Array.from([...bytes.subarray(0, b), ...bytes.subarray(a)]);
    default: {
      const changed = bytes.slice();
      changed.copyWithin(a, at(), Math.min(bytes.length, at() + 400));
      return changed;
    }
  }
}

/** An archive in which one file is broken and packed again, so that what is inside is reached; other files as by {@link broken}. */
export function brokenInside(bytes: Uint8Array, random: () => number): Uint8Array {
  if (!looksLikeZip(bytes)) return broken(bytes, random);
  const parts = unzipSync(bytes);
  const names = Object.keys(parts).filter((name) => parts[name]!.length > 0);
  const name = names[Math.floor(random() * names.length)]!;
  // level 0: what is tried is what is inside, not the packing
  return zipSync({ ...parts, [name]: broken(parts[name]!, random) }, { level: 0 });
}

import { createHash, randomUUID } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import express, { Router } from 'express';
import { readCaptions } from '../../core/formats/timed/captions';
import { speechIn } from '../../core/sound/speech';
import { STEP } from '../../core/sound/loudness';
import type { Job, Segment } from '../../core/transcribing/service';

/** How long a job is said to take, milliseconds. */
const TAKES = 2_000;
/** Jobs that are remembered, and the longest recording that is taken, milliseconds. */
const MOST_JOBS = 200;
const LONGEST = 8 * 3_600_000;

/** Words that are heard wrongly in the demo recording, with how sure the stand-in says it is of them. */
const MISHEARD: Readonly<Record<string, readonly [string, number]>> = {
  brace: ['brake', 0.41],
  kettle: ['cattle', 0.35],
  hoovering: ['hovering', 0.52],
  blether: ['bother', 0.33],
  brae: ['bray', 0.28],
  bunting: ['hunting', 0.44],
};

interface Running {
  readonly begun: number;
  readonly segments: readonly Segment[];
}

/**
 * A stand-in for a transcribing service, behind the interface that a real one would have: jobs that are handed in,
 * looked at and given up. It hears nothing. Of the demo recording it knows the words, and gets some of them wrong; of any
 * other it is told how loud it is, and says where somebody seems to speak.
 * @param folder the built application, with the demo recording and its captions
 */
export function transcribingStandIn(folder: string, now: () => number = Date.now): Router {
  const router = Router();
  const jobs = new Map<string, Running>();
  const demo = demoOf(folder);

  router.post('/jobs', express.raw({ type: 'application/octet-stream', limit: '2mb' }), (request, response) => {
    const milliseconds = Number(request.query['milliseconds']);
    const sha256 = String(request.query['sha256'] ?? '');
    if (!Number.isInteger(milliseconds) || milliseconds < 1 || !/^[0-9a-f]{64}$/.test(sha256))
      return void response.status(400).json({ reason: 'The job does not say which recording it is of, or how long that is.' });
    if (milliseconds > LONGEST) return void response.status(413).json({ reason: 'Recordings of more than eight hours are not taken.' });
    const body: unknown = request.body;
    const values = Buffer.isBuffer(body) ? new Uint8Array(body) : new Uint8Array();
    if (sha256 !== demo.sha256 && values.length === 0)
      return void response
        .status(422)
        .json({ reason: 'The sound of the recording could not be looked into, so there is nothing to go by.' });
    const segments = sha256 === demo.sha256 ? demo.segments : bySpeech(values, milliseconds);
    const id = randomUUID();
    jobs.set(id, { begun: now(), segments });
    // the oldest go: nobody has asked for them for long
    for (const old of [...jobs.keys()].slice(0, Math.max(0, jobs.size - MOST_JOBS))) jobs.delete(old);
    response.status(202).json({ job: id });
  });

  router.get('/jobs/:id', (request, response) => {
    const job = jobs.get(request.params.id);
    if (!job)
      return void response.status(404).json({ reason: 'The service does not know this job any more. Hand the recording in again.' });
    const share = Math.min(1, (now() - job.begun) / TAKES);
    const state: Job =
      share < 1
        ? { state: 'working', share }
        : job.segments.length === 0
          ? { state: 'failed', reason: 'Nobody seems to speak in this recording: it is silent from beginning to end.' }
          : { state: 'done', segments: [...job.segments] };
    response.json(state);
  });

  router.delete('/jobs/:id', (request, response) => {
    jobs.delete(request.params.id);
    response.status(204).end();
  });
  return router;
}

/** The demo recording and the words in it, some of them misheard. */
function demoOf(folder: string): { readonly sha256: string; readonly segments: readonly Segment[] } {
  const recording = join(folder, 'demo/media/pier-01.mp3');
  const captions = join(folder, 'demo/media/pier-01.vtt');
  if (!existsSync(recording) || !existsSync(captions)) return { sha256: '', segments: [] };
  const sha256 = createHash('sha256').update(readFileSync(recording)).digest('hex');
  const segments = readCaptions(readFileSync(captions, 'utf8')).captions.flatMap(({ start, end, said }) =>
    said.map(({ speaker, words }): Segment => ({ start, end, speaker: speaker || null, words: words.split(/\s+/).map(misheard) })),
  );
  return { sha256, segments };
}

/** A word as the stand-in hears it. */
function misheard(word: string): Segment['words'][number] {
  const bare = word.replace(/[^\p{L}]/gu, '').toLowerCase();
  const wrong = MISHEARD[bare];
  if (!wrong) return { text: word, confidence: 0.97 };
  const [heard, confidence] = wrong;
  const letters = /\p{L}+/u.exec(word)!;
  return { text: word.slice(0, letters.index) + heard + word.slice(letters.index + letters[0].length), confidence };
}

/** Where somebody seems to speak, by loudness alone. */
const bySpeech = (values: Uint8Array, milliseconds: number): Segment[] =>
  speechIn({ step: STEP, values }).map(({ start, end }) => ({ start, end: Math.min(end, milliseconds), speaker: null, words: [] }));

import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import express from 'express';
import { JobSchema, type Job } from '../../core/transcribing/service';
import { transcribingStandIn } from './transcribing';

describe('The stand-in for a transcribing service', () => {
  let server: Server;
  let address = '';
  let now = 0;
  const begin = (query: Record<string, string>, loudness: readonly number[] = []): Promise<Response> =>
    fetch(`${address}/jobs?${new URLSearchParams(query)}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/octet-stream' },
      body: Uint8Array.from(loudness),
    });
  const jobOf = async (response: Response): Promise<string> => ((await response.json()) as { job: string }).job;
  const look = async (job: string): Promise<Job> => JobSchema.parse(await (await fetch(`${address}/jobs/${job}`)).json());
  const OTHER = { sha256: 'b'.repeat(64), milliseconds: '10000' };

  beforeEach(async () => {
    now = 0;
    server = express()
      .use(transcribingStandIn('.', () => now))
      .listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  afterEach(() => void server.close());

  it('tells how far a job is, and gives the words of the demo recording with a few it is not sure of', async () => {
    const bytes = readFileSync('demo/media/pier-01.mp3');
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const job = await jobOf(await begin({ sha256, milliseconds: '105600' }));
    now = 500;
    expect(await look(job)).toEqual({ state: 'working', share: 0.25 });
    now = 2_000;
    const done = await look(job);
    if (done.state !== 'done') throw new Error('not done');
    const words = done.segments.flatMap((segment) => segment.words);
    expect(done.segments.length).toBe(21);
    expect(new Set(done.segments.map((segment) => segment.speaker))).toEqual(new Set(['Interviewer', 'Ellen']));
    expect(words.filter((word) => word.confidence < 0.6).map((word) => word.text)).toEqual([
      'brake.',
      'cattle,',
      'hovering',
      'bother.',
      'bray.',
      'hunting,',
    ]);
  });

  it('tells speech from silence in any other, by how loud it is', async () => {
    const loudness = [
      ...Array<number>(40).fill(2),
      ...Array<number>(60).fill(190),
      ...Array<number>(40).fill(2),
      ...Array<number>(60).fill(180),
    ];
    const job = await jobOf(await begin(OTHER, loudness));
    now = 5_000;
    expect(await look(job)).toEqual({
      state: 'done',
      segments: [
        { start: 2_000, end: 5_000, speaker: null, words: [] },
        { start: 7_000, end: 10_000, speaker: null, words: [] },
      ],
    });
    const silent = await jobOf(await begin(OTHER, Array<number>(200).fill(0)));
    now = 20_000;
    expect((await look(silent)).state).toBe('failed');
  });

  it('refuses in words what it cannot take, and knows nothing of a job that was given up', async () => {
    const refused = async (response: Response): Promise<string> =>
      `${response.status} ${((await response.json()) as { reason: string }).reason}`;
    expect(await refused(await begin({ sha256: 'x', milliseconds: '1' }))).toMatch(/^400 The job does not say/);
    expect(await refused(await begin({ ...OTHER, milliseconds: '99999999' }))).toMatch(/^413/);
    expect(await refused(await begin(OTHER))).toMatch(/^422/);
    const job = await jobOf(await begin(OTHER, [1, 2, 3]));
    expect((await fetch(`${address}/jobs/${job}`, { method: 'DELETE' })).status).toBe(204);
    expect(await refused(await fetch(`${address}/jobs/${job}`))).toMatch(/^404/);
  });
});

import { InjectionToken } from '@angular/core';
import { JobSchema, type Job, type ToTranscribe, type TranscribingService } from '@core/transcribing/service';
import * as z from 'zod';

const ReasonSchema = z.object({ reason: z.string() });
const BegunSchema = z.object({ job: z.string() });

/**
 * The stand-in that ships with Filum, at the address it is served from. It is sent how loud the recording is, and not the
 * recording: it would not listen to it.
 */
class StandIn implements TranscribingService {
  readonly name = 'transcribing service (simulated)';
  readonly simulated = true;
  private readonly address = '/stand-ins/transcribing/jobs';

  async begin({ sha256, milliseconds, language, loudness }: ToTranscribe): Promise<string> {
    const about = new URLSearchParams({ sha256, milliseconds: String(milliseconds), language });
    const answer = await this.ask(`${this.address}?${about}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/octet-stream' },
      body: new Uint8Array(loudness?.values ?? []),
    });
    return BegunSchema.parse(await answer.json()).job;
  }

  async look(job: string): Promise<Job> {
    return JobSchema.parse(await (await this.ask(`${this.address}/${encodeURIComponent(job)}`)).json());
  }

  async cancel(job: string): Promise<void> {
    await this.ask(`${this.address}/${encodeURIComponent(job)}`, { method: 'DELETE' });
  }

  private async ask(address: string, init: RequestInit = {}): Promise<Response> {
    const answer = await fetch(address, init).catch(() => {
      throw new Error('The transcribing service does not answer. Is Filum’s own server still running?');
    });
    if (answer.ok) return answer;
    const said = ReasonSchema.safeParse(await answer.json().catch(() => null));
    throw new Error(said.success ? said.data.reason : `The transcribing service refuses (${answer.status}).`);
  }
}

/** The service that makes transcripts. Another is put in its place here. */
export const TRANSCRIBING_SERVICE = new InjectionToken<TranscribingService>('TRANSCRIBING_SERVICE', {
  providedIn: 'root',
  factory: () => new StandIn(),
});

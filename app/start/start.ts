import { quoted } from '@core/text/quoted';
import { Counted } from '../ui/counted/counted';
import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, inject, Injector, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { randomId } from '@core/model/ids';
import { DEMO_STUDY_ID } from '@core/sample/demo-study-id';
import { forgetDrafts } from '../state/drafts';
import { ThemeChoice } from '../state/theme-choice';
import { deleteStudy, listStudies, studyExists } from '../storage/study-list';
import { createEmptyStudy } from '../storage/create-study';
import type { StudySummary } from '../storage/study-storage';
import { Notices } from '../state/notices';
import { Icon } from '../ui/icon/icon';
import { FilesService } from '../workers/files-service';

/** The first screen: the studies in this browser, and three ways to begin. */
@Component({
  selector: 'fl-start',
  imports: [Counted, RouterLink, DatePipe, Icon],
  templateUrl: './start.html',
  styleUrl: './start.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Start {
  private readonly router = inject(Router);
  private readonly injector = inject(Injector);
  private readonly files = inject(FilesService);
  private readonly notices = inject(Notices);
  protected readonly theme = inject(ThemeChoice);
  protected readonly studies = signal<readonly StudySummary[] | null>(null);
  /** What is going on, with the share done; null when nothing is. */
  protected readonly busy = signal<{ readonly what: string; readonly share: number | null } | null>(null);
  protected readonly trouble = signal<string | null>(null);
  protected readonly naming = signal(false);

  constructor() {
    void this.refresh();
    void navigator.storage?.persist?.();
  }

  private async refresh(): Promise<void> {
    this.studies.set(await listStudies());
  }

  protected async openDemo(): Promise<void> {
    await this.work('Opening the demo study', async () => {
      const id = (await studyExists(DEMO_STUDY_ID)) ? DEMO_STUDY_ID : await this.files.openDemo();
      await this.router.navigate(['/study', id]);
    });
  }

  protected async create(title: string, coder: string): Promise<void> {
    if (!title.trim() || !coder.trim()) {
      this.trouble.set('A study needs a title, and your name for the log.');
      return;
    }
    await this.work('Making the study', async () => {
      const id = await createEmptyStudy(title, coder, randomId, Date.now());
      await this.router.navigate(['/study', id, 'material']);
    });
  }

  /** Ends what is going on. */
  private stopping = new AbortController();

  protected async openFile(input: HTMLInputElement): Promise<void> {
    const file = input.files?.[0];
    input.value = '';
    if (!file) return;
    await this.work(`Opening ${file.name}`, async (progress, signal) => {
      let outcome = await this.files.openStudyFile(file, 'ask', progress, signal);
      if (outcome && 'alreadyHere' in outcome) {
        const { Ask } = await import('../ui/dialogs/ask');
        const ask = this.injector.get(Ask);
        const reply = await ask.reply({
          title: `${quoted(outcome.title)} is already here`,
          lines: [
            'The study in this browser and the one in the file may differ. The file can be opened as a second study beside the first; neither is changed.',
          ],
          yes: 'Open as a copy',
          other: 'Open the one here',
        });
        if (!reply) return;
        if (reply.chose === 'other') {
          await this.router.navigate(['/study', outcome.alreadyHere]);
          return;
        }
        outcome = await this.files.openStudyFile(file, 'copy', progress, signal);
      }
      if (!outcome) return;
      if ('trouble' in outcome) this.trouble.set(outcome.trouble);
      else if ('opened' in outcome) await this.router.navigate(['/study', outcome.opened]);
    });
  }

  protected cancel(): void {
    this.stopping.abort();
    this.busy.set(null);
    void this.refresh();
  }

  protected async remove({ study, documents }: StudySummary): Promise<void> {
    const { confirmStudyDeletion } = await import('../ui/dialogs/delete-study');
    const { Ask } = await import('../ui/dialogs/ask');
    const goOn = await confirmStudyDeletion(this.injector.get(Ask), this.files, study, documents);
    if (!goOn) return;
    if (!(await deleteStudy(study.id)))
      this.trouble.set(`${quoted(study.title)} is open in another tab. Close it there first; nothing was deleted.`);
    else {
      forgetDrafts(study.id);
      this.notices.say(`${quoted(study.title)} was deleted from this browser.`);
    }
    await this.refresh();
  }

  private async work(what: string, action: (progress: (share: number) => void, signal: AbortSignal) => Promise<void>): Promise<void> {
    this.stopping = new AbortController();
    this.trouble.set(null);
    this.busy.set({ what, share: null });
    try {
      await action((share) => this.busy.update((busy) => busy && { ...busy, share }), this.stopping.signal);
    } catch (error) {
      this.trouble.set(`${what} failed: ${error instanceof Error ? error.message : String(error)}. Nothing was changed.`);
    } finally {
      this.busy.set(null);
    }
  }
}

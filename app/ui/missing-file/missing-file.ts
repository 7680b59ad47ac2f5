import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import type { Document } from '@core/model/document';
import type { Media } from '@core/model/ground';
import { counted } from '@core/text/counted';
import { quoted } from '@core/text/quoted';
import { sizeWords } from '@core/text/size';
import { MediaFiles, type Candidate } from '../../state/media-files';
import { Notices } from '../../state/notices';
import type { Unplayed } from '../sound/player';

/** Says that the file of a recording or a picture is not at hand, and finds it again: the file itself, or in a folder. */
@Component({
  selector: 'fl-missing-file',
  template: `
    <p role="status">
      <span>{{ words() }}</span>
      @if (why() === 'permission') {
        <button class="act" (click)="allow()">Allow reading it</button>
      }
      @if (why() !== 'broken') {
        <button class="act" (click)="choose(one)">Show the file</button>
        <button class="act" (click)="folder.click()">Look through a folder</button>
      }
      @if (share() !== null) {
        <progress max="1" [value]="share()" aria-label="Looking for it"></progress>
      }
      <input #one type="file" multiple hidden (change)="look(filesOf(one))" aria-label="The file" />
      <input #folder type="file" webkitdirectory hidden (change)="look(filesOf(folder))" aria-label="A folder to look through" />
    </p>
  `,
  styles: `
    p {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 4px 14px;
      margin: 0;
      padding: 4px 10px;
      background: var(--accent-ground);
      border-radius: var(--radius);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MissingFile {
  readonly documents = input.required<readonly Document[]>();
  readonly why = input.required<Unplayed>();

  private readonly files = inject(MediaFiles);
  private readonly notices = inject(Notices);
  protected readonly share = signal<number | null>(null);
  private readonly media = computed((): readonly Media[] =>
    this.documents().flatMap(({ ground, seen }) => (ground.of !== 'text' ? [ground.media] : seen ? [seen.media] : [])),
  );
  protected readonly words = computed(() => {
    const [document] = this.documents();
    const [media] = this.media();
    if (!document || !media) return '';
    if (this.documents().length > 1) return `${counted(this.documents().length, 'file')} of recordings and pictures are not here.`;
    const name = media.outside?.name ?? document.source?.fileName ?? document.title;
    const which = `${quoted(name)}, ${sizeWords(media.bytes)}`;
    switch (this.why()) {
      case 'permission':
        return `The browser asks before it reads ${which} again.`;
      case 'changed':
        return `${which}, was changed since, or another file lies in its place: what is coded belongs to the file as it was.`;
      case 'broken':
        return `This browser cannot ${document.ground.of === 'time' ? 'play' : 'show'} ${which}: it is damaged, or packed in a way the browser does not know.`;
      case 'gone':
        return `The file is not here: ${which}. What was coded and written is.`;
    }
  });

  protected filesOf(input: HTMLInputElement): Candidate[] {
    const files = [...(input.files ?? [])].map((file) => ({ file }));
    input.value = '';
    return files;
  }

  /** The browser's own way to choose, where it has one: it finds the file again in another session. */
  protected async choose(input: HTMLInputElement): Promise<void> {
    if (!window.showOpenFilePicker) return input.click();
    const handles = await window.showOpenFilePicker({ multiple: true }).catch(() => []);
    await this.look(await Promise.all(handles.map(async (handle) => ({ file: await handle.getFile(), handle }))));
  }

  protected async look(among: readonly Candidate[]): Promise<void> {
    if (among.length === 0) return;
    this.share.set(0);
    const wanted = this.media();
    const found = await this.files.recover(wanted, among, (share) => this.share.set(share)).finally(() => this.share.set(null));
    const missing = wanted.length - found.length;
    if (missing === 0) return this.notices.say(found.length === 1 ? 'Found.' : `All ${found.length} found.`);
    this.notices.refuse(
      wanted.length === 1
        ? `None of the ${counted(among.length, 'file')} holds what the recording held: the same name is not enough, every byte must be the same.`
        : `${found.length} of ${wanted.length} found; ${missing} are not among these files.`,
    );
  }

  protected async allow(): Promise<void> {
    const [media] = this.media();
    if (media && !(await this.files.allow(media))) this.notices.say('It may not be read, and so is not played.');
  }
}

import { ChangeDetectionStrategy, Component, computed, HostListener, inject, type OnDestroy, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { addDocuments } from '@core/change/commands/documents';
import { READABLE_ENDINGS } from '@core/formats/readable-endings';
import { DOCUMENT_KINDS, type DocumentKind } from '@core/model/document';
import { randomId, type Id } from '@core/model/ids';
import { composeText, looksLikeInterviewer } from '@core/text/draft-text';
import { labelsOf } from '@core/text/speakers';
import { Notices } from '../../../state/notices';
import { StudySession } from '../../../state/study-session';
import { selectDocuments, selectFolders, selectStudy } from '../../../state/study.selectors';
import { FilesService } from '../../../workers/files-service';
import { Icon } from '../../../ui/icon/icon';
import { newItem, toDocument, withRead, type ImportItem } from './import-item';

/** Paragraphs that the preview shows. */
const SHOWN = 150;

/** Brings files in: each is read and shown first, settings can be changed at any time, and then all go in as one step. */
@Component({
  selector: 'fl-import',
  imports: [RouterLink, Icon],
  templateUrl: './import.html',
  styleUrl: './import.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Import implements OnDestroy {
  private readonly files = inject(FilesService);
  private readonly session = inject(StudySession);
  private readonly notices = inject(Notices);
  private readonly router = inject(Router);
  private readonly store = inject(Store);
  private readonly documents = this.store.selectSignal(selectDocuments);
  protected readonly study = this.store.selectSignal(selectStudy);
  protected readonly folders = this.store.selectSignal(selectFolders);
  protected readonly endings = READABLE_ENDINGS.join(',');
  protected readonly kinds = DOCUMENT_KINDS;
  protected readonly isInterviewer = looksLikeInterviewer;

  private readonly list = signal<readonly ImportItem[]>([]);
  protected readonly items = this.list.asReadonly();
  protected readonly currentKey = signal<number | null>(null);
  protected readonly folderId = signal<Id | null>(null);
  protected readonly pasting = signal(false);
  protected readonly dragging = signal(false);
  private nextKey = 1;

  protected readonly current = computed(() => this.items().find((item) => item.key === this.currentKey()) ?? this.items()[0]);
  protected readonly wanted = computed(() => this.items().filter((item) => item.state === 'read' && item.wanted));
  protected readonly reading = computed(() => this.items().filter((item) => item.state === 'reading').length);
  protected readonly folderList = computed(() => Object.values(this.folders()).sort((a, b) => a.name.localeCompare(b.name)));

  /** The current file as it would be stored, cut for showing. */
  protected readonly preview = computed(() => {
    const item = this.current();
    if (!item?.read) return null;
    const { text, speakers, words } = composeText('', item.read.paragraphs, labelsOf(item.speakers));
    let last = -1;
    const paragraphs = text.paragraphs.slice(0, SHOWN).map((paragraph) => {
      const speaker = paragraph.speaker !== last || paragraph.body > paragraph.start ? (speakers[paragraph.speaker]?.name ?? '') : '';
      last = paragraph.speaker;
      const spans = item.read!.paragraphs[text.paragraphs.indexOf(paragraph)]!.emphasis;
      return {
        speaker,
        asks: speakers[paragraph.speaker]?.interviewer ?? false,
        style: paragraph.style,
        parts: partsOf(text.text.slice(paragraph.body, paragraph.end), paragraph.body - paragraph.start, spans),
      };
    });
    return { paragraphs, words, total: text.paragraphs.length, more: Math.max(0, text.paragraphs.length - SHOWN) };
  });

  ngOnDestroy(): void {
    if (this.reading() > 0) this.files.cancel();
  }

  @HostListener('dragover', ['$event'])
  protected onDragOver(event: DragEvent): void {
    if (!event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    this.dragging.set(true);
  }

  @HostListener('drop', ['$event'])
  protected onDrop(event: DragEvent): void {
    if (!event.dataTransfer?.files.length) return;
    event.preventDefault();
    this.dragging.set(false);
    void this.add([...event.dataTransfer.files]);
  }

  protected async onPicked(input: HTMLInputElement): Promise<void> {
    const files = [...(input.files ?? [])];
    input.value = '';
    await this.add(files);
  }

  protected async paste(title: string, text: string): Promise<void> {
    if (!text.trim()) return;
    this.pasting.set(false);
    await this.take(newItem(this.nextKey++, `${title.trim() || 'Pasted text'}.txt`, new TextEncoder().encode(text), true));
  }

  private async add(files: readonly File[]): Promise<void> {
    for (const file of files) {
      try {
        await this.take(newItem(this.nextKey++, file.name, new Uint8Array(await file.arrayBuffer())));
      } catch (error) {
        this.list.update((items) => [
          ...items,
          {
            ...newItem(this.nextKey++, file.name, new Uint8Array()),
            state: 'trouble',
            trouble: `The browser could not read it (${String(error)}).`,
          },
        ]);
      }
    }
  }

  private async take(item: ImportItem): Promise<void> {
    this.list.update((items) => [...items, item]);
    this.currentKey.update((key) => key ?? item.key);
    await this.readAgain(item.key, {});
  }

  /** Reads a file, again if its settings have changed. */
  protected async readAgain(key: number, options: ImportItem['options']): Promise<void> {
    const item = this.items().find((one) => one.key === key);
    if (!item) return;
    const merged = { ...item.options, ...options };
    this.change(key, { options: merged, state: 'reading' });
    const outcome = await this.files.read(item.fileName, item.bytes, merged);
    const now = this.items().find((one) => one.key === key);
    if (!now || now.options !== merged) return;
    if ('read' in outcome) this.replace(withRead(now, outcome.read, this.knownAs(outcome.read.sha256, key)));
    else this.change(key, { state: 'trouble', trouble: outcome.trouble, encodings: outcome.encodings });
  }

  /** Title of what has the same content, in the study or among the files here. */
  private knownAs(sha256: string, key: number): string | null {
    const stored = Object.values(this.documents()).find((document) => document.source?.sha256 === sha256);
    const here = this.items().find((item) => item.key < key && item.read?.sha256 === sha256);
    return stored?.title ?? here?.title ?? null;
  }

  protected change(key: number, fields: Partial<ImportItem>): void {
    this.list.update((items) => items.map((item) => (item.key === key ? { ...item, ...fields } : item)));
  }

  private replace(item: ImportItem): void {
    this.list.update((items) => items.map((one) => (one.key === item.key ? item : one)));
  }

  protected drop(key: number): void {
    this.list.update((items) => items.filter((item) => item.key !== key));
    if (this.currentKey() === key) this.currentKey.set(null);
  }

  protected toggleSpeaker(item: ImportItem, name: string, on: boolean): void {
    const speakers = new Set(item.speakers);
    if (on) speakers.add(name);
    else speakers.delete(name);
    this.change(item.key, { speakers });
  }

  protected setKind(key: number, kind: string): void {
    this.change(key, { kind: kind as DocumentKind });
  }

  protected async bringIn(): Promise<void> {
    const items = this.wanted();
    const left = this.items().length - items.length;
    const done = this.session.run(addDocuments(items.map((item) => toDocument(item, this.folderId(), randomId, Date.now()))));
    if (!done) return;
    await this.session.settled();
    const what = items.length === 1 ? `“${items[0]!.title}” is in` : `${items.length} documents are in`;
    this.notices.say(left > 0 ? `${what}; ${left} left out.` : `${what}.`);
    this.list.set([]);
    await this.router.navigate(['/study', this.study()!.id, 'material']);
  }
}

/** Cuts a paragraph's words at the borders of emphasis. @param offset where the words begin in the paragraph */
function partsOf(
  words: string,
  offset: number,
  spans: readonly { start: number; end: number; emphasis: string }[],
): { text: string; look: string }[] {
  const cuts = [...new Set([0, words.length, ...spans.flatMap((span) => [span.start - offset, span.end - offset])])]
    .filter((cut) => cut >= 0 && cut <= words.length)
    .sort((a, b) => a - b);
  return cuts.slice(1).map((end, at) => {
    const start = cuts[at]!;
    return {
      text: words.slice(start, end),
      look: spans
        .filter((span) => span.start - offset <= start && span.end - offset >= end)
        .map((span) => span.emphasis)
        .join(' '),
    };
  });
}

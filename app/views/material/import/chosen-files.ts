import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { FileOutcome } from '@core/filing/read-material';
import { endingOf } from '@core/formats/readable-endings';
import type { Markers } from '@core/questions/find-questions';
import { counted } from '@core/text/counted';
import { Notices } from '../../../state/notices';
import { selectDocuments } from '../../../state/study.selectors';
import { FilesService } from '../../../workers/files-service';
import type { ChosenFile } from './dropped-files';
import { contentOf, newItem, stemOf, withPicture, withRecording, withTable, withText, type IfKnown, type ImportItem } from './import-item';

/** The files that are to be brought in: each is read, shown, and can be set otherwise, before anything is stored. */
@Injectable()
export class ChosenFiles {
  private readonly files = inject(FilesService);
  private readonly notices = inject(Notices);
  private readonly documents = inject(Store).selectSignal(selectDocuments);
  private readonly list = signal<readonly ImportItem[]>([]);
  readonly items = this.list.asReadonly();
  readonly currentKey = signal<number | null>(null);
  private nextKey = 1;
  /** The share that is read of files that take long. */
  readonly shares = signal<ReadonlyMap<number, number>>(new Map());
  /** Files that were read and are not shown yet. */
  private readonly outcomes = new Map<number, FileOutcome>();
  private readonly bySum = computed(
    () => new Map(Object.values(this.documents()).flatMap((one) => (one.source ? [[one.source.sha256, one] as const] : []))),
  );

  readonly current = computed(() => this.items().find((item) => item.key === this.currentKey()) ?? this.items()[0]);
  readonly wanted = computed(() => this.items().filter((item) => item.state === 'read' && item.wanted));
  readonly reading = computed(() => this.items().filter((item) => item.state === 'reading').length);
  /** Kinds of file among those chosen, with how many are wanted, where there is more than one kind. */
  readonly fileKinds = computed(() => {
    const kinds = [...Map.groupBy(this.items(), (item) => endingOf(item.fileName) || 'no ending')];
    return kinds.length < 2 ? [] : kinds.map(([ending, some]) => ({ ending, count: some.length, on: some.some((item) => item.wanted) }));
  });

  /** A key for something that is taken in. */
  newKey(): number {
    return this.nextKey++;
  }

  async add(files: readonly ChosenFile[]): Promise<void> {
    const readable = files.filter(({ file, path }) => !path || !file.name.startsWith('.'));
    const items = readable.map(({ file, path, handle = null }) => newItem(this.nextKey++, file.name, file, { path, handle }));
    this.list.update((all) => [...all, ...items]);
    this.currentKey.update((key) => key ?? items[0]?.key ?? null);
    await Promise.all(items.map(async (item) => this.arrived(item.key, await this.read(item))));
    this.showArrived();
  }

  private async read({ key, fileName, file, options }: ImportItem): Promise<FileOutcome | null> {
    const outcome = await this.files.read(key, fileName, file, options, (share) =>
      this.shares.update((all) => new Map(all).set(key, share)),
    );
    if (this.shares().has(key)) this.shares.update((all) => new Map([...all].filter(([one]) => one !== key)));
    return outcome;
  }

  /** Answers are shown some at a time: hundreds of files must not redraw the list hundreds of times. */
  private arrived(key: number, outcome: FileOutcome | null): void {
    if (!outcome) return;
    this.outcomes.set(key, outcome);
    if (this.outcomes.size === 1) setTimeout(() => this.showArrived(), 150);
  }

  private showArrived(): void {
    if (this.outcomes.size === 0) return;
    const outcomes = new Map(this.outcomes);
    this.outcomes.clear();
    this.list.update((items) => items.map((item) => (outcomes.has(item.key) ? this.withOutcome(item, outcomes.get(item.key)!) : item)));
  }

  private withOutcome(item: ImportItem, outcome: FileOutcome): ImportItem {
    if ('text' in outcome) return withText(item, outcome.text, this.knownAs(outcome.text.sha256, item.key));
    if ('recording' in outcome) return withRecording(item, outcome.recording, this.knownAs(outcome.recording.sha256, item.key));
    if ('picture' in outcome) return withPicture(item, outcome.picture, this.knownAs(outcome.picture.sha256, item.key));
    if ('table' in outcome) return withTable(item, outcome.table, this.knownAs(outcome.table.sha256, item.key, outcome.table.sheet));
    return { ...item, state: 'trouble', trouble: outcome.trouble, encodings: outcome.encodings, remedy: outcome.remedy };
  }

  /** Takes in what is not a file. */
  async take(item: ImportItem): Promise<void> {
    this.list.update((items) => [...items, item]);
    this.currentKey.set(item.key);
    await this.readAgain(item.key, {});
  }

  /** Reads a file, again if its settings have changed. */
  async readAgain(key: number, options: ImportItem['options']): Promise<void> {
    const item = this.items().find((one) => one.key === key);
    if (!item) return;
    const merged = { ...item.options, ...options };
    this.change(key, { options: merged, state: 'reading' });
    const outcome = await this.read({ ...item, options: merged });
    const now = this.items().find((one) => one.key === key);
    if (!outcome || now?.options !== merged) return;
    this.replace(this.withOutcome(now, outcome));
  }

  /** What has the same content, in the study or among the files here. */
  private knownAs(sha256: string, key: number, sheet?: string): ImportItem['sameAs'] {
    const stored = this.bySum().get(sha256);
    if (stored) return { id: stored.id, title: stored.title };
    const here = this.items().find((item) => item.key < key && contentOf(item)?.sha256 === sha256 && item.table?.sheet === sheet);
    return here ? { id: null, title: here.title } : null;
  }

  /** Recordings and pictures that a text can be a transcript or a description of: those that come in, and those that are here. */
  readonly originals = computed((): readonly { readonly ref: string; readonly title: string; readonly stem: string }[] => [
    ...this.items().flatMap(({ key, recording, picture, title, fileName, wanted }) =>
      (recording ?? picture) && wanted ? [{ ref: `file ${key}`, title, stem: stemOf(fileName) }] : [],
    ),
    ...Object.values(this.documents()).flatMap(({ id, title, ground, source }) =>
      ground.of !== 'text' ? [{ ref: id, title, stem: stemOf(source?.fileName ?? title) }] : [],
    ),
  ]);

  /** What a text is a transcript or a description of: as it was said, else that whose file has the same name. */
  originalOf({ transcriptOf, fileName, text }: ImportItem): string | null {
    const all = this.originals();
    if (!text) return null;
    if (transcriptOf !== undefined) return all.some((one) => one.ref === transcriptOf) ? transcriptOf : null;
    return all.find((one) => one.stem === stemOf(fileName))?.ref ?? null;
  }

  change(key: number, fields: Partial<ImportItem>): void {
    this.list.update((items) => items.map((item) => (item.key === key ? { ...item, ...fields } : item)));
  }

  private replace(item: ImportItem): void {
    this.list.update((items) => items.map((one) => (one.key === item.key ? item : one)));
  }

  drop(key: number): void {
    this.files.forget([key]);
    this.list.update((items) => items.filter((item) => item.key !== key));
    if (this.currentKey() === key) this.currentKey.set(null);
  }

  setKnown(key: number, choice: string): void {
    this.change(key, { ifKnown: choice as IfKnown, wanted: choice !== 'skip' });
  }

  wantKind(ending: string, wanted: boolean): void {
    this.list.update((items) => items.map((item) => ((endingOf(item.fileName) || 'no ending') === ending ? { ...item, wanted } : item)));
  }

  toggleNobody(item: ImportItem, at: number): void {
    const nobody = item.nobody.includes(at) ? item.nobody.filter((one) => one !== at) : [...item.nobody, at];
    this.change(item.key, { nobody });
  }

  /** Sheets of a workbook that are not among the files yet. */
  sheetsLeft({ file, table }: ImportItem): string[] {
    const here = new Set(this.items().flatMap((item) => (item.file === file ? [item.table?.sheet ?? item.options.sheet] : [])));
    return table?.sheets.filter((sheet) => !here.has(sheet)) ?? [];
  }

  /** Takes the other sheets of a workbook in as well, each as a table of its own. */
  async takeSheets(workbook: ImportItem): Promise<void> {
    const { key, file, fileName, path } = workbook;
    const items = this.sheetsLeft(workbook).map((sheet) => newItem(this.nextKey++, fileName, file, { path, options: { sheet } }));
    this.list.update((all) => all.flatMap((item) => (item.key === key ? [item, ...items] : [item])));
    await Promise.all(items.map(async (item) => this.arrived(item.key, await this.read(item))));
    this.showArrived();
  }

  /** Two names are one speaker from now on. */
  joinSpeakers(item: ImportItem, name: string, into: string): void {
    const kept = Object.values(item.speakers).find((choice) => choice.name === into);
    if (!kept) return;
    const speakers = Object.fromEntries(
      Object.entries(item.speakers).map(([label, choice]) => [label, choice.name === name ? kept : choice]),
    );
    this.change(item.key, { speakers });
  }

  /** What was decided about the labels of one file is so for the same labels of all files. */
  speakersForAll({ key, text, speakers }: ImportItem): void {
    const labels = new Set(text?.speakers.map((label) => label.name));
    const decided = (item: ImportItem): ImportItem['speakers'] => {
      const own = Object.fromEntries(Object.entries(item.speakers).filter(([label]) => !labels.has(label)));
      for (const { name } of item.text?.speakers ?? []) if (labels.has(name) && Object.hasOwn(speakers, name)) own[name] = speakers[name]!;
      return own;
    };
    this.list.update((items) => items.map((item) => (item.text && item.key !== key ? { ...item, speakers: decided(item) } : item)));
  }

  markersForAll(markers: Markers | null): void {
    this.list.update((items) => items.map((item) => (item.text ? { ...item, markers } : item)));
  }

  /** Ends reading: what was read stays, the rest is left out. */
  stop(): void {
    this.files.stopReading();
    this.showArrived();
    this.shares.set(new Map());
    const left = this.reading();
    this.list.update((items) => items.filter((item) => item.state !== 'reading'));
    this.notices.say(`Stopped. ${counted(left, 'file was', 'files were')} not read; nothing is stored yet.`);
  }

  /** Lets go of everything. */
  clear(): void {
    this.files.forget(this.items().map((item) => item.key));
    this.list.set([]);
  }
}

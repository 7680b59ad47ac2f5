import { inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { strToU8, zip } from 'fflate';
import { parseValue } from '@core/attributes/values';
import { setValues } from '@core/commands/attributes';
import { ownDocuments } from '@core/commands/cases';
import { deleteDocuments, documentToll, editDocument, moveDocuments, setKindOf } from '@core/commands/documents';
import { addSet, changeMembers } from '@core/commands/sets';
import { joinDocuments } from '@core/commands/split-join';
import { standingOn } from '@core/integrity/standing-on';
import { hasText, type Document, type DocumentKind } from '@core/model/document';
import type { Id } from '@core/model/ids';
import { counted } from '@core/text/counted';
import { listed } from '@core/text/listed';
import { quoted } from '@core/text/quoted';
import { Notices } from '../../../state/notices';
import { StudySession } from '../../../state/study-session';
import { selectData } from '../../../state/study.selectors';
import { Ask } from '../../../ui/dialogs/ask';
import { fileName, saveFile } from '../../../ui/save-file';

/** What is done to the documents that are chosen in the table. */
@Injectable()
export class DocumentWork {
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly notices = inject(Notices);
  private readonly data = inject(Store).selectSignal(selectData);
  /** The documents it is done to, in their order. */
  of: () => readonly Document[] = () => [];
  readonly selected = signal<ReadonlySet<Id>>(new Set());

  private ids(): Id[] {
    return this.of().map((document) => document.id);
  }

  async renameDocument(document: Document): Promise<void> {
    await this.ask.keep(
      'Rename the document',
      'Title',
      document.title,
      'Rename',
      (title) => this.session.attempt(editDocument(document.id, { title })).refused,
    );
  }

  async describe(document: Document): Promise<void> {
    await this.ask.reply({
      title: `Describe ${quoted(document.title)}`,
      lines: [],
      label: 'Description',
      text: document.description,
      long: { what: 'description', of: document.id },
      yes: 'Keep',
      tries: (description) => this.session.attempt(editDocument(document.id, { description })).refused,
    });
  }

  async setDate(document: Document): Promise<void> {
    await this.ask.keep(`Date of ${quoted(document.title)}`, 'Year-month-day, or nothing', document.date ?? '', 'Set', (typed) => {
      const date = parseValue(typed, 'date');
      if (date === null) return `“${typed}” is not a day there is. Write it as 2025-01-22.`;
      return this.session.attempt(editDocument(document.id, { date: (date as string | undefined) ?? null })).refused;
    });
  }

  setKind(kind: DocumentKind): void {
    this.session.run(setKindOf(this.ids(), kind));
  }

  move(folderId: Id | null): void {
    this.session.run(moveDocuments(this.ids(), folderId));
  }

  giveTo(caseId: Id, owns: boolean): void {
    this.session.run(ownDocuments(caseId, this.ids(), owns));
  }

  async setAttribute(attributeId: Id): Promise<void> {
    const attribute = this.data()!.tables.attribute[attributeId]!;
    await this.ask.keep(
      `${attribute.name} of ${counted(this.of().length, 'document')}`,
      `Value (${attribute.type})`,
      '',
      'Set',
      (raw) => this.session.attempt(setValues(this.ids().map((ownerId) => ({ ownerId, attributeId, raw })))).refused,
    );
  }

  async newSet(): Promise<void> {
    await this.ask.keep(
      'New set',
      'Name',
      '',
      'Make the set',
      (name) => this.session.attempt(addSet('document', name, this.ids())).refused,
    );
  }

  putInSet(setId: Id): void {
    this.session.run(changeMembers(setId, this.ids(), true));
  }

  async join(): Promise<void> {
    const [first, second] = this.of();
    if (!first || !second) return;
    const goOn = await this.ask.confirm({
      title: `Put ${quoted(second.title)} behind ${quoted(first.title)}?`,
      lines: ['They become one document. Passages, memos and cases come along. It can be undone.'],
      yes: 'Join them',
    });
    if (!goOn) return;
    const texts = await this.session.textsOf([first.id, second.id]);
    const [one, two] = [first, second].map(({ id }) => texts.find((text) => text.id === id));
    if (!one || !two) return this.notices.say('Only texts can become one document.');
    this.session.run(joinDocuments(one, two));
    this.selected.set(new Set());
  }

  /** The words of the chosen documents as plain text, one file each. */
  async exportTexts(): Promise<void> {
    const documents = this.of().filter(hasText);
    const texts = await this.session.textsOf(this.ids());
    const files: Record<string, Uint8Array> = {};
    for (const document of documents) {
      const base = fileName(document.title) || 'document';
      let name = `${base}.txt`;
      for (let number = 2; name in files; number++) name = `${base} ${number}.txt`;
      files[name] = strToU8(texts.find((text) => text.id === document.id)?.text ?? '');
    }
    const bytes = await new Promise<Uint8Array>((resolve, reject) => zip(files, (error, data) => (error ? reject(error) : resolve(data))));
    saveFile('documents.zip', bytes, 'application/zip');
  }

  async remove(): Promise<void> {
    const documents = this.of();
    const ids = this.ids();
    if (ids.length === 0) return;
    const toll = documentToll(this.data()!, ids);
    const goOn = await this.ask.confirm({
      title: documents.length === 1 ? `Delete ${quoted(documents[0]!.title)}?` : `Delete ${documents.length} documents?`,
      lines: [
        ...(documents.length > 1 ? [listed(documents.map((one) => one.title))] : []),
        `This takes away ${counted(toll.passages, 'passage')} with ${counted(toll.codings, 'coding')}.`,
        ...standingOn(this.data()!, 'document', ids),
        'It can be undone.',
      ],
      yes: 'Delete',
      danger: true,
    });
    if (!goOn) return;
    this.session.run(deleteDocuments(ids, await this.session.textsOf(ids)));
    this.selected.set(new Set());
  }
}

import { inject, Injectable } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { commentPassages, ratePassages } from '@core/commands/code-passages';
import { moveCodings } from '@core/commands/move-codings';
import { addMemo } from '@core/commands/memos';
import { changeMembers } from '@core/commands/sets';
import type { Code } from '@core/model/code';
import { randomId, type Id } from '@core/model/ids';
import { passageOf } from '@core/passages/columns';
import type { Hit } from '@core/queries/evaluate';
import { counted } from '@core/text/counted';
import { naturalOrder } from '@core/text/natural-order';
import { StudySession } from '../../state/study-session';
import { selectData } from '../../state/study.selectors';
import { Ask } from '../../ui/dialogs/ask';
import { WritingDesk } from '../../ui/memo/writing-desk';
import { ChooseCode, wantedCodes } from '../../ui/picker/choose-code';

/** What is done to the passages of an answer that are chosen, beside giving them a code; each is one step. */
@Injectable()
export class AnswerActs {
  private readonly session = inject(StudySession);
  private readonly dialog = inject(MatDialog);
  private readonly ask = inject(Ask);
  private readonly desk = inject(WritingDesk);
  private readonly data = inject(Store).selectSignal(selectData);

  /** Codes that passages carry, in their natural order. */
  codesOn(hits: readonly Hit[]): Code[] {
    const data = this.data();
    const ids = new Set(
      hits.flatMap((hit) => passageOf(data?.passages[hit.documentId], hit.passageId)?.codings.map((one) => one.codeId) ?? []),
    );
    return naturalOrder(
      [...ids].flatMap((id) => data?.tables.code[id] ?? []),
      (code) => code.name,
    );
  }

  /** Sets of documents that are filled by hand. */
  sets() {
    return naturalOrder(
      Object.values(this.data()?.tables.set ?? {}).filter((set) => set.of === 'document' && !set.condition),
      (set) => set.name,
    );
  }

  /** Ratings from 1 to what the study rates to. */
  ratings(): number[] {
    return Array.from({ length: this.data()?.study.ratings ?? 0 }, (_, at) => at + 1);
  }

  /** Puts another code in the place of one. @returns whether it was done */
  async exchange(hits: readonly Hit[], from: Code): Promise<boolean> {
    const places = hits.filter((hit) =>
      passageOf(this.data()?.passages[hit.documentId], hit.passageId)?.codings.some((one) => one.codeId === from.id),
    );
    const chosen = await ChooseCode.open(this.dialog, {
      title: `In place of ${from.name} on ${counted(places.length, 'passage')}…`,
      mayMake: true,
    });
    const wanted = wantedCodes(chosen);
    return wanted !== null && this.session.run(moveCodings(from.id, places, wanted)) !== null;
  }

  async comment(hits: readonly Hit[]): Promise<void> {
    await this.ask.keep(
      `Comment on ${counted(hits.length, 'passage')}`,
      'Comment',
      '',
      'Comment',
      (text) => this.session.attempt(commentPassages(hits, text)).refused,
    );
  }

  /** Begins a memo that is linked to all of them. */
  async memo(hits: readonly Hit[]): Promise<void> {
    const [first, ...also] = hits.map(({ documentId, passageId }) => ({ type: 'passage' as const, documentId, id: passageId }));
    if (!first) return;
    const id = randomId();
    const title = await this.ask.keep(
      `A memo about ${counted(hits.length, 'passage')}`,
      'Title',
      '',
      'Write it',
      (text) => this.session.attempt(addMemo({ id, title: text, kind: 'analytic', about: first, also, text: '' })).refused,
    );
    if (title !== null) void this.desk.open({ memoId: id });
  }

  /** Puts the documents of passages in a set. */
  addTo(setId: Id, hits: readonly Hit[]): void {
    this.session.run(changeMembers(setId, [...new Set(hits.map((hit) => hit.documentId))], true));
  }

  rate(hits: readonly Hit[], code: Code, rating: number | null): void {
    this.session.run(ratePassages(hits, code.id, rating));
  }
}

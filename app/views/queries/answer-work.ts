import { inject, Injectable } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { codeFromAnswer, codePassages } from '@core/commands/code-passages';
import type { Hit } from '@core/queries/evaluate';
import { questionWords } from '@core/queries/words';
import { counted } from '@core/text/counted';
import { StudySession } from '../../state/study-session';
import { Ask } from '../../ui/dialogs/ask';
import { ChooseCode } from '../../ui/picker/choose-code';
import { Asking } from './asking';
import { AskedHere } from './sentence/asked-here';

/** What is done with the passages that answer a question. */
@Injectable()
export class AnswerWork {
  private readonly session = inject(StudySession);
  private readonly dialog = inject(MatDialog);
  private readonly ask = inject(Ask);
  private readonly asking = inject(Asking);
  private readonly here = inject(AskedHere);

  /** Gives passages a code. @returns whether it was done */
  async code(hits: readonly Hit[]): Promise<boolean> {
    const chosen = await ChooseCode.open(this.dialog, { title: `Give ${counted(hits.length, 'passage')} the code…`, mayMake: true });
    if (!chosen || 'top' in chosen) return false;
    const wanted = 'codeId' in chosen ? { codeIds: [chosen.codeId] } : { codeIds: [], newCodes: [{ name: chosen.name, parentId: null }] };
    return this.session.run(codePassages(hits, wanted)) !== null;
  }

  /** Makes a code of all that answers. */
  async makeCode(): Promise<void> {
    const hits = this.asking.shown()?.hits ?? [];
    const words = questionWords(this.asking.question(), this.here.names());
    const name = this.asking.kept()?.name ?? words;
    await this.ask.keep(
      'Make a code of the answer',
      'Name of the code',
      name.slice(0, 200),
      `Code ${counted(hits.length, 'passage')}`,
      (typed) => this.session.attempt(codeFromAnswer(typed, words, hits)).refused,
    );
  }
}

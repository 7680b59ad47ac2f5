import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { showValue } from '@core/attributes/values';
import { setValues, type TypedValue } from '@core/commands/attributes';
import { addCase, editCase } from '@core/commands/cases';
import type { Command } from '@core/change/command';
import { together } from '@core/commands/together';
import type { Case } from '@core/model/case';
import { randomId, type Id } from '@core/model/ids';
import { counted } from '@core/text/counted';
import { StudySession } from '../../../state/study-session';
import { selectStudy } from '../../../state/study.selectors';
import { Ask } from '../../../ui/dialogs/ask';
import { CaseRows } from './case-rows';
import type { Cell } from './grid-cells';
import { WrongValues, type WrongValue } from './wrong-values';

/** What stands in the cells of the register, and how it gets there: typed, filled down or pasted, all of it or none. */
@Injectable()
export class CaseCells {
  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly list = inject(CaseRows);
  private readonly wrongs = inject(WrongValues);
  private readonly study = inject(Store).selectSignal(selectStudy);
  /** Why the last values were refused, or nothing. */
  readonly trouble = signal('');
  /** What a case is called. */
  readonly word = computed(() => this.study()?.caseWord ?? 'case');

  wrong(one: Case, column: number): WrongValue | undefined {
    return this.wrongs.of(one.id, this.list.attributes()[column - 1]?.id);
  }

  show(one: Case, column: number): string {
    const attribute = this.list.attributes()[column - 1];
    return attribute ? showValue(one.values[attribute.id]) : one.name;
  }

  /** What was typed into a cell and does not fit is let go. */
  dropWrong(one: Case, column: number): void {
    this.wrongs.drop(one.id, this.list.attributes()[column - 1]?.id);
    this.trouble.set('');
  }

  /** What was typed into a cell and does not fit stays in it, said to be wrong. */
  keepWrong(one: Case, column: number, raw: string): void {
    this.wrongs.put(one.id, this.list.attributes()[column - 1]?.id, { raw, reason: this.trouble() });
  }

  /** Sets cells, all or none; the first column is the name. @param also done in the same step, before */
  set(cells: readonly (Cell & { raw: string })[], also: readonly Command[] = [], added: readonly Id[] = []): boolean {
    const idOf = (row: number): Id | undefined => this.list.rows()[row]?.id ?? added[row - this.list.rows().length];
    const names = cells.filter((cell) => cell.column === 0);
    const values = cells.flatMap(({ row, column, raw }): TypedValue[] => {
      const attribute = this.list.attributes()[column - 1];
      const ownerId = idOf(row);
      return attribute && ownerId ? [{ ownerId, attributeId: attribute.id, raw }] : [];
    });
    const empty = names.filter(({ raw }) => !raw.trim());
    if (empty.length > 0) {
      const which = cells.length === 1 ? 'The name' : `The name in row ${empty[0]!.row + 1}`;
      this.trouble.set(`${which} is empty; every ${this.word()} needs one. Nothing was changed.`);
      return false;
    }
    const renamed = names.flatMap(({ row, raw }) => (this.list.rows()[row] ? [editCase(this.list.rows()[row]!.id, { name: raw })] : []));
    const order = this.list.rows().map((one) => one.id);
    const { refused } = this.session.attempt(together([...also, ...renamed, ...(values.length > 0 ? [setValues(values)] : [])]));
    this.trouble.set(refused ?? '');
    if (refused !== null) return false;
    this.list.hold([...order, ...added]);
    for (const { row, column } of cells) {
      const id = idOf(row);
      if (id) this.wrongs.drop(id, this.list.attributes()[column - 1]?.id);
    }
    return true;
  }

  /** Takes a block in. What lies beyond the last row or column is asked about, never dropped without a word. */
  async paste(pasted: readonly (Cell & { raw: string })[]): Promise<void> {
    const rows = this.list.rows().length;
    const wide = pasted.filter((cell) => cell.column > this.list.attributes().length && cell.raw !== '');
    if (wide.length > 0) {
      const columns = new Set(wide.map((cell) => cell.column)).size;
      this.trouble.set(
        `What was pasted is ${counted(columns, 'column')} wider than the register from here on. Make the attributes first, or paste further left. Nothing was changed.`,
      );
      return;
    }
    const cells = pasted.filter((cell) => cell.column <= this.list.attributes().length);
    const beyond = cells.filter((cell) => cell.row >= rows);
    if (beyond.length === 0) return void this.set(cells);
    const more = new Set(beyond.map((cell) => cell.row)).size;
    const names = beyond.filter((cell) => cell.column === 0);
    const mayAdd = names.length === more && !this.list.typed() && !this.list.dueBy();
    const reply = await this.ask.reply({
      title: `${counted(more, 'row')} more than there are ${this.word()}s`,
      lines: [
        mayAdd
          ? `They can be added as new ${this.word()}s.`
          : `To add new ${this.word()}s by pasting, show all of them and paste from the column of names on.`,
      ],
      yes: mayAdd ? `Add ${more} ${more === 1 ? this.word() : `${this.word()}s`}` : 'Paste what fits',
      ...(mayAdd && { other: 'Paste what fits' }),
    });
    if (!reply) return;
    if (mayAdd && reply.chose === 'yes') {
      const added = names.map(() => randomId());
      this.set(
        cells,
        names.map(({ raw }, at) => addCase(raw, added[at]!)),
        added,
      );
    } else this.set(cells.filter((cell) => cell.row < rows));
  }
}

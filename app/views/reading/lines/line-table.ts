import { Counted } from '../../../ui/counted/counted';
import {
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  signal,
  viewChildren,
} from '@angular/core';
import { Store } from '@ngrx/store';
import { setUnits } from '@core/commands/documents';
import type { Passage } from '@core/model/passage';
import { samePlace } from '@core/passages/relations';
import type { Stretch } from '@core/model/stretch';
import { PassageGroups } from '@core/passages/groups';
import { joinBefore, splitAt } from '@core/text/idea-units';
import { placeOf } from '@core/text/citation';
import { unitsOf } from '@core/text/units';
import { keptSignal } from '../../../state/kept-signal';
import { Notices } from '../../../state/notices';
import { StudySession } from '../../../state/study-session';
import { selectCodeRows } from '../../../state/study.selectors';
import type { Picked } from '../../../ui/picker/code-picker';
import { CodeCell } from '../code-cell';
import { GrowingList } from '../growing-list';
import { PassageWork } from '../passage-work';
import { ReadingHere } from '../reading-here';
import { caretWithin } from '../selected-within';
import { SelectedWords } from '../selected-words';
import { ROW_KINDS, rowsOf, type RowKind } from './unit-kinds';

/** Rows drawn at a time. */
const AT_ONCE = 120;

interface Row {
  readonly number: number;
  readonly place: Stretch;
  readonly words: string;
  readonly speaker: string;
  readonly passages: readonly Passage[];
}

/**
 * The text as a table of units, the codes of each in a cell beside it. The passages are those of the text itself.
 * Idea-units are divided and joined in place: Enter in the words divides, Backspace at their beginning joins.
 */
@Component({
  selector: 'fl-line-table',
  imports: [Counted, CodeCell],
  templateUrl: './line-table.html',
  styleUrl: './line-table.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LineTable {
  protected readonly here = inject(ReadingHere);
  private readonly work = inject(PassageWork);
  private readonly session = inject(StudySession);
  private readonly notices = inject(Notices);
  private readonly application = inject(ApplicationRef);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly cells = viewChildren(CodeCell);
  protected readonly codeRows = inject(Store).selectSignal(selectCodeRows);
  protected readonly kinds = ROW_KINDS;
  protected readonly kind = keptSignal<RowKind>('filum-row-kind', 'turn', (stored): stored is RowKind =>
    ROW_KINDS.includes(stored as RowKind),
  );
  /** Of which rows are shown: `all`, `uncoded`, `code ID` or `speaker N`. */
  protected readonly filter = signal('all');

  private readonly places = computed(() => {
    const [document, text] = [this.here.document(), this.here.text()];
    return document && text ? rowsOf(document, text, this.kind(), this.here.language()) : [];
  });
  private readonly all = computed((): readonly Row[] => {
    const [document, text] = [this.here.document(), this.here.text()];
    const passages = this.here.passages();
    if (!document || !text) return [];
    const groups = new PassageGroups(passages);
    return this.places().map((place, at): Row => {
      const { first, last } = groups.touching(place);
      return {
        number: at + 1,
        place,
        words: text.text.slice(place.start, place.end),
        speaker: placeOf(document, text, place).speaker ?? '',
        passages: passages.slice(first, last).filter((one) => one.start < place.end && one.end > place.start),
      };
    });
  });
  protected readonly rows = computed(() => {
    const [what, id] = this.filter().split(' ', 2) as [string, string | undefined];
    const speaker = this.filter().slice('speaker '.length);
    return this.all().filter((row) => {
      if (what === 'uncoded') return row.passages.every((passage) => passage.codings.length === 0);
      if (what === 'code') return row.passages.some((passage) => passage.codings.some((coding) => coding.codeId === id));
      return what !== 'speaker' || row.speaker === speaker;
    });
  });
  private readonly list = new GrowingList(this.rows, AT_ONCE);
  protected readonly drawn = this.list.drawn;
  protected readonly total = computed(() => this.all().length);
  protected readonly coded = computed(() => this.all().filter((row) => row.passages.some((passage) => passage.codings.length > 0)).length);
  protected readonly speakers = computed(() => [...new Set(this.here.document()?.speakers.map((speaker) => speaker.name))]);
  protected readonly byPlace = (_: number, row: Row): number => row.place.start;

  private readonly selected = new SelectedWords((node) => {
    const cell = (node instanceof Element ? node : node.parentElement)?.closest('[data-unit]');
    return cell && this.host.contains(cell) ? cell : null;
  });

  constructor() {
    effect(() => {
      this.here.documentId();
      this.filter.set('all');
      this.list.reset();
    });
  }

  protected setKind(value: string): void {
    this.kind.set(this.kinds.find((kind) => kind === value) ?? 'turn');
  }

  /** Codes the unit, or the words selected in it. */
  protected code(row: Row, picked: Picked): void {
    const selected = this.selectedIn(row);
    this.work.code({ documentId: this.here.document()!.id, place: selected ?? row.place }, picked);
    this.selected.forget();
  }

  private selectedIn(row: Row): Stretch | null {
    const cell = this.host.querySelector(`[data-unit="${row.place.start}"]`);
    const selected = cell && this.selected.in(cell);
    return selected && { start: row.place.start + selected.start, end: row.place.start + selected.end };
  }

  protected go(at: number, by: 1 | -1): void {
    this.list.reach(at + by);
    this.cells()[at + by]?.focus();
  }

  /** Marks where the reader is, for the text view. */
  protected lookAt(row: Row): void {
    this.here.at.set(row.place.start);
    const own = row.passages.find((passage) => samePlace(passage, row.place));
    this.here.chosenId.set(own?.id ?? null);
  }

  protected onUnitKey(event: KeyboardEvent, row: Row): void {
    const cell = event.currentTarget as HTMLElement;
    const at = caretWithin(cell);
    if (event.key === 'Enter') this.divide(row, at);
    else if (event.key === 'Backspace' && at === 0) this.join(row);
    else if (/^(Arrow|Tab|Home|End|Page|Shift|Control|Escape)/.test(event.key) || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
  }

  private divide(row: Row, offset: number): void {
    if (this.kind() !== 'idea-unit') return this.notices.say('Rows are divided and joined where they are idea-units: choose them above.');
    const place = row.place.start + offset;
    if (place <= row.place.start || place >= row.place.end) return this.notices.say('Put the caret where the next unit is to begin.');
    this.keepUnits((starts) => splitAt(starts, place));
    this.caretIn(place);
  }

  private join(row: Row): void {
    if (this.kind() !== 'idea-unit') return this.notices.say('Rows are divided and joined where they are idea-units: choose them above.');
    const before = this.places()[row.number - 2];
    if (!before) return this.notices.say('Nothing is before the first unit.');
    this.keepUnits((starts) => {
      const own = starts.filter((start) => start <= row.place.start).at(-1) ?? 0;
      return joinBefore(starts, own);
    });
    this.caretIn(before.start);
  }

  private keepUnits(change: (starts: readonly number[]) => number[]): void {
    const [document, text] = [this.here.document(), this.here.text()];
    if (!document || !text) return;
    const starts = document.units ?? [...new Set([0, ...unitsOf(text, 'sentence', this.here.language()).map((unit) => unit.start)])];
    this.session.run(setUnits(document.id, change(starts)));
  }

  protected putBack(): void {
    this.session.run(setUnits(this.here.documentId()!, null));
  }

  private caretIn(start: number): void {
    this.application.tick();
    this.host.querySelector<HTMLElement>(`[data-unit="${start}"]`)?.focus();
  }
}

import { Counted } from '../../../ui/counted/counted';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  signal,
  untracked,
  viewChildren,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { codePlace } from '@core/commands/passages';
import { questionsOf } from '@core/commands/questions';
import { attributesOf } from '@core/commands/attributes';
import { showValue } from '@core/attributes/values';
import type { Answer, Document, Text } from '@core/model/document';
import type { Id } from '@core/model/ids';
import { unpackPassages } from '@core/passages/columns';
import { StudyActions } from '../../../state/study.actions';
import { StudySession } from '../../../state/study-session';
import { TextCache } from '../../../state/text-cache';
import { selectCases, selectData, selectPassages, selectScopedDocuments, selectStudy } from '../../../state/study.selectors';
import { Ways } from '../../../state/ways';
import { Icon } from '../../../ui/icon/icon';
import { codesOf, type Picked } from '../../../ui/picker/code-picker';
import { CodeCell } from '../code-cell';
import { GrowingList } from '../growing-list';
import { SelectedWords } from '../selected-words';

/** Answers read from disk and drawn at a time. */
const AT_ONCE = 40;

interface Row {
  readonly document: Document;
  readonly answer: Answer;
}

/** One question, and all answers to it down the page, each with who gave it and its codes. */
@Component({
  selector: 'fl-question-reader',
  imports: [Counted, RouterLink, CodeCell, Icon],
  templateUrl: './question-reader.html',
  styleUrl: './question-reader.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QuestionReader {
  /** From the address. */
  readonly questionId = input<string>();

  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly ways = inject(Ways);
  private readonly cache = inject(TextCache);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly cells = viewChildren(CodeCell);
  private readonly data = this.store.selectSignal(selectData);
  private readonly scoped = this.store.selectSignal(selectScopedDocuments);
  private readonly passages = this.store.selectSignal(selectPassages);
  private readonly cases = this.store.selectSignal(selectCases);
  protected readonly study = this.store.selectSignal(selectStudy);
  private readonly texts = signal<ReadonlyMap<Id, Text>>(new Map());
  protected readonly uncodedOnly = signal(false);
  /** Attributes told of each respondent; the first few until the researcher chooses. */
  protected readonly shownAttributes = signal<readonly Id[] | null>(null);

  protected readonly questions = computed(() => (this.data() ? questionsOf(this.data()!) : []));
  protected readonly question = computed(() => this.questions().find((one) => one.id === this.questionId()) ?? this.questions()[0]);
  protected readonly attributes = computed(() => (this.data() ? attributesOf(this.data()!, 'case') : []));
  private readonly chosenAttributes = computed(() => {
    const chosen = this.shownAttributes();
    return chosen ? this.attributes().filter((one) => chosen.includes(one.id)) : this.attributes().slice(0, 4);
  });
  private readonly all = computed((): Row[] => {
    const id = this.question()?.id;
    return this.scoped().flatMap((document) =>
      document.answers.flatMap((answer) => (answer.questionId === id ? [{ document, answer }] : [])),
    );
  });
  protected readonly answered = computed(() => this.all().filter(({ answer }) => answer.start < answer.end));
  protected readonly blank = computed(() => this.all().length - this.answered().length);
  protected readonly coded = computed(
    () => this.answered().filter((row) => this.passagesIn(row).some((one) => one.codings.length > 0)).length,
  );
  /** Which rows the filter leaves is decided when it is set: an answer that is coded stays under the hands. */
  private readonly left = signal<ReadonlySet<Answer> | null>(null);
  protected readonly rows = computed(() => {
    const left = this.left();
    return left ? this.answered().filter(({ document, answer }) => left.has(answer) && document !== null) : this.answered();
  });
  private readonly list = new GrowingList(this.rows, AT_ONCE);
  protected readonly drawn = this.list.drawn;
  private readonly owners = computed(() => {
    const owners = new Map<Id, Id[]>();
    for (const one of Object.values(this.cases())) for (const id of one.documentIds) owners.set(id, [...(owners.get(id) ?? []), one.id]);
    return owners;
  });

  private readonly selected = new SelectedWords((node) => {
    const words = (node instanceof Element ? node : node.parentElement)?.closest('.words');
    return words && this.host.contains(words) ? words : null;
  });

  constructor() {
    effect(() => {
      this.question();
      untracked(() => {
        this.list.reset();
        this.setUncodedOnly(false);
      });
    });
    effect(() => {
      this.cache.changes();
      void this.load(this.drawn());
    });
  }

  private async load(rows: readonly Row[]): Promise<void> {
    const known = untracked(this.texts);
    const wanted = rows.flatMap(({ document }) => {
      const text = known.get(document.id);
      // a correction may leave a text as long as it was
      return text && this.cache.isCurrent(text) ? [] : [document.id];
    });
    if (wanted.length === 0) return;
    const read = await Promise.all(wanted.map((id) => this.cache.get(id)));
    this.texts.update((texts) => new Map([...texts, ...read.flatMap((text) => (text ? [[text.id, text] as const] : []))]));
  }

  protected words({ document, answer }: Row): string {
    return this.texts().get(document.id)?.text.slice(answer.start, answer.end) ?? '…';
  }

  protected passagesIn({ document, answer }: Row) {
    const columns = this.passages()[document.id];
    return columns ? unpackPassages(columns).filter((one) => one.start < answer.end && one.end > answer.start) : [];
  }

  /** Who answered, in a line. */
  protected facts({ document }: Row): string {
    return (this.owners().get(document.id) ?? [])
      .flatMap((id) => this.chosenAttributes().map((attribute) => showValue(this.cases()[id]!.values[attribute.id])))
      .filter(Boolean)
      .join(', ');
  }

  protected setUncodedOnly(on: boolean): void {
    this.uncodedOnly.set(on);
    this.left.set(
      on
        ? new Set(this.answered().flatMap((row) => (this.passagesIn(row).some((one) => one.codings.length > 0) ? [] : [row.answer])))
        : null,
    );
  }

  protected choose(id: string): void {
    this.ways.go(['reading', 'question', id]);
  }

  protected showAttribute(id: Id, on: boolean): void {
    const now = this.chosenAttributes().map((one) => one.id);
    this.shownAttributes.set(on ? [...now, id] : now.filter((one) => one !== id));
  }

  protected isShown(id: Id): boolean {
    return this.chosenAttributes().some((one) => one.id === id);
  }

  /** Codes the answer, or the words selected in it. */
  protected code({ document, answer }: Row, at: number, picked: Picked): void {
    const place = this.selectedIn(at, answer) ?? { start: answer.start, end: answer.end };
    const done = this.session.run(
      codePlace({
        documentId: document.id,
        place,
        ...codesOf(picked),
      }),
    );
    const made = done?.change.find((one) => one.type === 'code');
    const codeId = 'codeId' in picked ? picked.codeId : made?.type === 'code' ? made.after?.id : undefined;
    if (done) this.selected.forget();
    if (codeId) this.store.dispatch(StudyActions.codeUsed({ codeId }));
  }

  private selectedIn(at: number, answer: Answer): { start: number; end: number } | null {
    const words = this.host.querySelectorAll('.words')[at];
    const selected = words && this.selected.in(words);
    return selected ? { start: answer.start + selected.start, end: answer.start + selected.end } : null;
  }

  /** Goes to the cell of the next or previous answer, in view with its words. */
  protected go(at: number, by: 1 | -1): void {
    const next = at + by;
    this.list.reach(next);
    this.cells()[next]?.focus();
    this.host.querySelectorAll('article')[next]?.scrollIntoView({ block: 'nearest' });
  }
}

import { CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import type { GroupsAsked, WordsAsked } from '@core/model/pattern';
import { nameOf } from '@core/patterns/axis';
import { shownNumber } from '@core/patterns/normalise';
import type { WordCount } from '@core/patterns/word-counts';
import { counted } from '@core/text/counted';
import { selectStudy } from '../../state/study.selectors';
import { Ask } from '../../ui/dialogs/ask';
import { Icon } from '../../ui/icon/icon';
import { NumberPart } from '../../ui/sentence/number-part';
import { SentencePart, type Choice } from '../../ui/sentence/sentence-part';
import { AnalysisService } from '../../workers/analysis-service';
import { GroupsPart } from './groups-part';
import { PatternDraft } from './pattern-draft';
import { PatternPlace } from './pattern-place';
import { SearchFor } from './search-for';
import type { TableOut } from './take-out';
import { IN_CLOUD, WordCloud, type CloudWord } from './word-cloud';
import { FORMS_COUNT, WORD_FORMS, wordFormOf, wordsShownAs } from './word-forms';
import { workedOut } from './worked-out';

/** Words and runs of words: how often, in how many documents, and what is typical of one group. A word leads to where it stands. */
@Component({
  selector: 'fl-word-counts',
  imports: [
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
    CdkVirtualScrollViewport,
    GroupsPart,
    Icon,
    NumberPart,
    PatternPlace,
    SentencePart,
    WordCloud,
  ],
  templateUrl: './word-counts-view.html',
  styleUrls: ['./pattern.scss', './word-counts-view.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WordCountsView {
  private readonly analysis = inject(AnalysisService);
  private readonly draft = inject(PatternDraft);
  private readonly search = inject(SearchFor);
  private readonly ask = inject(Ask);
  private readonly study = inject(Store).selectSignal(selectStudy);
  protected readonly asked = this.draft.of('words');
  protected readonly work = workedOut(
    () => {
      const { shown: _, table: __, ...asked } = this.asked();
      return asked;
    },
    (data, asked, at) => this.analysis.wordCounts(data, asked, at),
  );
  private readonly groups = workedOut(
    computed(() => this.asked().typical?.groups),
    (data, groups, at) => this.analysis.groups(data, groups, at),
  );
  protected readonly runs: readonly Choice<number>[] = [
    { value: 1, name: 'words' },
    ...[2, 3, 4, 5].map((run) => ({ value: run, name: `runs of ${run} words` })),
  ];
  protected readonly formChoices = FORMS_COUNT;
  protected readonly stopChoices: readonly Choice<boolean>[] = [
    { value: true, name: 'without stop words' },
    { value: false, name: 'stop words as well' },
  ];
  protected readonly views = WORD_FORMS;
  protected readonly form = computed(() => this.asked().shown ?? 'list');
  protected readonly formWords = computed(() => wordFormOf(this.asked()));
  protected readonly kinds: readonly Choice<boolean>[] = [
    { value: false, name: 'in all of it' },
    { value: true, name: 'typical of one group' },
  ];
  protected readonly runWords = computed(() => this.runs.find((one) => one.value === this.asked().run)!.name);
  /** The groups one of which can be held against the others. */
  protected readonly groupChoices = computed((): Choice<string>[] =>
    (this.groups.shown() ?? []).map((entry) => ({ value: entry.key, name: nameOf(entry) })),
  );
  protected readonly groupWords = computed(() => {
    const key = this.asked().typical?.key ?? '';
    return this.groupChoices().find((one) => one.value === key)?.name ?? 'choose one';
  });
  protected readonly listWords = computed(() => {
    const { left, kept } = this.asked();
    return left.length + kept.length === 0 ? 'no others left out' : `${left.length} others left out, ${kept.length} kept`;
  });
  protected readonly said = computed(() => {
    const [work, { typical, run, forms }] = [this.work.shown(), this.asked()];
    const unit = run === 1 ? 'word' : 'run';
    if (!work) return '';
    const of = typical
      ? `${counted(work.total, unit)} in the group, ${counted(work.others, unit)} in the others.`
      : `Of ${counted(work.total, unit)}.`;
    return [
      of,
      'Capitals are one with small letters, accents are not; names of speakers are not counted.',
      forms ? 'Forms are one by their Snowball stem, shown as the one found most.' : '',
      typical ? 'Log-likelihood (Dunning 1993) says how surely, log ratio how strongly a word is more frequent in the group.' : '',
      run > 1 ? 'Runs stay within a paragraph.' : '',
    ]
      .filter(Boolean)
      .join(' ');
  });
  protected readonly rows = computed(() => this.work.shown()?.rows ?? []);
  private readonly largest = computed(() => Math.max(1, ...this.rows().map((row) => this.weight(row))));
  protected readonly cloud = computed((): CloudWord[] =>
    this.rows()
      .slice(0, IN_CLOUD)
      .map((row) => ({ key: row.words, words: row.words, weight: this.weight(row), said: counted(row.count, 'time') })),
  );
  protected readonly out = computed((): TableOut | null => {
    const work = this.work.shown();
    if (!work) return null;
    const { typical } = this.asked();
    return {
      name: typical ? `Words typical of ${this.groupWords()}` : 'Words',
      sheets: () => [
        {
          name: 'Words',
          rows: [
            ['words', 'count', 'documents', 'per 1,000', ...(typical ? ['in the others', 'log-likelihood', 'log ratio'] : [])],
            ...work.rows.map((row) => [
              ...[row.words, row.count, row.documents, (row.count / work.total) * 1_000],
              ...(row.against ? [row.against.count, row.against.likelihood, row.against.ratio] : []),
            ]),
          ],
        },
      ],
      said: this.said(),
    };
  });
  protected readonly trackRow = (_: number, row: WordCount): string => row.words;

  protected setForm(shown: NonNullable<WordsAsked['shown']>): void {
    this.draft.set(wordsShownAs(this.asked(), shown));
  }

  protected set(change: Partial<WordsAsked>): void {
    this.draft.set({ ...this.asked(), ...change });
  }

  protected setTypical(typical: boolean): void {
    const { typical: _, ...rest } = this.asked();
    this.draft.set(typical ? { ...rest, typical: { groups: { by: 'kind' }, key: '' } } : rest);
  }

  protected setGroups(groups: GroupsAsked): void {
    this.set({ typical: { groups, key: '' } });
  }

  protected setKey(key: string): void {
    const { typical } = this.asked();
    if (typical) this.set({ typical: { ...typical, key } });
  }

  /** Leaves a word out from now on. */
  protected leaveOut({ words }: WordCount): void {
    const { left, kept } = this.asked();
    this.set({ left: [...new Set([...left, words])], kept: kept.filter((one) => one !== words) });
  }

  /** The researcher's own changes to the list of stop words. */
  protected async editLists(): Promise<void> {
    const { left, kept } = this.asked();
    let lists: Pick<WordsAsked, 'left' | 'kept'> = { left, kept };
    const reply = await this.ask.reply({
      title: 'Words that are left out, and kept',
      lines: [
        'Beside the stop words of the study’s language: a word in a line is left out. One with a + in front is kept although it is a stop word.',
      ],
      label: 'Words, one in a line',
      text: [...left, ...kept.map((word) => `+${word}`)].join('\n'),
      long: { what: 'words left out', of: this.study()?.id ?? '' },
      yes: 'Count so',
      tries: (typed) => {
        const words = typed.split('\n').flatMap((line) => line.trim().toLowerCase() || []);
        if (words.length > 5_000) return 'At most 5,000 words.';
        const long = words.find((word) => word.length > 500);
        if (long) return `“${long.slice(0, 40)}…” is longer than 500 characters.`;
        const of = (keeps: boolean): string[] => [
          ...new Set(words.flatMap((word) => (word.startsWith('+') === keeps ? word.replace(/^\+\s*/, '') || [] : []))),
        ];
        lists = { left: of(false), kept: of(true) };
        return null;
      },
    });
    if (reply !== null) this.set(lists);
  }

  /** Looks for a word where it stands: there it can be read, swept and coded. */
  protected lookFor(words: string): void {
    const typed = this.asked().run > 1 || /^(and|or|not|within)$/.test(words) ? `"${words}"` : words;
    this.search.go(typed, this.asked().forms);
  }

  protected bar(row: WordCount): number {
    return (this.weight(row) / this.largest()) * 100;
  }

  protected share(row: WordCount): string {
    const total = this.work.shown()?.total ?? 0;
    return total === 0 ? '' : shownNumber((row.count / total) * 1_000);
  }

  protected readonly number = shownNumber;

  /** What a list is ordered by, and a cloud made of. */
  private weight(row: WordCount): number {
    return row.against?.likelihood ?? row.count;
  }
}

import type { WordsAsked } from '@core/model/pattern';
import type { Choice } from '../../ui/sentence/sentence-part';
import { shownAs } from './shown-as';

type WordsForm = NonNullable<WordsAsked['shown']>;

/** How words are shown. */
export const WORD_FORMS: readonly Choice<WordsForm>[] = [
  { value: 'list', name: 'as a list' },
  { value: 'cloud', name: 'as a cloud' },
  { value: 'table', name: 'in a table by groups' },
];

/** How words are shown at present, in words. */
export const wordFormOf = ({ shown = 'list' }: WordsAsked): string => WORD_FORMS.find((one) => one.value === shown)!.name;

/** The same words, shown otherwise. */
export const wordsShownAs = (asked: WordsAsked, shown: WordsForm): WordsAsked => shownAs(asked, shown, 'list');

/** Whether forms of a word count as one. */
export const FORMS_COUNT: readonly Choice<boolean>[] = [
  { value: false, name: 'each as it is written' },
  { value: true, name: 'forms of a word as one' },
];

import type { MemoSubject } from '../../model/memo';

/** An entry of a memo as some file has it, before it is taken in. */
export interface ListedMemo {
  readonly title: string;
  readonly kind: string;
  readonly tags: readonly string[];
  readonly text: string;
  /** ms since 1970; null where the file does not say. */
  readonly writtenAt: number | null;
  readonly source: string;
  /** Entries of one file with the same word here are of one memo; null where the file does not say: title and kind do then. */
  readonly memo: string | null;
  readonly editedAt: number | null;
  /** Name of the coder; empty where the file does not say. */
  readonly by: string;
  readonly question: 'open' | 'answered' | null;
  readonly pinned: boolean;
  readonly archived: boolean;
  /** What it is linked to; what the study does not know is passed over. */
  readonly links: readonly MemoSubject[];
}

/** What a file says that knows titles and texts only. */
export const PLAIN = {
  kind: 'analytic',
  tags: [],
  memo: null,
  editedAt: null,
  by: '',
  question: null,
  pinned: false,
  archived: false,
  links: [],
} as const satisfies Partial<ListedMemo>;

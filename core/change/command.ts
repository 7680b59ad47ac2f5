import type { Answered } from '../model/answered';
import type { Id, NewId } from '../model/ids';
import type { StudyState } from '../model/study-state';
import type { Moves } from '../model/references';
import type { Change } from './change';
import { shortened } from '../text/shortened';

/** Who acts, when, and where new ids come from. Commands take all of it from here, so they are pure. */
export interface CommandContext {
  readonly coderId: Id;
  /** Milliseconds since 1970. */
  readonly now: number;
  readonly newId: NewId;
  /** What kept queries find that live sets ask for; absent where none does. */
  readonly answered?: Answered;
}

/** What a command makes of a state: the change, and the sentence the log will show. */
export interface Action {
  readonly change: Change;
  /** Past tense, without the name of who did it, at most 500 characters. */
  readonly sentence: string;
  /** What takes the place of what goes, and where parts of documents are now; see `carryOut`. */
  readonly heirs?: Moves;
  /** Something that happened rather than was done: it is logged, but undo passes over it. */
  readonly isNote?: true;
}

/** Every user action is one: it reads the state and says what to change, or null for nothing to do. */
export type Command = (state: StudyState, context: CommandContext) => Action | null;

/** What was asked cannot be done; the message says why, in words for the researcher. */
export class CommandError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'CommandError';
  }
}

/** A record that a command was given by id. @throws CommandError if it is gone */
export function found<T>(record: T | undefined, what: string): T {
  if (record === undefined) throw new CommandError(`The ${what} is no longer there.`);
  return record;
}

/** Cuts a name for use in a log sentence. */
export const short = (name: string): string => shortened(name, 80);

export { counted } from '../text/counted';

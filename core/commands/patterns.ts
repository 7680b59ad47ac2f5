import { added, removed } from '../change/change';
import { CommandError, found, short, type Command } from '../change/command';
import type { Id } from '../model/ids';
import type { AskedPattern } from '../model/pattern';
import type { Scope } from '../model/scope';
import { quoted } from '../text/quoted';
import { tidyLine } from '../text/normalise';

/**
 * Keeps a pattern under a name, with what is looked at.
 * @param replaces puts it in place of another of that name
 */
export function keepPattern(name: string, asked: AskedPattern, scope: Scope, replaces = false): Command {
  return (state, context) => {
    const wanted = tidyLine(name);
    if (!wanted) throw new CommandError('A pattern needs a name.');
    const known = Object.values(state.tables.pattern).find((one) => one.name === wanted);
    if (known && JSON.stringify([known.asked, known.scope]) === JSON.stringify([asked, scope])) return null;
    if (known && !replaces)
      throw new CommandError(
        `There is a pattern ${quoted(short(wanted))} already, and it shows something else. Choose another name, or replace it.`,
      );
    const kept = { id: known?.id ?? context.newId(), name: wanted, asked, scope, createdAt: known?.createdAt ?? context.now };
    return {
      change: [known ? { type: 'pattern', before: known, after: kept } : added('pattern', kept)],
      sentence: `kept the pattern ${short(wanted)}`,
    };
  };
}

/** Deletes a kept pattern. */
export function deletePattern(patternId: Id): Command {
  return (state) => {
    const kept = found(state.tables.pattern[patternId], 'kept pattern');
    return { change: [removed('pattern', kept)], sentence: `deleted the pattern ${short(kept.name)}` };
  };
}

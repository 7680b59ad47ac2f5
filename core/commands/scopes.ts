import { added, removed, updated } from '../change/change';
import { CommandError, found, short, type Command } from '../change/command';
import type { Id } from '../model/ids';
import { isEverything, type Scope } from '../model/scope';
import { tidyLine } from '../text/normalise';

/** Keeps a scope under a name; one of that name is replaced. */
export function keepScope(name: string, scope: Scope): Command {
  return (state, context) => {
    const wanted = tidyLine(name);
    if (!wanted) throw new CommandError('A scope needs a name.');
    if (isEverything(scope)) throw new CommandError('This is the whole study: it can always be looked at, and needs no name.');
    const known = Object.values(state.tables.scope).find((one) => one.name === wanted);
    if (known && JSON.stringify(known.scope) === JSON.stringify(scope)) return null;
    const kept = { id: context.newId(), name: wanted, scope, createdAt: context.now };
    return {
      change: [known ? updated('scope', known, { scope }) : added('scope', kept)],
      sentence: `${known ? 'changed' : 'kept'} the scope ${short(wanted)}`,
    };
  };
}

/** Forgets a kept scope. */
export function deleteScope(scopeId: Id): Command {
  return (state) => {
    const kept = found(state.tables.scope[scopeId], 'kept scope');
    return { change: [removed('scope', kept)], sentence: `deleted the scope ${short(kept.name)}` };
  };
}

import { added, removed, updated } from '../change/change';
import { CommandError, found, short, type Command } from '../change/command';
import type { Id } from '../model/ids';
import type { Proposition } from '../model/proposition';
import { tidyLine } from '../text/normalise';

/** What a proposition says. */
export type PropositionFields = Pick<Proposition, 'name' | 'where' | 'then'>;

function tidied({ name, where, then }: PropositionFields): PropositionFields {
  const wanted = tidyLine(name);
  if (!wanted) throw new CommandError('A proposition needs a name.');
  return { name: wanted, where, then };
}

/** Keeps a proposition, empty or not. */
export function addProposition(fields: PropositionFields, id?: Id): Command {
  return (_, context) => {
    const next = tidied(fields);
    return {
      change: [added('proposition', { id: id ?? context.newId(), ...next, notes: [], createdAt: context.now })],
      sentence: `made the proposition ${short(next.name)}`,
    };
  };
}

/** Changes what a proposition says. Notes on cases stay: they may be worth reading against what it says now. */
export function editProposition(propositionId: Id, fields: Partial<PropositionFields>): Command {
  return (state) => {
    const proposition = found(state.tables.proposition[propositionId], 'proposition');
    const { name, where, then } = proposition;
    const next = tidied({ name, where, then, ...fields });
    if (JSON.stringify(next) === JSON.stringify({ name, where, then })) return null;
    const asksElse = JSON.stringify([next.where, next.then]) !== JSON.stringify([where, then]);
    const { seen: _seen, ...rest } = proposition;
    // what it said before it said something else is no measure of it
    return {
      change: [{ type: 'proposition', before: proposition, after: { ...(asksElse ? rest : proposition), ...next } }],
      sentence: `changed the proposition ${short(next.name)}`,
    };
  };
}

/** Says that all a proposition says now has been seen: what it says otherwise later will be told. */
export function seeProposition(propositionId: Id, speakFor: readonly Id[], against: readonly Id[]): Command {
  return (state, context) => {
    const proposition = found(state.tables.proposition[propositionId], 'proposition');
    const seen = { at: context.now, speakFor: [...speakFor], against: [...against] };
    return {
      change: [updated('proposition', proposition, { seen })],
      sentence: `saw what the proposition ${short(proposition.name)} says`,
    };
  };
}

/** Deletes a proposition with its notes. */
export function deleteProposition(propositionId: Id): Command {
  return (state) => {
    const proposition = found(state.tables.proposition[propositionId], 'proposition');
    return { change: [removed('proposition', proposition)], sentence: `deleted the proposition ${short(proposition.name)}` };
  };
}

/** Says something of one case under a proposition; nothing takes the note away. */
export function noteOnCase(propositionId: Id, caseId: Id, text: string): Command {
  return (state) => {
    const proposition = found(state.tables.proposition[propositionId], 'proposition');
    const { name } = found(state.tables.case[caseId], 'case');
    const note = text.trim();
    const before = proposition.notes.find((one) => one.caseId === caseId)?.note ?? '';
    if (note === before) return null;
    const others = proposition.notes.filter((one) => one.caseId !== caseId);
    return {
      change: [updated('proposition', proposition, { notes: note ? [...others, { caseId, note }] : others })],
      sentence: `${note ? 'noted something on' : 'took the note off'} ${short(name)} under the proposition ${short(proposition.name)}`,
    };
  };
}

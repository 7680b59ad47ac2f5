import type { Id } from '../model/ids';
import type { Relation } from '../model/relation';
import { tidyLine } from '../text/normalise';
import { added, removed } from '../change/change';
import { CommandError, found, short, type Command } from '../change/command';

/** Draws a relation from one code to another. @throws CommandError for a code with itself, or a relation that is there */
export function addRelation(fromId: Id, toId: Id, rawKind: string): Command {
  return (state, context) => {
    const [from, to] = [fromId, toId].map((id) => found(state.tables.code[id], 'code'));
    const kind = tidyLine(rawKind);
    if (!kind) throw new CommandError('A relation needs a name: leads to, stands against…');
    if (fromId === toId) throw new CommandError('A code cannot be related to itself.');
    if (Object.values(state.tables.relation).some((one) => one.fromId === fromId && one.toId === toId && one.kind === kind))
      throw new CommandError(`${from!.name} ${kind} ${to!.name}: that is there already.`);
    const relation: Relation = { id: context.newId(), fromId, toId, kind, note: '', coderId: context.coderId, createdAt: context.now };
    return { change: [added('relation', relation)], sentence: `noted that ${short(from!.name)} ${short(kind)} ${short(to!.name)}` };
  };
}

/** Takes a relation away. */
export function deleteRelation(relationId: Id): Command {
  return (state) => {
    const relation = found(state.tables.relation[relationId], 'relation');
    const name = (id: Id): string => short(state.tables.code[id]?.name ?? 'a code');
    return {
      change: [removed('relation', relation)],
      sentence: `took away that ${name(relation.fromId)} ${short(relation.kind)} ${name(relation.toId)}`,
    };
  };
}

import { checkName, newCode, type NewCode } from '../codebook/new-code';
import { childrenOf, withDescendants } from '../codebook/tree';
import type { Code } from '../model/code';
import type { Id } from '../model/ids';
import type { StudyState } from '../model/study-state';
import { tidyLine } from '../text/normalise';
import { passagesCarrying } from '../passages/columns';
import { lineage } from '../passages/counting';
import { added, removed, updated, type Change } from '../change/change';
import { CommandError, counted, found, short, type Command } from '../change/command';
import { mayChangeCodebook } from '../codebook/frozen';
import { withCodings } from './passages';

/** Makes a code. */
export function addCode(wanted: NewCode): Command {
  return (state, context) => {
    mayChangeCodebook(state);
    const code = newCode(state, context, wanted);
    const under = code.parentId ? ` under ${short(found(state.tables.code[code.parentId], 'category').name)}` : '';
    return { change: [added('code', code)], sentence: `made the code ${short(code.name)}${under}` };
  };
}

/** What of a code can be edited directly. */
export type CodeFields = Partial<Pick<Code, 'name' | 'mark' | 'colour' | 'definition' | 'useWhen' | 'doNotUseWhen' | 'example' | 'notes'>>;

/** Changes a code's name, mark, colour or description. */
export function editCode(codeId: Id, fields: CodeFields): Command {
  return (state) => {
    const code = found(state.tables.code[codeId], 'code');
    if (Object.keys(fields).some((key) => key !== 'notes')) mayChangeCodebook(state);
    const next = { ...fields };
    if (next.name !== undefined) {
      next.name = tidyLine(next.name);
      checkName(state.tables.code, next.name, code.parentId, codeId);
    }
    if (next.mark !== undefined) {
      next.mark = [...tidyLine(next.mark)].slice(0, 3).join('');
      if (!next.mark) throw new CommandError('A mark has one to three characters.');
      const other = Object.values(state.tables.code).find((one) => one.id !== codeId && one.mark === next.mark);
      if (other) throw new CommandError(`“${next.mark}” is already the mark of ${other.name}.`);
    }
    const changed = (Object.keys(next) as (keyof CodeFields)[]).filter((key) => next[key] !== code[key]);
    if (changed.length === 0) return null;
    const what = changed.map((key) => FIELD_WORDS[key]).join(', ');
    const sentence =
      changed.length === 1 && changed[0] === 'name'
        ? `renamed the code ${short(code.name)} to ${short(next.name!)}`
        : `changed the ${what} of the code ${short(code.name)}`;
    return { change: [updated('code', code, next)], sentence };
  };
}

const FIELD_WORDS: Readonly<Record<keyof CodeFields, string>> = {
  name: 'name',
  mark: 'mark',
  colour: 'colour',
  definition: 'definition',
  useWhen: 'use',
  doNotUseWhen: 'limits',
  example: 'example',
  notes: 'notes',
};

/**
 * Puts a code under another (or at the top), before the sibling at `index`.
 * @throws CommandError if it would come under itself
 */
export function moveCode(codeId: Id, parentId: Id | null, index: number): Command {
  return (state) => {
    mayChangeCodebook(state);
    const codes = state.tables.code;
    const code = found(codes[codeId], 'code');
    if (parentId !== null && lineage(codes, found(codes[parentId], 'category').id).includes(codeId))
      throw new CommandError(`${code.name} cannot go under itself.`);
    const siblings = childrenOf(codes, parentId).filter((sibling) => sibling.id !== codeId);
    checkName(codes, code.name, parentId, codeId);
    const at = Math.max(0, Math.min(index, siblings.length));
    const before = siblings[at - 1]?.order;
    const after = siblings[at]?.order;
    const order = before === undefined ? (after ?? 1) - 1 : after === undefined ? before + 1 : (before + after) / 2;
    const crowded = order === before || order === after;
    const change: Change = crowded
      ? siblings
          .toSpliced(at, 0, code)
          .map((each, place) => updated('code', each, each === code ? { parentId, order: place + 1 } : { order: place + 1 }))
      : [updated('code', code, { parentId, order })];
    if (code.parentId === parentId && childrenOf(codes, parentId).findIndex((sibling) => sibling.id === codeId) === at) return null;
    const where = parentId ? `under ${short(codes[parentId]!.name)}` : 'to the top of the codebook';
    return {
      change,
      sentence:
        code.parentId === parentId ? `moved the code ${short(code.name)} within its place` : `moved the code ${short(code.name)} ${where}`,
    };
  };
}

/** What deleting a code takes away, to be named before it is done. */
export interface DeletionToll {
  readonly codes: number;
  readonly codings: number;
  /** Passages that carry nothing else and go too. */
  readonly passages: number;
  readonly documents: number;
  /** Memos that stay, about nothing from then on. */
}

/** Deletes codes with all codes under them and their codings. */
export function deleteCodes(codeIds: readonly Id[]): Command {
  return (state) => {
    mayChangeCodebook(state);
    if (codeIds.length === 0) return null;
    const { change, toll } = deletion(state, codeIds);
    return { change, sentence: `deleted ${counted(toll.codes, 'code')}, with ${counted(toll.codings, 'coding')}` };
  };
}

/** Deletes a code with all codes under it and their codings. */
export function deleteCode(codeId: Id): Command {
  return (state) => {
    mayChangeCodebook(state);
    const code = found(state.tables.code[codeId], 'code');
    const { change, toll } = deletion(state, [codeId]);
    return {
      change,
      sentence: `deleted the code ${short(code.name)}${toll.codes > 1 ? ` and ${counted(toll.codes - 1, 'code')} under it` : ''}, with ${counted(toll.codings, 'coding')}`,
    };
  };
}

/** Counts what {@link deleteCodes} would take away. */
export const deletionToll = (state: StudyState, ...codeIds: Id[]): DeletionToll => deletion(state, codeIds).toll;

function deletion(state: StudyState, codeIds: readonly Id[]): { change: Change; toll: DeletionToll } {
  const gone = new Set(codeIds.flatMap((id) => withDescendants(state.tables.code, id)));
  const change: Change[number][] = [];
  let codings = 0;
  let passages = 0;
  let documents = 0;
  for (const columns of Object.values(state.passages)) {
    const carrying = passagesCarrying(columns, gone);
    for (const passage of carrying) {
      const kept = passage.codings.filter((coding) => !gone.has(coding.codeId));
      codings += passage.codings.length - kept.length;
      const one = withCodings(state, passage, kept);
      if (one.after === null) passages++;
      change.push(one);
    }
    if (carrying.length > 0) documents++;
  }
  for (const id of [...gone].reverse()) change.push(removed('code', state.tables.code[id]!));
  return { change, toll: { codes: gone.size, codings, passages, documents } };
}

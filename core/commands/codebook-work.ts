import { quoted } from '../text/quoted';
import { checkName, newCode } from '../codebook/new-code';
import { childrenOf } from '../codebook/tree';
import { FAMILY_SIZE, PALETTE_SIZE, type Code } from '../model/code';
import type { Id } from '../model/ids';
import { passagesCarrying } from '../passages/columns';
import { lineage } from '../passages/counting';
import { tidyLine } from '../text/normalise';
import { added, updated } from '../change/change';
import { CommandError, counted, found, short, type Command } from '../change/command';
import { mayChangeCodebook } from '../codebook/frozen';
import type { PassageAt } from './move-codings';

/** Moves codes to the end of a category (or of the top), in the order given. Codes under one that moves go with it. */
export function moveCodes(codeIds: readonly Id[], parentId: Id | null): Command {
  return (state) => {
    mayChangeCodebook(state);
    const codes = state.tables.code;
    const chosen = new Set(codeIds);
    const line = parentId === null ? [] : lineage(codes, found(codes[parentId], 'category').id);
    const tops = codeIds.filter(
      (id) =>
        !lineage(codes, id)
          .slice(1)
          .some((above) => chosen.has(above)),
    );
    let order = childrenOf(codes, parentId).at(-1)?.order ?? 0;
    const taken = new Map<string, Id>(childrenOf(codes, parentId).map((child) => [child.name.toLowerCase(), child.id]));
    const moves = tops.flatMap((id) => {
      const code = found(codes[id], 'code');
      if (line.includes(id)) throw new CommandError(`${code.name} cannot go under itself.`);
      if (code.parentId === parentId) return [];
      const other = taken.get(code.name.toLowerCase());
      if (other && other !== id)
        throw new CommandError(`There is already a code ${quoted(code.name)} there. Rename one of them, or join them.`);
      taken.set(code.name.toLowerCase(), id);
      return [updated('code', code, { parentId, order: ++order })];
    });
    if (moves.length === 0) return null;
    const where = parentId ? `under ${short(codes[parentId]!.name)}` : 'to the top of the codebook';
    const what = moves.length === 1 ? `the code ${short(codes[tops[0]!]!.name)}` : counted(moves.length, 'code');
    return { change: moves, sentence: `moved ${what} ${where}` };
  };
}

/** Gives several codes a name each, as one step. @param names by code; those that stay as they are are passed over */
export function renameCodes(names: ReadonlyMap<Id, string>): Command {
  return (state) => {
    mayChangeCodebook(state);
    const after = { ...state.tables.code };
    const renamed = [...names].flatMap(([id, raw]) => {
      const code = found(state.tables.code[id], 'code');
      const name = tidyLine(raw);
      if (name === code.name) return [];
      after[id] = { ...code, name };
      return [updated('code', code, { name })];
    });
    for (const { id, name, parentId } of renamed.map((one) => after[one.after!.id]!)) checkName(after, name, parentId, id);
    return renamed.length === 0 ? null : { change: renamed, sentence: `renamed ${counted(renamed.length, 'code')}` };
  };
}

/** Colours codes alike. */
export function colourCodes(codeIds: readonly Id[], colour: number): Command {
  return (state) => {
    mayChangeCodebook(state);
    const changed = codeIds.map((id) => found(state.tables.code[id], 'code')).filter((code) => code.colour !== colour);
    return changed.length === 0
      ? null
      : { change: changed.map((code) => updated('code', code, { colour })), sentence: `coloured ${counted(changed.length, 'code')}` };
  };
}

/**
 * Colours each category at the top, and all that lies under it, in a family of related hues; codes at the top that
 * hold nothing stay as they are.
 */
export function colourByCategory(): Command {
  return (state) => {
    mayChangeCodebook(state);
    const codes = state.tables.code;
    const categories = childrenOf(codes, null).filter((code) => childrenOf(codes, code.id).length > 0);
    const families = PALETTE_SIZE / FAMILY_SIZE;
    const change = categories.flatMap((category, at) => {
      let member = 0;
      const branch: Code[] = [category];
      // a list goes on to what is added while it is walked
      for (const code of branch) branch.push(...childrenOf(codes, code.id));
      return branch.flatMap((code) => {
        const colour = (at % families) * FAMILY_SIZE + (member++ % FAMILY_SIZE);
        return code.colour === colour ? [] : [updated('code', code, { colour })];
      });
    });
    return change.length === 0
      ? null
      : { change, sentence: `coloured ${counted(categories.length, 'category', 'categories')} in families of hues` };
  };
}

/** Retires codes: they keep their passages, but are no longer offered; or takes them into use again. */
export function retireCodes(codeIds: readonly Id[], retire: boolean): Command {
  return (state) => {
    mayChangeCodebook(state);
    const changed = codeIds.map((id) => found(state.tables.code[id], 'code')).filter((code) => Boolean(code.retired) !== retire);
    if (changed.length === 0) return null;
    const what = changed.length === 1 ? `the code ${short(changed[0]!.name)}` : counted(changed.length, 'code');
    return {
      change: changed.map((code) => {
        const { retired: _, ...rest } = code;
        return { type: 'code' as const, before: code, after: retire ? { ...rest, retired: true as const } : rest };
      }),
      sentence: retire ? `retired ${what}` : `took ${what} into use again`,
    };
  };
}

/**
 * Copies a code beside itself: its description and, if wanted, its passages, which then carry both. What lies under
 * it is not copied.
 */
export function copyCode(codeId: Id, rawName: string, withPassages: boolean): Command {
  return (state, context) => {
    mayChangeCodebook(state);
    const code = found(state.tables.code[codeId], 'code');
    const made = newCode(state, context, { name: rawName, parentId: code.parentId });
    const { definition, useWhen, doNotUseWhen, example } = code;
    const copy: Code = { ...made, definition, useWhen, doNotUseWhen, example, ...(code.notes && { notes: code.notes }) };
    const marked = (withPassages ? Object.values(state.passages) : []).flatMap((columns) =>
      passagesCarrying(columns, new Set([codeId])).map((passage) => {
        const own = passage.codings.filter((coding) => coding.codeId === codeId);
        return updated('passage', passage, { codings: [...passage.codings, ...own.map((coding) => ({ ...coding, codeId: copy.id }))] });
      }),
    );
    return {
      change: [added('code', copy), ...marked],
      sentence: `copied the code ${short(code.name)} to ${short(copy.name)}${marked.length > 0 ? `, with ${counted(marked.length, 'passage')}` : ''}`,
    };
  };
}

/** Chooses real passages to stand for a code, or no longer. */
export function anchorPassages(codeId: Id, places: readonly PassageAt[], anchor: boolean): Command {
  return (state) => {
    const code = found(state.tables.code[codeId], 'code');
    const given = new Set(places.map((place) => place.passageId));
    const { anchors: before = [], ...rest } = code;
    const others = before.filter((one) => !given.has(one.passageId));
    const anchors = anchor ? [...others, ...places.map(({ documentId, passageId }) => ({ documentId, passageId }))] : others;
    if (anchors.length === before.length) return null;
    if (anchors.length > 100) throw new CommandError('A code has room for 100 example passages.');
    const what = places.length === 1 ? 'an example passage' : counted(places.length, 'example passage');
    return {
      change: [{ type: 'code', before: code, after: anchors.length > 0 ? { ...rest, anchors } : rest }],
      sentence: anchor ? `chose ${what} for ${short(code.name)}` : `took ${what} from ${short(code.name)}`,
    };
  };
}

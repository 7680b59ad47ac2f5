import { quoted } from '../text/quoted';
import type { ListedCodebook } from '../codebook/exchange/listed-code';
import { LISTED_FIELDS, pathKey, pathOf, type Decision, type PlannedCode } from '../codebook/exchange/plan-codes';
import { bareCode } from '../codebook/new-code';
import { nearestColour } from '../model/colour-hex';
import { FAMILY_SIZE, PALETTE_SIZE, type Code } from '../model/code';
import type { CodeSet } from '../model/code-set';
import type { Id } from '../model/ids';
import { markFor } from '../model/mark';
import { lineage } from '../passages/counting';
import { added, updated, type RecordChange } from '../change/change';
import { CommandError, counted, type Command } from '../change/command';
import { mayChangeCodebook } from '../codebook/frozen';

/**
 * Takes a listed codebook over as one step, by what was decided for each code. A code comes under the category that
 * its path names, made where it is not there; sets come in with the codes they name.
 * @param decisions one for each planned code, in the same order
 */
export function importCodes(
  listed: ListedCodebook,
  planned: readonly PlannedCode[],
  decisions: readonly Decision[],
  source: string,
): Command {
  return (state, context) => {
    mayChangeCodebook(state);
    if (listed.faults.length > 0) throw new CommandError(`Nothing was taken over. ${listed.faults[0]}`);
    const codes: Record<Id, Code> = { ...state.tables.code };
    const byPath = new Map(Object.keys(codes).map((id) => [pathKey(pathOf(state.tables.code, id)), id]));
    const made = new Set<Id>();
    const touched = new Set<Id>();
    const byGuid = new Map<Id, Id>();

    const idAt = (path: readonly string[]): Id | null => {
      if (path.length === 0) return null;
      const known = byPath.get(pathKey(path));
      if (known) return known;
      return make(path);
    };
    // what new codes are given follows from the codebook as it grows, kept at hand so that thousands take no time
    const marks = new Set(Object.values(codes).map((code) => code.mark));
    const children = new Map<Id | null, { count: number; order: number }>();
    for (const { parentId, order } of Object.values(codes)) {
      const some = children.get(parentId);
      children.set(parentId, { count: (some?.count ?? 0) + 1, order: Math.max(some?.order ?? 0, order) });
    }
    const make = (path: readonly string[]): Id => {
      const name = path.at(-1)!;
      const parentId = idAt(path.slice(0, -1));
      const { count, order } = children.get(parentId) ?? { count: 0, order: 0 };
      children.set(parentId, { count: count + 1, order: order + 1 });
      const mark = markFor(name, marks);
      marks.add(mark);
      const family = parentId ? Math.floor(codes[parentId]!.colour / FAMILY_SIZE) : count % (PALETTE_SIZE / FAMILY_SIZE);
      const colour = family * FAMILY_SIZE + (parentId ? (count + 1) % FAMILY_SIZE : 0);
      const code = bareCode(context, { name, mark, colour, parentId, order: order + 1 });
      codes[code.id] = code;
      made.add(code.id);
      byPath.set(pathKey(path), code.id);
      return code.id;
    };

    planned.forEach(({ listed: one, existingId, differences }, at) => {
      const decision = decisions[at] ?? 'leave';
      if (existingId && decision !== 'beside' && one.guid) byGuid.set(one.guid, existingId);
      if (existingId && decision !== 'beside') byPath.set(pathKey(one.path), existingId);
      if (decision === 'leave') return;
      if (existingId && decision === 'take') {
        const fields: Partial<Code> = {};
        for (const { field, after } of differences) {
          if (field === 'place') fields.parentId = idAt(one.path.slice(0, -1));
          else if (field === 'colour') fields.colour = Number(after);
          else if (field === 'name') fields.name = after;
          else if (field === 'retired') continue;
          else fields[field] = after;
        }
        const retires = differences.some((one) => one.field === 'retired');
        if (Object.keys(fields).length === 0 && !retires) return;
        codes[existingId] = inUse({ ...codes[existingId]!, ...fields }, retires ? one.retired : null);
        touched.add(existingId);
        return;
      }
      const id = byPath.get(pathKey(one.path)) ?? make(one.path);
      const described = Object.fromEntries(LISTED_FIELDS.flatMap((field) => (one[field] ? [[field, one[field]]] : [])));
      const ownMark = one.mark !== null && (codes[id]!.mark === one.mark || !marks.has(one.mark));
      if (ownMark) marks.add(one.mark!);
      codes[id] = inUse(
        {
          ...codes[id]!,
          ...described,
          ...(ownMark && { mark: one.mark! }),
          ...(one.colour && { colour: nearestColour(one.colour) }),
        },
        one.retired,
      );
      if (one.guid) byGuid.set(one.guid, id);
    });

    checkTree(codes, new Set([...made, ...touched]));
    const sets = listed.sets.flatMap((set): RecordChange[] => {
      const codeIds = set.guids.flatMap((guid) => byGuid.get(guid) ?? []);
      if (codeIds.length === 0 || Object.values(state.tables.codeSet).some((one) => one.name === set.name)) return [];
      const record: CodeSet = {
        id: context.newId(),
        name: set.name,
        codeIds: [...new Set(codeIds)],
        conditions: null,
        createdAt: context.now,
      };
      return [added('codeSet', record)];
    });
    const change = [
      ...[...made].map((id) => added('code', codes[id]!)),
      ...[...touched].filter((id) => !made.has(id)).map((id) => updated('code', state.tables.code[id]!, codes[id]!)),
      ...sets,
    ];
    if (change.length === 0) return null;
    return {
      change,
      sentence: `brought in ${counted(made.size, 'new code')} and changed ${counted(touched.size, 'code')} from ${source}`.slice(0, 500),
    };
  };
}

/** The code in use, or retired, as the file says; as it is where it does not say. */
function inUse(code: Code, retired: boolean | null): Code {
  if (retired === null) return code;
  const { retired: _before, ...rest } = code;
  return retired ? { ...rest, retired: true } : rest;
}

/** @throws CommandError if a code would lie under itself, or two of one name in one place */
function checkTree(codes: Readonly<Record<Id, Code>>, changed: ReadonlySet<Id>): void {
  const names = new Map<string, Id>();
  for (const code of Object.values(codes)) {
    const key = `${code.parentId} ${code.name.toLowerCase()}`;
    const other = names.get(key);
    if (other && (changed.has(code.id) || changed.has(other)))
      throw new CommandError(`Two codes named ${quoted(code.name)} would lie in one place. Leave one of them out. Nothing was taken over.`);
    names.set(key, code.id);
  }
  for (const id of changed) {
    const line = lineage(codes, id);
    if (codes[line.at(-1)!]!.parentId !== null)
      throw new CommandError(`${quoted(codes[id]!.name)} would come to lie under itself. Leave it out. Nothing was taken over.`);
  }
}

import { marksOf } from '../model/passage-columns';
import { childrenOf } from '../codebook/tree';
import type { Code } from '../model/code';
import type { Id } from '../model/ids';
import type { Coding, Passage } from '../model/passage';
import type { StudyState } from '../model/study-state';
import { passagesCarrying } from '../passages/columns';
import type { PassageColumns } from '../model/passage-columns';
import { lineage } from '../passages/counting';
import { applyToDocument, foresee } from '../change/apply';
import { removed, updated, type Change, type RecordChange } from '../change/change';
import { CommandError, counted, found, short, type Command } from '../change/command';
import { mayChangeCodebook } from '../codebook/frozen';

/** Descriptions of a joined code, where the researcher has edited what the codes said. */
export type JoinedDescription = Partial<Pick<Code, 'definition' | 'useWhen' | 'doNotUseWhen' | 'example' | 'notes'>>;

/**
 * What the codes say of themselves, side by side to be edited: what the first says, then what each other says
 * under its name.
 */
export function joinedDescription(codes: readonly Code[]): Required<JoinedDescription> {
  const beside = (key: keyof JoinedDescription): string => {
    const said = codes.filter((code) => code[key]?.trim());
    return said.map((code) => (code === codes[0] || said.length === 1 ? code[key]! : `(${code.name}) ${code[key]!}`)).join('\n\n');
  };
  return {
    definition: beside('definition'),
    useWhen: beside('useWhen'),
    doNotUseWhen: beside('doNotUseWhen'),
    example: beside('example'),
    notes: beside('notes'),
  };
}

/**
 * Joins codes into one: every passage that carried one of them carries the one that stays; codings that become
 * the same (same passage, same coder) become one, the earliest. Codes under those that go move under the one that
 * stays; memos, sets, relations and questions speak of it; the names that went are remembered.
 * @param ahead the same join worked out beforehand; not used where the study has changed since
 * @throws CommandError if the one that stays lies under one that goes
 */
export function joinCodes(intoId: Id, codeIds: readonly Id[], description?: JoinedDescription, ahead?: JoinAhead): Command {
  return (state) => {
    mayChangeCodebook(state);
    const codes = state.tables.code;
    const into = found(codes[intoId], 'code');
    const gone = new Set(codeIds.filter((id) => id !== intoId));
    if (gone.size === 0) return null;
    const leaving = [...gone].map((id) => found(codes[id], 'code'));
    const above = lineage(codes, intoId).find((id) => gone.has(id));
    if (above)
      throw new CommandError(`${into.name} lies under ${codes[above]!.name}: join it into ${codes[above]!.name}, or move it out first.`);

    const work = ahead?.fits(state, intoId, gone) ? ahead : new JoinAhead(state, intoId, codeIds);
    const passages = work.finish();
    const joined = [...new Set([...(into.joined ?? []), ...leaving.flatMap((code) => [code.name, ...(code.joined ?? [])])])];
    const anchors = [...(into.anchors ?? []), ...leaving.flatMap((code) => code.anchors ?? [])];
    const distinct = [...new Map(anchors.map((one) => [one.passageId, one])).values()].slice(0, 100);
    return {
      change: [
        ...passages,
        ...childrenMoved(state, gone, intoId),
        updated('code', into, {
          ...(description ?? joinedDescription([into, ...leaving])),
          joined: joined.slice(0, 1_000),
          ...(distinct.length > 0 && { anchors: distinct }),
        }),
        ...leaving.map((code) => removed('code', code)),
      ],
      heirs: { records: { code: new Map([...gone].map((id) => [id, intoId])) } },
      sentence:
        `joined ${leaving.length > 3 ? counted(leaving.length, 'code') : leaving.map((code) => short(code.name)).join(', ')} into ${short(into.name)}, with ${counted(passages.length, 'passage')}`.slice(
          0,
          500,
        ),
    };
  };
}

/**
 * The passages of a join, worked out some documents at a time: while the researcher reads what would be joined, most
 * of the work is done, and joining codes of tens of thousands of codings is done at once.
 */
export class JoinAhead {
  private readonly gone: ReadonlySet<Id>;
  private readonly documents: readonly PassageColumns[];
  private readonly after: Record<Id, PassageColumns>;
  private readonly changes: RecordChange[] = [];
  private at = 0;

  constructor(
    private readonly state: Pick<StudyState, 'passages'>,
    private readonly intoId: Id,
    codeIds: readonly Id[],
  ) {
    this.gone = new Set(codeIds.filter((id) => id !== intoId));
    this.documents = Object.values(state.passages);
    this.after = { ...state.passages };
  }

  /** Whether this is the join of these codes in the study as it is now. */
  fits(state: Pick<StudyState, 'passages'>, intoId: Id, gone: ReadonlySet<Id>): boolean {
    return (
      state.passages === this.state.passages &&
      intoId === this.intoId &&
      gone.size === this.gone.size &&
      [...gone].every((id) => this.gone.has(id))
    );
  }

  /** Works out some more documents. @returns false when there are none left */
  step(documents: number): boolean {
    const until = Math.min(this.documents.length, this.at + documents);
    for (; this.at < until; this.at++) {
      const columns = this.documents[this.at]!;
      const here = passagesCarrying(columns, this.gone).map((passage) =>
        updated('passage', passage, { codings: withCodesReplaced(passage, this.gone, this.intoId) }),
      );
      if (here.length === 0) continue;
      this.after[columns.documentId] = applyToDocument(columns.documentId, columns, here)!;
      for (const one of here) this.changes.push(one);
    }
    return this.at < this.documents.length;
  }

  /** Works out what is left. @returns the changes of the passages, whose outcome is foreseen */
  finish(): Change {
    this.step(Infinity);
    foresee(this.state.passages, this.changes, this.after);
    return this.changes;
  }
}

/** Codings with some codes replaced by another, each coder's once, the earliest. */
function withCodesReplaced(passage: Passage, gone: ReadonlySet<Id>, intoId: Id): Coding[] {
  const kept: Coding[] = [];
  for (const coding of passage.codings) {
    if (coding.codeId !== intoId && !gone.has(coding.codeId)) {
      kept.push(coding);
      continue;
    }
    // few coders code one passage: looking through the list is quicker than a map for each of thousands of passages
    const at = kept.findIndex((one) => one.codeId === intoId && one.coderId === coding.coderId);
    if (at < 0) kept.push(replaced(coding, intoId));
    else if (coding.createdAt < kept[at]!.createdAt) kept[at] = replaced(coding, intoId);
  }
  return kept;
}

/** A coding with another code; its rating, and that it was swept, stay where they are. */
function replaced(coding: Coding, codeId: Id): Coding {
  if (coding.codeId === codeId) return coding;
  const { coderId, createdAt } = coding;
  return { codeId, coderId, createdAt, ...marksOf(coding) };
}

/** Children of codes that go come to the end of the heir's; where it has one of the same name, they tell where they came from. */
function childrenMoved(state: StudyState, gone: ReadonlySet<Id>, intoId: Id): Change {
  const codes = state.tables.code;
  const own = childrenOf(codes, intoId).filter((child) => !gone.has(child.id));
  const taken = new Set(own.map((child) => child.name.toLowerCase()));
  let order = own.at(-1)?.order ?? 0;
  return [...gone].flatMap((id) =>
    childrenOf(codes, id)
      .filter((child) => !gone.has(child.id))
      .map((child) => {
        let name = child.name;
        for (let turn = 1; taken.has(name.toLowerCase()); turn++)
          name = `${child.name} (${codes[id]!.name}${turn > 1 ? ` ${turn}` : ''})`.slice(0, 500);
        taken.add(name.toLowerCase());
        return updated('code', child, { parentId: intoId, order: ++order, name });
      }),
  );
}

import { testOf, type Condition, type Had } from '../conditions/condition';
import { liesWithin, withFoldersBelow } from '../passages/folders';
import { idsWithMemo } from '../memos/references';
import type { Code } from '../model/code';
import type { CodeCondition, CodeSet } from '../model/code-set';
import type { Id } from '../model/ids';
import type { StudyState, Table } from '../model/study-state';
import type { CodebookCounts } from '../passages/counting';
import { lineage } from '../passages/counting';

/** What conditions are held against. Counts are those of everything, whatever the scope. */
export interface CodeFacts {
  readonly state: Pick<StudyState, 'tables' | 'passages'>;
  readonly counts: Pick<CodebookCounts, 'own' | 'documents'>;
  /** Cases by code; null while they are not counted yet. */
  readonly cases: ReadonlyMap<Id, { readonly cases: number }> | null;
  /** Milliseconds since 1970. */
  readonly now: number;
}

const DAY = 86_400_000;

/** Codes that meet every condition. */
export function codesMeeting(facts: CodeFacts, conditions: readonly CodeCondition[]): Id[] {
  const test = testOf<Asked, Code>({ all: conditions.map((one) => conditionOf(one, facts.now)) }, { read: (of) => reading(facts, of) });
  return Object.values(facts.state.tables.code)
    .filter(test)
    .map((code) => code.id);
}

/** Ids of the codes in a set: those put in by hand, or all that meet its conditions. */
export function codesOfSet(facts: CodeFacts, set: CodeSet): Id[] {
  return set.conditions ? codesMeeting(facts, set.conditions) : set.codeIds.filter((id) => Object.hasOwn(facts.state.tables.code, id));
}

/** What is asked of a code; of a folder, whether the code is used in it or below it. */
type Asked =
  'passages' | 'documents' | 'cases' | 'made' | 'above' | 'definition' | 'has memo' | 'parent' | 'retired' | { readonly usedInFolder: Id };

function conditionOf(condition: CodeCondition, now: number): Condition<Asked> {
  const plain = plainCondition(condition, now);
  return condition.opposite ? { none: [plain] } : plain;
}

function plainCondition(one: CodeCondition, now: number): Condition<Asked> {
  switch (one.about) {
    case 'passages fewer than':
      return { of: 'passages', comparison: 'is under', value: one.number };
    case 'documents fewer than':
      return { of: 'documents', comparison: 'is under', value: one.number };
    case 'cases fewer than':
      return { of: 'cases', comparison: 'is under', value: one.number };
    case 'made in the last days':
      return { none: [{ of: 'made', comparison: 'is under', value: now - one.number * DAY }] };
    case 'used in folder':
      return { of: { usedInFolder: one.id }, comparison: 'is', value: true };
    case 'under':
      return { of: 'above', comparison: 'is', value: one.id };
    case 'without definition':
      return { of: 'definition', comparison: 'is', value: '' };
    case 'without memo':
      return { of: 'has memo', comparison: 'is', value: false };
    case 'at the top':
      return { of: 'parent', comparison: 'is not known', value: '' };
    case 'retired':
      return { of: 'retired', comparison: 'is', value: true };
  }
}

function reading({ state, counts, cases }: CodeFacts, of: Asked): (code: Code) => Had {
  switch (of) {
    case 'passages':
      return (code) => counts.own.get(code.id) ?? 0;
    case 'documents':
      return (code) => counts.documents.get(code.id) ?? 0;
    case 'cases':
      return (code) => cases?.get(code.id)?.cases ?? 0;
    case 'made':
      return (code) => code.createdAt;
    case 'above':
      return (code) => lineage(state.tables.code, code.id).slice(1);
    case 'definition':
      return (code) => code.definition.trim();
    case 'has memo': {
      const about = idsWithMemo(state.tables.memo);
      return (code) => about.has(code.id);
    }
    case 'parent':
      return (code) => code.parentId ?? undefined;
    case 'retired':
      return (code) => code.retired;
    default: {
      const used = codesInFolder(state, of.usedInFolder);
      return (code) => used.has(code.id);
    }
  }
}

function codesInFolder(state: CodeFacts['state'], folderId: Id): Set<Id> {
  const within = withFoldersBelow(state.tables.folder, folderId);
  const used = new Set<Id>();
  for (const columns of Object.values(state.passages)) {
    const document = state.tables.document[columns.documentId];
    if (document && liesWithin(document, within)) for (const id of columns.codes) used.add(id);
  }
  return used;
}

/** Conditions as a sentence: "with fewer than 3 passages and not without definition". */
export function conditionsSentence(
  conditions: readonly CodeCondition[],
  names: { codes: Table<Code>; folders: Table<{ name: string }> },
): string {
  return conditions
    .map((one) => {
      const said = words(one, names);
      return one.opposite ? said.opposite : said.plain;
    })
    .join(' and ');
}

function words(
  one: CodeCondition,
  { codes, folders }: { codes: Table<Code>; folders: Table<{ name: string }> },
): { plain: string; opposite: string } {
  const plural = (number: number, what: string): string => `${number} ${what}${number === 1 ? '' : 's'}`;
  switch (one.about) {
    case 'passages fewer than':
      return { plain: `used in fewer than ${plural(one.number, 'passage')}`, opposite: `used in ${one.number} passages or more` };
    case 'documents fewer than':
      return { plain: `found in fewer than ${plural(one.number, 'document')}`, opposite: `found in ${one.number} documents or more` };
    case 'cases fewer than':
      return { plain: `found in fewer than ${plural(one.number, 'case')}`, opposite: `found in ${one.number} cases or more` };
    case 'made in the last days':
      return { plain: `made in the last ${plural(one.number, 'day')}`, opposite: `made more than ${plural(one.number, 'day')} ago` };
    case 'used in folder': {
      const name = folders[one.id]?.name ?? 'a deleted folder';
      return { plain: `used in the folder ${name}`, opposite: `not used in the folder ${name}` };
    }
    case 'under': {
      const name = codes[one.id]?.name ?? 'a deleted code';
      return { plain: `under ${name}`, opposite: `not under ${name}` };
    }
    case 'without definition':
      return { plain: 'without a definition', opposite: 'with a definition' };
    case 'without memo':
      return { plain: 'without a memo', opposite: 'with a memo' };
    case 'at the top':
      return { plain: 'at the top of the codebook', opposite: 'under another code' };
    case 'retired':
      return { plain: 'retired', opposite: 'in use' };
  }
}

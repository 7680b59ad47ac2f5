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
  const tests = conditions.map((one) => testOf(facts, one));
  return Object.values(facts.state.tables.code)
    .filter((code) => tests.every((test) => test(code)))
    .map((code) => code.id);
}

/** Ids of the codes in a set: those put in by hand, or all that meet its conditions. */
export function codesOfSet(facts: CodeFacts, set: CodeSet): Id[] {
  return set.conditions ? codesMeeting(facts, set.conditions) : set.codeIds.filter((id) => Object.hasOwn(facts.state.tables.code, id));
}

function testOf(facts: CodeFacts, condition: CodeCondition): (code: Code) => boolean {
  const test = plainTest(facts, condition);
  return condition.opposite ? (code) => !test(code) : test;
}

function plainTest({ state, counts, cases, now }: CodeFacts, condition: CodeCondition): (code: Code) => boolean {
  const codes = state.tables.code;
  switch (condition.about) {
    case 'passages fewer than':
      return (code) => (counts.own.get(code.id) ?? 0) < condition.number;
    case 'documents fewer than':
      return (code) => (counts.documents.get(code.id) ?? 0) < condition.number;
    case 'cases fewer than':
      return (code) => (cases?.get(code.id)?.cases ?? 0) < condition.number;
    case 'made in the last days':
      return (code) => code.createdAt >= now - condition.number * DAY;
    case 'used in folder': {
      const used = codesInFolder(state, condition.id);
      return (code) => used.has(code.id);
    }
    case 'under':
      return (code) => lineage(codes, code.id).includes(condition.id) && code.id !== condition.id;
    case 'without definition':
      return (code) => code.definition.trim() === '';
    case 'without memo': {
      const about = idsWithMemo(state.tables.memo);
      return (code) => !about.has(code.id);
    }
    case 'at the top':
      return (code) => code.parentId === null;
    case 'retired':
      return (code) => code.retired === true;
  }
}

function codesInFolder(state: CodeFacts['state'], folderId: Id): Set<Id> {
  const folders = new Set([folderId]);
  // a set goes on to what is added while it is walked
  for (const id of folders) for (const folder of Object.values(state.tables.folder)) if (folder.parentId === id) folders.add(folder.id);
  const used = new Set<Id>();
  for (const columns of Object.values(state.passages)) {
    const folder = state.tables.document[columns.documentId]?.folderId;
    if (folder && folders.has(folder)) for (const id of columns.codes) used.add(id);
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

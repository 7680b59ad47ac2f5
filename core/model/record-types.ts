/** Record types that are small enough to be all in memory while a study is open, one row each in storage. */
export const TABLE_TYPES = [
  'coder',
  'folder',
  'document',
  'case',
  'attribute',
  'code',
  'memo',
  'query',
  'question',
  'set',
  'gloss',
  'codeSet',
  'relation',
  'sorting',
  'proposal',
  'logEntry',
] as const;
export type TableType = (typeof TABLE_TYPES)[number];

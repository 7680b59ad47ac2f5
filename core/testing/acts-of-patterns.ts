import { keepPattern } from '../commands/patterns';
import { named, one, type Acts } from './picking';

/** Patterns of every kind that points at something. */
export const ACTS_OF_PATTERNS: Acts = {
  'keep a pattern of codes': ({ state }, [a, b, c]) =>
    keepPattern(
      `Pattern ${a}`,
      {
        pattern: 'cross-table',
        rows: { of: 'codes', codeIds: [one(state, 'code', a), one(state, 'code', b)], withUnder: true },
        columns: { nested: named(state, 'attribute', c).map((attributeId) => ({ attributeId, cuts: [3] })) },
        ...{ counting: 'passages', coders: 'together', as: 'as they are', turned: false, empty: 'all' },
      },
      {
        parts: [
          { liesIn: { documentIds: [one(state, 'document', b)], folderIds: named(state, 'folder', c), setIds: named(state, 'set', a) } },
        ],
      },
      true,
    ),
  'keep a weave': ({ state }, [a, b]) =>
    keepPattern(
      `Weave ${a}`,
      {
        ...{ pattern: 'weave', documentIds: [one(state, 'document', a), one(state, 'document', b)], by: 'position' },
        rows: a % 2 ? { of: 'queries', queryIds: named(state, 'query', b) } : { of: 'code sets', setIds: named(state, 'codeSet', b) },
      },
      { parts: [] },
      true,
    ),
  'keep a similarity': ({ state }, [a, b, c]) =>
    keepPattern(
      `Alike ${a}`,
      {
        ...{ pattern: 'similarity', compared: 'cases', occurring: 'documents', by: 'counts', coders: 'together', clusters: 2 },
        rows: { of: 'codes', codeIds: [one(state, 'code', a), one(state, 'code', b)], withUnder: false },
        attributeIds: named(state, 'attribute', c),
      },
      { parts: [] },
      true,
    ),
  'keep attributes': ({ state }, [a, b]) =>
    keepPattern(
      `Values ${a}`,
      {
        ...{ pattern: 'attributes', as: 'as they are', of: { attributeId: one(state, 'attribute', a) } },
        against: named(state, 'attribute', b).map((attributeId) => ({ attributeId }))[0] ?? null,
      },
      { parts: [] },
      true,
    ),
  'keep who takes it up': ({ state }, [a, b, c]) =>
    keepPattern(
      `Taken up ${a}`,
      {
        ...{ pattern: 'taking-up', apart: c % 4, shown: 'from whom to whom' },
        rows: { of: 'codes', codeIds: [one(state, 'code', a), one(state, 'code', b)], withUnder: true },
        groups: { nested: named(state, 'attribute', c).map((attributeId) => ({ attributeId })) },
      },
      { parts: [{ dated: { from: '2025-01-01' } }, { placed: 'of a case' }] },
      true,
    ),
  'keep what is typical of a group': ({ state }, [a, b, c]) => {
    const by = (['document', 'case', 'folder', 'set', 'question', 'coder'] as const)[c % 6]!;
    return keepPattern(
      `Typical ${a}`,
      {
        ...{ pattern: 'words', run: 1, forms: true, withoutStopWords: true, kept: [], left: [], minimum: 2 },
        typical: { groups: { by }, key: named(state, by, b)[0] ?? '' },
      },
      { parts: [] },
      true,
    );
  },
  'keep a flow': ({ state }, [a, b, c]) =>
    keepPattern(
      `Flow ${a}`,
      {
        ...{ pattern: 'together', by: 'overlap', within: { count: 1, unit: 'turn' }, coders: 'together', as: 'counts', shown: 'flow' },
        rows: { of: 'code sets', setIds: named(state, 'codeSet', a) },
        to: { of: 'codes', codeIds: [one(state, 'code', b), one(state, 'code', c)], withUnder: false },
      },
      { parts: [] },
      true,
    ),
  'keep words by groups': ({ state }, [a, b, c]) =>
    keepPattern(
      `Words by ${a}`,
      {
        ...{ pattern: 'words', run: 1, forms: false, withoutStopWords: true, kept: [], left: [], minimum: 2, shown: 'table' },
        table: {
          ...{ typed: [`[List ${b}]`], as: 'as they are', wordListIds: named(state, 'wordList', a) },
          groups: { nested: named(state, 'attribute', c).map((attributeId) => ({ attributeId })) },
        },
      },
      { parts: [] },
      true,
    ),
};

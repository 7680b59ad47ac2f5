import type { Id, NewId } from '../model/ids';
import type { KeptSearch } from '../model/kept-search';
import type { KeptPattern } from '../model/pattern';
import type { Query } from '../model/query';
import { EVERYTHING } from '../model/scope';

/** By what codes, attributes and questions of the demo study are called in its sources. */
interface Named {
  readonly newId: NewId;
  readonly code: (key: string) => Id;
  readonly category: (name: string) => Id;
  readonly attribute: (name: string) => Id;
}

const KEPT_AT = Date.UTC(2025, 5, 2, 10);

/** What is kept in the demo study: two searches, two queries and three patterns, on what the study asks. */
export function demoKept({ newId, code, category, attribute }: Named): {
  readonly searches: KeptSearch[];
  readonly queries: Query[];
  readonly patterns: KeptPattern[];
} {
  const kept = <T extends object>(name: string, rest: T): T & { id: Id; name: string; createdAt: number } => ({
    id: newId(),
    name,
    ...rest,
    createdAt: KEPT_AT,
  });
  const search = { match: 'all forms', capitals: false, accents: false, unit: 'sentence' } as const;
  const codes = (codeIds: Id[], withUnder: boolean) => ({ codeIds, setIds: [], withUnder });
  return {
    searches: [
      kept('The hush: weeks without a boat', { search: { ...search, typed: '"hush week" or "long hush" or "no boat"' } }),
      kept('Lamps and lights', { search: { ...search, typed: 'lamp or light' } }),
    ],
    queries: [
      kept('Help, where people know one another', {
        question: {
          all: [
            { carries: 'any', codes: codes([category('Reaching help')], true), reach: 'passage' },
            {
              standing: 'near',
              to: { carries: 'any', codes: codes([code('knowing-who'), code('doors-unlocked')], false), reach: 'passage' },
              within: { count: 2, unit: 'paragraph' },
            },
          ],
        },
      }),
      kept('Grief after forty years here', {
        question: {
          all: [
            { carries: 'any', codes: codes([code('grief')], false), reach: 'passage' },
            { attributeId: attribute('years on the island'), comparison: 'is over', values: [39] },
          ],
        },
      }),
    ],
    patterns: [
      kept('Themes by home', {
        asked: {
          pattern: 'cross-table',
          rows: { of: 'top codes' },
          columns: { nested: [{ attributeId: attribute('home') }] },
          counting: 'cases',
          coders: 'together',
          as: 'per column',
          turned: false,
          empty: 'all',
        },
        scope: EVERYTHING,
      }),
      kept('What each question brought', {
        asked: {
          pattern: 'cross-table',
          rows: { of: 'codes', codeIds: null, withUnder: false },
          columns: { by: 'question' },
          counting: 'passages',
          coders: 'together',
          as: 'as they are',
          turned: false,
          empty: 'without empty',
        },
        scope: EVERYTHING,
      }),
      kept('Safety, health and belonging', {
        asked: {
          pattern: 'together',
          rows: {
            of: 'codes',
            codeIds: ['emergency-reach', 'appointments', 'caring-across', 'knowing-who', 'set-apart', 'newcomers', 'doors-unlocked'].map(
              code,
            ),
            withUnder: false,
          },
          by: 'near',
          within: { count: 1, unit: 'paragraph' },
          coders: 'together',
          as: 'counts',
        },
        scope: EVERYTHING,
      }),
    ],
  };
}

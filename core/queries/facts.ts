import { compareValues } from '../attributes/values';
import { testOf, type Had, type Part } from '../conditions/condition';
import type { AttributeValue } from '../model/case';
import type { Id } from '../model/ids';
import type { Fact } from '../model/passage-condition';
import type { Answering } from './answering';
import type { AskedStudy } from './asked-study';

/**
 * Answers what is known of the case whose words a passage is, or of its document. Of several cases one is enough, but
 * for `is not`, where none may have the value. What nothing is known of meets `is not known` and `is not`.
 */
export function factHolds({ attributeId, comparison, values }: Fact, study: AskedStudy): Answering {
  const attribute = study.tables.attribute[attributeId];
  if (!attribute) return (here) => here.none();
  const asked: Part<null> = { of: null, comparison, value: comparison === 'is one of' ? (values as Had) : values[0] };
  const test = testOf<null, Had>(asked, {
    read: () => (had) => had,
    compare: (_, a, b) => compareValues(attribute, a, b),
  });
  if (attribute.of === 'document') return (here) => here.every(test(here.document.values[attributeId]));
  const valueOf = (id: Id): AttributeValue[] => {
    const value = study.tables.case[id]?.values[attributeId];
    return value === undefined ? [] : [value];
  };
  /** By the ids of the cases: those of one document's passages are the same again and again. */
  const known = new Map<string, boolean>();
  return (here) => {
    const rows = here.none();
    for (let row = 0; row < rows.length; row++) {
      const ids = study.finder.of(here.document, here.spoken, here.place(row));
      const key = ids.join();
      let holds = known.get(key);
      if (holds === undefined) {
        const had = ids.flatMap(valueOf);
        known.set(key, (holds = test(had.length > 0 ? (had as Had) : undefined)));
      }
      if (holds) rows[row] = 1;
    }
    return rows;
  };
}

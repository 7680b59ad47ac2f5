import type { Answered } from '../model/answered';
import type { Text } from '../model/document';
import type { Id } from '../model/ids';
import type { StudyState } from '../model/study-state';
import { AskedStudy } from '../queries/asked-study';
import { foundBy, FoundIn } from '../queries/found-by';
import { queriesOfSets } from '../sets/asked-queries';
import { SearchedWords } from '../words/searched-words';

/** What kept queries find that live sets ask for, worked out at once from all there is. */
export function answeredNow(state: StudyState, texts: ReadonlyMap<Id, Text>): Answered {
  const answered: Record<Id, Answered[Id]> = {};
  for (const id of queriesOfSets(state.tables)) {
    const columns = () => Object.values(state.passages);
    const study = new AskedStudy(state.tables, columns, state.study.language, () => 0, new SearchedWords(), { ...answered });
    const asked = new FoundIn(state.tables.query[id]!.question, study);
    answered[id] = foundBy(
      columns().map((some) => {
        const document = state.tables.document[some.documentId];
        return [some.documentId, document ? asked.casesIn(some, document, texts.get(document.id) ?? null) : null] as const;
      }),
    );
  }
  return answered;
}

import type { Id } from '../model/ids';
import { Bench } from '../testing/make';
import { invert } from '../change/change';
import { deleteCodes } from './codes';
import { deleteDocuments } from './documents';
import { joinCodes } from './join-codes';
import { joinDocuments, splitDocument } from './split-join';
import { movesIn } from '../change/moves-in';

describe('what a change has moved', () => {
  let bench: Bench;
  let [one, two]: Id[] = [];
  const did = (command: Parameters<Bench['do']>[0]) => bench.do(command)!.change;
  const text = (id: Id) => bench.texts.get(id)!;

  beforeEach(() => {
    bench = new Bench();
    one = bench.addDocument('One', ['The boat waits.', 'The queue grows.']).id;
    two = bench.addDocument('Two', ['The fare rises.']).id;
  });

  it('is nothing where nothing goes', () => {
    expect(
      movesIn(
        did((_state, { newId }) => ({ change: [{ type: 'coder', before: null, after: { id: newId(), name: 'Ben' } }], sentence: 'x' })),
      ),
    ).toBeNull();
  });

  it('names who took the place of a joined code, and what a deleted one was called', () => {
    const [queue, waiting] = [bench.addCode('Queue'), bench.addCode('Waiting')];
    expect(movesIn(did(joinCodes(waiting, [queue])))!.records.code!.get(queue)).toBe(waiting);
    const moves = movesIn(did(deleteCodes([waiting])))!;
    expect([moves.records.code!.get(waiting), moves.nameOf('code', waiting)]).toEqual([null, 'Waiting']);
  });

  it('follows a place into the second part of a document, and back', () => {
    const change = did(splitDocument(text(one!), 16, 'Rest'));
    const rest = Object.values(bench.state.tables.document).find((document) => document.title === 'Rest')!.id;
    const { at } = movesIn(change)!;
    expect([at({ documentId: one!, position: 3 }), at({ documentId: one!, position: 20 }), at({ documentId: two!, position: 20 })]).toEqual(
      [
        { documentId: one!, position: 3 },
        { documentId: rest, position: 4 },
        { documentId: two!, position: 20 },
      ],
    );
    expect(movesIn(invert(change))!.at({ documentId: rest, position: 4 })).toEqual({ documentId: one!, position: 20 });
  });

  it('follows a place into the document that another was put behind, and says that a deleted one is gone', () => {
    const { at } = movesIn(did(joinDocuments(text(two!), text(one!))))!;
    expect(at({ documentId: one!, position: 4 })).toEqual({ documentId: two!, position: 20 });
    expect(movesIn(did(deleteDocuments([two!], [text(two!)])))!.at({ documentId: two!, position: 4 })).toBeNull();
  });
});

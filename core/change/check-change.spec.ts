import fc from 'fast-check';
import { CodingSchema, type Coding } from '../model/passage';
import { unpackPassages } from '../passages/columns';
import { Bench } from '../testing/make';
import { added, updated } from './change';
import { checkChange } from './check-change';
import { editDocument } from '../commands/documents';

describe('what a change may hold', () => {
  const bench = new Bench();
  const document = bench.addDocument('Interview', ['They held the boat.']);
  const codeId = bench.addCode('Help');
  bench.code(document, 0, 4, codeId);

  it('refuses a value that no study file could be opened with again, and says which', () => {
    const changeOf = (command: ReturnType<typeof editDocument>) => command(bench.state, bench.context())!.change;
    expect(() => checkChange(changeOf(editDocument(document.id, { date: '2025-02-30' })))).toThrowError(
      'The document “Interview” cannot be stored: its date is not a day there is, written as 2025-01-31. Nothing was changed.',
    );
    expect(() => checkChange(changeOf(editDocument(document.id, { description: 'x'.repeat(2_000_001) })))).toThrowError(
      /its description is longer than/,
    );
    expect(() => checkChange(changeOf(editDocument(document.id, { date: '2024-02-29' })))).not.toThrow();
  });

  it('lets the rest of a record be changed that holds an impossible value already, and the value be mended', () => {
    const stored = { ...bench.state.tables.document[document.id]!, date: '2025-02-30' };
    expect(() => checkChange([updated('document', stored, { title: 'Other' })])).not.toThrow();
    expect(() => checkChange([updated('document', stored, { date: '2025-02-28' })])).not.toThrow();
    expect(() => checkChange([updated('document', stored, { date: '2025-02-31' })])).toThrowError(/its date/);
  });

  it('sees at sight what the schema of codings says, for any coding', () => {
    const [passage] = unpackPassages(bench.state.passages[document.id]!);
    const odd = fc.record(
      {
        codeId: fc.constantFrom(codeId, 'no id', ''),
        coderId: fc.constantFrom(bench.coderId, 'x'),
        createdAt: fc.oneof(fc.integer(), fc.double(), fc.constant(8.65e15)),
        rating: fc.oneof(fc.integer({ min: -1, max: 12 }), fc.double()),
        more: fc.constant(1),
      },
      { requiredKeys: ['codeId', 'coderId', 'createdAt'] },
    );
    fc.assert(
      fc.property(fc.array(odd, { maxLength: 3 }), (codings) => {
        const change = [updated('passage', passage!, { codings: codings as unknown as Coding[] })];
        const fits = codings.every((coding) => CodingSchema.safeParse(coding).success);
        if (fits) expect(() => checkChange(change)).not.toThrow();
        else expect(() => checkChange(change)).toThrowError(/cannot be stored/);
      }),
    );
    const late = [{ codeId, coderId: bench.coderId, createdAt: 8.65e15 }];
    expect(() => checkChange([updated('passage', passage!, { codings: late })])).toThrowError(/cannot be stored/);
  });

  it('checks new passages as a whole', () => {
    const [passage] = unpackPassages(bench.state.passages[document.id]!);
    expect(() => checkChange([added('passage', { ...passage!, id: bench.newId(), start: 5, end: 5 })])).toThrowError(
      /ends before it starts/,
    );
  });
});

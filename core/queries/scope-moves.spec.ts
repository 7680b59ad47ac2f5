import { deleteCases } from '../commands/cases';
import { splitDocument, joinDocuments } from '../commands/split-join';
import { removeFolder } from '../commands/documents';
import { movesIn } from '../change/moves-in';
import type { Id } from '../model/ids';
import type { Scope } from '../model/scope';
import type { Bench } from '../testing/make';
import { benchWithEverything } from '../testing/everything';
import { namesIn, scopeWords } from './words';
import { scopeAfter } from './scope-moves';

describe('a scope that is being looked at', () => {
  let bench: Bench;
  let scope: Scope;
  const after = (command: Parameters<Bench['do']>[0]): Scope => {
    const moves = movesIn(bench.do(command)!.change);
    return moves ? scopeAfter(scope, moves) : scope;
  };
  const places = ({ parts }: Scope) => parts.flatMap((part) => ('liesIn' in part ? [part.liesIn] : []))[0];

  beforeEach(async () => {
    bench = await benchWithEverything();
    scope = Object.values(bench.state.tables.scope)[0]!.scope;
  });

  it('is said in a sentence', () => {
    expect(scopeWords(scope, namesIn(bench.state, undefined))).toMatch(
      /^in .+ or .+ · .+ · said by .+ or Ann · answers to “.+ · .+ is 44 · dated from 2025-01-01 · of somebody · coded by .+$/,
    );
    expect(scopeWords({ parts: [] }, namesIn(bench.state, undefined))).toBe('the whole study');
    expect(
      scopeWords(
        { parts: [{ kinds: ['interview', 'focus group'] }, { spokenBy: 'others', caseIds: [], names: [] }], given: { from: '2026-01-05' } },
        namesIn(bench.state, undefined),
      ),
    ).toBe('interviews and focus groups · without the interviewer · coded from 2026-01-05');
  });

  it('stays the very same where nothing of it goes', () => {
    const other = Object.values(bench.state.tables.document).find((one) => one.title === 'Letter')!;
    const text = bench.texts.get(other.id)!;
    expect(after(splitDocument(text, 20, 'Rest'))).toBe(scope);
  });

  it('lets go of a case and a folder that are deleted, and of parts that have nothing left', () => {
    const [caseId] = scope.parts.flatMap((part) => ('ofCases' in part ? part.ofCases : []));
    scope = after(deleteCases([caseId!]));
    expect(scope.parts.some((part) => 'ofCases' in part)).toBeFalse();
    expect(scope.parts.flatMap((part) => ('spokenBy' in part ? [part.caseIds, part.names] : []))).toEqual([[], ['Ann']]);
    const [folderId] = places(scope)!.folderIds as [Id];
    scope = after(removeFolder(folderId));
    expect(places(scope)!.folderIds).not.toContain(folderId);
    expect(scope.given).toBeDefined();
  });

  it('goes on with both parts of a document that is divided, and with what a document was put into', () => {
    const [documentId] = places(scope)!.documentIds as [Id];
    const text = bench.texts.get(documentId)!;
    scope = after(splitDocument(text, text.text.indexOf('\n') + 1, 'Rest'));
    expect(places(scope)!.documentIds.length).toBe(2);
    const [first, second] = places(scope)!.documentIds.map((id) => bench.texts.get(id)!);
    scope = after(joinDocuments(first!, second!));
    expect(places(scope)!.documentIds).toEqual([documentId]);
    // and what is kept under a name does the same
    expect(places(Object.values(bench.state.tables.scope)[0]!.scope)!.documentIds).toEqual([documentId]);
  });
});

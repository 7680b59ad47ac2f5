import { readFileSync } from 'node:fs';
import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate';
import { demoSources } from '../../testing/demo-sources';
import { Bench } from '../../testing/make';
import { advance, EMPTY_HISTORY, type JournalEntry } from '../../change/journal';
import { applyChange } from '../../change/apply';
import { invert } from '../../change/change';
import { addCode } from '../../commands/codes';
import { deleteDocuments } from '../../commands/documents';
import { benchWithEverything, studyFileOf } from '../../testing/everything';
import { randomId } from '../../model/ids';
import { RECORDS, TABLE_TYPES } from '../../model/records';
import { NewerVersionError } from '../../model/schema-version';
import { unpackPassages } from '../../passages/columns';
import { buildDemoStudy } from '../../sample/demo-study';
import { sha256 } from '../sha256';
import { checkStudy } from '../../integrity/check-study';
import { impossibleValues } from '../../integrity/impossible-values';
import { asCopy } from './as-copy';
import type { StudyBundle } from './bundle';
import { readStudyFile, StudyFileError } from './read-study-file';
import { writeStudyFile } from './write-study-file';

const SAVED = Date.UTC(2025, 10, 1);

const opened = (bytes: Uint8Array): Promise<StudyBundle> => readStudyFile(new Blob([bytes as Uint8Array<ArrayBuffer>]));
const written = async (...bundle: Parameters<typeof writeStudyFile>): Promise<Uint8Array> =>
  new Uint8Array(await (await writeStudyFile(...bundle)).arrayBuffer());

function smallStudy(): StudyBundle {
  const bench = new Bench();
  const document = bench.addDocument('<script>alert(1)</script>', ['I: Was it “=1+1”?', 'Shona: 👩‍👩‍👧 and \u200fשלום.'], ['I', 'Shona']);
  const action = bench.run(addCode({ name: 'constructor' }))!;
  const code = action.change[0]!.after!.id;
  bench.code(document, 18, 27, code);
  const entry: JournalEntry = {
    seq: 1,
    at: 5,
    coderId: bench.coderId,
    kind: 'act',
    of: null,
    sentence: action.sentence,
    change: action.change,
  };
  return { state: bench.state, texts: bench.texts, media: bench.media, journal: [entry], history: advance(EMPTY_HISTORY, entry) };
}

/** The archive with some files replaced, check sums made to fit, as somebody with bad intentions would. */
async function forge(files: Record<string, string>, fixSums = true, manifestFields: object = {}): Promise<Uint8Array> {
  const archive = unzipSync(await written(smallStudy(), SAVED)) as Zippable & Record<string, Uint8Array>;
  const manifest = JSON.parse(new TextDecoder().decode(archive['manifest.json'])) as { files: Record<string, unknown> };
  for (const [name, content] of Object.entries(files)) {
    archive[name] = strToU8(content);
    if (fixSums) manifest.files[name] = { bytes: archive[name].length, sha256: await sha256(archive[name]) };
  }
  archive['manifest.json'] = strToU8(JSON.stringify({ ...manifest, ...manifestFields }));
  return zipSync(archive);
}

/** A study file with some of its files changed, check sums made to fit. */
async function forgeOf(bytes: Uint8Array, change: (files: Record<string, string>) => void): Promise<Uint8Array> {
  const archive = unzipSync(bytes);
  const files = Object.fromEntries(Object.entries(archive).map(([name, content]) => [name, strFromU8(content)]));
  change(files);
  const manifest = JSON.parse(files['manifest.json']!) as { files: Record<string, unknown> };
  const result: Zippable = {};
  for (const [name, content] of Object.entries(files)) {
    if (name === 'manifest.json') continue;
    const made = strToU8(content);
    result[name] = made;
    manifest.files[name] = { bytes: made.length, sha256: await sha256(made) };
  }
  result['manifest.json'] = strToU8(JSON.stringify(manifest));
  return zipSync(result);
}

const failure = async (bytes: Uint8Array): Promise<Error> =>
  opened(bytes).then(
    () => fail('was opened'),
    (error: unknown) => error,
  ) as Promise<Error>;

describe('the study file', () => {
  it('opens again to an equal study: the demo', async () => {
    const bundle = buildDemoStudy(demoSources());
    const back = await opened(await written(bundle, SAVED));
    expect(back).toEqual(bundle);
  });

  it('opens again to an equal study with its log, whatever the words are', async () => {
    const bundle = smallStudy();
    expect(await opened(await written(bundle, SAVED))).toEqual(bundle);
  });

  it('is the same bytes for the same study and moment', async () => {
    expect(await written(smallStudy(), SAVED)).toEqual(await written(smallStudy(), SAVED));
  });

  it('can be a copy under another id', () => {
    const id = randomId();
    const copy = asCopy(smallStudy(), id, new Set());
    expect([copy.state.study.id, copy.state.study.title]).toEqual([id, 'A study (copy)']);
    // copies can be told apart, also copies of copies
    const titles = ['A study', 'A study (copy)', 'A study (copy 2)'];
    expect(asCopy(smallStudy(), id, new Set(titles)).state.study.title).toBe('A study (copy 3)');
    expect(asCopy(copy, id, new Set(titles)).state.study.title).toBe('A study (copy 3)');
  });

  it('with a value that no schema allows, in a record or in the log, opens all the same, and the value is named', async () => {
    const sound = smallStudy();
    const document = Object.values(sound.state.tables.document)[0]!;
    const odd = { ...document, date: '2025-02-30', title: 'x'.repeat(501) };
    const bundle: StudyBundle = {
      ...sound,
      state: { ...sound.state, tables: { ...sound.state.tables, document: { ...sound.state.tables.document, [odd.id]: odd } } },
      journal: sound.journal.map((entry) => ({ ...entry, change: [{ type: 'document', before: document, after: odd }] })),
    };
    const back = await opened(await written(bundle, SAVED));
    expect(back).toEqual(bundle);
    expect(impossibleValues(back.state)).toEqual([
      { type: 'document', id: odd.id, name: 'x'.repeat(80), what: 'its title is longer than 500 characters' },
    ]);
    expect(impossibleValues(sound.state)).toEqual([]);
    // what is not a value but a shape is refused as ever
    const broken = { ...document, speakers: 'nobody' };
    const bad = { ...sound, state: { ...sound.state, tables: { ...sound.state.tables, document: { [odd.id]: broken as never } } } };
    expect((await failure(await written(bad, SAVED))).message).toContain('not as it should be');
  });

  it('says that what is no archive is none, and what is another archive is another', async () => {
    expect((await failure(strToU8('hello'))).message).toContain('not a zip archive');
    expect((await failure(zipSync({ 'x.txt': strToU8('x') }))).message).toContain('no manifest');
    expect(await failure(zipSync({ 'manifest.json': strToU8('{"format":"other"}') }))).toBeInstanceOf(StudyFileError);
  });

  it('is refused when damaged anywhere', async () => {
    const whole = await written(smallStudy(), SAVED);
    expect((await failure(whole.slice(0, whole.length - 40))).message).toContain('Nothing was changed');
    for (let at = 30; at < whole.length; at += 97) {
      const damaged = whole.slice();
      damaged[at]! ^= 0x55;
      const outcome = await opened(damaged).then(
        (bundle) => bundle,
        (error: Error) => error,
      );
      // a byte that no reader looks at, such as a time in the archive, may change; the study may not
      if (outcome instanceof Error) expect(outcome.message).toContain('Nothing was changed');
      else expect(outcome).toEqual(smallStudy());
    }
    expect((await failure(await forge({ 'codebook.json': '[]' }, false))).message).toContain('not as it was saved');
  });

  it('without its history holds the study and the sentences of the log, and nothing of what was before', async () => {
    const bundle = smallStudy();
    const bare = await opened(await written(bundle, SAVED, undefined, { history: true }));
    expect(bare.state).toEqual(bundle.state);
    expect(bare.journal.map((entry) => [entry.sentence, entry.change])).toEqual(bundle.journal.map((entry) => [entry.sentence, []]));
    expect(bare.history).toEqual({ seq: 1, undo: [], redo: [] });
  });

  it('of version 1 opens with all it held, and its journal can still be taken back', async () => {
    const bundle = await studyFileOf(1);
    const { tables } = bundle.state;
    expect(Object.values(tables.document).map((one) => [one.title, one.values, one.answers])).toEqual([['Interview 03', {}, []]]);
    expect(Object.values(tables.case).map((one) => [one.name, one.stretches, Object.values(one.values)])).toEqual([
      ['Shona Adair', [], [44, 'Gull Bay']],
    ]);
    expect([...bundle.texts.values()].map((text) => text.marks)).toEqual([[]]);
    expect(unpackPassages(Object.values(bundle.state.passages)[0]!).length).toBe(1);
    let { state } = bundle;
    for (const entry of [...bundle.journal].reverse()) state = applyChange(state, invert(entry.change));
    expect(Object.values(state.tables.document)).toEqual([]);
    for (const entry of bundle.journal) state = applyChange(state, entry.change);
    expect(state.tables).toEqual(tables);
  });

  it('of version 2 opens as it was, without glosses, ratings and reading marks', async () => {
    const { state, journal } = await studyFileOf(2);
    expect(Object.values(state.tables.gloss)).toEqual([]);
    expect(state.study.ratings).toBeUndefined();
    expect(Object.values(state.tables.document).map((one) => [one.title, one.readTo])).toEqual([['Interview 1', undefined]]);
    const [columns] = Object.values(state.passages);
    expect(unpackPassages(columns!).map((one) => one.codings.length)).toEqual([1]);
    const taken = applyChange(state, invert(journal[0]!.change));
    expect(taken.passages).toEqual({});
  });

  it('of version 3 opens as it was, and its journal can still be taken back and done again', async () => {
    const { state, journal } = await studyFileOf(3);
    expect(Object.values(state.tables.code).map((one) => [one.name, one.definition, one.retired])).toEqual([
      ['Missing the boat', 'Longing for the ferry.', undefined],
    ]);
    expect(Object.values(state.tables.memo).map((one) => [one.title, one.also, one.question])).toEqual([
      ['Crossing', undefined, undefined],
    ]);
    expect(Object.values(state.tables.codeSet)).toEqual([]);
    const [passage] = unpackPassages(Object.values(state.passages)[0]!);
    expect([passage!.comment, passage!.open]).toEqual(['why crossing?', undefined]);
    let back = state;
    for (const entry of [...journal].reverse()) back = applyChange(back, invert(entry.change));
    expect(Object.values(back.tables.code)).toEqual([]);
    for (const entry of journal) back = applyChange(back, entry.change);
    expect(back.tables).toEqual(state.tables);
  });

  it('of version 4 opens as it was, with sets, relations, a sorting table and proposals', async () => {
    const { state, journal } = await studyFileOf(4);
    const named = (type: 'code' | 'codeSet' | 'sorting' | 'proposal') => Object.values(state.tables[type]).map((one) => one.name);
    expect([named('code'), named('codeSet'), named('sorting'), named('proposal')]).toEqual([
      ['Missing the boat', 'Longing', 'Old idea'],
      ['Rare'],
      ['Monday'],
      ['Bridge talk'],
    ]);
    expect(Object.values(state.tables.relation).map((one) => one.kind)).toEqual(['leads to']);
    expect(Object.values(state.tables.sorting)[0]!.groups.map((group) => group.name)).toEqual(['Loss']);
    expect(state.study.frozen).toBeDefined();
    expect(state.study.checksLeft).toBeUndefined();
    let back = state;
    for (const entry of [...journal].reverse()) back = applyChange(back, invert(entry.change));
    expect(Object.values(back.tables.code)).toEqual([]);
    expect(back.study.frozen).toBeUndefined();
    for (const entry of journal) back = applyChange(back, entry.change);
    expect(back).toEqual(state);
  });

  it('of version 5 opens as it was, with a record of every type, and its journal can still be taken back and done again', async () => {
    const { state, journal, texts } = await studyFileOf(5);
    for (const type of TABLE_TYPES)
      if (RECORDS[type].since <= 5) expect(Object.keys(state.tables[type]).length).withContext(type).toBeGreaterThan(0);
    expect(checkStudy(state, texts)).toEqual([]);
    expect(Object.values(state.tables.query).map((query) => query.question.gone)).toEqual([undefined]);
    expect(journal.at(-1)!.sentence).toBe('noted');
    let back = state;
    for (const entry of [...journal].reverse()) back = applyChange(back, invert(entry.change));
    expect(Object.values(back.tables.document)).toEqual([]);
    for (const entry of journal) back = applyChange(back, entry.change);
    expect(back).toEqual(state);
  });

  it('of version 9 opens as it was, its queries, what they had found and what was swept', async () => {
    const { state, journal, texts } = await studyFileOf(9);
    expect(checkStudy(state, texts)).toEqual([]);
    const near = Object.values(state.tables.query).find((query) => query.name === 'Near the pier')!;
    expect(near.question.all.map((part) => Object.keys(part)[0])).toEqual(['carries', 'any']);
    expect(near.seen!.signs.length).toBe(8 * near.seen!.passages);
    const codings = Object.values(state.passages)
      .flatMap(unpackPassages)
      .flatMap((passage) => passage.codings);
    expect(codings.filter((coding) => coding.swept).length).toBe(1);
    expect([state.tables.scope, state.tables.wordList, state.tables.search, state.tables.proposition]).toEqual([{}, {}, {}, {}]);
    let back = state;
    for (const entry of [...journal].reverse()) back = applyChange(back, invert(entry.change));
    for (const entry of journal) back = applyChange(back, entry.change);
    expect(back).toEqual(state);
  });

  it('of version 10 opens as it was, with its scope, word list, search and proposition, and no pattern yet', async () => {
    const { state, texts } = await studyFileOf(10);
    const names = (['scope', 'wordList', 'search', 'proposition', 'pattern'] as const).map((type) =>
      Object.values(state.tables[type]).map((one) => one.name),
    );
    expect(names).toEqual([['Some'], ['ferry'], ['Ferries'], ['Who waits also worries'], []]);
    expect(Object.values(state.tables.proposition)[0]!.notes.map((one) => one.note)).toEqual(['She never waited.']);
    expect(checkStudy(state, texts)).toEqual([]);
  });

  it('of version 11 opens as it was, with its kept patterns, and nothing that was expected and not found', async () => {
    const { state, texts } = await studyFileOf(11);
    expect(Object.values(state.tables.pattern).map((one) => [one.name, one.asked.pattern])).toEqual([
      ['Who talks of what', 'cross-table'],
      ['The thread of one', 'weave'],
    ]);
    expect(state.tables.absence).toEqual({});
    expect(checkStudy(state, texts)).toEqual([]);
  });

  it('of version 12 opens as it was, with what was expected and not found, and patterns that do not say how they are shown', async () => {
    const { state, texts } = await studyFileOf(12);
    expect(Object.values(state.tables.absence).length).toBe(1);
    const patterns = Object.values(state.tables.pattern);
    expect(patterns.map((one) => one.asked.pattern)).toEqual(['cross-table', 'weave', 'similarity', 'attributes']);
    expect(patterns.some((one) => 'shown' in one.asked)).toBeFalse();
    expect(checkStudy(state, texts)).toEqual([]);
  });

  it('of version 13 opens as it was, its live sets asking for attributes, kinds and folders alone', async () => {
    const { state, texts } = await studyFileOf(13);
    const asked = Object.values(state.tables.set).flatMap((set) => set.condition ?? []);
    expect(asked.length).toBeGreaterThan(0);
    expect(asked.some(({ what }) => typeof what === 'object' && 'queryId' in what)).toBeFalse();
    const [taking] = Object.values(state.tables.pattern).flatMap(({ asked: one }) => (one.pattern === 'taking-up' ? [one] : []));
    expect('as' in taking!).toBeFalse();
    expect(checkStudy(state, texts)).toEqual([]);
  });

  it('of version 6 opens as it was, every document a text that belongs to nothing', async () => {
    const { state, journal, texts, media } = await studyFileOf(6);
    expect(checkStudy(state, texts)).toEqual([]);
    expect(Object.values(state.tables.document).map((one) => [one.ground, one.belongsTo])).toEqual([[{ of: 'text' }, undefined]]);
    expect(Object.values(state.passages).map((columns) => columns.ground)).toEqual(['text']);
    expect(Object.values(state.tables.query).flatMap((query) => Object.values(query.question.gone ?? {}))).toEqual(['Hurry']);
    expect(media.size).toBe(0);
    let back = state;
    for (const entry of [...journal].reverse()) back = applyChange(back, invert(entry.change));
    expect(Object.values(back.tables.document)).toEqual([]);
    for (const entry of journal) back = applyChange(back, entry.change);
    expect(back).toEqual(state);
  });

  it('of version 7 opens as it was, its recording and its picture with it', async () => {
    const { state, journal, texts, media } = await studyFileOf(7);
    expect(checkStudy(state, texts)).toEqual([]);
    expect(
      Object.values(state.tables.document)
        .map((one) => one.ground.of)
        .sort(),
    ).toEqual(['picture', 'text', 'text', 'text', 'time']);
    expect(media.size).toBe(2);
    expect([...texts.values()].some((text) => 'unsure' in text)).toBeFalse();
    let back = state;
    for (const entry of [...journal].reverse()) back = applyChange(back, invert(entry.change));
    expect(Object.values(back.tables.document).some((one) => one.title === 'Ferry horn')).toBeTrue();
    for (const entry of journal) back = applyChange(back, entry.change);
    expect(back).toEqual(state);
  });

  it('carries recordings and pictures with their passages, and their bytes as they are', async () => {
    const bench = await benchWithEverything();
    const bundle: StudyBundle = { ...smallStudy(), state: bench.state, texts: bench.texts, media: bench.media };
    const bytes = await written(bundle, SAVED);
    const back = await opened(bytes);
    expect(back.state).toEqual(bundle.state);
    expect(back.texts).toEqual(bundle.texts);
    const content = async ([sum, blob]: readonly [string, Blob]) => [sum, blob.type, await blob.text()] as const;
    const wanted = await Promise.all([...bench.media].map(content));
    expect(await Promise.all([...back.media].map(content))).toEqual(wanted);
    expect(wanted.map(([, type, text]) => `${type} ${text}`)).toEqual(['audio/wav Ferry horn', 'image/png Plan of the pier']);
    // other readers of archives find them as well
    expect(Object.keys(unzipSync(bytes)).filter((name) => name.startsWith('media/')).length).toBe(2);
    expect(
      (await written(bundle, SAVED)).length === bytes.length && strFromU8(await written(bundle, SAVED), true) === strFromU8(bytes, true),
    ).toBeTrue();
  });

  it('is refused where a recording is damaged, missing or another', async () => {
    const bench = await benchWithEverything();
    const bundle: StudyBundle = { ...smallStudy(), state: bench.state, texts: bench.texts, media: bench.media };
    const bytes = await written(bundle, SAVED);
    const at = strFromU8(bytes, true).indexOf('Ferry horn');
    const damaged = bytes.slice();
    damaged[at]! ^= 1;
    expect((await failure(damaged)).message).toContain('a recording or picture in it is not as it was saved');
    const archive = unzipSync(bytes);
    const [name] = Object.keys(archive).filter((one) => one.startsWith('media/'));
    const { [name!]: _, ...without } = archive;
    expect((await failure(zipSync(without, { level: 0 }))).message).toContain('is missing');
    // packed anew in another order, it is as good as before
    const turned = Object.fromEntries(Object.entries(archive).reverse());
    expect((await opened(zipSync(turned, { level: 0 }))).state).toEqual(bundle.state);
    const packed = Object.fromEntries(Object.entries(archive).map(([file, content]) => [file, [content, { level: 9 as const }] as const]));
    expect((await failure(zipSync(packed as unknown as Zippable))).message).toContain('must lie there as it is');
  });

  it('leaves recordings and pictures out on request, and says which, so that no other can be missing', async () => {
    const bench = await benchWithEverything();
    const bundle: StudyBundle = { ...smallStudy(), state: bench.state, texts: bench.texts, media: bench.media };
    const bytes = await written(bundle, SAVED, undefined, { media: true });
    const back = await opened(bytes);
    expect(back.state).toEqual(bundle.state);
    expect(back.media.size).toBe(0);
    const manifest = (archive: Record<string, Uint8Array>) =>
      JSON.parse(strFromU8(archive['manifest.json']!)) as { mediaLeftOut?: string[] };
    expect(manifest(unzipSync(bytes)).mediaLeftOut!.sort()).toEqual([...bench.media.keys()].sort());
    // written again it is as it came, and says so again
    expect((await opened(await written(back, SAVED))).state).toEqual(bundle.state);
    const archive = unzipSync(bytes);
    const { mediaLeftOut: _, ...silent } = manifest(archive);
    archive['manifest.json'] = strToU8(JSON.stringify(silent));
    expect((await failure(zipSync(archive))).message).toContain('a recording or picture of the study is missing');
  });

  it('holds nothing of what stays where it is, and needs it no more', async () => {
    const bench = new Bench();
    const tape = bench.record('Ferry horn', 1_000);
    const ground = tape.ground as Extract<typeof tape.ground, { of: 'time' }>;
    const outside = { ...tape, ground: { ...ground, media: { ...ground.media, outside: { name: 'horn.wav' } } } };
    const state = applyChange(bench.state, [{ type: 'document', before: tape, after: outside }]);
    const bundle = { state, texts: bench.texts, media: new Map(), journal: [], history: EMPTY_HISTORY };
    const back = await opened(await written(bundle, SAVED));
    expect(back.state).toEqual(state);
    expect(back.media.size).toBe(0);
  });

  it('keeps what was deleted as long as it can be brought back, and not in a copy without history', async () => {
    const bench = new Bench();
    const tape = bench.record('Ferry horn', 1_000);
    const before = bench.state;
    const action = bench.run(deleteDocuments([tape.id], []))!;
    const entry = { ...smallStudy().journal[0]!, sentence: action.sentence, change: action.change };
    const bundle = { state: bench.state, texts: bench.texts, media: bench.media, journal: [entry], history: advance(EMPTY_HISTORY, entry) };
    const back = await opened(await written(bundle, SAVED));
    expect([...back.media.keys()]).toEqual([...bench.media.keys()]);
    expect(applyChange(back.state, invert(back.journal[0]!.change))).toEqual(before);
    expect((await opened(await written(bundle, SAVED, undefined, { history: true }))).media.size).toBe(0);
  });

  it('of an earlier version opens without links that lead nowhere, and its log says so', async () => {
    const old = await forgeOf(readFileSync('core/formats/study-file/fixtures/version-5.filum'), (files) => {
      files['relations.json'] = '[]';
      files['code-sets.json'] = files['code-sets.json']!.replace(/"codeIds": \[\s*"[0-9a-f]{8}/, (found) =>
        found.replace(/[0-9a-f]{8}$/, 'ffffffff'),
      );
    });
    const { state, journal, history } = await opened(old);
    expect(Object.values(state.tables.codeSet).map((set) => set.codeIds)).toEqual([[], []]);
    expect([journal.at(-1)!.sentence, history.seq]).toEqual([jasmine.stringContaining('found 1 link to what'), journal.length]);
    // a file of this version that does not hold together is refused
    const now = await forgeOf(await written(await studyFileOf(5), SAVED), (files) => {
      files['relations.json'] = files['relations.json']!.replace(/"fromId": "[0-9a-f]{8}/, '"fromId": "ffffffff');
    });
    expect((await failure(now)).message).toContain('points at a code that is missing');
  });

  it('is refused when it is of a newer version', async () => {
    expect(await failure(await forge({}, true, { dataVersion: 99 }))).toBeInstanceOf(NewerVersionError);
    expect(await failure(await forge({}, true, { layout: 99 }))).toBeInstanceOf(NewerVersionError);
  });

  it('is refused with keys that reach a prototype, however they are written', async () => {
    expect((await failure(await forge({ 'codebook.json': '[{"__proto__":{"polluted":true}}]' }))).message).toContain('forbidden key');
    expect((await failure(await forge({ 'codebook.json': '[{"\\u005f_proto__":{"polluted":true}}]' }))).message).toContain('forbidden key');
    expect(({} as { polluted?: boolean }).polluted).toBeUndefined();
  });

  it('is refused with paths that leave it, files that do not belong, and bombs', async () => {
    expect((await failure(zipSync({ '../evil.txt': strToU8('x') }))).message).toContain('forbidden path');
    expect((await failure(await forge({ 'run.js': 'x' }))).message).toContain('does not belong');
    expect((await failure(zipSync({ 'manifest.json': new Uint8Array(50_000_000) }))).message).toContain('zip bomb');
  });

  it('is refused when records do not fit or do not hold together, saying where', async () => {
    expect((await failure(await forge({ 'coders.json': '[]' }))).message).toContain('points at a coder that is missing');
    expect((await failure(await forge({ 'memos.json': '[{"id":7}]' }))).message).toContain('memos.json');
    expect((await failure(await forge({ 'history.json': '{"seq":9,"undo":[],"redo":[]}' }))).message).toContain('journal');
    expect((await failure(await forge({ 'study.json': '{' }))).message).toContain('not valid JSON');
  });
});

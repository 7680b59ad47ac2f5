import Papa from 'papaparse';
import { analysisOf } from '../analysis/analysis';
import type { Id } from '../model/ids';
import { EVERYTHING } from '../model/scope';
import type { CountedTable } from '../patterns/table-measure';
import { demoSources } from '../testing/demo-sources';
import { buildDemoStudy } from './demo-study';

/** What a source says is coded: where in its document, by whom, with what, and who speaks there. */
interface Marked {
  readonly document: string;
  readonly start: number;
  readonly end: number;
  readonly keys: readonly string[];
  readonly coder: string;
  readonly speaker: string | null;
  /** The questions it answers: it can reach from one answer into the next. */
  readonly questions: readonly string[];
}

/** A document as its source has it: its text as one string of paragraphs. */
interface Read {
  readonly title: string;
  readonly text: string;
  readonly participants: readonly string[];
}

const sources = demoSources();
const rowsOf = (path: string): Record<string, string>[] =>
  Papa.parse<Record<string, string>>(sources.get(path)!.replace(/^\uFEFF/, ''), { header: true, skipEmptyLines: true }).data;

/** The demo study counted from its source files, by nothing that counts or builds it in the application. */
function readSources(): { readonly marks: readonly Marked[]; readonly titles: readonly string[]; readonly homeOf: Map<string, string> } {
  const marks: Marked[] = [];
  const read = new Map<string, Read>();
  const homeOf = new Map(rowsOf('participants.csv').map((row) => [row['name']!, row['home']!]));

  const speakerIn = (text: string, position: number): string | null => {
    const paragraphs = text.slice(0, position).split('\n\n');
    // a paragraph without a name goes on with what was said before it
    for (const paragraph of [...paragraphs.slice(0, -1), text.slice(position - paragraphs.at(-1)!.length).split('\n\n')[0]!].reverse()) {
      const named = /^(\p{Lu}[\p{L} ]*): /u.exec(paragraph);
      if (named) return named[1]!;
    }
    return null;
  };

  for (const [path, raw] of sources) {
    if (!path.startsWith('marked/')) continue;
    const header = (name: string) => new RegExp(`^#${name}: (.*)$`, 'm').exec(raw)?.[1] ?? '';
    const body = raw.slice(raw.indexOf('\n\n') + 2).trim();
    const title = header('title');
    const open: { start: number; keys: string[] }[] = [];
    const found: { start: number; end: number; keys: string[] }[] = [];
    let text = '';
    for (const piece of body.split(/(<\/?c[^>]*>)/)) {
      if (piece.startsWith('<c')) open.push({ start: text.length, keys: /k="(.*)"/.exec(piece)![1]!.split(' ') });
      else if (piece === '</c>') found.push({ ...open.pop()!, end: text.length });
      else text += piece;
    }
    read.set(title, { title, text, participants: header('participants').split('; ') });
    const coder = path.includes('second-coder') ? 'Jon' : 'Mara';
    for (const one of found) marks.push({ document: title, ...one, coder, speaker: speakerIn(text, one.start), questions: [] });
  }
  for (const [path, raw] of sources) {
    if (!path.startsWith('structured/')) continue;
    const [, name, home] = /^Respondent: (.*), \d+, (.*)$/m.exec(raw)!;
    homeOf.set(`${name} (pier)`, home!);
    const title = `At the pier – ${name}`;
    read.set(title, { title, text: raw.slice(raw.indexOf('\n\n') + 2), participants: [`${name} (pier)`] });
  }
  for (const row of rowsOf('survey.csv')) {
    const name = `${row['response_id']}${row['pseudonym'] ? ` ${row['pseudonym']}` : ''}`;
    homeOf.set(name, row['home'] || 'not known');
    const answers = Object.entries(row).filter(([column]) => column.endsWith('?'));
    const text = answers.map(([question, answer]) => `Q: ${question}\n\nA: ${answer.replace(/\n+/g, '\n')}`).join('\n\n');
    read.set(`Survey ${row['response_id']}`, { title: `Survey ${row['response_id']}`, text, participants: [name] });
  }
  const code = (title: string, from: string, to: string, keys: string[], coder: string) => {
    const { text } = read.get(title)!;
    const start = text.indexOf(from);
    const end = to ? text.indexOf(to, start) + to.length : start + from.length;
    if (start < 0 || end <= start) throw new Error(`${from} … ${to} in ${title}`);
    const asked = (part: string) => Array.from(part.matchAll(/^Q: (.*)$/gm), (match) => match[1]!);
    const questions = [...asked(text.slice(0, start)).slice(-1), ...asked(text.slice(start, end))];
    marks.push({ document: title, start, end, keys, coder, questions, speaker: speakerIn(text, start) });
  };
  const { recordings, pictures } = JSON.parse(sources.get('media/media.json')!) as {
    recordings: { title: string; transcript: string; words: { words: string; keys: string[] }[]; spans: { keys: string[] }[] }[];
    pictures: { title: string; areas: { keys: string[] }[] }[];
  };
  for (const one of recordings) {
    for (const { words, keys } of one.words) code(one.transcript, words, '', keys, 'Mara');
    for (const { keys } of one.spans)
      marks.push({ document: one.title, start: 0, end: 0, keys, coder: 'Mara', speaker: null, questions: [] });
  }
  for (const one of pictures)
    for (const { keys } of one.areas)
      marks.push({ document: one.title, start: 0, end: 0, keys, coder: 'Mara', speaker: null, questions: [] });
  for (const row of rowsOf('codings.csv'))
    code(row['document']!, row['from']!, row['to']!, row['codes']!.split(' '), row['coder'] || 'Mara');
  return { marks, titles: [...read.keys()], homeOf };
}

describe('the tables of the demo study', () => {
  const { marks, homeOf } = readSources();
  const codebook = rowsOf('codebook.csv');
  const { state, texts } = buildDemoStudy(sources);
  const { tables } = state;
  const analysis = analysisOf((_, ids) => Promise.resolve(ids.map((id) => texts.get(id)!)));
  let asked = 0;

  beforeAll(() => {
    const told = { studyId: state.study.id, anew: true, language: 'en', texts: [], gone: [] };
    analysis.update({ ...told, changed: Object.values(state.passages), tables });
  });

  /** Every number of a table that is not 0, by what its row and column are called. */
  async function table(asking: Partial<CountedTable>): Promise<Record<string, number>> {
    const plain: CountedTable = {
      rows: { of: 'codes', codeIds: null, withUnder: false },
      columns: { by: 'document' },
      counting: 'passages',
      coders: 'each passage',
    };
    const result = await analysis.crossTable(++asked, () => undefined, { ...plain, ...asking }, EVERYTHING, Object.keys(tables.document));
    const width = result!.columns.length + 1;
    return counts(
      result!.rows.flatMap((row, r) =>
        result!.columns.map((column, c): [string, number] => [
          `${row.path.at(-1)} · ${column.path.join(', ')}`,
          result!.counts[r * width + c]!,
        ]),
      ),
    );
  }
  const counts = (some: readonly (readonly [string, number])[]): Record<string, number> => {
    const sums: Record<string, number> = {};
    for (const [name, count] of some) sums[name] = (sums[name] ?? 0) + count;
    return Object.fromEntries(
      Object.entries(sums)
        .filter(([, count]) => count > 0)
        .sort(([a], [b]) => (a < b ? -1 : 1)),
    );
  };
  const named = (key: string): string => codebook.find((row) => row['key'] === key)!['name']!;
  const categoryOf = (key: string): string => codebook.find((row) => row['key'] === key)!['category']!;

  it('count passages by code and document as the sources mark them', async () => {
    const wanted = counts(marks.flatMap(({ document, keys }) => keys.map((key): [string, number] => [`${named(key)} · ${document}`, 1])));
    expect(Object.keys(wanted).length).toBeGreaterThan(300);
    expect(await table({})).toEqual(wanted);
  });

  it('count what two coders marked over each other once', async () => {
    const wanted: [string, number][] = [];
    const byCell = new Map<string, Marked[]>();
    for (const mark of marks)
      for (const key of mark.keys) {
        const name = `${named(key)} · ${mark.document}`;
        byCell.set(name, [...(byCell.get(name) ?? []), mark]);
      }
    for (const [name, some] of byCell) {
      const left = new Set(some);
      let together = 0;
      for (const first of some) {
        if (!left.delete(first)) continue;
        together++;
        // all that is joined to it, and to what is joined to it
        const reached = [first];
        for (const one of reached)
          for (const other of left)
            if (one.coder !== other.coder && one.start < other.end && other.start < one.end) {
              left.delete(other);
              reached.push(other);
            }
      }
      wanted.push([name, together]);
    }
    expect(await table({ coders: 'together' })).toEqual(counts(wanted));
    expect(counts(wanted)).not.toEqual(await table({}));
  });

  it('count participants by category and home', async () => {
    const stretches = rowsOf('stretches.csv');
    const wanted = new Set<string>();
    const first = (name: string) => name.split(' ')[0]!;
    const participantsOf = new Map<string, string[]>();
    for (const [path, raw] of sources)
      if (path.startsWith('marked/'))
        participantsOf.set(/^#title: (.*)$/m.exec(raw)![1]!, (/^#participants: (.*)$/m.exec(raw)?.[1] ?? '').split('; ').filter(Boolean));
    for (const { document, keys, speaker, start } of marks) {
      let owners: string[] = [];
      if (document.startsWith('Survey')) owners = [...homeOf.keys()].filter((name) => name.startsWith(document.slice(7)));
      else if (document.startsWith('At the pier') && !document.endsWith('the sound'))
        owners = speaker === 'Q' ? [] : [`${document.slice('At the pier – '.length)} (pier)`];
      else if (document.startsWith('Interview') && speaker !== 'Interviewer') owners = participantsOf.get(document)!;
      else if (document.startsWith('Focus group')) owners = participantsOf.get(document)!.filter((name) => first(name) === speaker);
      else if (document.startsWith('Field note')) {
        const text = texts.get(Object.values(tables.document).find(({ title }) => title === document)!.id)!.text;
        const mark = marks.filter((one) => one.document === document).find((one) => one.start === start)!;
        // paragraphs stand two signs apart in the source, one in the text
        const before = (position: number) => position - [...sourceBody(document).slice(0, position).matchAll(/\n\n/g)].length;
        owners = stretches
          .filter((one) => one['document'] === document)
          .filter((one) => {
            const from = text.indexOf(one['from']!);
            const to = one['to'] ? text.indexOf(one['to'], from) + one['to'].length : from + one['from']!.length;
            return from < before(mark.end) && before(mark.start) < to;
          })
          .map((one) => one['participant']!);
      }
      for (const owner of owners) for (const key of keys) wanted.add(`${categoryOf(key)} · ${homeOf.get(owner)!}|${owner}`);
    }
    const home = Object.values(tables.attribute).find(({ name }) => name === 'home')!;
    expect(await table({ rows: { of: 'top codes' }, columns: { nested: [{ attributeId: home.id }] }, counting: 'cases' })).toEqual(
      counts(Array.from(wanted, (one): [string, number] => [one.split('|')[0]!, 1])),
    );
  });

  it('count passages by code and the question they answer', async () => {
    const wanted = counts(
      marks.flatMap(({ questions, keys }) =>
        questions.flatMap((question) => keys.map((key): [string, number] => [`${named(key)} · ${question}`, 1])),
      ),
    );
    const counted = await table({ columns: { by: 'question' } });
    expect(Object.fromEntries(Object.entries(counted).filter(([name]) => name.endsWith('?')))).toEqual(wanted);
  });

  /** The words of a marked source without its marks. */
  function sourceBody(title: string): string {
    const raw = [...sources.values()].find((one) => one.startsWith(`#title: ${title}\n`))!;
    return raw
      .slice(raw.indexOf('\n\n') + 2)
      .trim()
      .replace(/<\/?c[^>]*>/g, '');
  }
  const ids = (): Id[] => Object.keys(tables.document);
  it('are counted over every document there is', () => expect(ids().length).toBe(82));
});

import { applyChange } from '../core/change/apply';
import { codePlace } from '../core/commands/passages';
import { readStudyFile } from '../core/formats/study-file/read-study-file';
import { writeStudyFile } from '../core/formats/study-file/write-study-file';
import { randomId } from '../core/model/ids';
import { packPassages, unpackPassages } from '../core/passages/columns';
import { tally } from '../core/passages/counting';
import { IntervalIndex } from '../core/passages/interval-index';
import { overlaps } from '../core/passages/relations';
import { buildLargeStudy, LARGE, LONG_DOCUMENT } from '../core/sample/large-study';
import { countWords } from '../core/text/words';
import { benchPatterns } from './patterns';
import { benchQueries } from './queries';
import { report } from './report';
import { time } from './timing';
import { benchWords } from './words';

/** What the core does with the large study, in Node. */
export async function benchCore(): Promise<void> {
  console.log('\nCore, in Node');
  const { state, texts, ...rest } = buildLargeStudy(LARGE);
  const columns = Object.values(state.passages);
  const codes = state.tables.code;

  const long = buildLargeStudy(LONG_DOCUMENT);
  const [dense] = Object.values(long.state.passages);
  const passages = unpackPassages(dense!);
  const asked = passages.filter((_, at) => at % 10 === 0);
  const index = new IntervalIndex(dense!);
  report({
    what: 'overlaps of 400 passages among 4,000, by the interval index',
    value: time(9, () => asked.map((one) => index.overlapping(one.start, one.end))),
    unit: 'ms',
    beside: { what: 'looking at every pair', value: time(5, () => asked.map((one) => passages.filter((other) => overlaps(one, other)))) },
  });

  await benchQueries(state);
  benchWords([...texts.values()], state);
  await benchPatterns(state, [...texts.values()]);

  const first = tally(columns, codes);
  const changed = [packPassages(columns[0]!.documentId, unpackPassages(columns[0]!).slice(1)), ...columns.slice(1)];
  report({
    what: 'counting all codes after one coding',
    value: time(9, () => tally(changed, codes, first)),
    unit: 'ms',
    beside: { what: 'from nothing', value: time(3, () => tally(columns, { ...codes })) },
  });

  const [documentId] = Object.keys(long.state.tables.document);
  let at = 0;
  const context = { coderId: long.state.study.currentCoderId, now: 0, newId: randomId };
  report({
    what: 'coding one passage in a document with 4,000: command and new state',
    value: time(25, () => {
      const action = codePlace({
        documentId: documentId!,
        place: { start: 30 + at, end: 60 + at++ },
        codeIds: [Object.keys(long.state.tables.code)[3]!],
      })(long.state, context)!;
      return applyChange(long.state, action.change);
    }),
    unit: 'ms',
  });

  const some = [...texts.values()].slice(0, 100).map((text) => text.text);
  const segmenter = new Intl.Segmenter('en', { granularity: 'word' });
  report({
    what: 'counting 800,000 words',
    value: time(3, () => some.map(countWords)),
    unit: 'ms',
    beside: {
      what: 'with Intl.Segmenter by paragraph, 1 in 20 of them, times 20',
      value:
        20 *
        time(1, () =>
          some
            .slice(0, 5)
            .map((text) => text.split('\n').map((line) => [...segmenter.segment(line)].filter((part) => part.isWordLike).length)),
        ),
    },
  });

  let begun = performance.now();
  const file = await writeStudyFile({ state, texts, ...rest }, Date.UTC(2025, 0, 1));
  report({ what: `writing the large study file (${Math.round(file.size / 1e6)} MB)`, value: performance.now() - begun, unit: 'ms' });
  begun = performance.now();
  await readStudyFile(file);
  report({ what: 'reading it, every check included', value: performance.now() - begun, unit: 'ms' });
}

import { askingRewritten } from './asking';
import type { DocumentStretch } from '../model/case';
import type { Document, Text, UnsureWords } from '../model/document';
import type { Id } from '../model/ids';
import type { StudyState } from '../model/study-state';
import { paragraphAt } from '../text/paragraphs';
import { added, removed, updated, type Change } from '../change/change';
import { CommandError, found, short, type Command } from '../change/command';
import { passagesOf } from './passages';
import { wordsOf } from './correct-text';

/**
 * Divides a document in two before the paragraph that holds a position. Passages go with their words; one that
 * lies across the cut becomes two with the same codings, and its comment stays with the first.
 */
export function splitDocument(text: Text, position: number, title: string): Command {
  return (state, context) => {
    const document = found(state.tables.document[text.id], 'document');
    const row = paragraphAt(text.paragraphs, position);
    const cut = text.paragraphs[row]?.start ?? 0;
    if (row === 0 || cut === 0) throw new CommandError('A document is divided before a paragraph; the first one has nothing before it.');
    const newId = context.newId();
    const parts = [
      { id: document.id, text: slice(text, 0, cut - 1, document.id) },
      { id: newId, text: slice(text, cut, text.text.length, newId) },
    ] as const;
    const answers = [document.answers.filter((one) => one.start < cut), document.answers.filter((one) => one.start >= cut)] as const;
    const second: Document = {
      ...document,
      id: newId,
      title,
      characters: parts[1].text.text.length,
      words: wordsOf(parts[1].text),
      // a question that was asked in the first part is answered here, but not asked
      answers: answers[1].map((one) => shifted({ ...one, asked: one.asked && one.asked.start >= cut ? one.asked : null }, -cut)),
      ...(document.readTo === undefined ? {} : { readTo: Math.max(0, document.readTo - cut) }),
      ...(document.units === undefined ? {} : { units: [0, ...document.units.flatMap((at) => (at > cut ? [at - cut] : []))] }),
      createdAt: context.now,
    };
    const change: Change[number][] = [
      updated('text', text, parts[0].text),
      added('text', parts[1].text),
      updated('document', document, {
        characters: parts[0].text.text.length,
        words: wordsOf(parts[0].text),
        ...(document.readTo === undefined ? {} : { readTo: Math.min(document.readTo, cut - 1) }),
        ...(document.units === undefined ? {} : { units: document.units.filter((at) => at < cut) }),
        answers: answers[0].map((one) => ({ ...one, end: Math.min(one.end, cut - 1) })),
      }),
      added('document', second),
    ];
    for (const passage of passagesOf(state, document.id)) {
      if (passage.end < cut) continue;
      const stays = passage.start < cut - 1;
      const goes = passage.end > cut;
      const there = { documentId: newId, start: Math.max(0, passage.start - cut), end: passage.end - cut };
      // what lies in the second part keeps what it is; of what lies across, the first part does
      if (!stays && goes) change.push(updated('passage', passage, there));
      else if (stays) change.push(updated('passage', passage, { end: cut - 1 }));
      else change.push(removed('passage', passage));
      if (stays && goes) {
        const { open: _, ...rest } = passage;
        change.push(added('passage', { ...rest, ...there, id: context.newId(), comment: '' }));
      }
    }
    // whoever had the document whole has both parts
    const both = (ids: readonly Id[]): Id[] => ids.flatMap((id) => (id === document.id ? [id, newId] : [id]));
    for (const one of Object.values(state.tables.case))
      if (one.documentIds.includes(document.id)) change.push(updated('case', one, { documentIds: both(one.documentIds) }));
    for (const set of Object.values(state.tables.set))
      if (set.memberIds.includes(document.id)) change.push(updated('set', set, { memberIds: both(set.memberIds) }));
    change.push(
      ...askingRewritten(state, (one) =>
        'liesIn' in one ? { liesIn: { ...one.liesIn, documentIds: both(one.liesIn.documentIds) } } : one,
      ),
    );
    const stretch = (one: DocumentStretch): readonly DocumentStretch[] => {
      if (one.documentId !== document.id || one.end < cut) return [one];
      const first = one.start < cut - 1 ? [{ ...one, end: cut - 1 }] : [];
      return one.end > cut ? [...first, { documentId: newId, start: Math.max(0, one.start - cut), end: one.end - cut }] : first;
    };
    return { change, heirs: { stretch }, sentence: `divided ${short(document.title)} in two; the second part is ${short(title)}` };
  };
}

/** Puts one document behind another, as one text; passages, memos and cases come along, and the second document goes. */
export function joinDocuments(first: Text, second: Text): Command {
  return (state) => {
    const [one, two] = [found(state.tables.document[first.id], 'document'), found(state.tables.document[second.id], 'document')];
    if (one.id === two.id) throw new CommandError('A document cannot be joined with itself.');
    mayBelongTogether(state, one, two);
    const by = first.text.length + 1;
    const speakers = [...one.speakers];
    const numbers = two.speakers.map((speaker) => {
      const known = speakers.findIndex((other) => other.name === speaker.name);
      return known >= 0 ? known : speakers.push(speaker) - 1;
    });
    const text: Text = {
      id: first.id,
      text: `${first.text}\n${second.text}`,
      paragraphs: [
        ...first.paragraphs,
        ...second.paragraphs.map((paragraph) => ({
          ...paragraph,
          start: paragraph.start + by,
          body: paragraph.body + by,
          end: paragraph.end + by,
          speaker: paragraph.speaker < 0 ? -1 : numbers[paragraph.speaker]!,
        })),
      ],
      emphasis: [...first.emphasis, ...second.emphasis.map((span) => ({ ...span, start: span.start + by, end: span.end + by }))],
      marks: [...first.marks, ...second.marks.map((mark) => ({ ...mark, at: mark.at + by }))],
      ...unsureOf([...(first.unsure ?? []), ...(second.unsure ?? []).map((one) => ({ ...one, start: one.start + by, end: one.end + by }))]),
    };
    const change: Change[number][] = [
      updated('text', first, text),
      updated('document', one, {
        speakers,
        ...(two.belongsTo !== undefined && two.belongsTo !== one.id && { belongsTo: two.belongsTo }),
        characters: text.text.length,
        words: one.words + two.words,
        ...(two.transcribed && { transcribed: one.transcribed ?? two.transcribed }),
        answers: [...one.answers, ...two.answers.map((answer) => shifted(answer, by))],
        values: { ...two.values, ...one.values },
        ...(one.units || two.units ? { units: [...(one.units ?? [0]), ...(two.units ?? [0]).map((at) => at + by)] } : {}),
        ...(one.readTo === one.characters && two.readTo !== undefined ? { readTo: two.readTo + by } : {}),
      }),
    ];
    for (const passage of passagesOf(state, two.id))
      change.push(updated('passage', passage, { documentId: one.id, start: passage.start + by, end: passage.end + by }));
    for (const owner of Object.values(state.tables.case)) {
      if (!owner.documentIds.includes(two.id)) continue;
      // what it owned whole it now owns as a part, since the rest is not its own
      const part = owner.documentIds.includes(one.id) ? [] : [{ documentId: two.id, start: 0, end: second.text.length }];
      change.push(
        updated('case', owner, {
          documentIds: owner.documentIds.filter((id) => id !== two.id),
          stretches: [...owner.stretches, ...part],
        }),
      );
    }
    const stretch = (stretch: DocumentStretch): readonly DocumentStretch[] =>
      stretch.documentId === two.id ? [{ documentId: one.id, start: stretch.start + by, end: stretch.end + by }] : [stretch];
    change.push(removed('text', second), removed('document', two));
    const heirs = { records: { document: new Map([[two.id, one.id]]) }, stretch };
    return { change, heirs, sentence: `put ${short(two.title)} behind ${short(one.title)}, as one document` };
  };
}

/** @throws CommandError where two documents cannot be one because of what they belong to and what belongs to them */
function mayBelongTogether({ tables: { document } }: StudyState, one: Document, two: Document): void {
  // a transcript of one recording behind that of another would tell wrong times
  const [to, other] = [one.belongsTo ?? two.belongsTo, two.belongsTo ?? one.belongsTo];
  if (to === undefined || to === one.id || to === two.id) return;
  if (to !== other)
    throw new CommandError(`They belong to different documents: ${short(document[to]!.title)} and ${short(document[other!]!.title)}.`);
  const owned = Object.values(document).find((each) => each.belongsTo === one.id || each.belongsTo === two.id);
  if (owned)
    throw new CommandError(`${short(owned.title)} belongs to one of them, and the other belongs to ${short(document[to]!.title)}.`);
}

const shifted = <T extends { start: number; end: number; asked: { start: number; end: number } | null }>(answer: T, by: number): T => ({
  ...answer,
  start: answer.start + by,
  end: answer.end + by,
  asked: answer.asked && { start: answer.asked.start + by, end: answer.asked.end + by },
});

/** The part `[from, to)` of a text, cut at paragraphs, as a text of its own. */
function slice(text: Text, from: number, to: number, id: Id): Text {
  return {
    id,
    text: text.text.slice(from, to),
    paragraphs: text.paragraphs
      .filter((paragraph) => paragraph.start >= from && paragraph.end <= to)
      .map((paragraph) => ({ ...paragraph, start: paragraph.start - from, body: paragraph.body - from, end: paragraph.end - from })),
    emphasis: text.emphasis
      .filter((span) => span.start < to && span.end > from)
      .map((span) => ({ ...span, start: Math.max(0, span.start - from), end: Math.min(span.end, to) - from })),
    marks: text.marks.filter((mark) => mark.at >= from && mark.at <= to).map((mark) => ({ ...mark, at: mark.at - from })),
    ...unsureOf(
      (text.unsure ?? [])
        .filter((words) => words.start < to && words.end > from)
        .map((words) => ({ ...words, start: Math.max(0, words.start - from), end: Math.min(words.end, to) - from })),
    ),
  };
}

/** Words that are unsure, as a text has them: where there are none, it says nothing of them. */
const unsureOf = (unsure: readonly UnsureWords[]): Pick<Text, 'unsure'> => (unsure.length > 0 ? { unsure: [...unsure] } : {});

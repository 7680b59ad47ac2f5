import { compareValues } from '../attributes/values';
import { hasText, type Text } from '../model/document';
import type { Id } from '../model/ids';
import type { Passage } from '../model/passage';
import type { Carries, PassageCondition, Stands } from '../model/passage-condition';
import type { Scope } from '../model/scope';
import type { StudyState } from '../model/study-state';
import type { WordSearch } from '../model/word-search';
import { after, before, inside, overlaps, samePlace } from '../passages/relations';
import { isTimed, timeAt } from '../text/timeline';
import { unitsOf } from '../text/units';

/** Somebody is to be chosen who speaks, and nobody is yet. */
const isNobody = (part: PassageCondition): boolean =>
  'spokenBy' in part && part.spokenBy === 'these' && part.caseIds.length + part.names.length === 0;

const flat = ({ start, end }: Passage) => ({ start, end });

/** The definition, word for word: every passage held against every other. */
export class Naive {
  constructor(
    private readonly state: StudyState,
    private readonly texts: ReadonlyMap<Id, Text>,
    private readonly passages: readonly Passage[],
    private readonly scope: Scope,
  ) {}

  private codings(passage: Passage) {
    return passage.codings.filter((coding) => this.isGiven(coding));
  }

  isSeen(passage: Passage): boolean {
    const asked = this.scope.parts.filter((part) => !('answers' in part && part.answers.length === 0) && !isNobody(part));
    return asked.every((part) => this.meets(passage, part)) && (this.isGiven(passage) || this.codings(passage).length > 0);
  }

  private isGiven({ coderId, createdAt }: { readonly coderId: Id; readonly createdAt: number }): boolean {
    const { coderIds, from } = this.scope.given ?? {};
    return (coderIds?.includes(coderId) ?? true) && (from === undefined || createdAt >= new Date(1970, 0, 5).getTime());
  }

  meets(passage: Passage, asked: PassageCondition): boolean {
    const { tables } = this.state;
    const document = tables.document[passage.documentId]!;
    const text = this.texts.get(passage.documentId);
    if ('all' in asked) return asked.all.every((one) => this.meets(passage, one));
    if ('any' in asked) return asked.any.some((one) => this.meets(passage, one));
    if ('none' in asked) return !asked.none.some((one) => this.meets(passage, one));
    if ('carries' in asked) return this.carries(passage, asked);
    if ('standing' in asked)
      return this.passages.some(
        (one) => one.documentId === passage.documentId && this.isSeen(one) && this.meets(one, asked.to) && this.stands(passage, one, asked),
      );
    if ('queryId' in asked) return tables.query[asked.queryId]!.question.all.every((one) => this.meets(passage, one));
    const paragraph = text?.paragraphs.findLast((one) => one.start <= passage.start);
    const speaker = document.speakers[paragraph?.speaker ?? -1];
    if ('spokenBy' in asked)
      return asked.spokenBy === 'interviewers'
        ? speaker?.interviewer === true
        : asked.spokenBy === 'others'
          ? speaker?.interviewer !== true
          : speaker !== undefined && (asked.names.includes(speaker.name) || asked.caseIds.includes(speaker.caseId ?? ''));
    if ('answers' in asked)
      return (
        hasText(document) &&
        document.answers.some((one) => asked.answers.includes(one.questionId) && overlaps(one, { start: passage.start, end: passage.end }))
      );
    if ('comment' in asked) {
      const { comment } = passage;
      if (asked.comment === 'none') return comment === '';
      if (asked.comment === 'open question') return passage.open === true;
      return comment !== '' && (asked.comment === 'some' || comment.toLowerCase().includes(asked.words.toLowerCase()));
    }
    if ('hasWords' in asked) return text !== undefined && this.holdsWords(text, passage, asked.hasWords);
    if ('memo' in asked) return !asked.memo;
    const cases = Object.values(tables.case).filter(
      (one) =>
        one.stretches.some((part) => part.documentId === document.id && overlaps(part, { start: passage.start, end: passage.end })) ||
        speaker?.caseId === one.id ||
        (!speaker?.caseId && !speaker?.interviewer && one.documentIds.includes(document.id)),
    );
    if ('ofCases' in asked) return asked.ofCases.length === 0 || cases.some((one) => asked.ofCases.includes(one.id));
    if ('attributeId' in asked) {
      const attribute = tables.attribute[asked.attributeId]!;
      const owners = attribute.of === 'case' ? cases : [document];
      const had = owners.flatMap((one) => one.values[attribute.id] ?? []);
      const [value] = asked.values;
      if (asked.comparison === 'is known') return had.length > 0;
      if (asked.comparison === 'is not known') return had.length === 0;
      if (asked.comparison === 'is not') return had.every((one) => one !== value);
      return had.some((one) => (asked.comparison === 'is' ? one === value : compareValues(attribute, one, value) > 0));
    }
    if ('liesIn' in asked) {
      const { documentIds, setIds } = asked.liesIn;
      if (documentIds.length + setIds.length === 0) return true;
      return (
        documentIds.includes(document.id) ||
        setIds.some((id) => tables.set[id]!.memberIds.some((member) => member === document.id || cases.some((one) => one.id === member)))
      );
    }
    if ('dated' in asked) {
      const { from, to } = asked.dated;
      return document.date !== null && (!from || !(document.date < from)) && (!to || !(document.date > to));
    }
    if ('placed' in asked) {
      const sets = Object.values(tables.set).flatMap((set) => set.memberIds);
      return {
        'in a folder': document.folderId !== null,
        'in a set': [document, ...cases].some(({ id }) => sets.includes(id)),
        'of a case': cases.length > 0,
        'in an answer': hasText(document) && document.answers.some((one) => overlaps(one, { start: passage.start, end: passage.end })),
        'by a speaker': speaker !== undefined,
      }[asked.placed];
    }
    if ('kinds' in asked) return asked.kinds.length === 0 || asked.kinds.includes(document.kind);
    return asked.grounds.length === 0 || asked.grounds.includes(document.ground.of);
  }

  /** The few things that random conditions type, each held against the words that lie whole in the passage. */
  private holdsWords(text: Text, { start, end }: Passage, { typed, match, capitals }: WordSearch): boolean {
    const bodies = text.paragraphs.map((one) =>
      [...text.text.slice(one.body, one.end).matchAll(/[a-z]+/gi)].map((found) => ({ at: one.body + found.index, word: found[0] })),
    );
    const lines = bodies.map((words) =>
      words.filter(({ at, word }) => at >= start && at + word.length <= end).map(({ word }) => (capitals ? word : word.toLowerCase())),
    );
    const like = (wanted: string, word: string) => (match === 'parts of words' ? word.includes(wanted) : word === wanted);
    const has = (...phrase: string[]) =>
      lines.some((words) =>
        words.some((_, at) => phrase.every((wanted, nth) => words[at + nth] !== undefined && like(wanted, words[at + nth]!))),
      );
    if (typed === 'late') return has('late');
    if (typed === '"it was"') return has('it', 'was');
    // the forms of “waited” in these texts are just that one
    return typed === 'rain or not waited' && (has('rain') || !has('waited'));
  }

  private carries(passage: Passage, { carries, number = 1, codes, reach, given }: Carries): boolean {
    const looked =
      reach === 'passage'
        ? [passage]
        : this.passages.filter((one) => one.documentId === passage.documentId && this.isSeen(one) && overlaps(one, passage));
    const seen = looked
      .flatMap((one) => this.codings(one))
      .filter(
        (one) =>
          !given ||
          ((!given.coderIds || given.coderIds.includes(one.coderId)) &&
            (given.from === undefined || one.createdAt >= new Date(1970, 0, 5).getTime()) &&
            (given.swept === undefined || given.swept === (one.swept ?? false)) &&
            (given.ratedFrom === undefined || (one.rating ?? 0) >= given.ratedFrom)),
      )
      .map((one) => one.codeId);
    const { code, codeSet } = this.state.tables;
    const under = (id: Id): Id[] => [
      id,
      ...(codes.withUnder
        ? Object.values(code)
            .filter((one) => one.parentId === id)
            .flatMap((one) => under(one.id))
        : []),
    ];
    const groups = [...codes.codeIds.map(under), ...codes.setIds.map((id) => codeSet[id]!.codeIds.flatMap(under))];
    const met = groups.filter((group) => group.some((id) => seen.includes(id))).length;
    const any = groups.length === 0 ? seen.length > 0 : met > 0;
    if (carries === 'none') return !any;
    if (carries === 'any' || groups.length === 0) return any;
    return met >= (carries === 'all' ? groups.length : number);
  }

  private stands(a: Passage, b: Passage, { standing, within }: Stands): boolean {
    const distance = within && this.distance(a, b, within.unit);
    const close = !within || (distance !== null && distance! <= within.count);
    const [one, other] = [flat(a), flat(b)];
    switch (standing) {
      case 'overlaps':
        return overlaps(a, b);
      case 'same place':
        return samePlace(a, b);
      case 'inside':
        return inside(a, b);
      case 'around':
        return inside(b, a);
      case 'near':
        return overlaps(a, b) || (within !== undefined && close);
      case 'before':
        return !a.area && before(one, other) && close;
      case 'after':
        return !a.area && after(one, other) && close;
    }
  }

  private distance(a: Passage, b: Passage, unit: 'sentence' | 'paragraph' | 'turn' | 'second'): number | null {
    const text = this.texts.get(a.documentId);
    if (a.area) return null;
    const [first, last] = a.start <= b.start ? [a, b] : [b, a];
    if (unit === 'second') {
      if (text && !isTimed(text)) return null;
      const at = (position: number) => (text ? timeAt(text, position) : position);
      return Math.max(0, at(last.start) - at(first.end)) / 1000;
    }
    if (!text) return null;
    const units = unitsOf(text, unit, 'en');
    const indexOf = (position: number) => Math.max(0, units.filter((one) => one.start <= position).length - 1);
    return Math.max(0, indexOf(last.start) - indexOf(first.end - 1));
  }
}

import { computed, inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { deleteQuery, saveQuery, seeAnswer } from '@core/commands/queries';
import { addSet } from '@core/commands/sets';
import { randomId, type Id } from '@core/model/ids';
import type { Question } from '@core/model/query';
import type { MemberSet } from '@core/model/set';
import { queryAsJson, QueryFormatError, queryFromJson, type PastedQuery } from '@core/queries/exchange';
import { seenOf } from '@core/queries/seen';
import { questionWords } from '@core/queries/words';
import { quoted } from '@core/text/quoted';
import { Notices } from '../../state/notices';
import { StudySession } from '../../state/study-session';
import { selectData, selectQueries } from '../../state/study.selectors';
import { Ask } from '../../ui/dialogs/ask';
import { mayGo } from '../../ui/dialogs/may-go';
import { Asking } from './asking';
import { AskedHere } from '../../ui/sentence/asked-here';

/** Queries that are kept by name: keeping, asking again, taking to another study. */
@Injectable()
export class KeptQueries {
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly notices = inject(Notices);
  private readonly ask = inject(Ask);
  private readonly asking = inject(Asking);
  private readonly here = inject(AskedHere);
  private readonly data = this.store.selectSignal(selectData);
  private readonly table = this.store.selectSignal(selectQueries);
  readonly all = computed(() => Object.values(this.table()).sort((a, b) => a.name.localeCompare(b.name)));

  async keep(): Promise<void> {
    const question = this.asking.question();
    const known = new Set(this.all().map((query) => query.name));
    const name = questionWords(question, this.here.names());
    const reply = await this.ask.reply({
      title: 'Keep the query',
      lines: [],
      label: 'Name',
      text: unusedName((name.startsWith('carry ') ? name.slice(6) : name).slice(0, 200), known),
      yes: 'Keep',
      tries: (typed) => this.session.attempt(saveQuery(typed, question)).refused,
      ...(known.size > 0 && { other: 'Replace the one of this name' }),
    });
    if (reply?.chose === 'other') this.session.run(saveQuery(reply.text, question, true));
  }

  async remove(id: Id): Promise<void> {
    const title = `Delete the query ${quoted(this.table()[id]!.name)}?`;
    if (await mayGo(this.ask, this.data()!, 'query', id, title)) this.session.run(deleteQuery(id));
  }

  /** Remembers the answer as it is: the next time what is new and what is gone is told. */
  see(): void {
    const [kept, shown] = [this.asking.kept(), this.asking.shown()];
    if (kept && shown) this.session.run(seeAnswer(kept.id, seenOf(shown.hits.map((hit) => hit.passageId))));
  }

  /** Makes a live set of the documents, or of the cases, in or of which the query finds something; one that is not kept is kept first. */
  async makeLiveSet(of: MemberSet['of']): Promise<void> {
    if (!this.asking.kept()) await this.keep();
    const kept = this.asking.kept();
    if (!kept) return;
    const name = await this.ask.keep(
      `Make a live set of ${of === 'case' ? this.here.caseWord() : of}s`,
      'Name of the set',
      kept.name,
      'Make the set',
      (typed) => this.session.attempt(addSet(of, typed, [], [{ what: { queryId: kept.id }, comparison: 'is', value: true }])).refused,
    );
    if (name !== null)
      this.notices.say(`The set ${quoted(name)} fills itself with what the query finds. It is with the sets of the material.`);
  }

  async copy(): Promise<void> {
    const data = this.data();
    if (!data) return;
    const question = this.asking.question();
    await navigator.clipboard.writeText(
      queryAsJson(data, this.asking.kept()?.name ?? questionWords(question, this.here.names()), question),
    );
    this.notices.say('The query is copied as JSON. It can be pasted in another study.');
  }

  /** A query that is pasted as JSON, to be asked. */
  async paste(): Promise<Question | null> {
    let pasted: PastedQuery | null = null;
    await this.ask.reply({
      title: 'Paste a query',
      lines: [
        'A query that was copied as JSON, here or in another study. Codes are found by their names and the names of what they lie under.',
      ],
      label: 'JSON',
      text: '',
      long: { what: 'pasted query', of: '' },
      yes: 'Ask it',
      tries: (text) => {
        try {
          pasted = queryFromJson(this.data()!, text, randomId);
          return null;
        } catch (error) {
          if (error instanceof QueryFormatError) return error.message;
          throw error;
        }
      },
    });
    if (pasted === null) return null;
    const { question, missing } = pasted as PastedQuery;
    if (missing.length > 0) this.notices.say(`Not here: ${missing.map(quoted).join(', ').slice(0, 300)}. What asks for it finds nothing.`);
    return question;
  }
}

/** A name that no other has: with a number behind it where it must be. */
function unusedName(name: string, known: ReadonlySet<string>): string {
  if (!known.has(name)) return name;
  let number = 2;
  while (known.has(`${name} (${number})`)) number++;
  return `${name} (${number})`;
}

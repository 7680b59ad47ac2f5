import type { Change } from '@core/change/change';
import { ApplicationRef, inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { markRead } from '@core/commands/documents';
import type { Command } from '@core/change/command';
import { codePage } from '@core/commands/pages';
import { codePlace, removeCodings, removePassage, type WantedCodes } from '@core/commands/passages';
import { movePassage, recode } from '@core/commands/reshape-passages';
import type { Id } from '@core/model/ids';
import { stretchFrom, uncodedStretches } from '@core/passages/gaps';
import { hasText, lengthOf } from '@core/model/document';
import type { Place, Stretch } from '@core/model/stretch';
import { samePlace } from '@core/passages/relations';
import { tidyLine } from '@core/text/normalise';
import { citation, wordsOfPlace } from '@core/text/citation';
import { wordsSpoken } from '@core/text/timeline';
import { grown, stepEdge, unitAt, type UnitKind } from '@core/text/units';
import { Notices } from '../../state/notices';
import { ReaderSettings } from '../../state/reader-settings';
import { StudyActions } from '../../state/study.actions';
import { StudySession } from '../../state/study-session';
import { selectRecentCodeIds, selectScopedDocuments } from '../../state/study.selectors';
import { Ways } from '../../state/ways';
import { codesOf, type Picked } from '../../ui/picker/code-picker';
import { ReadingHere } from './reading-here';

/** A place of the document that is read, or of the recording or picture it belongs to. */
export interface Spot {
  readonly documentId: Id;
  readonly place: Place;
}

/** How far an end of a span moves at a key, milliseconds: a little, and with the keys that move by sentences in a text. */
const FINE = 100;
const COARSE = 1_000;

/** What is done with passages of the document at hand, by keys and by mouse alike. */
@Injectable()
export class PassageWork {
  private readonly here = inject(ReadingHere);
  private readonly store = inject(Store);
  private readonly session = inject(StudySession);
  private readonly notices = inject(Notices);
  private readonly settings = inject(ReaderSettings);
  private readonly ways = inject(Ways);
  private readonly application = inject(ApplicationRef);
  private readonly recent = this.store.selectSignal(selectRecentCodeIds);
  private readonly scoped = this.store.selectSignal(selectScopedDocuments);
  /** Selections that were grown, to be shrunk again in their order. */
  private smaller: Stretch[] = [];

  /** What a key acts on: what is marked or selected, else the chosen passage, else the paragraph at the caret. */
  place(): Spot | null {
    const chosen = this.here.chosen();
    return this.markedPlace() ?? this.selected() ?? (chosen ? { documentId: chosen.documentId, place: chosen } : this.unitHere());
  }

  /** A span of the recording or an area of the picture that is marked. */
  private markedPlace(): Spot | null {
    const [original, place] = [this.here.original(), this.here.marked()];
    return original && place ? { documentId: original.id, place } : null;
  }

  private selected(): Spot | null {
    return this.inText(this.here.surface()?.selection());
  }

  /** The selected words, or else the paragraph at the caret. */
  private unitHere(): Spot | null {
    return this.inText(this.here.surface()?.selectionOrParagraph());
  }

  private inText(place: Stretch | null | undefined): Spot | null {
    const document = this.here.document();
    return document && place ? { documentId: document.id, place } : null;
  }

  /** Leaves what was selected or marked: it is done with. */
  private done(): void {
    this.here.surface()?.collapse();
    this.here.marked.set(null);
  }

  /** Codes a place and shows the passage as chosen. */
  code({ documentId, place: { start, end, area } }: Spot, picked: Picked): void {
    const done = this.session.run(this.coding(documentId, area ? { start, end, area } : { start, end }, codesOf(picked)));
    this.here.marked.set(null);
    if ('codeId' in picked) this.used(picked.codeId);
    for (const change of done?.change ?? []) {
      if (change.type === 'passage' && change.after) {
        this.here.chosenId.set(change.after.id);
        if ('newCode' in picked) this.used(change.after.codings.at(-1)!.codeId);
      }
    }
    // drawn in the same frame as the key
    this.application.tick();
    if (done && documentId === this.here.documentId()) this.sayIfHidden(done.change);
  }

  /** Who codes what the scope or the chosen code leaves out must not think that nothing was done. */
  private sayIfHidden(change: Change): void {
    if (!this.here.leavesOut()) return;
    const shown = new Set(this.here.passages().map((passage) => passage.id));
    if (change.some((one) => one.type === 'passage' && one.after && !shown.has(one.after.id)))
      this.notices.say('Coded, but not shown here: it is not among what is looked at.');
  }

  /** A page of a PDF becomes a document with what is coded of it. */
  private coding(documentId: Id, place: Place, wanted: WantedCodes): Command {
    const page = this.here.page();
    return page?.id === documentId ? codePage(page, { place, ...wanted }) : codePlace({ documentId, place, ...wanted });
  }

  private used(codeId: Id): void {
    this.store.dispatch(StudyActions.codeUsed({ codeId }));
  }

  /** From the list beside the text: the selection, else the chosen passage, else the paragraph at the caret. */
  codeFromList(codeId: Id): void {
    const place = this.place();
    if (place) this.code(place, { codeId });
    this.here.surface()?.focus();
  }

  /** With the code of a number key: the selection, else the chosen passage, else the paragraph. */
  codeNumber(number: number): void {
    const codeId = this.settings.byNumber()[number - 1];
    if (!codeId) return this.notices.say(`No code has the key ${number} yet. Pin one in the list, or use one: those used last have keys.`);
    const place = this.place();
    this.done();
    if (place) this.code(place, { codeId });
  }

  codeSame(): void {
    const last = this.recent()[0];
    const place = this.markedPlace() ?? this.unitHere();
    if (!last || !Object.hasOwn(this.here.codes(), last)) return this.notices.say('No code was used yet since the study was opened.');
    this.done();
    if (place) this.code(place, { codeId: last });
  }

  codeWords(): void {
    const surface = this.here.surface();
    const place = surface?.selection();
    if (!place) return this.notices.say('Select the words that are to become a code.');
    const name = tidyLine(this.here.text()!.text.slice(place.start, place.end)).slice(0, 120);
    const known = Object.values(this.here.codes()).find((code) => code.name === name);
    this.code({ documentId: this.here.document()!.id, place }, known ? { codeId: known.id } : { newCode: { name } });
    surface?.collapse();
  }

  /** Puts another code in the place of one on the chosen passage. */
  recode(fromId: Id, picked: Picked): void {
    const chosen = this.here.chosen();
    if (!chosen) return;
    const done = this.session.run(recode(chosen.documentId, chosen.id, fromId, codesOf(picked)));
    const made = done?.change.find((one) => one.type === 'code');
    if (made?.after) this.used(made.after.id);
  }

  /** The chosen passage; else one marked, without a code, at the selection. */
  passageHere(): Id | null {
    const chosen = this.here.chosen();
    const spot = this.markedPlace() ?? this.selected() ?? (chosen ? null : this.unitHere());
    if (!spot) return chosen?.id ?? null;
    const beside = [...this.here.passages(), ...this.here.originalPassages()];
    const there = beside.find((passage) => passage.documentId === spot.documentId && samePlace(passage, spot.place));
    if (there) return there.id;
    const done = this.session.run(this.coding(spot.documentId, spot.place, { codeIds: [] }));
    this.here.marked.set(null);
    const change = done?.change.find((one) => one.type === 'passage');
    return change?.type === 'passage' ? (change.after?.id ?? null) : null;
  }

  /** Marks now what is decided later. */
  mark(): void {
    const id = this.passageHere();
    this.done();
    if (id) this.here.chosenId.set(id);
    this.application.tick();
  }

  /** Selects the unit at the caret. */
  selectUnit(kind: UnitKind): void {
    const surface = this.here.surface();
    const text = this.here.text();
    const unit = surface && text && unitAt(text, surface.caret(), kind, this.here.language());
    if (unit) surface.select(unit);
  }

  /** Selects the next larger unit around the selection, or goes back to the smaller. */
  resizeSelection(by: 1 | -1): void {
    const surface = this.here.surface();
    const text = this.here.text();
    if (!surface || !text) return;
    const now = surface.selection() ?? { start: surface.caret(), end: surface.caret() };
    if (by < 0) {
      const before = this.smaller.pop();
      if (before && before.start >= now.start && before.end <= now.end) surface.select(before);
      return;
    }
    const last = this.smaller.at(-1);
    if (last && (last.start < now.start || last.end > now.end)) this.smaller = [];
    const next = grown(text, now, this.here.language());
    if (!next) return;
    this.smaller.push(now);
    surface.select(next);
  }

  /** Moves an end of the chosen passage by a word or sentence. */
  moveEdge(side: 'start' | 'end', by: 1 | -1, kind: 'word' | 'sentence'): void {
    const chosen = this.here.chosen();
    if (!chosen) return this.notices.say('Choose a passage first: its ends move with Alt and the arrows.');
    const document = this.here.chosenDocument();
    if (document?.ground.of === 'time') {
      const edge = chosen[side] + by * (kind === 'word' ? FINE : COARSE);
      const span = { start: chosen.start, end: chosen.end, [side]: Math.max(0, Math.min(lengthOf(document), edge)) };
      if (span.start < span.end) this.move(chosen.id, span);
      return;
    }
    const text = this.here.text();
    if (!text || document?.ground.of !== 'text') return;
    const edge = stepEdge(text, chosen[side], side, by, kind, this.here.language());
    const place = side === 'start' ? { start: edge, end: chosen.end } : { start: chosen.start, end: edge };
    if (place.start < place.end) this.move(chosen.id, place);
  }

  move(passageId: Id, place: Place): void {
    const passage = [...this.here.passages(), ...this.here.originalPassages()].find((one) => one.id === passageId);
    if (!passage) return;
    const done = this.session.run(movePassage(passage.documentId, passageId, place));
    // where two became one, the one that stays is chosen
    const kept = done?.change.find((one) => one.type === 'passage' && one.after);
    if (kept?.type === 'passage' && kept.after) this.here.chosenId.set(kept.after.id);
    this.application.tick();
  }

  removeChosen(): void {
    const chosen = this.here.chosen();
    if (!chosen) return;
    const whole = this.here.wholePassage(chosen);
    const hidden = (whole?.codings.length ?? 0) - chosen.codings.length;
    if (hidden > 0) {
      // what is not shown is not taken away unseen
      this.session.run(removeCodings(chosen.documentId, chosen.id, chosen.codings));
      this.notices.say(`${hidden === 1 ? 'One more coding of it is' : `${hidden} more codings of it are`} not shown here and stayed.`);
    } else this.session.run(removePassage(chosen.documentId, chosen.id));
    this.here.chosenId.set(null);
    this.application.tick();
  }

  /** Goes to the next or previous passage. */
  step(by: 1 | -1): void {
    const passages = this.here.passages();
    const caret = this.here.surface()?.caret() ?? 0;
    const at = passages.findIndex((passage) => passage.id === this.here.chosenId());
    const target =
      at >= 0
        ? passages[at + by]
        : by > 0
          ? passages.find((passage) => passage.start >= caret)
          : passages.findLast((passage) => passage.start < caret);
    if (!target) return this.notices.say(by > 0 ? 'This was the last passage.' : 'This was the first passage.');
    this.here.chosenId.set(target.id);
    this.here.goTo(target);
  }

  /** Goes to the next or previous stretch that lies in no passage. */
  stepUncoded(by: 1 | -1): void {
    const text = this.here.text();
    const surface = this.here.surface();
    if (!text || !surface) return;
    const target = stretchFrom(uncodedStretches(text, this.here.passages()), surface.selection()?.start ?? surface.caret(), by);
    if (!target) return this.notices.say(by > 0 ? 'From here on everything is coded.' : 'Everything before is coded.');
    this.here.chosenId.set(null);
    this.here.goTo(target);
    surface.select(target);
  }

  /** Goes to the next or previous document that is not read to its end. */
  nextUnread(by: 1 | -1): void {
    const documents = this.scoped();
    const at = documents.findIndex((one) => one.id === this.here.documentId());
    const others = [...documents.slice(at + 1), ...documents.slice(0, at)];
    const target = (by > 0 ? others : others.reverse()).find((one) => (one.readTo ?? 0) < one.characters);
    if (!target) return this.notices.say('Every other document in scope is marked as read.');
    this.ways.go(['reading', target.id]);
  }

  /** Notes that the document is read up to the paragraph of the caret, or, where that is noted already, that it is not. */
  readToHere(): void {
    const surface = this.here.surface();
    const text = this.here.text();
    const document = this.here.document();
    if (!surface || !text || !document) return;
    const end = unitAt(text, surface.caret(), 'paragraph', this.here.language())?.end ?? surface.caret();
    const again = document.readTo === end;
    this.session.run(markRead(document.id, again ? null : end));
    this.notices.say(again ? 'Marked as not read.' : end >= document.characters ? 'Read to the end.' : 'Marked as read up to here.');
  }

  async copy(): Promise<void> {
    const spot = this.markedPlace() ?? this.selected() ?? this.place();
    const document = spot && [this.here.document(), this.here.original()].find((one) => one?.id === spot.documentId);
    if (!spot || !document) return;
    const text = this.here.text() ?? null;
    if (hasText(document)) await navigator.clipboard.writeText(citation(document, text, spot.place));
    else {
      // what is said within a span is told by the transcript at hand
      const words = document.ground.of === 'time' && text ? wordsSpoken(text, spot.place) : null;
      const quote = words ? `“${wordsOfPlace(text, words)}” ` : '';
      await navigator.clipboard.writeText(quote + citation(document, null, spot.place));
    }
    this.notices.say('Copied with its citation.');
  }
}

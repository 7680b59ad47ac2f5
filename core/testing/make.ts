import { sha256 as hasher } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import fc from 'fast-check';
import type { Action, Command, CommandContext } from '../change/command';
import { carryOut } from '../commands/carry-out';
import { applyChange } from '../change/apply';
import { codePlace } from '../commands/passages';
import { addCode } from '../commands/codes';
import { sequentialIds, type Id, type NewId } from '../model/ids';
import type { Area } from '../model/area';
import type { Document, Text } from '../model/document';
import type { Ground, Media } from '../model/ground';
import type { Passage } from '../model/passage';
import { emptyState, type StudyState } from '../model/study-state';
import { composeText } from '../text/draft-text';
import { plainParagraph } from '../formats/plain-text/read-plain-text';
import { labelsOf } from '../text/speakers';
import { answeredNow } from './answered-now';

/** A small study to try commands on, with everything in reach by short names. */
export class Bench {
  readonly newId: NewId;
  coderId: Id;
  state: StudyState;
  readonly texts = new Map<Id, Text>();
  readonly media = new Map<string, Blob>();
  private clock = 1_000;

  /** @param seed keeps its ids apart from those of other benches and of what was made with one */
  constructor(seed = 7) {
    this.newId = sequentialIds(seed);
    this.coderId = this.newId();
    this.state = emptyState({
      id: this.newId(),
      title: 'A study',
      description: '',
      language: 'en',
      caseWord: 'participant',
      createdAt: 0,
      currentCoderId: this.coderId,
    });
    this.state = { ...this.state, tables: { ...this.state.tables, coder: { [this.coderId]: { id: this.coderId, name: 'Ada' } } } };
  }

  context(coderId = this.coderId): CommandContext {
    const { state, texts } = this;
    return {
      coderId,
      now: (this.clock += 1_000),
      newId: this.newId,
      // worked out by the few commands that have to know it
      get answered() {
        return answeredNow(state, texts);
      },
    };
  }

  /** Runs a command and keeps its result. */
  run(command: Command, coderId?: Id): Action | null {
    const action = carryOut(command, this.state, this.context(coderId));
    if (action) this.state = applyChange(this.state, action.change);
    return action;
  }

  /** Runs a command and keeps the texts that come of it as well. */
  do(command: Command): Action | null {
    const action = this.run(command);
    for (const change of action?.change ?? [])
      if (change.type === 'text') {
        if (change.after) this.texts.set(change.after.id, change.after);
        else this.texts.delete(change.before!.id);
      }
    return action;
  }

  addDocument(title: string, lines: readonly string[], speakers: readonly string[] = []): Document {
    const { document, text } = this.draft(title, lines, speakers);
    this.texts.set(document.id, text);
    this.state = applyChange(this.state, [{ type: 'document', before: null, after: document }]);
    return document;
  }

  /** A document with its text that is not in the study yet. */
  draft(title: string, lines: readonly string[], speakers: readonly string[] = []): { document: Document; text: Text } {
    const id = this.newId();
    const composed = composeText(id, lines.map(plainParagraph), labelsOf(new Set(speakers)));
    const document: Document = {
      id,
      title,
      ground: { of: 'text' },
      kind: 'interview',
      date: null,
      folderId: null,
      description: '',
      speakers: composed.speakers,
      characters: composed.text.text.length,
      words: composed.words,
      source: null,
      values: {},
      answers: [],
      createdAt: 0,
    };
    return { document, text: composed.text };
  }

  /** A recording with media of its own, without any sound in them. */
  record(title: string, milliseconds: number): Document {
    return this.addWithoutText(title, 'recording', (media) => ({ of: 'time', milliseconds, media }), 'audio/wav');
  }

  /** A picture with media of its own, without anything drawn in them. */
  draw(title: string, width: number, height: number): Document {
    return this.addWithoutText(title, 'picture', (media) => ({ of: 'picture', width, height, media }), 'image/png');
  }

  private addWithoutText(title: string, kind: Document['kind'], ground: (media: Media) => Ground, type: string): Document {
    const bytes = new TextEncoder().encode(title);
    const sha256 = bytesToHex(hasher(bytes));
    this.media.set(sha256, new Blob([bytes], { type }));
    const { document } = this.draft(title, []);
    const made = { ...document, kind, ground: ground({ sha256, bytes: bytes.length, type }) };
    this.state = applyChange(this.state, [{ type: 'document', before: null, after: made }]);
    return made;
  }

  addCode(name: string, parentId: Id | null = null): Id {
    const change = this.run(addCode({ name, parentId }))!.change[0]!;
    return change.after!.id;
  }

  code(document: Document, start: number, end: number, ...codeIds: Id[]): void {
    this.run(codePlace({ documentId: document.id, place: { start, end }, codeIds }));
  }
}

/** An id from a small pool, so that the same ones meet. */
export const someId = (pool: string, count = 5): fc.Arbitrary<Id> =>
  fc.integer({ min: 0, max: count - 1 }).map((n) => `${pool.padStart(8, '0')}-0000-4000-8000-${String(n).padStart(12, '0')}`);

/** Stretches of a text of a length, often touching and nested. */
export const someStretch = (length = 60): fc.Arbitrary<{ start: number; end: number }> =>
  fc.tuple(fc.nat(length - 1), fc.integer({ min: 1, max: 20 })).map(([start, size]) => ({ start, end: Math.min(length, start + size) }));

/** Passages of one document, each with its own id. */
export const somePassages = (documentId: Id, length = 60): fc.Arbitrary<Passage[]> =>
  fc
    .array(
      fc.record({
        place: someStretch(length),
        comment: fc.constantFrom('', '', 'why here?'),
        coderId: someId('c0', 2),
        createdAt: fc.nat(1e9),
        codings: fc.uniqueArray(fc.record({ codeId: someId('a0'), coderId: someId('c0', 2), createdAt: fc.nat(1e9) }), {
          selector: (coding) => coding.codeId + coding.coderId,
          maxLength: 4,
        }),
      }),
      { maxLength: 25 },
    )
    .map((made) =>
      made.map(({ place, ...rest }, at) => ({
        id: `00000000-0000-4000-9000-${String(at).padStart(12, '0')}`,
        documentId,
        ...place,
        ...rest,
      })),
    );

/** Areas of a picture of 40 by 30 pixels: of every shape, thin ones and polygons that cross themselves among them. */
export const someArea = (): fc.Arbitrary<Area> => {
  const box = fc
    .tuple(fc.nat(39), fc.nat(29), fc.integer({ min: 1, max: 20 }), fc.integer({ min: 1, max: 20 }))
    .map(([x, y, width, height]) => ({ x, y, width: Math.min(width, 40 - x), height: Math.min(height, 30 - y) }));
  const corner = fc.record({ x: fc.nat(40), y: fc.nat(30) });
  return fc.oneof(
    box.map((one) => ({ shape: 'rectangle' as const, ...one })),
    box.map((one) => ({ shape: 'ellipse' as const, ...one })),
    fc.array(corner, { minLength: 3, maxLength: 6 }).map((corners) => ({ shape: 'polygon' as const, corners })),
  );
};

import { quoted } from '@core/text/quoted';
import { ChangeDetectionStrategy, Component, computed, inject, input, output, resource } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { editCode, moveCode, type CodeFields } from '@core/commands/codes';
import { anchorPassages, copyCode, retireCodes } from '@core/commands/codebook-work';
import type { PassageAt } from '@core/commands/move-codings';
import { addRelation, deleteRelation } from '@core/commands/relations';
import { isAbout } from '@core/memos/references';
import type { Id } from '@core/model/ids';
import { RELATION_KINDS } from '@core/model/relation';
import { passageOf } from '@core/passages/columns';
import { hasText } from '@core/model/document';
import { placeWords, wordsOfPlace } from '@core/text/citation';
import { TextCache } from '../../../state/text-cache';
import { Ask } from '../../../ui/dialogs/ask';
import { ChooseCode } from '../../../ui/picker/choose-code';
import { FAMILY_SIZE, type Code } from '@core/model/code';
import { FAMILY_NAMES } from '@core/model/palette';
import { withDescendants } from '@core/codebook/tree';
import { StudySession } from '../../../state/study-session';
import { selectCodes, selectDocuments, selectMemos, selectPassages, selectRelations } from '../../../state/study.selectors';
import { Ways } from '../../../state/ways';
import { Writing, type Keeping } from '../../../ui/writing/writing';
import { Icon } from '../../../ui/icon/icon';
import { WritingDesk } from '../../../ui/memo/writing-desk';

/** What a code means: its name, mark, colour, description, examples, relations, memos, where it lies. Fields are kept when they are left. */
@Component({
  selector: 'fl-code-meaning',
  imports: [Icon, Writing],
  templateUrl: './code-meaning.html',
  styleUrl: './code-meaning.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CodeMeaning {
  readonly code = input.required<Code>();
  readonly addUnder = output<void>();
  readonly removing = output<void>();
  /** Another code is to be shown. */
  readonly shown = output<Id>();

  private readonly session = inject(StudySession);
  private readonly ask = inject(Ask);
  private readonly ways = inject(Ways);
  private readonly texts = inject(TextCache);
  private readonly desk = inject(WritingDesk);
  private readonly dialog = inject(MatDialog);
  private readonly store = inject(Store);
  private readonly codes = this.store.selectSignal(selectCodes);
  private readonly relationTable = this.store.selectSignal(selectRelations);
  private readonly passages = this.store.selectSignal(selectPassages);
  private readonly documents = this.store.selectSignal(selectDocuments);
  private readonly memoTable = this.store.selectSignal(selectMemos);
  protected readonly memos = computed(() => Object.values(this.memoTable()).filter((memo) => isAbout(memo, 'code', this.code().id)));
  protected readonly parentName = computed(() => this.codes()[this.code().parentId ?? '']?.name ?? 'the top of the codebook');
  protected readonly families = FAMILY_NAMES.map((name, family) => ({
    name,
    colours: Array.from({ length: FAMILY_SIZE }, (_, member) => family * FAMILY_SIZE + member),
  }));
  protected readonly prose: readonly {
    readonly key: 'definition' | 'useWhen' | 'doNotUseWhen' | 'example' | 'notes';
    readonly name: string;
    readonly rows: number;
  }[] = [
    { key: 'definition', name: 'Definition', rows: 4 },
    { key: 'useWhen', name: 'Use when', rows: 2 },
    { key: 'doNotUseWhen', name: 'Do not use when', rows: 3 },
    { key: 'example', name: 'Example', rows: 2 },
    { key: 'notes', name: 'Notes', rows: 2 },
  ];

  /** Keeps a field that was left, for the code it was written for. */
  protected readonly keepField: Keeping = (text, codeId, what) => this.session.attempt(editCode(codeId, { [what]: text })).refused;

  protected edit(fields: CodeFields): void {
    this.session.run(editCode(this.code().id, fields));
  }

  protected async move(): Promise<void> {
    const { id, name } = this.code();
    const chosen = await ChooseCode.open(this.dialog, {
      title: `Put ${name} under…`,
      // itself and what lies under it cannot hold it
      except: new Set(withDescendants(this.codes(), id)),
      top: 'the top of the codebook',
    });
    if (chosen && !('name' in chosen)) this.session.run(moveCode(id, 'codeId' in chosen ? chosen.codeId : null, Infinity));
  }

  protected memo(memoId: string | null): void {
    void this.desk.open(memoId ? { memoId } : { about: { type: 'code', id: this.code().id } });
  }

  private readonly anchored = resource({
    params: () => ({
      changes: this.texts.changes(),
      anchors: this.code().anchors ?? [],
      passages: this.passages(),
      documents: this.documents(),
    }),
    loader: async ({ params }) => {
      const found = await Promise.all(
        params.anchors.map(async (place) => {
          const passage = passageOf(params.passages[place.documentId], place.passageId);
          const text = passage && (await this.texts.get(place.documentId));
          const document = params.documents[place.documentId];
          if (!passage || !document || (!text && hasText(document))) return null;
          return { place, words: wordsOfPlace(text || null, passage), where: placeWords(document, text || null, passage) };
        }),
      );
      return found.filter((one) => one !== null);
    },
  });
  protected readonly anchors = computed(() => (this.anchored.hasValue() ? this.anchored.value() : []));

  protected read(place: PassageAt): void {
    this.ways.go(['reading', place.documentId], {
      queryParams: { passage: place.passageId, from: 'the codebook' },
    });
  }

  protected unanchor(place: PassageAt): void {
    this.session.run(anchorPassages(this.code().id, [place], false));
  }

  protected readonly relations = computed(() => {
    const { id } = this.code();
    return Object.values(this.relationTable()).flatMap((relation) => {
      if (relation.fromId !== id && relation.toId !== id) return [];
      const outward = relation.fromId === id;
      const other = this.codes()[outward ? relation.toId : relation.fromId];
      return other ? [{ relation, outward, other }] : [];
    });
  });
  protected readonly kinds = computed(() => [
    ...new Set([...RELATION_KINDS, ...Object.values(this.relationTable()).map((relation) => relation.kind)]),
  ]);

  protected async relate(box: HTMLInputElement): Promise<void> {
    const kind = box.value.trim() || RELATION_KINDS[0];
    const chosen = await ChooseCode.open(this.dialog, { title: `${this.code().name} ${kind}…`, except: new Set([this.code().id]) });
    if (chosen && 'codeId' in chosen && this.session.run(addRelation(this.code().id, chosen.codeId, kind))) box.value = '';
  }

  protected unrelate(relationId: Id): void {
    this.session.run(deleteRelation(relationId));
  }

  protected retire(): void {
    this.session.run(retireCodes([this.code().id], !this.code().retired));
  }

  protected async copy(): Promise<void> {
    const code = this.code();
    const reply = await this.ask.reply({
      title: `Copy ${quoted(code.name)}`,
      lines: ['The copy lies beside it and has its description.'],
      label: 'Name of the copy',
      text: `${code.name} (2)`,
      yes: 'Copy',
      other: 'Copy with its passages',
    });
    if (reply) this.session.run(copyCode(code.id, reply.text, reply.chose === 'other'));
  }
}

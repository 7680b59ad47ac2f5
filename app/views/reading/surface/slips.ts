import { StateEffect } from '@codemirror/state';
import { ViewPlugin, type EditorView, type PluginValue, type ViewUpdate } from '@codemirror/view';
import type { Id } from '@core/model/ids';
import type { Coding, Passage } from '@core/model/passage';
import { firstStartingAt } from '@core/passages/groups';
import { afterPaint } from '../../../ui/keep-scroll/after-paint';
import { choosePassage, chosenField, codingField, showCoding } from './threads';

/** Height of one slip. */
const ROW = 17;
/** A passage whose slips would stand this far below its words shows marks only. */
const FAR = 3 * ROW;

/** Rows of slips that one paragraph shows; what begins there beyond them is counted, and shown on a click. */
const MOST_ROWS = 7;

/** Which codings the margin names. */
export type SlipFilter = (coding: Coding) => boolean;

/** Shows slips of other codings. */
export const showSlipsOf = StateEffect.define<SlipFilter>();

/** What the margin needs from outside: names of memos by passage, and what a click does. */
export interface SlipContext {
  readonly memoTitle: (passageId: Id) => string | null;
  readonly choose: (passageId: Id) => void;
}

interface Placed {
  readonly passage: Passage;
  readonly top: number;
  readonly folded: boolean;
  /** Passages of this paragraph that are not shown, said with its last slip; or 0. */
  readonly more: number;
  /** Whether all of a crowded paragraph is shown, which its last slip offers to end. */
  readonly spread: boolean;
  readonly line: number;
}

/**
 * The margin: at the height where a passage begins, short slips name its codes, with comment and memo beneath.
 * Only passages near the window are laid out. Slips move down where others stand; those that
 * would come to stand far from their words are folded to their marks.
 */
export function slips(context: SlipContext, filter: SlipFilter) {
  return ViewPlugin.define((view) => new SlipMargin(view, context, filter));
}

class SlipMargin implements PluginValue {
  private readonly margin: HTMLElement;
  private groups = new Map<string, HTMLElement>();
  private readonly endWaiting: () => void;
  private textIsPainted = false;
  /** Where crowded paragraphs begin of which all slips are shown. */
  private readonly spread = new Set<number>();

  constructor(
    private readonly view: EditorView,
    private readonly context: SlipContext,
    private filter: SlipFilter,
  ) {
    this.margin = view.dom.ownerDocument.createElement('div');
    this.margin.className = 'slips';
    view.scrollDOM.appendChild(this.margin);
    // the text is painted first: the margin follows in the next frame
    this.endWaiting = afterPaint(() => {
      this.textIsPainted = true;
      this.measure();
    });
  }

  update(update: ViewUpdate): void {
    let changed = false;
    for (const transaction of update.transactions) {
      if (transaction.docChanged) this.spread.clear();
      for (const effect of transaction.effects) {
        if (effect.is(showSlipsOf)) this.filter = effect.value;
        changed ||= effect.is(showCoding) || effect.is(choosePassage) || effect.is(showSlipsOf);
      }
    }
    if (changed || update.viewportChanged || update.geometryChanged) this.measure();
  }

  destroy(): void {
    this.endWaiting();
    this.margin.remove();
  }

  private measure(): void {
    if (!this.textIsPainted) return;
    this.view.requestMeasure<Placed[]>({ key: this, read: () => this.layOut(), write: (placed) => this.draw(placed) });
  }

  private layOut(): Placed[] {
    const { view } = this;
    const { passages } = view.state.field(codingField);
    const { from, to } = view.viewport;
    const scroller = view.scrollDOM.getBoundingClientRect();
    const placed: Placed[] = [];
    let free = 0;
    let line = view.state.doc.lineAt(from);
    let rowsInLine = 0;
    for (let at = firstStartingAt(passages, from); at < passages.length && passages[at]!.start <= to; at++) {
      const passage = passages[at]!;
      const rows = this.rowsOf(passage);
      if (passage.start > line.to) {
        line = view.state.doc.lineAt(passage.start);
        rowsInLine = 0;
      }
      if (rows > 0 && rowsInLine > 0 && rowsInLine + rows > MOST_ROWS) {
        const last = placed.at(-1);
        if (!this.spread.has(line.from)) {
          if (last) placed[placed.length - 1] = { ...last, more: last.more + 1 };
          if (last?.more === 0) free += ROW;
          continue;
        }
        if (last?.spread) placed[placed.length - 1] = { ...last, spread: false };
      }
      const crowded = rowsInLine + rows > MOST_ROWS;
      rowsInLine += rows;
      const coords = rows > 0 ? view.coordsAtPos(passage.start, 1) : null;
      if (!coords) continue;
      const wanted = (coords.top + coords.bottom) / 2 - scroller.top + view.scrollDOM.scrollTop - ROW / 2;
      const top = Math.max(wanted, free);
      const folded = top - wanted > FAR;
      placed.push({ passage, top, folded, more: 0, spread: crowded && this.spread.has(line.from), line: line.from });
      free = top + (folded ? 1 : rows) * ROW + 1;
    }
    return placed;
  }

  private rowsOf(passage: Passage): number {
    const rows = this.codesOf(passage).length + (passage.comment ? 1 : 0) + (this.context.memoTitle(passage.id) ? 1 : 0);
    return rows === 0 && passage.codings.length === 0 ? 1 : rows;
  }

  /** Groups that look as before are kept and only moved. */
  private draw(placed: readonly Placed[]): void {
    const chosen = this.view.state.field(chosenField).id;
    const groups = new Map<string, HTMLElement>();
    for (const one of placed) {
      const key = this.lookOf(one, chosen);
      const group = this.groups.get(key) ?? this.group(one, chosen);
      const top = `${one.top}px`;
      if (group.style.top !== top) group.style.top = top;
      groups.set(key, group);
    }
    for (const [key, group] of this.groups) if (!groups.has(key)) group.remove();
    for (const group of groups.values()) if (!group.isConnected) this.margin.append(group);
    this.groups = groups;
  }

  /** Everything that a group's look depends on, but for where it stands. */
  private lookOf({ passage, folded, more, spread }: Placed, chosen: Id | null): string {
    const names = this.codesOf(passage).map((id) => this.nameOf(id));
    return [passage.id, folded, more, spread, passage.id === chosen, passage.comment, this.context.memoTitle(passage.id), ...names].join(
      '\u0000',
    );
  }

  private nameOf(codeId: Id): string {
    const code = this.view.state.field(codingField).codes[codeId];
    return code ? code.name + code.mark + code.colour : '';
  }

  /** Distinct codes of a passage that the margin names, in the order they were given. */
  private codesOf(passage: Passage): Id[] {
    return [...new Set(passage.codings.filter(this.filter).map((coding) => coding.codeId))];
  }

  private group({ passage, folded, more, spread, line }: Placed, chosen: Id | null): HTMLElement {
    const group = this.element('div', `slip-group${folded ? ' folded' : ''}${passage.id === chosen ? ' here' : ''}`);
    group.dataset['passage'] = passage.id;
    const { codes } = this.view.state.field(codingField);
    for (const id of this.codesOf(passage)) {
      const code = codes[id];
      if (!code) continue;
      const slip = this.slip(passage.id, `slip c${code.colour}`);
      slip.append(this.element('span', 'mark', code.mark), this.element('span', 'name', code.name));
      slip.title = code.name;
      group.append(slip);
    }
    if (passage.comment) group.append(this.slip(passage.id, 'slip comment', passage.comment));
    const memo = this.context.memoTitle(passage.id);
    if (memo) group.append(this.slip(passage.id, 'slip memo', memo));
    if (group.childElementCount === 0) group.append(this.slip(passage.id, 'slip bare', 'no code yet'));
    if (more > 0) group.append(this.crowd(line, `and ${more} more`));
    else if (spread) group.append(this.crowd(line, 'show fewer'));
    return group;
  }

  /** Shows all slips of a crowded paragraph, or only its first again. */
  private crowd(line: number, words: string): HTMLButtonElement {
    const button = this.element('button', 'slip crowd', words) as HTMLButtonElement;
    button.type = 'button';
    button.tabIndex = -1;
    button.title = 'Passages that begin in this paragraph';
    button.addEventListener('click', () => {
      if (!this.spread.delete(line)) this.spread.add(line);
      this.measure();
    });
    return button;
  }

  private slip(passageId: Id, look: string, text = ''): HTMLButtonElement {
    const slip = this.element('button', look, text) as HTMLButtonElement;
    slip.type = 'button';
    slip.tabIndex = -1;
    slip.addEventListener('click', () => this.context.choose(passageId));
    return slip;
  }

  private element(name: string, look: string, text = ''): HTMLElement {
    const element = this.margin.ownerDocument.createElement(name);
    element.className = look;
    if (text) element.textContent = text;
    return element;
  }
}

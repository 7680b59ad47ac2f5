import { ViewPlugin, type EditorView, type PluginValue, type ViewUpdate } from '@codemirror/view';
import type { Id } from '@core/model/ids';
import type { Passage } from '@core/model/passage';
import { firstStartingAt } from '@core/passages/groups';
import { choosePassage, chosenField, codingField, showCoding } from './threads';

/** Height of one slip. */
const ROW = 17;
/** A passage whose slips would stand this far below its words shows marks only. */
const FAR = 3 * ROW;

/** What the margin needs from outside: names of memos by passage, and what a click does. */
export interface SlipContext {
  readonly memoTitle: (passageId: Id) => string | null;
  readonly choose: (passageId: Id) => void;
}

interface Placed {
  readonly passage: Passage;
  readonly top: number;
  readonly folded: boolean;
}

/**
 * The margin: at the height where a passage begins, short slips name its codes, with comment and memo beneath.
 * Only passages near the window are laid out. Slips move down where others stand; those that
 * would come to stand far from their words are folded to their marks.
 */
export function slips(context: SlipContext) {
  return ViewPlugin.define((view) => new SlipMargin(view, context));
}

class SlipMargin implements PluginValue {
  private readonly margin: HTMLElement;
  private groups = new Map<string, HTMLElement>();
  private readonly first: number;

  constructor(
    private readonly view: EditorView,
    private readonly context: SlipContext,
  ) {
    this.margin = view.dom.ownerDocument.createElement('div');
    this.margin.className = 'slips';
    view.scrollDOM.appendChild(this.margin);
    // the text is painted first: the margin follows in the next frame
    this.first = view.dom.ownerDocument.defaultView!.setTimeout(() => this.measure(), 10);
  }

  update(update: ViewUpdate): void {
    const changed = update.transactions.some((transaction) =>
      transaction.effects.some((effect) => effect.is(showCoding) || effect.is(choosePassage)),
    );
    if (changed || update.viewportChanged || update.geometryChanged) this.measure();
  }

  destroy(): void {
    clearTimeout(this.first);
    this.margin.remove();
  }

  private measure(): void {
    this.view.requestMeasure<Placed[]>({ key: this, read: () => this.layOut(), write: (placed) => this.draw(placed) });
  }

  private layOut(): Placed[] {
    const { view } = this;
    const { passages } = view.state.field(codingField);
    const { from, to } = view.viewport;
    const scroller = view.scrollDOM.getBoundingClientRect();
    const placed: Placed[] = [];
    let free = 0;
    for (let at = firstStartingAt(passages, from); at < passages.length && passages[at]!.start <= to; at++) {
      const passage = passages[at]!;
      const rows = this.rowsOf(passage);
      const coords = rows > 0 ? view.coordsAtPos(passage.start, 1) : null;
      if (!coords) continue;
      const wanted = (coords.top + coords.bottom) / 2 - scroller.top + view.scrollDOM.scrollTop - ROW / 2;
      const top = Math.max(wanted, free);
      const folded = top - wanted > FAR;
      placed.push({ passage, top, folded });
      free = top + (folded ? 1 : rows) * ROW + 1;
    }
    return placed;
  }

  private rowsOf(passage: Passage): number {
    return codesOf(passage).length + (passage.comment ? 1 : 0) + (this.context.memoTitle(passage.id) ? 1 : 0) || 1;
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
  private lookOf({ passage, folded }: Placed, chosen: Id | null): string {
    const names = codesOf(passage).map((id) => this.nameOf(id));
    return [passage.id, folded, passage.id === chosen, passage.comment, this.context.memoTitle(passage.id), ...names].join('\u0000');
  }

  private nameOf(codeId: Id): string {
    const code = this.view.state.field(codingField).codes[codeId];
    return code ? code.name + code.mark + code.colour : '';
  }

  private group({ passage, folded }: Placed, chosen: Id | null): HTMLElement {
    const group = this.element('div', `slip-group${folded ? ' folded' : ''}${passage.id === chosen ? ' here' : ''}`);
    group.dataset['passage'] = passage.id;
    const { codes } = this.view.state.field(codingField);
    for (const id of codesOf(passage)) {
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
    return group;
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

/** Distinct codes of a passage, in the order they were given. */
const codesOf = (passage: Passage): Id[] => [...new Set(passage.codings.map((coding) => coding.codeId))];

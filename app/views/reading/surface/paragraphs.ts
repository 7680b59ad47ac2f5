import { RangeSetBuilder, type Extension } from '@codemirror/state';
import { Decoration, EditorView, ViewPlugin, type DecorationSet } from '@codemirror/view';
import type { Document, Paragraph, Text } from '@core/model/document';
import { clock } from '@core/text/clock';
import { paragraphAt } from '@core/text/paragraphs';
import { isTimed } from '@core/text/timeline';
import { shortened } from '@core/text/shortened';

/** How long a speaker's name may be beside the text. */
const NAME_LENGTH = 14;

/** Colours that speakers' names can have. */
const SPEAKER_HUES = 6;

const hidden = Decoration.replace({});

interface Near {
  readonly lines: DecorationSet;
  readonly labels: DecorationSet;
}

/**
 * How paragraphs look: headings, lists, emphasis, and who speaks. The speaker's label stays in the text, but
 * is not shown in it, and the caret steps over it: the name stands beside the first line of the turn.
 * Only paragraphs near the window are looked at: CodeMirror compares replaced ranges one by one on every
 * keystroke, and a long document has thousands of labels.
 */
export function paragraphLooks(document: Document, text: Text): Extension {
  const plugin = ViewPlugin.define(
    (view) => ({
      near: looksNear(view, document, text),
      update(update) {
        if (update.viewportChanged || update.docChanged) this.near = looksNear(update.view, document, text);
      },
    }),
    {
      provide: (one) => [
        EditorView.decorations.of((view) => view.plugin(one)?.near.lines ?? Decoration.none),
        EditorView.decorations.of((view) => view.plugin(one)?.near.labels ?? Decoration.none),
        EditorView.atomicRanges.of((view) => view.plugin(one)?.near.labels ?? Decoration.none),
      ],
    },
  );
  return [plugin, EditorView.decorations.of(emphasis(text))];
}

function looksNear(view: EditorView, document: Document, text: Text): Near {
  const { paragraphs } = text;
  const timed = isTimed(text);
  const lines = new RangeSetBuilder<Decoration>();
  const labels = new RangeSetBuilder<Decoration>();
  const { from, to } = view.viewport;
  for (let at = paragraphAt(paragraphs, from); at < paragraphs.length && paragraphs[at]!.start <= to; at++) {
    const paragraph = paragraphs[at]!;
    const { start, body } = paragraph;
    if (start < from) continue;
    const begins = paragraph.speaker !== (paragraphs[at - 1]?.speaker ?? -1) || body > start;
    lines.add(start, start, lineLook(document, paragraph, begins, timed ? timeOf(text, paragraph) : ''));
    if (body > start) labels.add(start, body, hidden);
  }
  return { lines: lines.finish(), labels: labels.finish() };
}

const looks = new Map<string, Decoration>();

/** When a paragraph begins to be spoken, where it is marked. */
function timeOf({ marks }: Text, { start, end }: Paragraph): string {
  const mark = marks.find((one) => one.kind === 'time' && one.at >= start && one.at <= end);
  return mark ? clock(mark.value) : '';
}

function lineLook(document: Document, paragraph: Paragraph, begins: boolean, time: string): Decoration {
  const speaker = document.speakers[paragraph.speaker];
  const name = begins ? shortName(speaker?.name ?? '', speaker?.interviewer ?? false) : '';
  const hue = speaker ? `speaker-${paragraph.speaker % SPEAKER_HUES}` : '';
  const key = [paragraph.style, speaker?.interviewer ? 'asks' : '', begins && speaker ? 'turn' : '', name, hue, time].join('|');
  let look = looks.get(key);
  if (!look) {
    const classes = [`style-${paragraph.style.replace(' ', '-')}`, speaker?.interviewer ? 'asks' : '', begins && speaker ? 'turn' : '', hue]
      .filter(Boolean)
      .join(' ');
    look = Decoration.line({
      attributes: { class: classes, dir: 'auto', ...(name ? { 'data-speaker': name } : {}), ...(time ? { 'data-time': time } : {}) },
    });
    looks.set(key, look);
  }
  return look;
}

function shortName(name: string, interviewer: boolean): string {
  if (interviewer && /^(interviewer|moderator|facilitator)$/i.test(name)) return name[0]!.toUpperCase();
  return shortened(name, NAME_LENGTH);
}

function emphasis(text: Text): DecorationSet {
  return Decoration.set(
    text.emphasis.map((span) => EMPHASIS[span.emphasis].range(span.start, span.end)),
    true,
  );
}

const EMPHASIS = {
  bold: Decoration.mark({ class: 'bold' }),
  italic: Decoration.mark({ class: 'italic' }),
  underline: Decoration.mark({ class: 'underline' }),
  strike: Decoration.mark({ class: 'strike' }),
};

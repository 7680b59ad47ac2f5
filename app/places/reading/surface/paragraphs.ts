import { RangeSetBuilder, type Extension } from '@codemirror/state';
import { Decoration, EditorView, type DecorationSet } from '@codemirror/view';
import type { Document, Paragraph, Text } from '@core/model/document';

/** How long a speaker's name may be beside the text. */
const NAME_LENGTH = 14;

/**
 * How paragraphs look: headings, lists, emphasis, and who speaks. The speaker's label stays in the text, but
 * is not shown in it: the name stands beside the first line of the turn.
 */
export function paragraphLooks(document: Document, text: Text): Extension {
  const lines = new RangeSetBuilder<Decoration>();
  const labels = new RangeSetBuilder<Decoration>();
  const hidden = Decoration.replace({});
  let last = -1;
  for (const paragraph of text.paragraphs) {
    lines.add(
      paragraph.start,
      paragraph.start,
      lineLook(document, paragraph, paragraph.speaker !== last || paragraph.body > paragraph.start),
    );
    if (paragraph.body > paragraph.start) labels.add(paragraph.start, paragraph.body, hidden);
    last = paragraph.speaker;
  }
  const labelRanges = labels.finish();
  return [
    EditorView.decorations.of(lines.finish()),
    EditorView.decorations.of(labelRanges),
    EditorView.atomicRanges.of(() => labelRanges),
    EditorView.decorations.of(emphasis(text)),
  ];
}

const looks = new Map<string, Decoration>();

function lineLook(document: Document, paragraph: Paragraph, begins: boolean): Decoration {
  const speaker = document.speakers[paragraph.speaker];
  const name = begins ? shortName(speaker?.name ?? '', speaker?.interviewer ?? false) : '';
  const key = [paragraph.style, speaker?.interviewer ? 'asks' : '', begins && speaker ? 'turn' : '', name].join('|');
  let look = looks.get(key);
  if (!look) {
    const classes = [`style-${paragraph.style.replace(' ', '-')}`, speaker?.interviewer ? 'asks' : '', begins && speaker ? 'turn' : '']
      .filter(Boolean)
      .join(' ');
    look = Decoration.line({ attributes: { class: classes, ...(name ? { 'data-speaker': name } : {}) } });
    looks.set(key, look);
  }
  return look;
}

function shortName(name: string, interviewer: boolean): string {
  if (interviewer && /^(interviewer|moderator|facilitator)$/i.test(name)) return name[0]!.toUpperCase();
  return name.length > NAME_LENGTH ? `${name.slice(0, NAME_LENGTH - 1)}…` : name;
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

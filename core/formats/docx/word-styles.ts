import type { EmphasisSpan } from '../../model/document';
import { walkXml } from '../xml/walk-xml';

type Look = EmphasisSpan['emphasis'];

/** What a style of a Word document gives to the words that carry it. */
export interface WordStyle {
  /** The looks that it gives. */
  readonly looks: ReadonlySet<Look>;
  /** The level of its headings, from 1, or null. */
  readonly level: number | null;
}

/** Styles by `paragraph ID` and `character ID`. */
export type WordStyles = ReadonlyMap<string, WordStyle>;

interface Written {
  based: string;
  name: string;
  readonly looks: Map<Look, boolean>;
  level: number | null;
}

const LOOKS: Readonly<Record<string, Look>> = { 'w:b': 'bold', 'w:i': 'italic', 'w:u': 'underline', 'w:strike': 'strike' };
const OFF = new Set(['0', 'false', 'off', 'none']);
/** Styles that are based on one another, in a row: more are a circle. */
const MOST_BASES = 20;
/** The outline level of body text (ECMA-376, 17.3.1.20). */
const BODY_LEVEL = 9;

/**
 * Reads the styles of a Word document (ECMA-376, 17.7): bold, italics, underline, strike and the levels of headings, each
 * also where a style has it from the one it is based on.
 * @param bytes the part `word/styles.xml`
 */
export function readWordStyles(bytes: Uint8Array): WordStyles {
  const written = new Map<string, Written>();
  let style: Written | null = null;
  let type = '';
  walkXml(
    bytes,
    {
      open(name, attributes) {
        const value = attributes['w:val'] ?? '';
        if (name === 'w:style') {
          type = attributes['w:type'] ?? 'paragraph';
          const id = `${type} ${attributes['w:styleId'] ?? ''}`;
          style = { based: '', name: '', looks: new Map(), level: null };
          if (!written.has(id)) written.set(id, style);
        } else if (!style) return;
        else if (name === 'w:name') style.name = value;
        else if (name === 'w:basedOn') style.based = `${type} ${value}`;
        else if (name === 'w:outlineLvl' && /^[0-8]$/.test(value)) style.level = Number(value) + 1;
        else if (name === 'w:outlineLvl' && Number(value) === BODY_LEVEL) style.level = 0;
        else if (Object.hasOwn(LOOKS, name)) style.looks.set(LOOKS[name]!, !OFF.has(value));
      },
      close(name) {
        if (name === 'w:style') style = null;
      },
    },
    'The list of styles in the Word file',
  );
  return new Map([...written.keys()].map((id) => [id, inherited(id, written)]));
}

/** A style with what it has from those it is based on: the nearest says. */
function inherited(id: string, written: ReadonlyMap<string, Written>): WordStyle {
  const looks = new Map<Look, boolean>();
  let level: number | null = null;
  let at: string = id;
  for (let steps = 0; steps < MOST_BASES; steps++) {
    const style = written.get(at);
    if (!style) break;
    for (const [look, on] of style.looks) if (!looks.has(look)) looks.set(look, on);
    const named = /^heading ?([1-9])$/i.exec(style.name)?.[1];
    level ??= style.level ?? (named ? Number(named) : null);
    at = style.based;
  }
  // level 0 says that it is no heading, whatever it is based on
  return { looks: new Set([...looks].flatMap(([look, on]) => (on ? [look] : []))), level: level || null };
}

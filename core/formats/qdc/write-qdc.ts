import { oneDescription } from '../../codebook/described';
import { childrenOf } from '../../codebook/tree';
import { codeColour } from '../../model/palette';
import { hexOf } from '../../model/colour-hex';
import type { Id } from '../../model/ids';
import type { StudyState } from '../../model/study-state';
import { forXml } from '../xml/xml-text';

/**
 * The codebook in the open exchange standard REFI-QDA (codebook, version 1.0): an XML file with the ending `.qdc`.
 * The standard has one description a code, so use, limits, example and notes follow the definition under labels.
 * @param codesOf the codes of a set, live ones as they are filled at present
 */
export function writeQdc(
  state: { readonly tables: Pick<StudyState['tables'], 'code' | 'codeSet'> },
  codesOf: (setId: Id) => readonly Id[],
): string {
  const codes = state.tables.code;
  const lines: string[] = [];
  const write = (parentId: Id | null, depth: number): void => {
    for (const code of childrenOf(codes, parentId)) {
      const pad = '  '.repeat(depth);
      const description = oneDescription(code);
      const children = childrenOf(codes, code.id);
      const head = `${pad}<Code guid="${code.id}" name="${safe(code.name)}" isCodable="true" color="${hexOf(codeColour(code.colour, 'light'))}"`;
      if (!description && children.length === 0) {
        lines.push(`${head}/>`);
        continue;
      }
      lines.push(`${head}>`);
      if (description) lines.push(`${pad}  <Description>${safe(description)}</Description>`);
      write(code.id, depth + 1);
      lines.push(`${pad}</Code>`);
    }
  };
  write(null, 2);
  const sets = Object.values(state.tables.codeSet).map((set) => {
    const members = codesOf(set.id).map((id) => `      <MemberCode guid="${id}"/>`);
    return [`    <Set guid="${set.id}" name="${safe(set.name)}">`, ...members, '    </Set>'].join('\n');
  });
  return [
    '<?xml version="1.0" encoding="utf-8"?>',
    '<CodeBook xmlns="urn:QDA-XML:codebook:1.0" origin="Filum">',
    '  <Codes>',
    ...lines,
    '  </Codes>',
    ...(sets.length > 0 ? ['  <Sets>', ...sets, '  </Sets>'] : []),
    '</CodeBook>',
    '',
  ].join('\n');
}

const SIGNS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', '\n': '&#10;', '\t': '&#9;' };
const safe = (text: string): string => forXml(text).replace(/[&<>"\n\t]/g, (sign) => SIGNS[sign]!);

import { quoted } from '../../text/quoted';
import { faultsOf, MOST_CODES, tooMany, type ListedCode, type ListedCodebook } from '../../codebook/exchange/listed-code';
import { partsOfDescription } from '../../codebook/described';
import { IdSchema, type Id } from '../../model/ids';
import { tidyLine } from '../../text/normalise';
import { UnreadableFileError } from '../reading';
import { walkXml } from '../xml/walk-xml';

interface OpenCode {
  readonly index: number;
  readonly path: readonly string[];
}

/**
 * Reads a codebook in the exchange standard REFI-QDA (`.qdc`).
 * @throws UnreadableFileError for what is not such a file, or broken
 */
export function readQdc(bytes: Uint8Array): ListedCodebook {
  const codes: (ListedCode & { definition: string })[] = [];
  const sets: { name: string; guids: Id[] }[] = [];
  const faults: string[] = [];
  const notes: string[] = [];
  const open: OpenCode[] = [];
  const guids = new Set<string>();
  const elements: string[] = [];
  let root: string | null = null;
  let description: string[] | null = null;
  let total = 0;

  const openCode = (attributes: Readonly<Record<string, string>>): void => {
    total++;
    const name = tidyLine(attributes['name'] ?? '');
    const guid = (attributes['guid'] ?? '').toLowerCase().replace(/^\{|\}$/g, '');
    const path = [...(open.at(-1)?.path ?? []), name];
    open.push({ index: codes.length, path });
    if (total > MOST_CODES) return;
    if (guids.has(guid) && guid) faults.push(`Two codes have the id ${guid}; the second is ${quoted(name)}.`);
    guids.add(guid);
    const known = IdSchema.safeParse(guid).success;
    if (!known) notes.push(`${quoted(name)} has no proper id in the file; it is known by its name.`);
    const colour = attributes['color'] ?? '';
    codes.push({
      path,
      guid: known ? (guid as Id) : null,
      definition: '',
      useWhen: '',
      doNotUseWhen: '',
      example: '',
      notes: '',
      mark: null,
      colour: /^#[0-9a-f]{6}$/i.test(colour) ? colour : null,
      retired: null,
      row: total,
    });
  };

  walkXml(
    bytes,
    {
      open(name, attributes) {
        const local = name.replace(/^.*:/, '');
        root ??= local;
        if (root !== 'CodeBook')
          throw new UnreadableFileError(`This is not a codebook of the exchange standard: it begins with <${name}> instead of <CodeBook>.`);
        elements.push(local);
        if (local === 'Code') openCode(attributes);
        else if (local === 'Set') sets.push({ name: tidyLine(attributes['name'] ?? '') || 'A set', guids: [] });
        else if (local === 'MemberCode') sets.at(-1)?.guids.push((attributes['guid'] ?? '').toLowerCase() as Id);
        else if (local === 'Description') description = [];
      },
      text: (text) => void description?.push(text),
      close(name) {
        const local = name.replace(/^.*:/, '');
        elements.pop();
        if (local === 'Code') open.pop();
        if (local !== 'Description') return;
        const code = elements.at(-1) === 'Code' ? codes[open.at(-1)?.index ?? -1] : undefined;
        if (code) Object.assign(code, partsOfDescription(description!.join('').trim()));
        description = null;
      },
    },
    'The codebook',
    true,
  );
  if (root === null) throw new UnreadableFileError('This is not a codebook of the exchange standard: it holds no XML.');
  const many = tooMany(total);
  if (many) return { codes: [], sets: [], faults: [many], notes: [] };
  if (codes.length === 0) faults.push('The codebook in this file is empty.');
  return { codes, sets, faults: [...faults, ...faultsOf(codes, 'code')], notes };
}

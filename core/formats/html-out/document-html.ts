import type { Code } from '../../model/code';
import type { Document, Text } from '../../model/document';
import type { Passage } from '../../model/passage';
import type { Coder } from '../../model/study';
import type { Table } from '../../model/study-state';
import { codeColour, cssColour } from '../../model/palette';
import { cutSegments, layThreads } from '../../passages/threads';
import { placeOf } from '../../text/citation';
import { safe } from './escape';

/**
 * One document with its codings as a page to be printed or sent: one file of HTML 5 with its styles, no scripts and
 * nothing fetched. Words in passages are underlined in their code's colour with the codes' marks after them; the
 * passages with codes, coders and comments follow the text.
 */
export function documentHtml(
  document: Document,
  text: Text,
  passages: readonly Passage[],
  codes: Table<Code>,
  coders: Table<Coder>,
): string {
  const segments = cutSegments(layThreads(passages, (id) => Object.hasOwn(codes, id)));
  const used = [...new Set(passages.flatMap((passage) => passage.codings.map((coding) => coding.codeId)))].flatMap((id) => codes[id] ?? []);
  const ending = new Map<number, Passage[]>();
  for (const passage of passages) ending.set(passage.end, [...(ending.get(passage.end) ?? []), passage]);

  const marks = (at: number): string =>
    (ending.get(at) ?? [])
      .flatMap((passage) => passage.codings.flatMap((coding) => codes[coding.codeId] ?? []))
      .map((code) => `<sup class="c${code.colour}">${safe(code.mark)}</sup>`)
      .join('');

  let next = 0;
  const stretch = (from: number, to: number): string => {
    let html = '';
    let at = from;
    while (next > 0 && segments[next - 1]!.end > from) next--;
    while (next < segments.length && segments[next]!.end <= from) next++;
    for (let row = next; row < segments.length && segments[row]!.start < to; row++) {
      const segment = segments[row]!;
      const [start, end] = [Math.max(segment.start, from), Math.min(segment.end, to)];
      html += safe(text.text.slice(at, start));
      const colour = codes[segment.threads[0]?.codeId ?? '']?.colour;
      html += `<u class="${colour === undefined ? '' : `c${colour}`}">${safe(text.text.slice(start, end))}</u>${end === segment.end ? marks(end) : ''}`;
      at = end;
    }
    return html + safe(text.text.slice(at, to));
  };
  let last = -1;
  const body = text.paragraphs.map((paragraph) => {
    const speaker = document.speakers[paragraph.speaker];
    const begins = paragraph.speaker !== last || paragraph.body > paragraph.start;
    last = paragraph.speaker;
    const name = begins && speaker ? `<b>${safe(speaker.name)}</b> ` : '';
    const tag = paragraph.style.startsWith('heading') ? `h${Number(paragraph.style.at(-1)) + 1}` : 'p';
    return `<${tag}${speaker?.interviewer ? ' class="asks"' : ''}>${name}${stretch(paragraph.body, paragraph.end)}</${tag}>`;
  });
  const rows = passages.map((passage) => {
    const place = placeOf(document, text, passage);
    const names = passage.codings.map((coding) => {
      const code = codes[coding.codeId];
      const rating = coding.rating === undefined ? '' : `, ${coding.rating}`;
      return code ? `<span class="c${code.colour}">${safe(code.name)}</span> (${safe(coders[coding.coderId]?.name ?? '')}${rating})` : '';
    });
    const words = safe(text.text.slice(passage.start, passage.end));
    return `<tr><td>${safe(place.position)}</td><td>${names.filter(Boolean).join('<br>') || 'no code yet'}</td><td>${words}${passage.comment ? `<br><i>${safe(passage.comment)}</i>` : ''}</td></tr>`;
  });
  const colours = used.map((code) => `.c${code.colour}{--c:${cssColour(codeColour(code.colour, 'light'))}}`).join('');
  return `<!doctype html>
<html lang="und"><head><meta charset="utf-8"><title>${safe(document.title)}</title><style>
body{font:16px/1.6 serif;max-width:46em;margin:2em auto;padding:0 1em}
u{text-decoration:underline;text-decoration-color:var(--c);text-decoration-thickness:2px;text-underline-offset:3px}
sup{font:600 10px/1 sans-serif;color:var(--c);padding:0 2px}.asks{color:#555}
table{border-collapse:collapse;width:100%;font-size:14px}td,th{border-bottom:1px solid #ccc;padding:4px 8px;text-align:left;vertical-align:top}
tr{break-inside:avoid}td span{border-bottom:2px solid var(--c)}${colours}
</style></head><body>
<h1>${safe(document.title)}</h1>
<p>${document.words} words, ${passages.length} passages</p>
${body.join('\n')}
<h2>Passages</h2>
<table><thead><tr><th>Place</th><th>Codes</th><th>Words</th></tr></thead><tbody>
${rows.join('\n')}
</tbody></table>
</body></html>
`;
}

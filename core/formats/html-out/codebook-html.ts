import type { CodebookRow } from '../../codebook/codebook-rows';
import { DESCRIPTION_LABELS } from '../../codebook/described';
import { codeColour, cssColour } from '../../model/palette';
import { safe } from './escape';

/** The codebook as a page to be printed: one file of HTML 5 with its styles, no scripts and nothing fetched. */
export function codebookHtml(title: string, rows: readonly CodebookRow[]): string {
  const colours = [...new Set(rows.map(({ code }) => code.colour))]
    .map((colour) => `.c${colour}{--c:${cssColour(codeColour(colour, 'light'))}}`)
    .join('');
  const body = rows.map(({ code, level, passages, passagesWithUnder, documents, examples }) => {
    const heading = `h${Math.min(6, level + 1)}`;
    const counts =
      passagesWithUnder > passages
        ? `${passages} passages in ${documents} documents, ${passagesWithUnder} with what is under it`
        : `${passages} passages in ${documents} documents`;
    const parts = DESCRIPTION_LABELS.flatMap(([key, label]) =>
      code[key] ? [`<dt>${label}</dt><dd>${safe(code[key]).replace(/\n/g, '<br>')}</dd>`] : [],
    );
    if (examples.length > 0) parts.push(`<dt>Passages</dt>${examples.map((one) => `<dd>${safe(one)}</dd>`).join('')}`);
    return `<section style="margin-left:${(level - 1) * 1.5}em"><${heading}><span class="c${code.colour}">${safe(code.mark)}</span> ${safe(code.name)}${code.retired ? ' (retired)' : ''}</${heading}><p>${counts}</p>${parts.length > 0 ? `<dl>${parts.join('')}</dl>` : ''}</section>`;
  });
  return `<!doctype html>
<html lang="und"><head><meta charset="utf-8"><title>${safe(title)}: codebook</title><style>
body{font:15px/1.5 serif;max-width:50em;margin:2em auto;padding:0 1em}
h2,h3,h4,h5,h6{font-size:1.05em;margin:1.2em 0 0}section>p{color:#555;margin:0;font-size:.9em}
h2 span,h3 span,h4 span,h5 span,h6 span{font:600 11px/1.4 sans-serif;border-bottom:2px solid var(--c);padding:0 1px}
dl{margin:.3em 0}dt{font:600 12px/1.4 sans-serif;color:#555}dd{margin:0 0 .3em}section{break-inside:avoid}${colours}
</style></head><body>
<h1>${safe(title)}: codebook</h1>
<p>${rows.length} codes. Counts are of passages, not of people.</p>
${body.join('\n')}
</body></html>
`;
}

import { safe } from './escape';

/** A passage of an answer as it is printed: the words, where they are, and what was made of them. */
export interface PrintedPassage {
  readonly document: string;
  /** “Shona, turn 4”. */
  readonly where: string;
  readonly words: string;
  readonly codes: readonly string[];
  readonly comment: string;
}

/** An answer as a page to be printed, a heading a document: one file of HTML 5 with its styles, no scripts and nothing fetched. */
export function answerHtml(title: string, question: string, passages: readonly PrintedPassage[]): string {
  let document = '';
  const body = passages.map((passage) => {
    const heading = passage.document === document ? '' : `<h2>${safe((document = passage.document))}</h2>`;
    const comment = passage.comment ? `<p class="comment">${safe(passage.comment).replace(/\n/g, '<br>')}</p>` : '';
    return `${heading}<article><p class="where">${safe(passage.where)}</p><blockquote dir="auto">${safe(passage.words).replace(/\n/g, '<br>')}</blockquote><p class="codes">${safe(passage.codes.join(' · '))}</p>${comment}</article>`;
  });
  return `<!doctype html>
<html lang="und"><head><meta charset="utf-8"><title>${safe(title)}</title><style>
body{font:15px/1.5 serif;max-width:46em;margin:2em auto;padding:0 1em}
h2{font-size:1.1em;margin:1.6em 0 .3em}article{break-inside:avoid;margin:0 0 1em}
blockquote{margin:.1em 0}.where,.codes,.question{font:12px/1.5 sans-serif;color:#555;margin:0}.comment{font-style:italic;margin:.2em 0}
</style></head><body>
<h1>${safe(title)}</h1>
<p class="question">${safe(question)}: ${passages.length} passages.</p>
${body.join('\n')}
</body></html>
`;
}

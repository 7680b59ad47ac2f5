import { hoverTooltip } from '@codemirror/view';
import type { Id } from '@core/model/ids';
import { passagesAt, codingField } from './threads';

/** What hovering over coded words shows: each code with who gave it and when. */
export function codingHover(coderName: (coderId: Id) => string) {
  const time = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
  return hoverTooltip(
    (view, position) => {
      const passages = passagesAt(view, position).slice(0, 6);
      if (passages.length === 0) return null;
      const { codes } = view.state.field(codingField);
      return {
        pos: Math.max(...passages.map((passage) => passage.start)),
        end: Math.min(...passages.map((passage) => passage.end)),
        above: true,
        create: () => {
          const dom = document.createElement('div');
          dom.className = 'coding-hover';
          for (const passage of passages) {
            for (const coding of passage.codings) {
              const code = codes[coding.codeId];
              if (!code) continue;
              const row = dom.appendChild(document.createElement('div'));
              row.className = `c${code.colour}`;
              const mark = row.appendChild(document.createElement('span'));
              mark.className = 'mark';
              mark.textContent = code.mark;
              row.append(code.name);
              const who = row.appendChild(document.createElement('span'));
              who.className = 'who';
              who.textContent = `${coderName(coding.coderId)}, ${time.format(coding.createdAt)}`;
            }
            if (passage.comment) {
              const comment = dom.appendChild(document.createElement('div'));
              comment.className = 'said';
              comment.textContent = passage.comment;
            }
          }
          return { dom };
        },
      };
    },
    { hoverTime: 350, hideOnChange: true },
  );
}

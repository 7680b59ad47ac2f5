/** Classes and names of elements that a page's own style sheet hides. */
export interface HiddenBySheet {
  readonly classes: ReadonlySet<string>;
  readonly ids: ReadonlySet<string>;
}

/** A declaration that takes an element off the page, or its words out of sight. */
const HIDES = /(?:^|[;{\s])(?:display\s*:\s*none|visibility\s*:\s*(?:hidden|collapse)|content-visibility\s*:\s*hidden)/i;
/** Style sheets are looked at up to here, characters. */
const LONGEST = 500_000;

/** Whether the attributes of an element say that it is not shown. */
export const isHidden = (name: string, attributes: Readonly<Record<string, string>>, sheet: HiddenBySheet): boolean =>
  Object.hasOwn(attributes, 'hidden') ||
  (name === 'dialog' && !Object.hasOwn(attributes, 'open')) ||
  HIDES.test(attributes['style'] ?? '') ||
  sheet.ids.has(attributes['id'] ?? '') ||
  (attributes['class'] ?? '').split(/\s+/).some((one) => sheet.classes.has(one));

/** What the rules of a page's style sheets hide by a class or a name alone, for every screen. */
export function hiddenBySheets(html: string): HiddenBySheet {
  const classes = new Set<string>();
  const ids = new Set<string>();
  for (const sheet of sheetsIn(html))
    for (const { selector, body } of rulesOf(sheet)) {
      if (!HIDES.test(body)) continue;
      for (const one of selector.split(',')) {
        const simple = /^\s*([.#])([\w-]+)\s*$/.exec(one);
        if (simple) (simple[1] === '.' ? classes : ids).add(simple[2]!);
      }
    }
  return { classes, ids };
}

function sheetsIn(html: string): string[] {
  const sheets: string[] = [];
  const lower = html.slice(0, LONGEST).toLowerCase();
  for (let at = lower.indexOf('<style'); at >= 0;) {
    const begin = lower.indexOf('>', at);
    const end = lower.indexOf('</style', at);
    if (begin < 0 || end < begin) break;
    sheets.push(html.slice(begin + 1, end));
    at = lower.indexOf('<style', end);
  }
  return sheets;
}

/** The rules that stand at the top of a style sheet; those for print or for a width stand within another. */
function rulesOf(sheet: string): { selector: string; body: string }[] {
  const rules: { selector: string; body: string }[] = [];
  let depth = 0;
  let from = 0;
  let selector = '';
  for (let at = 0; at < sheet.length; at++) {
    const sign = sheet[at];
    if (sign === '{') {
      if (depth++ === 0) [selector, from] = [sheet.slice(from, at), at + 1];
    } else if (sign === '}') {
      if (depth === 1 && !selector.includes('@')) rules.push({ selector, body: sheet.slice(from, at) });
      depth = Math.max(0, depth - 1);
      if (depth === 0) from = at + 1;
    }
  }
  return rules;
}

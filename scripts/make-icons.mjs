// Puts the outlined icons that the interface uses into one sprite, app/assets/icons.svg.
import { readFileSync, writeFileSync } from 'node:fs';

const names = readFileSync('app/ui/icon/icon-names.ts', 'utf8')
  .match(/'[a-z0-9-]+'/g)
  .map((quoted) => quoted.slice(1, -1));
const symbols = names.map((name) => {
  const svg = readFileSync(`node_modules/@tabler/icons/icons/outline/${name}.svg`, 'utf8');
  const body = svg
    .slice(svg.indexOf('>', svg.indexOf('<svg')) + 1, svg.lastIndexOf('</svg>'))
    .replace(/\s+/g, ' ')
    .trim();
  return `<symbol id="${name}" viewBox="0 0 24 24" fill="none" stroke="currentColor" stroke-width="1.6" stroke-linecap="round" stroke-linejoin="round">${body}</symbol>`;
});
// the name in the italics of the reading face, as an outline: the start screen need not load that face for five letters
const wordmark = readFileSync('app/ui/icon/wordmark.svg', 'utf8').match(/viewBox="([^"]*)"><path d="([^"]*)"/);
symbols.push(`<symbol id="wordmark" viewBox="${wordmark[1]}" fill="currentColor"><path d="${wordmark[2]}"/></symbol>`);
writeFileSync('app/assets/icons.svg', `<svg xmlns="http://www.w3.org/2000/svg">${symbols.join('')}</svg>\n`);

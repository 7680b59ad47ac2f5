// Packs what was built beside itself (file.js.gz, file.js.br), once and as small as it goes, so that serving packs nothing.
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

const PACKED = /\.(js|mjs|css|svg|json|csv|txt|wasm|bcmap)$/;
/** What the pages are made of is packed by Brotli as well: a tenth smaller, but it takes long for what is large and seldom fetched. */
const OF_PAGES = /\.(js|css|svg)$/;
const LARGE = 250_000;
/** Below this many bytes there is nothing to gain. */
const SMALL = 1_000;

const gzipped = (bytes) => promisify(gzip)(bytes, { level: 9 });
const brotlied = (bytes) =>
  promisify(brotliCompress)(bytes, {
    params: { [constants.BROTLI_PARAM_QUALITY]: 10, [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length },
  });

/** @returns promises for what is packed, so that all processors do it */
function pack(folder) {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    const about = statSync(path);
    if (about.isDirectory()) return pack(path);
    if (!PACKED.test(name) || about.size <= SMALL) return [];
    const bytes = readFileSync(path);
    const ways = [['gz', gzipped], ...(OF_PAGES.test(name) && about.size < LARGE ? [['br', brotlied]] : [])];
    return ways.map(async ([ending, packed]) => writeFileSync(`${path}.${ending}`, await packed(bytes)));
  });
}
await Promise.all(pack('dist/app/browser'));

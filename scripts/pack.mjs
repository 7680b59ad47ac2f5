// Packs what was built beside itself (file.js.gz), once and as small as it goes, so that serving packs nothing.
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

const PACKED = /\.(js|mjs|css|svg|json|csv|txt|wasm|bcmap)$/;
/** Below this many bytes there is nothing to gain. */
const SMALL = 1_000;

function pack(folder) {
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) pack(path);
    else if (PACKED.test(name) && statSync(path).size > SMALL) writeFileSync(`${path}.gz`, gzipSync(readFileSync(path), { level: 9 }));
  }
}
pack('dist/app/browser');

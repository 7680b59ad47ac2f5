// Puts the texts and tables of the demo study into one file, app/assets/demo.json: forty files would be fetched one by one.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';

const texts = readdirSync('demo', { recursive: true })
  .map((path) => path.replaceAll('\\', '/'))
  .filter((path) => /\.(txt|csv|json|vtt)$/.test(path))
  .sort();
const sources = Object.fromEntries(texts.map((path) => [path, readFileSync(`demo/${path}`, 'utf8')]));
writeFileSync('app/assets/demo.json', JSON.stringify(sources));

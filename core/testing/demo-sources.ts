import { readFileSync } from 'node:fs';
import { demoSourcePaths } from '../sample/demo-study';

/** The demo study's sources, from disk. */
export const demoSources = (): Map<string, string> =>
  new Map(demoSourcePaths().map((path) => [path, readFileSync(`demo/${path}`, 'utf8')]));

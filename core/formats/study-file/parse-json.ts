import { quoted } from '../../text/quoted';
/** Keys that reach an object's prototype: no honest file holds them. */
const FORBIDDEN = new Set(['__proto__', 'constructor', 'prototype']);

/** A JSON file is damaged or hostile. */
export class JsonError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'JsonError';
  }
}

/**
 * Parses JSON from outside.
 * @param name of the file, for the message
 * @throws JsonError for broken JSON and for keys that reach the prototype
 */
export function parseJson(bytes: Uint8Array, name: string): unknown {
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    // the reviver is slow, and a forbidden key can only be there where its letters or an escape are
    if (!/__proto__|constructor|prototype|\\u00/i.test(text)) return JSON.parse(text);
    return JSON.parse(text, (key, value: unknown) => {
      if (FORBIDDEN.has(key)) throw new JsonError(`${quoted(name)} in it holds the forbidden key “${key}”.`);
      return value;
    });
  } catch (error) {
    if (error instanceof JsonError) throw error;
    throw new JsonError(`${quoted(name)} in it is not valid JSON.`);
  }
}

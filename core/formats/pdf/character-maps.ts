/**
 * Where the character maps lie that a PDF with Asian fonts may name instead of bringing them along (ISO 32000-1, 9.7.5.2):
 * an address or, outside a browser, a folder. Whoever runs the reader says so.
 */
export const characterMaps = { at: '' };

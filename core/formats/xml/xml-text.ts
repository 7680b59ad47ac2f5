/** Control characters that XML 1.0 has no place for, not even written as numbers. */
// eslint-disable-next-line no-control-regex -- they are what is looked for
const NOT_IN_XML = /[\u0000-\u0008\u000b\u000c\u000e-\u001f]/g;

/** A text without what XML cannot hold. */
export const forXml = (text: string): string => text.replace(NOT_IN_XML, '');

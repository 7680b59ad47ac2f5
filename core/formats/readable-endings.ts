/** File name endings that can be read as texts. Apart from the readers, which the interface loads in a worker only. */
export const READABLE_ENDINGS = [
  '.txt',
  '.md',
  '.markdown',
  '.docx',
  '.odt',
  '.rtf',
  '.html',
  '.htm',
  '.xhtml',
  '.pdf',
  '.epub',
  '.vtt',
  '.srt',
  '.eml',
] as const;

/** File name endings that can be read as tables. */
export const TABLE_ENDINGS = ['.csv', '.tsv', '.xlsx', '.ods'] as const;

/** A file's ending with its dot, in small letters; empty where there is none. */
export const endingOf = (name: string): string => /\.[^./\\]+$/.exec(name.toLowerCase())?.[0] ?? '';

/** File name endings that can be read. Apart from the readers, which the interface loads in a worker only. */
export const READABLE_ENDINGS = ['.txt', '.md', '.markdown', '.docx'] as const;

/**
 * Hands a file to the browser to be saved.
 * @param name without the characters that file systems refuse
 */
export function saveFile(name: string, content: string | Uint8Array | Blob, type: string): void {
  const url = URL.createObjectURL(content instanceof Blob ? content : new Blob([content as BlobPart], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = fileName(name);
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

/** A name as a file name: forbidden characters become spaces. */
export const fileName = (name: string): string =>
  name
    // eslint-disable-next-line no-control-regex -- file systems refuse them
    .replace(/[\\/:*?"<>|\u0000-\u001f]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 120);

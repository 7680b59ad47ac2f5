/** A file with the folders it lies in, as far as they were chosen with it. */
export interface ChosenFile {
  readonly file: File;
  readonly path: string;
}

/** The most files that are taken from a folder. */
const MOST_FILES = 20_000;

/** Files that were dropped, those in dropped folders and their subfolders as well. */
export async function filesOfDrop(transfer: DataTransfer): Promise<ChosenFile[]> {
  const entries = [...transfer.items].map((item) => item.webkitGetAsEntry()).filter((entry) => entry !== null);
  if (entries.length === 0) return [...transfer.files].map((file) => ({ file, path: '' }));
  const chosen: ChosenFile[] = [];
  for (const entry of entries) await collect(entry, '', chosen);
  return chosen;
}

async function collect(entry: FileSystemEntry, path: string, chosen: ChosenFile[]): Promise<void> {
  if (chosen.length >= MOST_FILES) return;
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject));
    chosen.push({ file, path });
    return;
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  for (;;) {
    // a reader gives some entries at a time, and none when it has given all
    const some = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject));
    if (some.length === 0) return;
    for (const one of some) await collect(one, path ? `${path}/${entry.name}` : entry.name, chosen);
  }
}

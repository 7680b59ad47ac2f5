/** A file with the folders it lies in, as far as they were chosen with it. */
export interface ChosenFile {
  readonly file: File;
  readonly path: string;
  /** A way to the file that the browser can keep, where it has one. */
  readonly handle?: FileSystemFileHandle | undefined;
}

/** The most files that are taken from a folder. */
const MOST_FILES = 20_000;

/** Files that were dropped, those in dropped folders and their subfolders as well. */
export async function filesOfDrop(transfer: DataTransfer): Promise<ChosenFile[]> {
  // asked for at once: after the event there is nothing more to be had of it
  const handles = [...transfer.items].map((item) => item.getAsFileSystemHandle?.());
  const entries = [...transfer.items].map((item) => item.webkitGetAsEntry()).filter((entry) => entry !== null);
  if (entries.length === 0) return [...transfer.files].map((file) => ({ file, path: '' }));
  const chosen: ChosenFile[] = [];
  for (const entry of entries) await collect(entry, '', chosen);
  // those of folders are many, and are found again by their folder
  const found = await Promise.all(handles.map((handle) => handle?.catch(() => null)));
  return chosen.map((one) => {
    const handle = one.path ? null : found.find((each) => each?.kind === 'file' && each.name === one.file.name);
    return handle ? { ...one, handle: handle as FileSystemFileHandle } : one;
  });
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

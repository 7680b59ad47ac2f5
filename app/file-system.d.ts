// What browsers offer of the File System Access API (WICG) and TypeScript's library does not know yet. Where a browser
// has none of it, files are chosen anew in each window.

interface FileSystemPermissionDescriptor {
  readonly mode?: 'read' | 'readwrite';
}

interface FileSystemHandle {
  queryPermission(descriptor?: FileSystemPermissionDescriptor): Promise<PermissionState>;
  requestPermission(descriptor?: FileSystemPermissionDescriptor): Promise<PermissionState>;
}

interface DataTransferItem {
  getAsFileSystemHandle?(): Promise<FileSystemHandle | null>;
}

interface Window {
  showOpenFilePicker?(options?: { readonly multiple?: boolean }): Promise<FileSystemFileHandle[]>;
}

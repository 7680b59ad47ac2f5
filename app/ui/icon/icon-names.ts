/** Icons in the sprite, by their names in the outlined family that ships with the application. */
export const ICON_NAMES = [
  'home', 'folders', 'book', 'list-tree', 'pencil', 'list-search', 'writing', 'arrow-back-up', 'arrow-forward-up',
  'help-circle', 'x', 'plus', 'chevron-right', 'chevron-down', 'trash', 'copy', 'download', 'upload', 'folder',
  'file-text', 'alert-triangle', 'check', 'sun', 'moon', 'contrast', 'search', 'arrow-left', 'arrow-right',
  'corner-down-right', 'user', 'dots', 'external-link', 'clipboard-text', 'message', 'history', 'grip-vertical', 'arrow-up', 'arrow-down', 'device-floppy',
] as const;
export type IconName = (typeof ICON_NAMES)[number];

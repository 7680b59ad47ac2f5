/** Icons in the sprite, by their names in the outlined family that ships with the application. */
export const ICON_NAMES = [
  'home', 'folders', 'book', 'list-tree', 'pencil', 'list-search', 'writing', 'arrow-back-up', 'arrow-forward-up',
  'help-circle', 'x', 'plus', 'chevron-right', 'chevron-down', 'trash', 'copy', 'upload', 
  'file-text', 'alert-triangle', 'check', 'sun', 'moon', 'contrast', 'arrow-left', 'arrow-right',
  'dots', 'clipboard-text', 'arrow-up', 'arrow-down',
] as const;
export type IconName = (typeof ICON_NAMES)[number];

/** Folds case and accents away, so that "cafe" finds "Café". */
export const fold = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

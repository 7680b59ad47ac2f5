/** A number of bytes in words, in powers of ten as disks are sold: "634 kB", "1.2 GB". */
export function sizeWords(bytes: number): string {
  const units = ['bytes', 'kB', 'MB', 'GB', 'TB'];
  const power = bytes < 1000 ? 0 : Math.min(units.length - 1, Math.floor(Math.log10(bytes) / 3));
  const value = bytes / 1000 ** power;
  return `${value < 10 && power > 1 ? value.toFixed(1) : Math.round(value)} ${units[power]}`;
}

/** Milliseconds as `2:31` or `1:02:31`. */
export function clock(milliseconds: number): string {
  const seconds = Math.floor(milliseconds / 1000);
  const two = (value: number): string => String(value).padStart(2, '0');
  const hours = Math.floor(seconds / 3600);
  return `${hours > 0 ? `${hours}:${two(Math.floor(seconds / 60) % 60)}` : Math.floor(seconds / 60)}:${two(seconds % 60)}`;
}

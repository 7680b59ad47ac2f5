/** A number with the word for what it counts: "1 passage", "12,345 passages". */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count.toLocaleString('en')} ${count === 1 ? one : many}`;

/** A number with the word for what it counts: "1 passage", "12,345 passages"; "… passages" for one that is not known yet. */
export const counted = (count: number | null, one: string, many = `${one}s`): string =>
  `${count?.toLocaleString('en') ?? '…'} ${count === 1 ? one : many}`;

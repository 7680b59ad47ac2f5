/** Lists of stop words, one an export, named by ISO 639-3. */
declare module 'stopword' {
  const lists: Readonly<Record<string, readonly string[]>>;
  export = lists;
}

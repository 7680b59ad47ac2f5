/** Requests of a kind of which only the newest matters: beginning one ends those before it. */
export class NewestOnly {
  private newest = 0;

  /** Begins a request. @returns whether it is still the newest, to be asked between its steps */
  begin(): () => boolean {
    const turn = ++this.newest;
    return () => turn === this.newest;
  }
}

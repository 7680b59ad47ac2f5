/** Whether Filum answers at an address. */
async function answers(address: string): Promise<boolean> {
  try {
    const page = await (await fetch(address, { signal: AbortSignal.timeout(3_000) })).text();
    return page.includes('<fl-root');
  } catch {
    return false;
  }
}

/** What to do where the port is taken: by Filum itself, or by something else. */
export async function whyTaken(port: number): Promise<string> {
  const address = `http://localhost:${port}`;
  return (await answers(`http://127.0.0.1:${port}`))
    ? `Filum is running already: open ${address}. To start it anew, end the other one first.`
    : `Port ${port} is taken by another program. Studies live with the address of the page, so Filum does not move to another port by itself. End that program, or choose a port of your own and keep to it: PORT=4850 npm start`;
}

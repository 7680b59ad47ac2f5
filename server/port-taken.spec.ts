import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { whyTaken } from './port-taken';

describe('a port that is taken', () => {
  const saying = async (page: string): Promise<string> => {
    const server = createServer((_, response) => response.end(page)).listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    try {
      return await whyTaken((server.address() as AddressInfo).port);
    } finally {
      server.close();
    }
  };

  it('by Filum itself leads to it', async () => {
    expect(await saying('<html><fl-root></fl-root></html>')).toMatch(/running already: open http:\/\/localhost:\d+/);
  });

  it('by something else is said with what to do, and is never left for another by itself', async () => {
    expect(await saying('hello')).toMatch(/taken by another program.*PORT=4850 npm start/);
  });
});

import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { createApp } from './app';

describe('the server', () => {
  let folder: string;
  const script = 'export const sea = "wide";\n'.repeat(100);

  const asked = async (path: string, encoding: string): Promise<Response> => {
    const server = createServer(createApp(folder)).listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    try {
      const answer = await fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}${path}`, {
        headers: { 'accept-encoding': encoding, accept: 'text/html,*/*' },
      });
      return new Response(await answer.arrayBuffer(), { status: answer.status, headers: answer.headers });
    } finally {
      server.close();
    }
  };

  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'filum-served-'));
    writeFileSync(join(folder, 'index.html'), '<style nonce="CSP_NONCE"></style>');
    writeFileSync(join(folder, 'main-ABCDEFGH.js'), script);
    writeFileSync(join(folder, 'main-ABCDEFGH.js.gz'), gzipSync(script));
    writeFileSync(join(folder, 'main-ABCDEFGH.js.br'), brotliCompressSync(script));
    writeFileSync(join(folder, 'demo.json'), '{}');
  });
  afterEach(() => rmSync(folder, { recursive: true }));

  it('gives what was packed to whoever takes it packed, and the same words to others', async () => {
    for (const [encoding, sent] of [
      ['gzip, deflate, br', 'br'],
      ['gzip', 'gzip'],
      ['identity', null],
    ] as const) {
      const answer = await asked('/main-ABCDEFGH.js', encoding);
      expect(answer.headers.get('content-encoding')).toBe(sent);
      expect(answer.headers.get('cache-control')).toContain('immutable');
      expect(answer.headers.get('content-type')).toContain('text/javascript');
      expect(await answer.text()).toBe(script);
    }
  });

  it('lets browsers keep what never changes, and nothing else', async () => {
    expect((await asked('/main-ABCDEFGH.js', 'gzip')).headers.get('cache-control')).toContain('immutable');
    expect((await asked('/demo.json', 'gzip')).headers.get('cache-control')).toBe('no-cache');
    expect((await asked('/', 'gzip')).headers.get('cache-control')).toBe('no-store');
  });

  it('gives every address of the application the page, with a nonce of its own, and files that are not there nothing', async () => {
    const [one, other] = [await asked('/study/1/reading', 'gzip'), await asked('/study/1/reading', 'gzip')];
    const nonces = await Promise.all([one, other].map(async (answer) => /nonce="(.+)"/.exec(await answer.text())![1]!));
    expect(nonces[0]).not.toBe(nonces[1]);
    expect(one.headers.get('content-security-policy')).toContain(`'nonce-${nonces[0]}'`);
    expect((await asked('/main-OTHEROLD.js', 'gzip')).status).toBe(404);
    expect((await asked('/../package.json', 'gzip')).status).toBe(404);
  });
});

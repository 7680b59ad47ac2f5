import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { createApp } from './app';

const folder = resolve('dist/app/browser');
const first = Number(process.env['PORT'] ?? 4800);

if (!existsSync(folder)) {
  console.error('The application is not built. Run “npm start”, which builds it.');
  process.exit(1);
}
listen(first, process.env['PORT'] ? 1 : 20);

/** Listens on this machine only, on the first free port. */
function listen(port: number, tries: number): void {
  const server = createApp(folder).listen(port, '127.0.0.1');
  server.on('listening', () => console.log(`Filum is ready at http://localhost:${port}`));
  server.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code === 'EADDRINUSE' && tries > 1) return listen(port + 1, tries - 1);
    console.error(error.code === 'EADDRINUSE' ? `Port ${port} is taken. Choose another: PORT=5000 npm start` : error.message);
    process.exit(1);
  });
}

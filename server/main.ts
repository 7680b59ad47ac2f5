import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { whyTaken } from './port-taken';
import { createApp } from './app';

const folder = resolve('dist/app/browser');
const port = Number(process.env['PORT'] ?? 4800);

if (!existsSync(folder)) {
  console.error('The application is not built. Run “npm start”, which builds it.');
  process.exit(1);
}
// on this machine only, and on this very port: studies live with the address, so at another they would seem gone
const server = createApp(folder).listen(port, '127.0.0.1');
server.on('listening', () => console.log(`Filum is ready at http://localhost:${port}`));
server.on('error', (error: NodeJS.ErrnoException) => {
  void (error.code === 'EADDRINUSE' ? whyTaken(port) : Promise.resolve(error.message)).then((words) => {
    console.error(words);
    process.exit(1);
  });
});

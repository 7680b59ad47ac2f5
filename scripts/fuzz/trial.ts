import { parentPort } from 'node:worker_threads';
import { outcomeOf } from '../../core/testing/file-outcome';

// what libraries print about broken files is not of interest here
console.warn = console.error = () => undefined;
// a promise that a library leaves behind ends a thread of Node; in a browser's worker nothing comes of it
process.on('unhandledRejection', () => undefined);

parentPort!.on('message', ({ name, bytes }: { readonly name: string; readonly bytes: Uint8Array }) => {
  void outcomeOf(name, bytes).then(
    (outcome) => parentPort!.postMessage({ outcome }),
    (error: unknown) =>
      parentPort!.postMessage({
        failure: error instanceof Error ? `${error.message} ${error.stack?.split('\n')[1] ?? ''}` : String(error),
      }),
  );
});

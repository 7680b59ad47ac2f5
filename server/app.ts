import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Express } from 'express';
import packedStatic from 'express-static-gzip';
import helmet from 'helmet';
import { transcribingStandIn } from './stand-ins/transcribing';

/** Stands in the built page where each answer puts its own nonce. */
const NONCE = 'CSP_NONCE';

/**
 * Serves the built application. The content policy allows nothing but this address: no inline script, no
 * outside host; styles only from files and with the nonce of this very answer.
 * @param folder the built application
 */
export function createApp(folder: string): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use((_request, response, next) => {
    response.locals['nonce'] = randomBytes(16).toString('base64');
    next();
  });
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          workerSrc: ["'self'"],
          styleSrc: ["'self'", (_request, response) => `'nonce-${(response as unknown as { locals: { nonce: string } }).locals.nonce}'`],
          imgSrc: ["'self'", 'data:', 'blob:'],
          // recordings that the study keeps are played out of the browser's own storage
          mediaSrc: ["'self'", 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          formAction: ["'none'"],
          baseUri: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      crossOriginEmbedderPolicy: true,
      strictTransportSecurity: false,
    }),
  );
  app.use('/stand-ins/transcribing', transcribingStandIn(folder));
  // what was packed when it was built goes out as it is: packing the whole application for each visit takes a second
  app.use(
    packedStatic(folder, {
      index: false,
      enableBrotli: true,
      orderPreference: ['br'],
      serveStatic: {
        setHeaders: (response, path) => {
          // hashed names never change their content; everything else is asked for anew
          response.setHeader(
            'Cache-Control',
            /-[A-Z0-9]{8}\.\w+(\.(gz|br))?$/.test(path) ? 'public, max-age=31536000, immutable' : 'no-cache',
          );
        },
      },
    }),
  );
  app.use((request, response, next) => {
    if (!['GET', 'HEAD'].includes(request.method) || !request.accepts('html') || /\.\w{2,5}$/.test(request.path)) return next();
    response.setHeader('Cache-Control', 'no-store');
    // read each time, so that a new build shows without a restart
    const page = readFileSync(join(folder, 'index.html'), 'utf8');
    response.type('html').send(page.replaceAll(NONCE, String(response.locals['nonce'])));
  });
  return app;
}

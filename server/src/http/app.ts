import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { toJsonSchema } from '@valibot/to-json-schema';
import type { DataSource } from 'typeorm';
import { envelopeSchema } from '@tactron/core/job';
import { catalogueRoutes } from '../catalogue/routes.js';
import { evidenceRoutes } from '../evidence/routes.js';
import { importRoute, jobRoutes } from '../jobs/routes.js';
import { siteRoutes } from '../sites/routes.js';
import type { JobEvents } from './events.js';
import { Problem, problemHandler } from './problem.js';
import { sameOrigin } from './same-origin.js';

const contentSecurityPolicy = {
  directives: { 'default-src': ["'self'"], 'style-src': ["'self'", "'unsafe-inline'"], 'img-src': ["'self'", 'data:', 'blob:'], 'worker-src': ["'self'", 'blob:'], 'script-src': ["'self'"], 'object-src': ["'none'"], 'upgrade-insecure-requests': null },
}; // prettier-ignore

/** On loopback packing and unpacking cost more than the bytes they save. */
const onThisMachine = (address: string | undefined): boolean => address === '127.0.0.1' || address === '::1' || address === '::ffff:127.0.0.1';

/** The whole HTTP application: API, then the web application's files. */
export function createApp(db: DataSource, events: JobEvents, webFolder?: string): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(helmet({ contentSecurityPolicy, strictTransportSecurity: false, crossOriginEmbedderPolicy: false }));
  app.use(compression({ filter: (req, res) => !onThisMachine(req.socket.remoteAddress) && !req.path.endsWith('/events') && compression.filter(req, res) }));
  app.use('/api', sameOrigin);
  app.use('/api/import', express.json({ limit: '20mb' }), importRoute(db));
  app.use('/api', express.json({ limit: '2mb' }));
  app.get('/api/health', async (_req, res) => {
    await db.query('SELECT 1');
    res.json({ ok: true });
  });
  app.get('/api/schema/job.json', (_req, res) => void res.json(jobFileSchema()));
  app.use('/api/sites', siteRoutes(db));
  app.use('/api/profiles', catalogueRoutes(db));
  app.get('/api/jobs/:id/events', (req, res) => events.stream(req.params.id, req, res));
  app.use('/api/jobs/:id/evidence', evidenceRoutes(db));
  app.use('/api/jobs', jobRoutes(db));
  app.use('/api', () => {
    throw new Problem(404, 'unknownAddress', 'There is nothing at this address.');
  });
  if (webFolder && existsSync(webFolder)) serveWeb(app, webFolder);
  app.use(problemHandler);
  return app;
}

/** JSON Schema of a job file, made from the schemas that check it. */
export function jobFileSchema(): unknown {
  return toJsonSchema(envelopeSchema, { errorMode: 'ignore' });
}

function serveWeb(app: Express, folder: string): void {
  const fresh = new Set(['index.html', 'ngsw.json', 'ngsw-worker.js', 'safety-worker.js']);
  app.use(
    express.static(folder, {
      index: false,
      setHeaders: (res, path) =>
        void res.setHeader('cache-control', fresh.has(path.slice(path.lastIndexOf('/') + 1)) ? 'no-cache' : 'public, max-age=31536000, immutable'),
    }),
  );
  app.use((req, res, next) => {
    if (req.method !== 'GET' || /\.\w+$/u.test(req.path)) return next(new Problem(404, 'unknownAddress', 'There is nothing at this address.'));
    res.setHeader('cache-control', 'no-cache');
    res.sendFile(join(folder, 'index.html'));
  });
}

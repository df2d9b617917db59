import compression from 'compression';
import express, { type Express, type Request, type RequestHandler, type Response } from 'express';
import helmet from 'helmet';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { toJsonSchema } from '@valibot/to-json-schema';
import type { DataSource } from 'typeorm';
import { envelopeSchema } from '@tactron/core/job';
import * as v from 'valibot';
import { accessOf, identify } from '../accounts/access.js';
import { accountRoutes } from '../accounts/routes.js';
import type { Accounts } from '../accounts/sessions.js';
import { signInRoutes } from '../accounts/sign-in.js';
import { catalogueRoutes } from '../catalogue/routes.js';
import { evidenceRoutes } from '../evidence/routes.js';
import { signingKey, type SigningKey } from '../evidence/seal.js';
import { fileRoutes } from '../files/routes.js';
import { importRoute } from '../jobs/file.js';
import { jobRoutes } from '../jobs/routes.js';
import { demandJob } from '../jobs/store.js';
import { recordRoutes } from '../record/routes.js';
import { siteRoutes } from '../sites/routes.js';
import type { JobEvents, StreamOwner } from './events.js';
import { ownHost } from './own-host.js';
import { patient, type Patience } from './patience.js';
import { presenceSchema, Presence } from './presence.js';
import { sameRelease } from './same-release.js';
import { checked, Problem, problemHandler } from './problem.js';
import { sameOrigin } from './same-origin.js';
import { wholeText } from './whole-text.js';

const contentSecurityPolicy = {
  directives: {
    'default-src': ["'self'"],
    'style-src': ["'self'", "'unsafe-inline'"],
    'img-src': ["'self'", 'data:', 'blob:'],
    'worker-src': ["'self'", 'blob:'],
    'script-src': ["'self'"],
    'object-src': ["'none'"],
    'upgrade-insecure-requests': null,
  },
};

/** On loopback packing and unpacking cost more than the bytes they save. */
const onThisMachine = (address: string | undefined): boolean =>
  address === '127.0.0.1' || address === '::1' || address === '::ffff:127.0.0.1';

/** Answers are packed for others, streams of events are not. */
const packed = compression({
  filter: (req, res) =>
    !onThisMachine(req.socket.remoteAddress) &&
    !req.path.endsWith('/events') &&
    compression.filter(req, res),
});

/** What the server says is of now; what may be kept says so itself. */
const ofNow: RequestHandler = (_req, res, next) => {
  res.setHeader('cache-control', 'no-store');
  next();
};

export interface Parts {
  readonly db: DataSource;
  readonly events: JobEvents;
  readonly webFolder?: string;
  /** Sessions and sign-in; left out, only this machine can ask and nobody signs in. */
  readonly accounts?: Accounts;
  /** Reached over HTTPS, by a name of its own. */
  readonly open?: boolean;
  /** Signs what goes out; one for this process alone where none is given. */
  readonly key?: SigningKey;
  readonly patience?: Patience;
  /** Prints records; the one that was built with this where none is given. */
  readonly printer?: URL;
}

/** The whole HTTP application: API, then the web application's files. */
export function createApp({
  db,
  events,
  webFolder,
  accounts,
  open = false,
  key = signingKey(),
  printer,
  patience = { windowMs: 15_000, leastBytes: 1000 },
}: Parts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy,
      strictTransportSecurity: open,
      crossOriginEmbedderPolicy: false,
    }),
  );
  if (!open) app.use(ownHost);
  app.use(patient(patience), packed);
  app.use('/api', ofNow, sameOrigin);
  app.use('/api', sameRelease);
  app.get('/api/health', async (_req, res) => {
    await db.query('SELECT 1');
    res.json({ ok: true });
  });
  app.get('/api/schema/job.json', (_req, res) => void res.json(jobFileSchema()));
  if (accounts) {
    app.use('/api', accounts.session);
    app.use(
      '/api/session',
      express.json({ limit: '20kb' }),
      wholeText,
      signInRoutes(db, accounts, events),
    );
  }
  app.use('/api', identify(db, Boolean(accounts)));
  app.get('/api/me', (_req, res) => void res.json(me(res, Boolean(accounts))));
  if (accounts)
    app.use(
      '/api/accounts',
      express.json({ limit: '200kb' }),
      wholeText,
      accountRoutes(db, accounts, events),
    );
  app.use('/api/files', fileRoutes(db));
  app.use('/api/import', express.json({ limit: '64mb' }), importRoute(db, key));
  app.use('/api', express.json({ limit: '2mb' }), wholeText);
  app.use('/api/sites', siteRoutes(db));
  app.use('/api/profiles', catalogueRoutes(db));
  app.get('/api/jobs/:id/events', async (req, res) => {
    await demandJob(db, res, checked(v.pipe(v.string(), v.uuid()), req.params.id));
    events.stream(req.params.id, req, res, streamOf(req, res));
  });
  presenceRoute(app, db, events);
  app.use('/api/jobs/:id/evidence', evidenceRoutes(db));
  app.use('/api/jobs/:id', recordRoutes(db, printer));
  app.use('/api/jobs', jobRoutes(db, key));
  app.use('/api', () => {
    throw new Problem(404, 'unknownAddress', 'There is nothing at this address.');
  });
  if (webFolder && existsSync(webFolder)) serveWeb(app, webFolder);
  app.use(problemHandler);
  return app;
}

/** Who has which job open: told to everybody who listens to it. */
function presenceRoute(app: Express, db: DataSource, events: JobEvents): void {
  const presence = new Presence();
  app.post('/api/jobs/:id/presence', async (req, res) => {
    const id = checked(v.pipe(v.string(), v.uuid()), req.params.id);
    await demandJob(db, res, id);
    const said = checked(presenceSchema, req.body);
    const { accountId, name } = accessOf(res);
    const { present, changed } = presence.note(id, accountId ? { ...said, name } : said);
    if (changed) events.tellPresent(id, present);
    res.json({ present });
  });
}

/** Whose stream of events it is: it ends with the session, and with the right to see the job. */
function streamOf(req: Request, res: Response): StreamOwner | undefined {
  const { accountId } = accessOf(res);
  return accountId ? { session: req.session.id, accountId } : undefined;
}

/** Who is asking, for the head strip and the settings; without accounts the browser's own name and role stand. */
function me(res: Response, accounts: boolean): unknown {
  const { accountId, name, trade, role, administrator, sites } = accessOf(res);
  return accounts
    ? {
        accounts,
        id: accountId,
        name,
        trade,
        role,
        administrator,
        sites: sites === 'all' ? 'all' : [...sites],
      }
    : { accounts };
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
        void res.setHeader(
          'cache-control',
          fresh.has(path.slice(path.lastIndexOf('/') + 1))
            ? 'no-cache'
            : 'public, max-age=31536000, immutable',
        ),
    }),
  );
  app.use((req, res, next) => {
    if (req.method !== 'GET' || /\.\w+$/u.test(req.path))
      return next(new Problem(404, 'unknownAddress', 'There is nothing at this address.'));
    res.setHeader('cache-control', 'no-cache');
    res.sendFile(join(folder, 'index.html'));
  });
}

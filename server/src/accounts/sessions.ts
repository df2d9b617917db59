import connectPgSimple from 'connect-pg-simple';
import type { RequestHandler } from 'express';
import session from 'express-session';
import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { OutlivingClient } from '../db/data-source.js';
import type { StillOpen } from '../http/events.js';
import { Problem } from '../http/problem.js';

declare module 'express-session' {
  interface SessionData {
    accountId: string;
    /** When it was signed in, ms since 1970: a session ends some day however much it is used. */
    begunAt: number;
  }
}

/** Days without use after which a session ends, and days after which it ends in any case. */
const IDLE_DAYS = 14;
const MOST_DAYS = 60;
/** Days that a used or stale invitation is still listed. */
const KEPT_DAYS = 30;
const DAY_MS = 86_400_000;

/** Whether a session has lasted as long as one may. */
export const isOutlived = (begunAt: number | undefined, now = Date.now()): boolean =>
  now - (begunAt ?? 0) > MOST_DAYS * DAY_MS;

/** What accounts need besides the tables: sessions in PostgreSQL, and a count of failed sign-ins that every server shares. */
export interface Accounts {
  readonly session: RequestHandler;
  /**
   * Counts a try before it is judged, so that many at once are no way round it.
   *
   * @throws Problem 429 after too many of this login from this address, or of this address at all
   */
  mayTry(login: string, address: string): Promise<void>;
  /** The same for one link of an invitation, wherever it is opened. */
  mayOpen(link: string): Promise<void>;
  /** Takes back what a right try had counted. */
  succeeded(login: string, address: string): Promise<void>;
  /** Which sessions, with what they may see, still stand. */
  readonly stillOpen: StillOpen;
  /** Takes away what is over: sessions, counts of tries, old invitations. */
  prune(): Promise<void>;
  /** Ends every session of an account, but for the one named. */
  endSessions(accountId: string, except?: string): Promise<void>;
  close(): Promise<void>;
}

/**
 * Opens sessions and limits on a pool of their own.
 *
 * @param secret signs the cookie; the same for every server before one database, and new sessions only when it changes
 */
export function openAccounts(
  url: string,
  secret: string = randomBytes(32).toString('hex'),
): Accounts {
  const pool = new pg.Pool({
    connectionString: url,
    max: 4,
    connectionTimeoutMillis: 3000,
    Client: OutlivingClient,
  });
  pool.on('error', (error) => console.error(`database: ${error.message}`));
  const Store = connectPgSimple(session);
  const limiter = (points: number, prefix: string): RateLimiterPostgres =>
    new RateLimiterPostgres({
      storeClient: pool,
      points,
      duration: 15 * 60,
      tableName: 'sign_in_limit',
      tableCreated: true,
      keyPrefix: prefix,
      clearExpiredByTimeout: false,
    });
  const perLogin = limiter(5, 'login');
  const perAddress = limiter(40, 'address');
  const perLink = limiter(10, 'link');
  const key = (login: string, address: string): string => `${login.slice(0, 100)} ${address}`;
  return {
    session: session({
      name: 'tactron.session',
      secret,
      store: new Store({ pool, tableName: 'session', pruneSessionInterval: false }),
      resave: false,
      saveUninitialized: false,
      rolling: true,
      cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: IDLE_DAYS * DAY_MS },
    }),
    mayTry: async (login, address) => {
      await taken(perLogin.consume(key(login, address)));
      await taken(perAddress.consume(address));
    },
    mayOpen: (link) => taken(perLink.consume(link)),
    succeeded: async (login, address) => {
      await perLogin.delete(key(login, address));
      await perAddress.reward(address, 1);
    },
    stillOpen: (streams) => stillOpen(pool, streams),
    prune: () => prune(pool),
    endSessions: async (accountId, except = '') => {
      await pool.query(`DELETE FROM session WHERE sess->>'accountId' = $1 AND sid <> $2`, [
        accountId,
        except,
      ]);
    },
    close: () => pool.end(),
  };
}

async function stillOpen(
  pool: pg.Pool,
  streams: Parameters<StillOpen>[0],
): Promise<readonly boolean[]> {
  const { rows } = await pool.query<{ open: boolean }>(
    `SELECT EXISTS (
       SELECT 1 FROM session s JOIN account a ON a.id = t.account AND NOT a.disabled JOIN job j ON j.id = t.job
       WHERE s.sid = t.sid AND s.expire > now() AND s.sess->>'accountId' = t.account::text AND (a.administrator OR
         EXISTS (SELECT 1 FROM account_site h WHERE h.account_id = a.id AND h.site_id = j.site_id))) AS open
     FROM unnest($1::text[], $2::uuid[], $3::uuid[]) WITH ORDINALITY AS t(sid, account, job, at) ORDER BY at`,
    [streams.map((s) => s.session), streams.map((s) => s.accountId), streams.map((s) => s.jobId)],
  );
  return rows.map((r) => r.open);
}

async function prune(pool: pg.Pool): Promise<void> {
  await pool.query(`DELETE FROM session WHERE expire < now()`);
  await pool.query(`DELETE FROM sign_in_limit WHERE expire < $1`, [Date.now()]);
  await pool.query(
    `DELETE FROM invitation WHERE coalesce(used_at, revoked_at, expires_at) < now() - $1 * interval '1 day'`,
    [KEPT_DAYS],
  );
}

/** @throws Problem 429 when the count is used up */
async function taken(counting: Promise<RateLimiterRes>): Promise<void> {
  await counting.catch((over: unknown) => {
    throw over instanceof RateLimiterRes ? tooMany(over) : over;
  });
}

function tooMany(over: RateLimiterRes): Problem {
  const minutes = Math.max(1, Math.ceil(over.msBeforeNext / 60_000));
  return new Problem(
    429,
    'tooManyTries',
    `Too many wrong tries. Try again in ${minutes} min, or ask an administrator.`,
    { retryAfterS: minutes * 60 },
  );
}

import connectPgSimple from 'connect-pg-simple';
import type { RequestHandler } from 'express';
import session from 'express-session';
import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { OutlivingClient } from '../db/data-source.js';
import { Problem } from '../http/problem.js';

declare module 'express-session' {
  interface SessionData {
    accountId: string;
  }
}

const DAYS = 14;

/** What accounts need besides the tables: sessions in PostgreSQL, and a count of failed sign-ins that every server shares. */
export interface Accounts {
  readonly session: RequestHandler;
  /** @throws Problem 429 after too many failures of this login from this address, or of this address at all */
  mayTry(login: string, address: string): Promise<void>;
  failed(login: string, address: string): Promise<void>;
  succeeded(login: string, address: string): Promise<void>;
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
  const key = (login: string, address: string): string => `${login.slice(0, 100)} ${address}`;
  return {
    session: session({
      name: 'tactron.session',
      secret,
      store: new Store({ pool, tableName: 'session', pruneSessionInterval: false }),
      resave: false,
      saveUninitialized: false,
      rolling: true,
      cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: DAYS * 86_400_000 },
    }),
    mayTry: async (login, address) => {
      const [one, all] = await Promise.all([
        perLogin.get(key(login, address)),
        perAddress.get(address),
      ]);
      const over = [
        one && one.consumedPoints >= perLogin.points ? one : null,
        all && all.consumedPoints >= perAddress.points ? all : null,
      ].find((r) => r !== null);
      if (over) throw tooMany(over);
    },
    failed: async (login, address) => {
      await Promise.allSettled([
        perLogin.consume(key(login, address)),
        perAddress.consume(address),
      ]);
    },
    succeeded: async (login, address) => void (await perLogin.delete(key(login, address))),
    endSessions: async (accountId, except = '') => {
      await pool.query(`DELETE FROM session WHERE sess->>'accountId' = $1 AND sid <> $2`, [
        accountId,
        except,
      ]);
    },
    close: () => pool.end(),
  };
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

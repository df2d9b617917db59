import type { Request, RequestHandler, Response } from 'express';
import type { DataSource } from 'typeorm';
import type { Author } from '@tactron/core/job';
import { AccountRow, AccountSiteRow, AuditRow, roles, type Role } from '../db/entities.js';
import { Problem } from '../http/problem.js';
import { isOutlived } from './sessions.js';

/** Who is asking, and what of the store is theirs to see. */
export interface Access {
  /** Null alone on this machine, without accounts. */
  readonly accountId: string | null;
  readonly name: string;
  readonly trade: string;
  readonly role: Role;
  readonly administrator: boolean;
  readonly sites: ReadonlySet<string> | 'all';
}

const alone: Access = {
  accountId: null,
  name: '',
  trade: '',
  role: 'supervisor',
  administrator: true,
  sites: 'all',
};

export const accessOf = (res: Response): Access => (res.locals as { access: Access }).access;

/** Who is signed in, as author of what is sent; null without accounts, where the name told stands. */
export const signedIn = ({ accountId, name, trade }: Access): Author | null =>
  accountId ? { name, role: trade } : null;

/** Reads who is asking from the session; without accounts everything is allowed, since only this machine can ask. */
export function identify(db: DataSource, accounts: boolean): RequestHandler {
  return async (req, res, next) => {
    if (!accounts) {
      demandOwn(req, '');
      res.locals['access'] = alone;
      return next();
    }
    const id = isOutlived(req.session.begunAt) ? undefined : req.session.accountId;
    const account = id
      ? await db.getRepository(AccountRow).findOneBy({ id, disabled: false })
      : null;
    if (!account)
      throw new Problem(401, 'signIn', 'Sign in first. Your work is kept here until then.');
    demandOwn(req, account.id);
    const shared = account.administrator
      ? []
      : await db.getRepository(AccountSiteRow).findBy({ accountId: account.id });
    const access: Access = {
      accountId: account.id,
      name: account.name,
      trade: account.trade,
      role: account.role,
      administrator: account.administrator,
      sites: account.administrator ? 'all' : new Set(shared.map((s) => s.siteId)),
    };
    res.locals['access'] = access;
    next();
  };
}

/**
 * A browser says whose work it sends: what one person kept is never sent as another's.
 *
 * @throws Problem 409 when somebody else is signed in than the account that the work was done under
 */
function demandOwn(req: Request, accountId: string): void {
  const told = req.get('x-account');
  if (req.method === 'GET' || told === undefined || told === accountId) return;
  throw new Problem(
    409,
    'otherAccount',
    'Another person is signed in than the one whose work this is. It is kept here until that person signs in.',
  );
}

/** @throws Problem 403 unless the account may do what this role may */
export function demand(res: Response, role: Role): void {
  const { role: own, administrator } = accessOf(res);
  if (!administrator && roles.indexOf(own) < roles.indexOf(role))
    throw new Problem(
      403,
      'role',
      `Your account is a ${own}'s: this needs a ${role}. Nothing was changed.`,
    );
}

/** @throws Problem 403 unless the account is an administrator's */
export function demandAdministrator(res: Response): void {
  if (!accessOf(res).administrator)
    throw new Problem(403, 'role', 'This needs an administrator. Nothing was changed.');
}

export const sees = (res: Response, siteId: string): boolean => {
  const { sites } = accessOf(res);
  return sites === 'all' || sites.has(siteId);
};

/** @throws Problem 403 unless the site is shared with the account */
export function demandSite(res: Response, siteId: string): void {
  if (!sees(res, siteId))
    throw new Problem(
      403,
      'site',
      'This site is not shared with your account. Nothing was changed.',
    );
}

/** Notes who did what; without accounts there is nobody to tell apart. */
export async function audit(
  db: DataSource,
  res: Response,
  act: string,
  jobId: string | null = null,
  detail = '',
): Promise<void> {
  const { accountId, name } = accessOf(res);
  if (accountId) await noted(db, accountId, name, act, detail, jobId);
}

/** Adds a line to the audit. */
export async function noted(
  db: DataSource,
  accountId: string | null,
  name: string,
  act: string,
  detail = '',
  jobId: string | null = null,
): Promise<void> {
  await db
    .getRepository(AuditRow)
    .insert({ accountId, name, act, jobId, detail: detail.slice(0, 400) });
}

import type { RequestHandler, Response } from 'express';
import type { DataSource } from 'typeorm';
import { AccountRow, AccountSiteRow, AuditRow, roles, type Role } from '../db/entities.js';
import { Problem } from '../http/problem.js';

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

/** Reads who is asking from the session; without accounts everything is allowed, since only this machine can ask. */
export function identify(db: DataSource, accounts: boolean): RequestHandler {
  return async (req, res, next) => {
    if (!accounts) {
      res.locals['access'] = alone;
      return next();
    }
    const id = req.session.accountId;
    const account = id
      ? await db.getRepository(AccountRow).findOneBy({ id, disabled: false })
      : null;
    if (!account)
      throw new Problem(401, 'signIn', 'Sign in first. Your work is kept here until then.');
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
  if (accountId)
    await db
      .getRepository(AuditRow)
      .insert({ accountId, name, act, jobId, detail: detail.slice(0, 400) });
}

import { Router, type Request } from 'express';
import { createHash, randomUUID } from 'node:crypto';
import type { DataSource } from 'typeorm';
import * as v from 'valibot';
import { AccountRow, AccountSiteRow, InvitationRow, SiteRow } from '../db/entities.js';
import { checked, Problem } from '../http/problem.js';
import { noted } from './access.js';
import type { JobEvents } from '../http/events.js';
import { demandStrong, hashPassword, isPassword, passwordSchema } from './password.js';
import type { Accounts } from './sessions.js';

export const loginSchema = v.pipe(
  v.string(),
  v.trim(),
  v.toLowerCase(),
  v.regex(/^[\p{L}\p{N}._@+-]{3,80}$/u, '3 to 80 letters, digits, or . _ @ + -'),
);
export const personSchema = {
  login: loginSchema,
  name: v.pipe(v.string(), v.trim(), v.minLength(1, 'a name'), v.maxLength(120)),
  trade: v.pipe(v.string(), v.trim(), v.maxLength(120)),
  password: passwordSchema,
};
export const hashToken = (token: string): string =>
  createHash('sha256').update(token).digest('hex');

const addressOf = (req: Request): string => req.socket.remoteAddress ?? '';

function begin(req: Request, accountId: string): Promise<void> {
  return new Promise((done, fail) => {
    req.session.regenerate((error: unknown) => {
      if (error) return fail(error instanceof Error ? error : new Error('no session'));
      req.session.accountId = accountId;
      req.session.begunAt = Date.now();
      req.session.save((problem: unknown) =>
        problem ? fail(problem instanceof Error ? problem : new Error('no session')) : done(),
      );
    });
  });
}

/** What can be asked before anybody is signed in: signing in, and taking up an invitation. */
export function signInRoutes(db: DataSource, accounts: Accounts, events: JobEvents): Router {
  const router = Router();
  router.post('/sign-in', async (req, res) => {
    const { login, password } = checked(
      v.strictObject({
        login: v.pipe(v.string(), v.trim(), v.toLowerCase(), v.maxLength(200)),
        password: v.pipe(v.string(), v.maxLength(200)),
      }),
      req.body,
    );
    await accounts.mayTry(login, addressOf(req));
    const account = await db.getRepository(AccountRow).findOneBy({ login });
    if (!(await isPassword(account?.passwordHash, password)) || !account || account.disabled) {
      await noted(db, account?.id ?? null, account?.name ?? '', 'failed to sign in', login);
      throw new Problem(401, 'wrongSignIn', 'Login or password is not right.');
    }
    await accounts.succeeded(login, addressOf(req));
    await begin(req, account.id);
    await noted(db, account.id, account.name, 'signed in', addressOf(req));
    res.json({ name: account.name, trade: account.trade, role: account.role });
  });
  router.post('/sign-out', async (req, res, next) => {
    const { accountId, id } = req.session;
    if (accountId) {
      const account = await db.getRepository(AccountRow).findOneBy({ id: accountId });
      await noted(db, accountId, account?.name ?? '', 'signed out');
      events.end({ session: id });
    }
    req.session.destroy((error: unknown) =>
      error ? next(error) : res.clearCookie('tactron.session').json({}),
    );
  });
  invitations(router, db, accounts);
  return router;
}

/** An invitation is looked at, and taken up once. */
function invitations(router: Router, db: DataSource, accounts: Accounts): void {
  router.get('/invitations/:token', async (req, res) => {
    const invitation = await openInvitation(db, req.params.token);
    const sites = await db.getRepository(SiteRow).find();
    res.json({
      role: invitation.role,
      sites: sites.filter((s) => invitation.sites.includes(s.id)).map((s) => s.name),
      expiresAt: invitation.expiresAt,
    });
  });
  router.post('/invitations/:token/accept', async (req, res) => {
    await accounts.mayOpen(hashToken(String(req.params.token)));
    const person = checked(v.strictObject(personSchema), req.body);
    const { password, ...rest } = person;
    await demandStrong(password, [rest.login, rest.name]);
    const passwordHash = await hashPassword(password);
    const id = randomUUID();
    const found = await openInvitation(db, String(req.params.token));
    await db.transaction(async (tx) => {
      const used = await tx.query(
        `UPDATE invitation SET used_at = now() WHERE id = $1 AND used_at IS NULL AND revoked_at IS NULL AND expires_at > now() RETURNING id`,
        [found.id],
      );
      if ((used as unknown[][])[0].length === 0)
        throw new Problem(
          410,
          'invitationUsed',
          'This invitation has been used. Ask for a new one.',
        );
      const made = await tx
        .createQueryBuilder()
        .insert()
        .into(AccountRow)
        .values({ id, ...rest, role: found.role, passwordHash })
        .orIgnore()
        .returning('id')
        .execute();
      if ((made.raw as unknown[]).length === 0)
        throw new Problem(
          409,
          'loginTaken',
          `The login "${rest.login}" is taken. Choose another.`,
          { path: 'login' },
        );
      for (const siteId of found.sites)
        await tx.getRepository(AccountSiteRow).insert({ accountId: id, siteId });
    });
    await begin(req, id);
    await noted(db, id, rest.name, 'took up an invitation and signed in', addressOf(req));
    res.status(201).json({ name: rest.name, trade: rest.trade, role: found.role });
  });
}

async function openInvitation(db: DataSource, token: string): Promise<InvitationRow> {
  const row = await db.getRepository(InvitationRow).findOneBy({ tokenHash: hashToken(token) });
  if (!row || row.usedAt || row.revokedAt || row.expiresAt < new Date())
    throw new Problem(
      410,
      'invitationUsed',
      'This invitation has been used, taken back, or is too old. Ask for a new one.',
    );
  return row;
}

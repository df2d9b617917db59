import { Router } from 'express';
import { randomBytes, randomUUID } from 'node:crypto';
import { IsNull, type DataSource } from 'typeorm';
import * as v from 'valibot';
import { AccountRow, AccountSiteRow, AuditRow, InvitationRow, roles } from '../db/entities.js';
import { checked, Problem } from '../http/problem.js';
import { accessOf, audit, demand, demandAdministrator, demandSite } from './access.js';
import type { JobEvents } from '../http/events.js';
import { findJob } from '../jobs/store.js';
import { demandStrong, hashPassword, isPassword, passwordSchema } from './password.js';
import type { Accounts } from './sessions.js';
import { hashToken } from './sign-in.js';

const uuid = v.pipe(v.string(), v.uuid());
const INVITATION_DAYS = 7;

/** Accounts, invitations and the audit, for whoever is signed in. */
export function accountRoutes(db: DataSource, accounts: Accounts, events: JobEvents): Router {
  const router = Router();
  const rows = db.getRepository(AccountRow);
  router.post('/sign-out-everywhere', async (req, res) => {
    const accountId = accessOf(res).accountId as string;
    await accounts.endSessions(accountId);
    events.end({ accountId });
    await audit(db, res, 'signed out everywhere');
    req.session.destroy(() => res.clearCookie('tactron.session').json({}));
  });
  router.post('/password', async (req, res) => {
    const body = checked(
      v.strictObject({ before: v.pipe(v.string(), v.maxLength(200)), password: passwordSchema }),
      req.body,
    );
    const id = accessOf(res).accountId as string;
    const account = await rows.findOneByOrFail({ id });
    await accounts.mayTry(account.login, req.socket.remoteAddress ?? '');
    if (!(await isPassword(account.passwordHash, body.before))) {
      throw new Problem(
        400,
        'wrongPassword',
        'The password you have now is not right. Nothing was changed.',
        { path: 'before' },
      );
    }
    await accounts.succeeded(account.login, req.socket.remoteAddress ?? '');
    await demandStrong(body.password, [account.login, account.name]);
    await rows.update({ id }, { passwordHash: await hashPassword(body.password) });
    await accounts.endSessions(id, req.session.id);
    events.end({ accountId: id, except: req.session.id });
    await audit(db, res, 'changed the password');
    res.json({});
  });
  invitations(router, db);
  administration(router, db, accounts, events);
  changing(router, db, accounts, events);
  return router;
}

/** Invitations: made, looked over, and taken back while nobody has used them. */
function invitations(router: Router, db: DataSource): void {
  const rows = db.getRepository(InvitationRow);
  router.post('/invitations', async (req, res) => {
    demand(res, 'supervisor');
    const body = checked(
      v.strictObject({
        role: v.picklist(roles),
        sites: v.pipe(v.array(uuid), v.minLength(1, 'at least one site'), v.maxLength(500)),
      }),
      req.body,
    );
    if (body.role === 'supervisor') demandAdministrator(res);
    body.sites.forEach((id) => demandSite(res, id));
    const token = randomBytes(24).toString('base64url');
    const expiresAt = new Date(Date.now() + INVITATION_DAYS * 86_400_000);
    await db.getRepository(InvitationRow).insert({
      id: randomUUID(),
      tokenHash: hashToken(token),
      ...body,
      invitedBy: accessOf(res).accountId as string,
      expiresAt,
    });
    await audit(db, res, `invited: ${body.role}`);
    res.status(201).json({ token, expiresAt });
  });
  router.get('/invitations', async (_req, res) => {
    demand(res, 'supervisor');
    const { accountId, administrator } = accessOf(res);
    const list = await rows.find({
      where: administrator ? {} : { invitedBy: accountId as string },
      order: { createdAt: 'DESC' },
      take: 200,
    });
    res.json(
      list.map(({ id, role, sites, createdAt, expiresAt, usedAt, revokedAt }) => ({
        id,
        role,
        sites,
        createdAt,
        expiresAt,
        state: usedAt ? 'used' : revokedAt ? 'revoked' : expiresAt < new Date() ? 'old' : 'open',
      })),
    );
  });
  router.post('/invitations/:id/revoke', async (req, res) => {
    demand(res, 'supervisor');
    const id = checked(uuid, req.params.id);
    const { accountId, administrator } = accessOf(res);
    const done = await rows.update(
      {
        id,
        usedAt: IsNull(),
        revokedAt: IsNull(),
        ...(administrator ? {} : { invitedBy: accountId as string }),
      },
      { revokedAt: new Date() },
    );
    if (!done.affected)
      throw new Problem(
        404,
        'unknownInvitation',
        'There is no open invitation of yours like this.',
      );
    await audit(db, res, 'took back an invitation');
    res.json({});
  });
}

/** What an administrator does with the accounts of others, and what a supervisor may read of who did what. */
function administration(
  router: Router,
  db: DataSource,
  accounts: Accounts,
  events: JobEvents,
): void {
  const rows = db.getRepository(AccountRow);
  router.get('/', async (_req, res) => {
    demandAdministrator(res);
    const [list, shared] = await Promise.all([
      rows.find({ order: { name: 'ASC' } }),
      db.getRepository(AccountSiteRow).find(),
    ]);
    res.json(
      list.map(({ id, login, name, trade, role, administrator, disabled }) => ({
        id,
        login,
        name,
        trade,
        role,
        administrator,
        disabled,
        sites: shared.filter((s) => s.accountId === id).map((s) => s.siteId),
      })),
    );
  });
  router.post('/:id/sign-out', async (req, res) => {
    demandAdministrator(res);
    const accountId = checked(uuid, req.params.id);
    await accounts.endSessions(accountId);
    events.end({ accountId });
    await audit(db, res, 'signed an account out', null, accountId);
    res.json({});
  });
  router.get('/audit', async (req, res) => {
    demand(res, 'supervisor');
    const { job } = checked(v.object({ job: v.optional(uuid) }), req.query);
    if (job) await findJob(db, res, job);
    else demandAdministrator(res);
    const list = await db
      .getRepository(AuditRow)
      .find({ where: job ? { jobId: job } : {}, order: { id: 'DESC' }, take: 500 });
    res.json(list.map(({ at, name, act, jobId, detail }) => ({ at, name, act, jobId, detail })));
  });
}

/** An administrator changes role, sites or access of an account. */
function changing(router: Router, db: DataSource, accounts: Accounts, events: JobEvents): void {
  const rows = db.getRepository(AccountRow);
  router.patch('/:id', async (req, res) => {
    demandAdministrator(res);
    const id = checked(uuid, req.params.id);
    const body = checked(
      v.strictObject({
        role: v.optional(v.picklist(roles)),
        disabled: v.optional(v.boolean()),
        sites: v.optional(v.pipe(v.array(uuid), v.maxLength(500))),
      }),
      req.body,
    );
    const account = await rows.findOneBy({ id });
    if (!account) throw new Problem(404, 'unknownAccount', 'There is no such account here.');
    if (
      body.disabled &&
      account.administrator &&
      (await rows.countBy({ administrator: true, disabled: false })) === 1
    )
      throw new Problem(
        409,
        'lastAdministrator',
        'This is the last administrator: nobody could let anyone in again. Nothing was changed.',
      );
    await db.transaction(async (tx) => {
      const { sites, ...own } = body;
      if (Object.keys(own).length) await tx.getRepository(AccountRow).update({ id }, own);
      if (!sites) return;
      await tx.getRepository(AccountSiteRow).delete({ accountId: id });
      for (const siteId of new Set(sites))
        await tx.getRepository(AccountSiteRow).insert({ accountId: id, siteId });
    });
    if (body.disabled) await accounts.endSessions(id);
    // Whoever sees less than before hears of nothing more of it: windows ask again and get what is theirs.
    if (body.disabled || body.sites) events.end({ accountId: id });
    await audit(db, res, `changed the account of ${account.name}`, null, JSON.stringify(body));
    res.json({});
  });
}

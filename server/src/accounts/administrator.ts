import { randomUUID } from 'node:crypto';
import * as v from 'valibot';
import { createDataSource } from '../db/data-source.js';
import { AccountRow } from '../db/entities.js';
import { demandStrong, hashPassword } from './password.js';
import { personSchema } from './sign-in.js';

const schema = v.strictObject(personSchema);

/**
 * Makes an administrator's account, or gives one that is there a new password and unlocks it: the way in when nobody can let
 * anybody in. Only who may start commands on this machine can do it.
 *
 * @returns whether the account is new
 * @throws v.ValiError when login, name or password do not fit
 */
export async function makeAdministrator(ownerUrl: string, person: unknown): Promise<boolean> {
  const { password, ...own } = v.parse(schema, person);
  await demandStrong(password, [own.login, own.name]);
  const db = await createDataSource(ownerUrl, 1).initialize();
  try {
    const rows = db.getRepository(AccountRow);
    const known = await rows.findOneBy({ login: own.login });
    const set = {
      ...own,
      administrator: true,
      disabled: false,
      role: 'supervisor' as const,
      passwordHash: await hashPassword(password),
    };
    if (known) await rows.update({ id: known.id }, set);
    else await rows.insert({ id: randomUUID(), ...set });
    if (known) await db.query(`DELETE FROM session WHERE sess->>'accountId' = $1`, [known.id]);
    return !known;
  } finally {
    await db.destroy();
  }
}

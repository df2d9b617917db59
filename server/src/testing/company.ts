import { randomUUID } from 'node:crypto';
import { makeAdministrator } from '../accounts/administrator.js';
import { databaseUrls, openBed, type Answer, type Bed } from './testbed.js';

export const password = 'three dull copper wires';

/** One person's browser: it keeps its cookie. */
export class Person {
  cookie = '';
  constructor(private readonly bed: Bed) {}

  async ask(method: string, path: string, body?: unknown): Promise<Answer> {
    const answer = await this.bed.ask(
      method,
      path,
      body,
      this.cookie ? { cookie: this.cookie } : {},
    );
    const set = answer.headers.get('set-cookie');
    if (set) this.cookie = set.split(';')[0];
    return answer;
  }

  signIn(login: string, word = password): Promise<Answer> {
    return this.ask('POST', 'session/sign-in', { login, password: word });
  }
}

/** A server with accounts, its administrator, and two sites. */
export interface Company {
  readonly bed: Bed;
  readonly admin: Person;
  readonly adminLogin: string;
  readonly site: { readonly hall: string; readonly yard: string };
  /** Invites somebody and has them accept. */
  joined(role: string, sites: string[]): Promise<Person & { login: string }>;
}

export async function openCompany(): Promise<Company> {
  const bed = await openBed({ accounts: true });
  const adminLogin = `chief-${randomUUID().slice(0, 8)}`;
  await makeAdministrator(databaseUrls().owner, {
    login: adminLogin,
    name: 'Chief',
    trade: '',
    password,
  });
  const admin = new Person(bed);
  expect((await admin.signIn(adminLogin)).status).toBe(200);
  const site = { hall: randomUUID() as string, yard: randomUUID() as string };
  for (const [name, id] of Object.entries(site)) await admin.ask('POST', 'sites', { id, name });
  const joined = async (role: string, sites: string[]): Promise<Person & { login: string }> => {
    const login = `p-${randomUUID().slice(0, 8)}`;
    const { body } = await admin.ask('POST', 'accounts/invitations', { role, sites });
    const person = new Person(bed);
    const path = `session/invitations/${String(body['token'])}/accept`;
    const who = { login, name: `Name of ${login}`, trade: 'fitter', password };
    expect((await person.ask('POST', path, who)).status).toBe(201);
    return Object.assign(person, { login });
  };
  return { bed, admin, adminLogin, site, joined };
}

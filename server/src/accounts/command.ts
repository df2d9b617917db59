import { makeAdministrator } from './administrator.js';

const option = (name: string): string => {
  const at = process.argv.indexOf(`--${name}`);
  return at >= 0 ? (process.argv[at + 1] ?? '') : '';
};

/** Reads the password from the terminal's standard input, so that it stands in no list of commands. */
async function password(): Promise<string> {
  if (process.env['TACTRON_PASSWORD']) return process.env['TACTRON_PASSWORD'];
  process.stderr.write('Password, at least 12 characters (it is shown as you type): ');
  for await (const line of process.stdin) return String(line).split('\n')[0].trimEnd();
  return '';
}

try {
  const login = option('login');
  if (!login)
    throw new Error(
      'Say which login:  npm run account -- --login NAME --name "Full name" [--trade "commissioning electrician"]',
    );
  const fresh = await makeAdministrator(process.env['TACTRON_DB_OWNER_URL'] ?? '', {
    login,
    name: option('name') || login,
    trade: option('trade'),
    password: await password(),
  });
  console.log(
    fresh
      ? `Administrator ${login} is made.`
      : `Administrator ${login} has a new password; every session of the account is ended.`,
  );
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
}

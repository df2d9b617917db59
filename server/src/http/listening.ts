import { readFileSync } from 'node:fs';
import { isIP } from 'node:net';

/** How the server is to be reached. */
export interface Listening {
  readonly host: string;
  readonly port: number;
  readonly accounts: boolean;
  readonly tls?: { readonly cert: Buffer; readonly key: Buffer };
}

const loopback = (host: string): boolean =>
  host === 'localhost' || host === '::1' || (isIP(host) === 4 && host.startsWith('127.'));

const way = `To open Tactron to others:
  1. get a certificate for the name under which this machine is reached, and its key
  2. make the first administrator:  npm run account -- --login NAME --name "Full name"
  3. start with  TACTRON_HOST=0.0.0.0 TACTRON_ACCOUNTS=on TACTRON_CERT=/path/cert.pem TACTRON_KEY=/path/key.pem npm start`;

/**
 * Reads the settings of the environment. Beyond this machine Tactron is reached only with accounts and over HTTPS.
 *
 * @throws Error saying what is missing and the way to do it
 * @example listening({}).host // '127.0.0.1'
 */
export function listening(env: Readonly<Record<string, string | undefined>>): Listening {
  const host = env['TACTRON_HOST'] || '127.0.0.1';
  const port = Number(env['TACTRON_PORT'] || 4310);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new Error(`TACTRON_PORT is "${env['TACTRON_PORT']}": a port from 1 to 65535 is needed.`);
  const accounts = env['TACTRON_ACCOUNTS'] === 'on';
  const [cert, key] = [env['TACTRON_CERT'], env['TACTRON_KEY']];
  if (Boolean(cert) !== Boolean(key))
    throw new Error('TACTRON_CERT and TACTRON_KEY belong together: one of them is not set.');
  if (!loopback(host) && !(accounts && cert)) {
    const missing = [accounts ? '' : 'accounts are off', cert ? '' : 'there is no certificate']
      .filter(Boolean)
      .join(' and ');
    throw new Error(
      `Tactron does not listen on ${host}: ${missing}. Anybody in reach could read and change every job.\n${way}`,
    );
  }
  return {
    host,
    port,
    accounts,
    ...(cert && key
      ? { tls: { cert: read('TACTRON_CERT', cert), key: read('TACTRON_KEY', key) } }
      : {}),
  };
}

function read(name: string, path: string): Buffer {
  try {
    return readFileSync(path);
  } catch (error) {
    throw new Error(
      `${name}: cannot read ${path} (${(error as NodeJS.ErrnoException).code ?? 'error'}).`,
      { cause: error },
    );
  }
}

import { fork } from 'node:child_process';
import { join } from 'node:path';
import { root } from './run.mjs';

/** Starts the built server on a running cluster. @returns its port and a function that ends it */
export function serve(
  postgres,
  {
    port = Number(process.env.TACTRON_PORT ?? 4310),
    quiet = false,
    silent = false,
    urls = postgres,
  } = {},
) {
  const child = fork(join(root, 'server/dist/main.js'), [], {
    cwd: root,
    stdio: ['ignore', quiet ? 'ignore' : 'inherit', silent ? 'ignore' : 'inherit', 'ipc'],
    env: {
      ...process.env,
      TACTRON_DB_URL: urls.appUrl,
      TACTRON_DB_OWNER_URL: urls.ownerUrl,
      TACTRON_WEB: join(root, 'web/dist/browser'),
      TACTRON_PORT: String(port),
      TACTRON_PG_BIN: postgres.bin,
      TACTRON_SESSION_SECRET: postgres.sessionSecret,
      TACTRON_SIGNING_KEY: postgres.signingKey,
      TACTRON_BACKUPS: join(root, '.data/backups'),
      NODE_ENV: 'production',
    },
  });
  return new Promise((done, fail) => {
    const early = (code) => fail(new Error(`the server ended with ${code} before it answered`));
    child.once('exit', early);
    child.once('message', ({ port: at }) => {
      child.off('exit', early);
      const stop = () =>
        new Promise((ended) =>
          child.exitCode !== null || child.signalCode !== null
            ? ended()
            : (child.once('exit', ended), child.kill('SIGTERM')),
        );
      done({
        port: at,
        url: `${process.env.TACTRON_CERT ? 'https' : 'http'}://127.0.0.1:${at}`,
        child,
        stop,
      });
    });
  });
}

import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { listening } from './listening.js';

describe('listening', () => {
  const folder = mkdtempSync(join(tmpdir(), 'tactron-cert-'));
  const [cert, key] = ['cert.pem', 'key.pem'].map((name) => join(folder, name));
  for (const path of [cert, key]) writeFileSync(path, 'x');
  const with_ = (more: Record<string, string>) => listening({ TACTRON_HOST: '0.0.0.0', ...more });

  it('stays on this machine unless told otherwise', () => {
    expect(listening({})).toEqual({ host: '127.0.0.1', port: 4310, accounts: false });
    for (const host of ['localhost', '127.0.0.2', '::1'])
      expect(listening({ TACTRON_HOST: host }).host).toBe(host);
  });

  it('is reached by others only with accounts and a certificate, and says the way', () => {
    expect(() => with_({})).toThrowError(
      /accounts are off and there is no certificate[\s\S]+npm run account[\s\S]+TACTRON_CERT=/u,
    );
    expect(() => with_({ TACTRON_ACCOUNTS: 'on' })).toThrowError(/there is no certificate/u);
    expect(() => with_({ TACTRON_CERT: cert, TACTRON_KEY: key })).toThrowError(/accounts are off/u);
    expect(() =>
      with_({ TACTRON_ACCOUNTS: 'yes', TACTRON_CERT: cert, TACTRON_KEY: key }),
    ).toThrowError(/accounts are off/u);
    expect(() => listening({ TACTRON_HOST: '127.0.0.1.example.com' })).toThrowError(
      /does not listen/u,
    );
    expect(with_({ TACTRON_ACCOUNTS: 'on', TACTRON_CERT: cert, TACTRON_KEY: key })).toEqual(
      jasmine.objectContaining({
        host: '0.0.0.0',
        accounts: true,
        tls: { cert: Buffer.from('x'), key: Buffer.from('x') },
      }),
    );
  });

  it('says which setting does not fit', () => {
    expect(() => listening({ TACTRON_PORT: 'http' })).toThrowError(/TACTRON_PORT/u);
    expect(() => listening({ TACTRON_CERT: cert })).toThrowError(/belong together/u);
    expect(() =>
      with_({ TACTRON_ACCOUNTS: 'on', TACTRON_CERT: cert, TACTRON_KEY: join(folder, 'none.pem') }),
    ).toThrowError(/TACTRON_KEY: cannot read/u);
  });
});

import { ed25519 } from '@noble/curves/ed25519.js';
import { evidenceHash } from './chain.js';
import type { Evidence } from './evidence.js';
import { hashOf } from './hash.js';
import { checkSeal, isSigned, keyName, sealedText, type Seal } from './seal.js';

const jobId = '11111111-1111-4111-8111-111111111111';
const base64 = (bytes: Uint8Array): string => btoa(String.fromCharCode(...bytes));
const bytesOf = (hex: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(hex.match(/../gu) ?? [], (pair) => parseInt(pair, 16));

function chain(count: number, value: number): Evidence[] {
  let prevHash = '';
  return Array.from({ length: count }, (_, n) => {
    const told = {
      id: `00000000-0000-4000-8000-00000000000${n}`,
      jobId,
      jobRevision: n,
      kind: 'keyed',
      subject: String(n),
      body: { code: String(n), value },
      author: { name: 'T. Ester', role: '' },
      atClient: '2026-01-01T08:00:00.000Z',
      coreVersion: '0.1.0',
      prevHash,
    } as Evidence;
    return { ...told, hash: (prevHash = evidenceHash(prevHash, told)) };
  });
}

function sealed(evidence: readonly Evidence[], secret = ed25519.utils.randomSecretKey()): Seal {
  const key = Uint8Array.from([
    ...bytesOf('302a300506032b6570032100'),
    ...ed25519.getPublicKey(secret),
  ]);
  const said = {
    jobId,
    revision: 4,
    document: hashOf('document'),
    changes: '',
    evidence: { count: evidence.length, ends: evidence.at(-1)?.hash ?? '' },
    at: '2026-01-02T08:00:00.000Z',
    key: base64(key),
  };
  const text = new TextEncoder().encode(sealedText(said));
  return { ...said, signature: base64(ed25519.sign(text, secret)) };
}

describe('a seal', () => {
  it('verifies the signature of RFC 8032, section 7.1, test 1, over what it says and nothing else', () => {
    const secret = bytesOf('9d61b19deffd5a60ba844af492ec2cc44449c5697b326919703bac031cae7f60');
    const open = ed25519.getPublicKey(secret);
    expect(Array.from(open)).toEqual(
      Array.from(bytesOf('d75a980182b10ab7d54bfed3c964073a0ee172f3daa62325af021a68f707511a')),
    );
    const seal = sealed(chain(2, 5), secret);
    expect(isSigned(seal)).toBeTrue();
    expect(keyName(seal.key)).toMatch(/^[0-9a-f]{16}$/u);
    for (const more of [{ revision: 5 }, { document: hashOf('x') }, { at: '2026-01-02T08:00:01Z' }])
      expect(isSigned({ ...seal, ...more })).toBeFalse();
    expect(isSigned({ ...seal, key: base64(open) })).toBeFalse();
  });

  it('tells signed, cut, changed, false and none apart', () => {
    const whole = chain(4, 5);
    const seal = sealed(whole.slice(0, 3));
    expect([
      checkSeal(jobId, whole, seal),
      checkSeal(jobId, whole.slice(0, 3), seal),
      checkSeal(jobId, whole.slice(0, 2), seal),
      checkSeal(jobId, chain(3, 6), seal),
      checkSeal('another', whole, seal),
      checkSeal(jobId, whole, { ...seal, revision: 9 }),
      checkSeal(jobId, whole, undefined),
    ]).toEqual(['signed', 'signed', 'cut', 'changed', 'false', 'false', 'unsigned']);
  });
});

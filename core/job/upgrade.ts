import { JOB_VERSION } from './job.js';

type Plain = Record<string, unknown>;

const isPlain = (x: unknown): x is Plain =>
  typeof x === 'object' && x !== null && !Array.isArray(x);

const entries = (x: unknown): [string, unknown][] => (isPlain(x) ? Object.entries(x) : []);

const mapped = (x: unknown, change: (value: Plain) => Plain): Plain =>
  Object.fromEntries(
    entries(x).map(([key, value]) => [key, isPlain(value) ? change(value) : value]),
  );

/** Contacts that the first format packed into one text, `3|2 3`, as what they are. */
function unpacked(part: Plain): Plain {
  if (part['kind'] !== 'presetSelector' || !isPlain(part['params'])) return part;
  const { positions, contacts, ...params } = part['params'];
  if (typeof positions !== 'string') return part;
  const lists = typeof contacts === 'string' ? contacts.split('|').filter(Boolean) : [];
  return {
    ...part,
    params,
    positions: positions.split(' '),
    contacts: lists.map((list, i) => ({
      a: `${i + 1}3`,
      b: `${i + 1}4`,
      closedIn: list.split(' '),
    })),
  };
}

/** What a person noted of the panel as built: free data in the first format, now a fault where it says one. */
function asFault({ where, actual }: Plain): unknown {
  const { kind, id } = isPlain(where) ? where : {};
  if (isPlain(actual) && typeof actual['kind'] === 'string') return actual;
  if (
    kind === 'setting' &&
    typeof id === 'string' &&
    (typeof actual !== 'object' || actual === null)
  )
    return { kind: 'setting', code: id, value: actual ?? '' };
  if (kind === 'wire' && typeof id === 'string') {
    if (isPlain(actual) && typeof actual['to'] === 'string')
      return { kind: 'landed', wire: id, end: 'to', at: actual['to'] };
    if (isPlain(actual) && typeof actual['from'] === 'string')
      return { kind: 'landed', wire: id, end: 'from', at: actual['from'] };
    if (isPlain(actual) && isPlain(actual['size']))
      return { kind: 'size', wire: id, size: actual['size'] };
    return { kind: 'open', wire: id };
  }
  return undefined;
}

/** From format 1 to 2: the wiring names its device, contacts and deviations are data. Nothing recorded changes. */
function fromFirst(job: Plain): Plain {
  const { adopted, decisions, deviations } = job;
  const devices = (wiring: Plain): Plain => ({
    ...wiring,
    devices: mapped(wiring['devices'], unpacked),
  });
  const noted = entries(deviations).flatMap(([id, d]): [string, unknown][] => {
    if (!isPlain(d)) return [[id, d]];
    const actual = asFault(d);
    return actual === undefined ? [] : [[id, { ...d, actual }]];
  });
  return {
    ...job,
    version: 2,
    ...(isPlain(decisions) ? { decisions: devices(decisions) } : {}),
    ...(isPlain(adopted) ? { adopted: { device: 'drive', ...devices(adopted) } } : {}),
    deviations: Object.fromEntries(noted),
  };
}

/** What of an operation on a document of the first format is a wiring, a part of it or a note of the panel. */
function fromFirstValue(path: string, value: Plain): unknown {
  if (path === '') return upgradeJob(value);
  if (path === '/adopted') return fromFirst({ adopted: value })['adopted'];
  if (/^\/(?:adopted|decisions)\/devices\/[^/]+$/u.test(path)) return unpacked(value);
  if (!/^\/deviations\/[^/]+$/u.test(path)) return value;
  const actual = asFault(value);
  return actual === undefined ? value : { ...value, actual };
}

/**
 * Operations made on a document of the first format, as they fit the same document in this one: what a browser kept over a
 * new release.
 *
 * @example upgradePatch([{ op: 'replace', path: '/tag', value: 'T-2' }]) // the same
 */
export function upgradePatch<O extends { readonly path: string }>(patch: readonly O[]): O[] {
  return patch.map((o) => {
    const { value } = o as { value?: unknown };
    return isPlain(value) ? { ...o, value: fromFirstValue(o.path, value) } : o;
  });
}

/**
 * A job document of an older format as this release reads it; one of this or a newer format is left as it is.
 *
 * @param document parsed JSON, not checked yet
 * @example upgradeJob({ format: 'tactron-job', version: 1, … }) // { …, version: 2 }
 */
export function upgradeJob(document: unknown): unknown {
  if (!isPlain(document)) return document;
  let job = document;
  if (job['version'] === 1 && JOB_VERSION >= 2) job = fromFirst(job);
  return job;
}

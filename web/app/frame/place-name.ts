import type { Job } from '@tactron/core/job';

const parts: Readonly<Record<string, string>> = {
  plate: 'Plate',
  scheme: 'Scheme',
  decisions: 'decision',
  adopted: 'plan',
  scripts: 'script',
  deviations: 'as built',
  pins: 'terminal',
  wires: 'wire',
  settings: 'setting',
  devices: 'device',
  assignments: 'terminal',
  links: 'link',
  retired: 'retired wire',
  siteId: 'site',
  profile: 'device',
  lengthM: 'length',
  hz: 'frequency',
  rpm: 'speed',
  lowV: 'lower voltage',
  highV: 'higher voltage',
  lowA: 'current at the lower voltage',
  highA: 'current at the higher voltage',
  exposed: 'who can be exposed',
  maxHz: 'highest frequency',
  minHz: 'lowest frequency',
};

/** Steps of the way that say nothing to a person: the number and unit inside a quantity, the value inside a setting. */
const inner = new Set(['v', 'u', 'value', 'mm2', 'awg']);
const bookkeeping = /^\/adopted\/(planHash|coreVersion)$/u;

const spaced = (name: string): string =>
  name.replace(/([a-z])([A-Z])/gu, (_all, a: string, b: string) => `${a} ${b.toLowerCase()}`);

/** What only the program reads, and no person changes. */
export const isBookkeeping = (pointer: string): boolean => bookkeeping.test(pointer);

/**
 * A place in the job as a person says it, from its JSON Pointer; wires and devices by what stands on them.
 *
 * @param job gives numbers and tags
 * @example placeName('/plate/motor/power/v', job) // 'Plate › motor › power'
 */
export function placeName(pointer: string, job: Job | null): string {
  if (pointer === '') return 'whole job';
  const way = pointer
    .slice(1)
    .split('/')
    .map((raw) => raw.replaceAll('~1', '/').replaceAll('~0', '~'));
  while (way.length > 1 && inner.has(way[way.length - 1])) way.pop();
  return way
    .map((part, i) => tagOf(way[i - 1], part, job) ?? parts[part] ?? spaced(part))
    .join(' › ');
}

function tagOf(kind: string | undefined, id: string, job: Job | null): string | undefined {
  if (kind === 'wires' || kind === 'retired')
    return job?.adopted?.wires[id]?.number ?? job?.adopted?.retired[id]?.number;
  if (kind === 'devices') return job?.adopted?.devices[id]?.tag ?? job?.decisions.devices[id]?.tag;
  return kind === 'scripts' ? job?.scripts[id]?.name : kind === 'settings' ? id : undefined;
}

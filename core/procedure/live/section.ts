import { firstOfKind, roleSetting, type Profile, type Value } from '../../catalogue/index.js';
import type { Job } from '../../job/index.js';
import { phrase, state, tagOf } from '../context.js';
import type { LiveTests } from '../sequence/tests.js';
import { BUMP_SHARE } from './bump.js';

/** Value keyed for a meaning of a role, where the device has both. */
function keyedFor(profile: Profile, role: string, meaning: string): [string, Value] | undefined {
  const of = profile.roles[role];
  if (typeof of !== 'object' || !('setting' in of)) return undefined;
  const values = of.values as Readonly<Record<string, Value>> | undefined;
  const key = Object.entries(values ?? {}).find(([, value]) => value === meaning)?.[0];
  const code = roleSetting(profile, role);
  if (key === undefined || code === undefined) return undefined;
  return [code, typeof profile.settings[code].factory === 'number' ? Number(key) : key];
}

/** Temporary items of a section: settings that give command and speed to the keypad, and the enables still linked as delivered. */
export interface SectionJob {
  readonly job: Job;
  readonly settings: readonly (readonly [string, Value])[];
  readonly linked: readonly string[];
}

/**
 * A job of which only some wires are landed, as it can be tried meanwhile: the others are absent, command and speed lie at
 * the keypad, and an enable none of whose wires is landed keeps the link it was delivered with.
 *
 * @param landed ids of the wires that are landed
 */
export function sectionJob(job: Job, profile: Profile, landed: ReadonlySet<string>): SectionJob {
  const { adopted } = job;
  if (!adopted) return { job, settings: [], linked: [] };
  const wires = Object.fromEntries(Object.entries(adopted.wires).filter(([id]) => landed.has(id)));
  const settings = [
    keyedFor(profile, 'commandSource', 'keypad'),
    keyedFor(profile, 'referenceSource', 'keypad'),
  ].filter((x) => x !== undefined);
  const temporary = Object.fromEntries(
    settings.map(([code, value]) => [
      code,
      { value, origin: 'plan' as const, why: { code: 'section', args: {} } },
    ]),
  );
  const reached = new Set(Object.values(wires).flatMap((w) => [w.from, w.to]));
  const plus = firstOfKind(profile, 'supply24');
  const enables = Object.keys(profile.terminals).filter(
    (t) => profile.terminals[t].kind === 'enableInput',
  );
  const at = (terminal: string): string => `${adopted.device}:${terminal}`;
  const linked = plus === undefined || enables.some((t) => reached.has(at(t))) ? [] : enables;
  const links = Object.fromEntries(
    linked.map((t, i) => [
      `section.${t}`,
      {
        ord: 100_000 + i,
        where: { kind: 'landing' as const, id: at(t) },
        actual: { kind: 'short' as const, a: at(plus ?? ''), b: at(t) },
        why: 'link as delivered',
      },
    ]),
  );
  return {
    job: {
      ...job,
      adopted: { ...adopted, wires, settings: { ...adopted.settings, ...temporary } },
      deviations: { ...job.deviations, ...links },
    },
    settings,
    linked,
  };
}

/** The first turn from the keypad, while the station is not landed yet; nothing where the device does not turn the motor so. */
export function keypadBump(t: LiveTests, { settings, linked }: SectionJob): void {
  const { c } = t;
  const s = t.begin('section.bump', 'bump', 0);
  const turns = s.attempt((x) => {
    x.key('start', 1000);
    x.speed.keys(BUMP_SHARE);
    return x.wait(x.travelMs).shaft.turns;
  });
  if (turns === 'rest') return t.end();
  s.key('start', 1000);
  s.speed.keys(BUMP_SHARE);
  s.wait(s.travelMs);
  const args = {
    settings: settings.map(([code, value]) => `${code} = ${String(value)}`).join(', '),
    linked: linked.map((terminal) => `${tagOf(c, c.device.id)}:${terminal}`).join(', '),
    breaker: tagOf(c, c.arrangement.mainBreaker),
    atHz: BUMP_SHARE * c.maxHz,
    machine: c.job.plate.load.forwardMeans ?? '',
  };
  t.ask(
    {
      key: 'section.bump',
      do: phrase('section.bump', args),
      must: phrase(`turns.${turns}`, args),
      expect: state(turns),
      reads: 'hz',
      sees: { kind: 'turns' },
      cautions: ['noProtection'],
    },
    ['motor'],
  );
  s.key('stop', s.travelMs);
  s.speed.keys(0);
  t.ask(
    {
      key: 'section.stop',
      do: phrase('section.stop', args),
      must: phrase('turns.stopped', { machine: '' }),
      expect: state(s.shaft.turns === 'rest' ? 'stopped' : s.shaft.turns),
      sees: { kind: 'turns' },
    },
    ['motor'],
  );
  t.end();
}

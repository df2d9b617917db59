import { factorySettings, modelOf, presentTerminals, type Profile } from '../catalogue/index.js';
import type { Panel } from '../installation/index.js';
import { faultKey, landingParts, sortedEntries, type Fault, type Job } from '../job/index.js';
import { insideFaults, jointsOf } from './single.js';
import { contactsOf, parts } from '../parts/index.js';

/** What a candidate is an error of; each has its share of all that goes wrong when something is first switched on. */
export type FaultGroup = 'wiring' | 'setting' | 'link' | 'source' | 'part';

/**
 * How often each group is behind a wrong reading at commissioning, against the others: estimates of practice, not
 * statistics. What is wired and keyed by hand is wrong more often than what is bought.
 */
export const priors: Readonly<Record<FaultGroup, number>> = {
  wiring: 10,
  setting: 6,
  link: 4,
  source: 3,
  part: 1,
};

/** Something that may be wrong, with how likely it is before anything is seen; all of them together make one. */
export interface Candidate {
  readonly fault: Fault;
  readonly group: FaultGroup;
  readonly prior: number;
}

type Bare = Omit<Candidate, 'prior'>;

const of =
  (group: FaultGroup) =>
  (fault: Fault): Bare => ({ fault, group });

/**
 * Everything single that may be wrong at a panel: wires open, landed one terminal beside, exchanged with one that ends on
 * the same part; contacts of the wrong kind or stuck; links, switches and settings otherwise; parts that do not work.
 *
 * @param read a number that was read: a setting of its unit may have been keyed so that it gives just this
 * @example candidateFaults(job, profile, asBuilt(job, profile))[0].prior // 0.004
 */
export function candidateFaults(
  job: Job,
  profile: Profile,
  panel: Panel,
  read?: { readonly value: number; readonly unit: string },
): Candidate[] {
  const bare = [
    ...wiring(profile, panel).map(of('wiring')),
    ...contacts(panel).map(of('part')),
    ...loose(panel),
    ...insideFaults(profile, panel).map(({ fault }) => of('part')(fault)),
    ...links(profile, panel).map(of('link')),
    ...settings(job, profile, panel).map(of('setting')),
    ...(read ? keyedWrong(job, profile, panel, read).map(of('setting')) : []),
  ];
  const once = [...new Map(bare.map((c) => [faultKey(c.fault), c])).values()];
  const sum = once.reduce((total, { group }) => total + priors[group], 0);
  return once.map((c) => ({ ...c, prior: priors[c.group] / sum }));
}

function wiring(profile: Profile, panel: Panel): Fault[] {
  const wires = sortedEntries(panel.wires).filter(([, w]) => w.class !== 'pe');
  const order = presentTerminals(profile);
  const beside = (at: string): string[] => {
    const { device, terminal } = landingParts(at);
    const i = order.indexOf(terminal);
    if (device !== panel.device || i < 0) return [];
    const kind = (t: string | undefined): boolean =>
      t !== undefined && !['mains', 'motor', 'power'].includes(profile.terminals[t].kind);
    return [order[i - 1], order[i + 1]].filter(kind).map((t) => `${device}:${t}`);
  };
  const ends = ['from', 'to'] as const;
  const open = wires.map(([wire]): Fault => ({ kind: 'open', wire }));
  const landed = wires.flatMap(([wire, w]) =>
    ends.flatMap((end) =>
      kindOfPower(w.class)
        ? []
        : beside(w[end]).map((at): Fault => ({ kind: 'landed', wire, end, at })),
    ),
  );
  const joints = jointsOf(panel, () => true).map((at): Fault => ({ kind: 'loose', at }));
  return [...open, ...landed, ...exchanged(wires), ...joints];
}

const kindOfPower = (kind: string): boolean => ['mains', 'motor', 'neutral'].includes(kind);

/** Two wires that end on the same part, exchanged there; on the device itself only next to each other, by `landed`. */
function exchanged(wires: readonly (readonly [string, Panel['wires'][string]])[]): Fault[] {
  const at = new Map<
    string,
    { wire: string; end: 'from' | 'to'; landing: string; power: boolean }[]
  >();
  for (const [wire, w] of wires)
    for (const end of ['from', 'to'] as const) {
      const { device } = landingParts(w[end]);
      const power = kindOfPower(w.class);
      at.set(device, [...(at.get(device) ?? []), { wire, end, landing: w[end], power }]);
    }
  const pairs: Fault[] = [];
  for (const own of at.values()) {
    if (own.length > 8) continue;
    own.forEach((x, i) =>
      own.slice(i + 1).forEach((y) => {
        // A conductor of the power side is not taken for one of the control, nor what comes for what goes.
        const alike = x.power === y.power && (!x.power || x.end === y.end);
        if (alike && x.wire !== y.wire && x.landing !== y.landing)
          pairs.push({ kind: 'swapped', wires: [x.wire, y.wire], ends: [x.end, y.end] });
      }),
    );
  }
  return pairs;
}

function contacts(panel: Panel): Fault[] {
  const wired = new Set(Object.values(panel.wires).flatMap((w) => [w.from, w.to]));
  return sortedEntries(panel.devices).flatMap(([device, part]): Fault[] => {
    const set = contactsOf(part);
    const coil = parts[part.kind]?.coil;
    const firsts = set
      ? set.contacts.map(({ a }) => a)
      : [...(coil?.makes ?? []), ...(coil?.breaks ?? [])].map(([a]) => a);
    const hand = set !== undefined && set.workedBy !== 'supply';
    return firsts
      .filter((contact) => wired.has(`${device}:${contact}`))
      .flatMap((contact): Fault[] => [
        ...(hand ? [{ kind: 'wrongContact', device, contact } as const] : []),
        { kind: 'stuck', device, contact, is: 'open' },
        { kind: 'stuck', device, contact, is: 'closed' },
      ]);
  });
}

/**
 * What inside the parts of a panel may not work: coils, lamps, sources, tracks, fuses, and what of the device itself fails.
 *
 * @example partFaults(profile, panel).map(faultKey) // ['coil:relay.sealIn', 'lamp:lamp.running', …]
 */
export const partFaults = (profile: Profile, panel: Panel): Extract<Fault, { kind: 'part' }>[] =>
  [...loose(panel), ...insideFaults(profile, panel)].flatMap(({ fault }) =>
    fault.kind === 'part' ? [fault] : [],
  );

/** What inside a part may not work, by what kind of thing it is. */
function loose(panel: Panel): Bare[] {
  return sortedEntries(panel.devices).flatMap(([device, { kind }]): Bare[] => {
    const part = (
      what: Extract<Fault, { kind: 'part' }>['what'],
      group: FaultGroup = 'part',
    ): Bare => ({
      fault: { kind: 'part', device, what },
      group,
    });
    if (parts[kind]?.coil) return [part('coil')];
    switch (kind) {
      case 'lamp':
        return [part('lamp')];
      case 'fuse':
        return [part('fuse', 'source')];
      case 'potentiometer':
        return [part('wiper'), part('track')];
      case 'controllerContact':
      case 'transistorOutput':
        return outputs(panel, device);
      case 'voltageSource':
      case 'currentSource':
        return [part('source', 'source'), part('signalKind', 'setting')];
      case 'supply24':
        return [part('source', 'source')];
      default:
        return [];
    }
  });
}

/** An output of a controller of which the function is on no output, or on another one. */
function outputs({ devices }: Panel, device: string): Bare[] {
  const others = sortedEntries(devices).flatMap(([id, { kind }]) =>
    id > device && kind === devices[device].kind ? [id] : [],
  );
  const fault = { kind: 'part', device, what: 'map' } as const;
  return [
    { fault, group: 'setting' },
    ...others.map((which): Bare => ({ fault: { ...fault, which }, group: 'setting' })),
  ];
}

const links = (profile: Profile, panel: Panel): Fault[] =>
  sortedEntries(profile.links).flatMap(([link, { positions }]) =>
    Object.keys(positions)
      .filter((position) => position !== panel.links[link])
      .map((position): Fault => ({ kind: 'link', link, position })),
  );

/** Settings of the plan that were left as the factory has them. */
function settings(job: Job, profile: Profile, panel: Panel): Fault[] {
  const model = modelOf(profile, job.profile.model);
  if (!model) return [];
  const factory = factorySettings(profile, model);
  return Object.keys(job.adopted?.settings ?? {})
    .filter((code) => factory[code] !== undefined && factory[code] !== panel.settings[code])
    .map((code): Fault => ({ kind: 'setting', code, value: factory[code] }));
}

/** Settings that hold a number of the unit that was read, as if they had been keyed to it. */
function keyedWrong(
  job: Job,
  profile: Profile,
  panel: Panel,
  { value, unit }: { readonly value: number; readonly unit: string },
): Fault[] {
  return Object.keys(job.adopted?.settings ?? {}).flatMap((code): Fault[] => {
    const setting = profile.settings[code];
    if (setting?.unit !== unit || typeof panel.settings[code] !== 'number') return [];
    const { min = -Infinity, max = Infinity, step = 0.1 } = setting;
    const keyed = Number((Math.round(value / step) * step).toFixed(4));
    if (keyed < min || keyed > max || keyed === panel.settings[code]) return [];
    return [{ kind: 'setting', code, value: keyed }];
  });
}

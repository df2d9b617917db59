import { presentTerminals, sensorLink, type Profile, type Value } from '../catalogue/index.js';
import { landingParts, sortedEntries, type Job, type Wiring } from '../job/index.js';
import { lineIds, plugOf, type Arrangement } from '../scheme/index.js';
import { toBase } from '../units/index.js';
import { feedPhases, lineParts } from './power-wires.js';

/** Every part of a plan: those that every wiring has, those of Plate, of the arrangement and of the person's decisions. */
export function plannedDevices(
  job: Job,
  profile: Profile,
  arrangement: Arrangement,
  device: string,
): Wiring['devices'] {
  const single = feedPhases(profile).length === 2;
  const { supply, breaker, motor } = lineIds;
  const devices: Wiring['devices'] = {
    [supply]: {
      kind: single ? 'supplySinglePhase' : 'supplyThreePhase',
      role: supply,
      tag: 'X0',
      params: {},
    },
    [breaker]: {
      kind: single ? 'breakerTwoPole' : 'breakerThreePole',
      role: breaker,
      // The main switch takes Q0 where the device has a terminal Q1.
      tag: Object.hasOwn(profile.terminals, 'Q1') ? 'Q0' : 'Q1',
      params: {},
    },
    [device]: { kind: profile.kind, role: device, tag: 'T1', params: {} },
    [motor]: {
      kind: 'motor',
      role: motor,
      tag: Object.hasOwn(profile.terminals, 'M1') ? 'MA1' : 'M1',
      params: arrangement.insideDelta ? { leads: 6 } : {},
    },
  };
  for (const [id, { kind, tag, poles }] of Object.entries(lineParts(job, profile)))
    devices[id] = { kind, role: id, tag, params: { poles } };
  const { fuse } = job.plate.line?.contactor ?? {};
  if (fuse && arrangement.contactor)
    for (const [i] of feedPhases(profile).entries())
      devices[`${lineIds.fuse}.${i + 1}`] = {
        kind: 'fuse',
        role: `${lineIds.fuse}.${i + 1}`,
        tag: `FA${i + 1}`,
        params: { amps: toBase(fuse, 'current'), place: 'panel' },
      };
  for (const { id, kind, tag, place, params, ...more } of arrangement.devices)
    devices[id] = {
      kind,
      role: id,
      tag,
      params: { ...params, place, ...suppressorOf(arrangement, id, params) },
      ...more,
    };
  for (const [id, { ord: _ord, why: _why, ...part }] of Object.entries(job.decisions.devices))
    devices[id] = { ...part, role: id };
  return devices;
}

/** Plugs differ in their poles, so that none fits where another belongs: spare poles where they would be alike. */
function spareDifferent(counts: Map<string, number>): void {
  const plugs = [...counts]
    .filter(([id]) => id !== lineIds.strip)
    .sort((x, y) => x[1] - y[1] || (x[0] < y[0] ? -1 : 1));
  let most = 0;
  for (const [id, count] of plugs) {
    most = Math.max(count, most + 1);
    counts.set(id, most);
  }
}

/** What the field wires go over: a terminal strip, or a plug for each cable, as long as the wires need it. */
export function withJoints(
  devices: Wiring['devices'],
  wires: Wiring['wires'],
  profile: Profile,
): Wiring['devices'] {
  const counts = new Map<string, number>();
  for (const { from, to } of Object.values(wires))
    for (const end of [from, to]) {
      const { device, terminal } = landingParts(end);
      if (device !== lineIds.strip && !device.startsWith(plugOf(''))) continue;
      counts.set(device, Math.max(counts.get(device) ?? 0, parseInt(terminal, 10)));
    }
  spareDifferent(counts);
  const made: Wiring['devices'] = { ...devices };
  // No tag that equals a terminal of the device.
  const first = Object.hasOwn(profile.terminals, 'X1') ? 10 : 1;
  [...counts.keys()]
    .sort((x, y) => x.localeCompare(y, 'en', { numeric: true }))
    .forEach((id, i) => {
      const kind = id === lineIds.strip ? 'terminalStrip' : 'plugConnector';
      const params = { count: counts.get(id) as number, place: 'panel' };
      made[id] = { kind, role: id, tag: `X${first + i}`, params };
    });
  return made;
}

/** What keeps the coil of a part that a contact of the device switches from wearing that contact out. */
function suppressorOf(
  { nets }: Arrangement,
  id: string,
  params: Readonly<Record<string, Value>>,
): Readonly<Record<string, string>> {
  const switched = nets.some(
    ({ points }) =>
      points.some(({ at }) => at === `${id}:A1`) && points.some(({ at }) => at.startsWith('@out:')),
  );
  return switched ? { suppressor: params['ac'] === true ? 'rc' : 'diode' } : {};
}

/** Positions of links and switches: the input logic's, the signal's kind, the earth link by the supply, else as delivered. */
export function plannedLinks(
  profile: Profile,
  arrangement: Arrangement,
  chosen: Readonly<Record<string, string>>,
  earthing: Job['plate']['supply']['earthing'],
): Wiring['links'] {
  const meant = arrangement.meanings.find((m) => /^ai[12]\.mode$/u.test(m.role));
  const mode = meant === undefined ? undefined : meant.value === '0-10V' ? 'voltage' : 'current';
  const analogue = presentTerminals(profile).filter(
    (id) => profile.terminals[id].kind === 'analogueInput',
  );
  const input = analogue[meant?.role === 'ai2.mode' ? 1 : 0];
  // On a supply without an earthed star point nothing of the device may lie against earth.
  const lifted = earthing === 'IT' || earthing === 'cornerEarthed';
  const out = (id: string): string | undefined =>
    lifted && id === profile.earthLink
      ? sortedEntries(profile.links[id].positions).find(([, p]) => p.earthed === false)?.[0]
      : undefined;
  const sensor = arrangement.thermistor === undefined ? undefined : sensorLink(profile);
  return Object.fromEntries(
    Object.entries(profile.links).map(([id, link]) => {
      const signal = sortedEntries(link.positions).find(
        ([, p]) => p.analogueMode?.terminal === input && p.analogueMode?.mode === mode,
      )?.[0];
      return [
        id,
        {
          position:
            chosen[id] ??
            out(id) ??
            (sensor?.link === id ? sensor.open : undefined) ??
            (mode && signal ? signal : link.factory),
          origin: 'plan' as const,
        },
      ];
    }),
  );
}

import { landingParts, type Job } from '@tactron/core/job';
import type { Opened } from '../../compute/rehearse.worker';
import { functionOf, stationRank } from './faces/face-look';
import type { LaneSpec } from './lanes';
import { LINK_SIGNAL } from './session';

const lane = (
  group: string,
  id: string,
  name: string,
  unit: string,
  low: number,
  high: number,
): LaneSpec => ({ id, name, unit, low, high, group });

const level = (group: string, id: string, name: string): LaneSpec =>
  lane(group, id, name, '', 0, 1);

/**
 * The lanes of a rehearsal by what they belong to: the device with its output and state, the machine, the station with the
 * controls in use, relays, inputs, the supply.
 *
 * @example laneSpecs(opened, job)[0].name // 'Output'
 */
export function laneSpecs(opened: Opened, { scheme, plate, adopted }: Job): LaneSpec[] {
  const { tops, names, trace, devices } = opened;
  // A device that does not change the speed of its motor shows current and voltage instead.
  const fixed = Object.keys(tops).length > 0;
  const maxHz = scheme.maxHz ?? (fixed ? (plate.motor.hz?.v ?? 50) : 50);
  const lowHz = scheme.direction === 'forwardReverse' || scheme.jog === 'bothWays' ? -maxHz : 0;
  const states =
    trace.signals.find((s) => s.id === 'device.state')?.states?.map((s) => names[s] ?? s) ?? [];
  return [
    ...(fixed
      ? [
          lane('device', 'device.amps', 'Current', 'A', 0, tops['device.amps']),
          lane('device', 'device.voltsPct', 'Voltage', '%', 0, 100),
        ]
      : [lane('device', 'device.hz', 'Output', 'Hz', lowHz, maxHz)]),
    ...linkLane(opened),
    { ...lane('device', 'device.state', 'State', '', 0, states.length - 1), states },
    lane('machine', 'shaft.hz', 'Shaft', 'Hz', lowHz, maxHz),
    ...(fixed
      ? [
          lane('machine', 'device.torqueNm', 'Torque', 'Nm', 0, tops['device.torqueNm']),
          lane('machine', 'device.heatPct', 'Heat of the image', '%', 0, tops['device.heatPct']),
        ]
      : []),
    ...station(opened),
    ...devices.filter((d) => d.kind === 'coil').map((d) => level('relays', `${d.id}.on`, d.tag)),
    ...inputs(opened, adopted),
    level('supply', 'supply.on', 'Supply'),
  ];
}

/** The DC link with the threshold of its chopper and its trip, where stops lift it. */
function linkLane({ link }: Opened): LaneSpec[] {
  if (!link) return [];
  const limits = [
    ...(link.chopper ? [{ at: link.chopper.volts, text: 'chopper' }] : []),
    { at: link.tripV, text: 'trips' },
  ];
  return [{ ...lane('device', LINK_SIGNAL, 'DC link', 'V', 0, link.tripV * 1.05), limits }];
}

/** Controls in use, what stops and starts first. */
const station = ({ devices }: Opened): LaneSpec[] =>
  devices
    .filter((d) => d.positions.length > 1 && d.workedBy !== 'supply')
    .sort((x, y) => stationRank(x) - stationRank(y))
    .map((d) => ({
      ...lane('station', `${d.id}.position`, `${d.tag} ${functionOf(d)}`, '', 0, 0),
      high: d.positions.length - 1,
      states: d.positions,
    }));

/** Inputs with a task, and enables. */
function inputs({ trace }: Opened, adopted: Job['adopted']): LaneSpec[] {
  const used = new Set(
    Object.values(adopted?.assignments ?? {}).map((a) => `device.${landingParts(a.at).terminal}`),
  );
  return trace.signals
    .filter((s) => used.has(s.id) || (s.of.kind === 'landing' && /\.(S|ST)[AB]$/u.test(s.id)))
    .map((s) => level('inputs', s.id, s.id.replace('device.', 'Input ')));
}

import type { ShownDevice } from '../../../compute/rehearse.worker';

/** How the actuator of a part looks: colour and mark by IEC 60073 and NFPA 79, always with a word beside it. */
export interface FaceLook {
  readonly colour: 'red' | 'green' | 'black' | 'white' | 'yellow';
  /** Bar: start; ring: stop; bar on a foot: only while it is held. */
  readonly mark: 'bar' | 'ring' | 'foot' | '';
  readonly shape: 'push' | 'mushroom' | 'knob' | 'key' | 'contact';
}

/** What a part of the station does, from its role; its kind where the role says no more. */
export function functionOf({ id, name }: Pick<ShownDevice, 'id' | 'name'>): string {
  const role = /^(?:button|select|selector|interlock|lamp|contact|key|end)\.(.+)$/u.exec(id)?.[1];
  if (id === 'estop') return 'e-stop';
  if (id === 'brake') return 'brake';
  if (id.startsWith('end.')) return `end ${id.slice(4)}`;
  return role === undefined
    ? name.toLowerCase()
    : role
        .replaceAll('.', ' ')
        .replace(/([A-Z])/gu, ' $1')
        .toLowerCase();
}

/**
 * Face of a part by its role: red mushroom on yellow, green start, red stop, a knob that turns, a key.
 *
 * @example lookOf({ id: 'button.start', name: 'Push button' }).colour // 'green'
 */
export function lookOf({
  id,
  name,
  workedBy,
}: Pick<ShownDevice, 'id' | 'name' | 'workedBy'>): FaceLook {
  if (id === 'estop') return { colour: 'red', mark: '', shape: 'mushroom' };
  if (/^button\.(?:stop|powerOff)/u.test(id)) return { colour: 'red', mark: 'ring', shape: 'push' };
  if (/^button\.jog/u.test(id)) return { colour: 'white', mark: 'foot', shape: 'push' };
  if (/^button\.(?:start|powerOn)/u.test(id))
    return { colour: 'green', mark: 'bar', shape: 'push' };
  if (id.startsWith('button.')) return { colour: 'black', mark: '', shape: 'push' };
  if (workedBy === 'process') return { colour: 'black', mark: '', shape: 'contact' };
  return { colour: 'black', mark: '', shape: /key/iu.test(name) ? 'key' : 'knob' };
}

/** Angles of a knob with so many positions, degrees from upright. */
export const knobAngle = (position: number, count: number): number =>
  count === 3 ? (position - 1) * 45 : position * 90 - 45;

const ranks = [
  'estop',
  'button.stop',
  'button.powerOff',
  'button.start',
  'button.powerOn',
] as const;

/** Order in which parts stand on a station and in the lanes: what stops, what starts, then the rest as they come. */
export function stationRank({ id }: Pick<ShownDevice, 'id'>): number {
  const at = ranks.findIndex((name) => id.startsWith(name));
  return at < 0 ? ranks.length : at;
}

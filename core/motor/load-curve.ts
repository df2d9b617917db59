/** Load torque over speed: `constantNm` always, and on top `torqueNm` at `ratedRpm` with the law named, or a table; an overhauling load drives with it. */
export interface LoadCurve {
  readonly kind: 'constant' | 'linear' | 'square' | 'table' | 'overhauling';
  readonly torqueNm?: number;
  readonly ratedRpm?: number;
  readonly constantNm?: number;
  /** Torque to break loose from standstill, where it is more. */
  readonly breakawayNm?: number;
  readonly table?: readonly { readonly rpm: number; readonly torqueNm: number }[];
}

const toRad = (rpm: number): number => (rpm * 2 * Math.PI) / 60;
const toRpm = (rad: number): number => (rad * 60) / (2 * Math.PI);

/** Load torque at a speed in rad/s, turning. */
export function loadTorque(load: LoadCurve): (rad: number) => number {
  const base = load.constantNm ?? 0;
  if (load.kind === 'table') {
    const rows = load.table ?? [];
    return (rad) => base + interpolate(rows, toRpm(rad));
  }
  if (load.kind === 'overhauling') return () => base - (load.torqueNm ?? 0);
  const power = { constant: 0, linear: 1, square: 2 }[load.kind];
  const rated = toRad(load.ratedRpm ?? 1);
  return (rad) =>
    base + (load.torqueNm ?? 0) * (power === 0 ? 1 : (Math.max(0, rad) / rated) ** power);
}

function interpolate(rows: readonly { rpm: number; torqueNm: number }[], rpm: number): number {
  const at = rows.findIndex((r) => r.rpm >= rpm);
  if (at === 0) return rows[0].torqueNm;
  if (at < 0) return rows[rows.length - 1].torqueNm;
  const [a, b] = [rows[at - 1], rows[at]];
  return a.torqueNm + ((rpm - a.rpm) / (b.rpm - a.rpm)) * (b.torqueNm - a.torqueNm);
}

/** Torque that the load asks for before the shaft moves, Nm. */
export const breakaway = (load: LoadCurve): number =>
  Math.max(load.breakawayNm ?? 0, loadTorque(load)(0));

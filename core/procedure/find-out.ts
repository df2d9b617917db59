/** Ohms read between two leads; overload where the meter shows no way. */
export interface PairRead {
  readonly a: string;
  readonly b: string;
  readonly ohm: number | 'over';
}

/** Why readings fit nothing that they may be of. */
export type FindOutDoubt =
  | 'noTrack'
  | 'trackChanges'
  | 'wiperNowhere'
  | 'sameEnd'
  | 'stuckOpen'
  | 'stuckClosed'
  | 'noFrame'
  | 'twoFrames'
  | 'unequal'
  | 'notThree';

export type FoundOut<T> =
  | ({ readonly ok: true } & T)
  | { readonly ok: false; readonly why: FindOutDoubt; readonly leads: readonly string[] };

/** Two readings of a thing that does not change agree within this share. */
const SAME = 0.05;
/** A wiper at the end of its track shows less than this share of it. */
const AT_END = 0.15;
/** Below this a meter shows a way, Ω. */
const WAY_OHM = 100;
/** A core that lies on the frame shows less than this, Ω. */
const FRAME_OHM = 2;
/** Windings of one motor agree within this share. */
const WINDING = 0.05;

const of = (reads: readonly PairRead[], a: string, b: string): number => {
  const read = reads.find((r) => (r.a === a && r.b === b) || (r.a === b && r.b === a));
  return read === undefined || read.ohm === 'over' ? Infinity : read.ohm;
};

const near = (x: number, y: number, share: number): boolean =>
  x === y || Math.abs(x - y) <= share * Math.max(x, y);

/**
 * Which lead of an unmarked dial is which: the pair that shows the same at both ends of the turn is the track, the third lead
 * is the wiper, and the end at which it lies when the dial is turned back is the lower one.
 *
 * @param leads the three leads as they are marked or coloured
 * @param back the three pairs with the dial turned back to its stop
 * @param full the same, turned up to its stop
 * @example dialLeads(['a', 'b', 'c'], back, full) // { ok: true, low: 'a', wiper: 'b', high: 'c', ohm: 5000 }
 */
export function dialLeads(
  leads: readonly [string, string, string],
  back: readonly PairRead[],
  full: readonly PairRead[],
): FoundOut<{ low: string; wiper: string; high: string; ohm: number }> {
  const pairs = [
    [0, 1, 2],
    [1, 2, 0],
    [0, 2, 1],
  ].map(([x, y, z]) => ({ ends: [leads[x], leads[y]] as const, wiper: leads[z] }));
  const tracks = pairs
    .filter(({ ends: [x, y] }) => {
      const [one, two] = [of(back, x, y), of(full, x, y)];
      return Number.isFinite(one) && one > 0 && near(one, two, SAME);
    })
    // A wiper that does not move leaves every pair as it is: the track is the largest of them.
    .sort((p, q) => of(back, ...q.ends) - of(back, ...p.ends));
  if (tracks.length === 0) {
    const none = pairs.every(({ ends: [x, y] }) => !Number.isFinite(of(back, x, y)));
    return { ok: false, why: none ? 'noTrack' : 'trackChanges', leads };
  }
  for (const { ends, wiper } of tracks) {
    const ohm = of(back, ...ends);
    const low = ends.find((end) => of(back, wiper, end) <= AT_END * ohm);
    const high = ends.find((end) => of(full, wiper, end) <= AT_END * ohm);
    if (low !== undefined && high !== undefined && low !== high)
      return { ok: true, low, wiper, high, ohm };
  }
  const [{ ends, wiper }] = tracks;
  const stays = ends.some(
    (end) =>
      of(back, wiper, end) <= AT_END * of(back, ...ends) &&
      of(full, wiper, end) <= AT_END * of(back, ...ends),
  );
  return { ok: false, why: stays ? 'sameEnd' : 'wiperNowhere', leads: [wiper] };
}

/**
 * Whether a contact makes or breaks, from what is read at rest and worked.
 *
 * @example contactSort('over', 0.3) // { ok: true, makes: true }
 */
export function contactSort(
  rest: number | 'over',
  worked: number | 'over',
): FoundOut<{ makes: boolean }> {
  const closed = (ohm: number | 'over'): boolean => ohm !== 'over' && ohm < WAY_OHM;
  if (closed(rest) === closed(worked))
    return { ok: false, why: closed(rest) ? 'stuckClosed' : 'stuckOpen', leads: [] };
  return { ok: true, makes: closed(worked) };
}

/** Everything that is read between some leads, each pair once, and of each lead against the frame. */
export interface CoreReads {
  readonly pairs: readonly PairRead[];
  /** Ohms to the frame of the motor, by lead. */
  readonly frame: Readonly<Record<string, number | 'over'>>;
}

/**
 * Which core of an unmarked cable or plug of a motor is which: the one that lies on its frame protects, the three that show
 * the same in pairs are the windings, and what is left in pairs are sensors or a brake.
 *
 * @param leads all cores as they are marked or coloured
 * @example motorCores(['1', '2', '3', 'g'], reads) // { ok: true, protective: 'g', windings: ['1', '2', '3'], others: [] }
 */
export function motorCores(
  leads: readonly string[],
  { pairs, frame }: CoreReads,
): FoundOut<{
  protective: string;
  windings: readonly string[];
  ohm: number;
  others: readonly (readonly string[])[];
}> {
  const toFrame = (lead: string): number => {
    const read = frame[lead] ?? 'over';
    return read === 'over' ? Infinity : read;
  };
  const earthed = leads.filter((lead) => toFrame(lead) < FRAME_OHM);
  if (earthed.length !== 1)
    return { ok: false, why: earthed.length === 0 ? 'noFrame' : 'twoFrames', leads: earthed };
  const rest = leads.filter((lead) => lead !== earthed[0]);
  const groups: string[][] = [];
  for (const lead of rest) {
    const group = groups.find((g) => Number.isFinite(of(pairs, lead, g[0])));
    if (group) group.push(lead);
    else groups.push([lead]);
  }
  const three = groups.filter((g) => g.length === 3);
  if (three.length !== 1) return { ok: false, why: 'notThree', leads: groups.flat() };
  const [[u, v, w]] = three;
  const ohms = [of(pairs, u, v), of(pairs, v, w), of(pairs, u, w)];
  if (!ohms.every((x) => near(x, ohms[0], WINDING) && near(x, ohms[1], WINDING)))
    return { ok: false, why: 'unequal', leads: [u, v, w] };
  return {
    ok: true,
    protective: earthed[0],
    windings: [u, v, w],
    ohm: (ohms[0] + ohms[1] + ohms[2]) / 3,
    others: groups.filter((g) => g !== three[0]),
  };
}

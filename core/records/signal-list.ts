import {
  modelOf,
  policyValue,
  settingsInForce,
  type Profile,
  type Value,
} from '../catalogue/index.js';
import { landingParts, sortedEntries, type Job, type Phrase } from '../job/index.js';
import { trialsOf } from '../trials/index.js';

/** One signal between an outside controller and the panel. */
export interface Signal {
  /** Part that stands for the controller's output or input. */
  readonly part: string;
  /** Place in the order of exchange, from 1; 0 for what is there all the time. */
  readonly order: number;
  readonly way: 'toDevice' | 'fromDevice' | 'supply';
  readonly does: Phrase;
  readonly kind: Phrase;
  /** What it means closed or high, open or low, and while nothing feeds it. */
  readonly closed: Phrase;
  readonly open: Phrase;
  readonly unpowered: Phrase;
  /** Terminals at both ends of each of its wires. */
  readonly ends: readonly { readonly own: string; readonly far: string; readonly wire: string }[];
}

const phrase = (code: string, args: Phrase['args'] = {}): Phrase => ({ code, args });

/** Kinds of parts that stand for something of an outside controller. */
const outside = [
  'controllerContact',
  'transistorOutput',
  'voltageSource',
  'currentSource',
  'controllerInput',
  'loopSupply',
] as const;
type Outside = (typeof outside)[number];

const isOutside = (kind: string): kind is Outside => (outside as readonly string[]).includes(kind);

/** Wires at a part, with both their ends. */
function endsOf(job: Job, part: string): Signal['ends'] {
  return sortedEntries(job.adopted?.wires ?? {}).flatMap(([, w]) => {
    const at = [w.from, w.to].find((end) => landingParts(end).device === part);
    if (at === undefined) return [];
    return [{ own: at, far: at === w.from ? w.to : w.from, wire: w.number }];
  });
}

/** What the device does when a signal of four to twenty milliamperes is gone. */
function lossOf(job: Job, profile: Profile): Value | undefined {
  const model = modelOf(profile, job.profile.model);
  if (!model) return undefined;
  const settings = settingsInForce(profile, model, job.adopted?.settings ?? {});
  return policyValue(profile, settings, 'onReferenceLoss');
}

type Meaning = Pick<Signal, 'way' | 'does' | 'kind' | 'closed' | 'open' | 'unpowered'>;

/** What a signal of a kind means on this job. */
function meaningOf(job: Job, profile: Profile, part: string, kind: Outside): Meaning {
  const { arrangement, installation } = trialsOf(job, profile);
  switch (kind) {
    case 'controllerContact':
    case 'transistorOutput': {
      const f = arrangement.inputs.find((i) => i.device === part);
      const does = phrase('signal.run', { way: f?.id === 'run.reverse' ? 'reverse' : 'forward' });
      return {
        way: 'toDevice',
        does,
        kind: phrase(`signal.${kind}`),
        closed: phrase('signal.run.closed', does.args),
        open: phrase('signal.run.open'),
        unpowered: phrase('signal.run.unpowered'),
      };
    }
    case 'voltageSource':
    case 'currentSource': {
      const { spec } = installation.device;
      const scale = spec.kind === 'drive' ? spec.reference?.scale : undefined;
      const args = {
        low: scale?.xLow ?? 0,
        high: scale?.xHigh ?? 0,
        unit: kind === 'currentSource' ? 'mA' : 'V',
        hzLow: scale?.hzAtLow ?? 0,
        hzHigh: scale?.hzAtHigh ?? 0,
      };
      return {
        way: 'toDevice',
        does: phrase('signal.speed'),
        kind: phrase(`signal.${kind}`, args),
        closed: phrase('signal.speed.high', args),
        open: phrase('signal.speed.low', args),
        unpowered:
          kind === 'currentSource'
            ? phrase('signal.speed.lost', { does: String(lossOf(job, profile) ?? 'unknown') })
            : phrase('signal.speed.low', args),
      };
    }
    case 'controllerInput':
      return {
        way: 'fromDevice',
        does: phrase('signal.runs'),
        kind: phrase('signal.controllerInput'),
        closed: phrase('signal.runs.closed'),
        open: phrase('signal.runs.open'),
        unpowered: phrase('signal.runs.open'),
      };
    case 'loopSupply':
      return {
        way: 'supply',
        does: phrase('signal.supply'),
        kind: phrase('signal.loopSupply'),
        closed: phrase('signal.supply.on'),
        open: phrase('signal.supply.off'),
        unpowered: phrase('signal.supply.off'),
      };
  }
}

/** Order of exchange: the run command, what answers it, then the speed. */
const rank = ({ way, does }: Meaning): number =>
  way === 'supply' ? 0 : does.code === 'signal.run' ? 1 : does.code === 'signal.runs' ? 2 : 3;

/**
 * Signals between the panel and each outside controller: what they are, what open and closed mean, unpowered too, the
 * terminals at both ends, in the order in which they are exchanged.
 *
 * @returns nothing for a job without a plan or without a controller
 * @example signalList(job, profile).map((s) => s.does.code) // ['signal.run', 'signal.runs', 'signal.speed']
 */
export function signalList(job: Job, profile: Profile): Signal[] {
  const found = sortedEntries(job.adopted?.devices ?? {}).flatMap(([part, { kind }]) =>
    isOutside(kind)
      ? [{ part, ...meaningOf(job, profile, part, kind), ends: endsOf(job, part) }]
      : [],
  );
  // A supply that only a controller's own signals hang on belongs to it.
  if (found.every((s) => s.way === 'supply')) return [];
  const sorted = found.sort((x, y) => rank(x) - rank(y));
  const places = [...new Set(sorted.map(rank).filter((r) => r > 0))];
  return sorted.map((s) => ({ ...s, order: places.indexOf(rank(s)) + 1 }));
}

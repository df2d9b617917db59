import type { OperationId } from '../../scheme/index.js';
import { startBandOf, startOf } from '../../installation/index.js';
import { between, phrase, state, stateTimes } from '../context.js';
import type { LiveTests, RestsOn } from '../sequence/tests.js';
import { BUMP_SHARE } from '../tolerances.js';
import { fedStates } from '../sequence/watched.js';
import { behindStart, startArgs } from './bump.js';

type Args = Parameters<typeof phrase>[1];

/** A current limit holds within this; a peak that nothing limits by this below and above (IEC 60034-1: locked current +20 %). */
const LIMITED_SHARE = 0.1;
const FREE_SHARE = { below: 0.2, above: 0.25 } as const;
/** From this share of the limit on a peak is held by it. */
const AT_LIMIT = 0.99;
/** What the current may jump by when the bypass closes, in rated current. */
const BYPASS_STEP = 0.5;
/** Shorter than this nobody can time by hand, s. */
const LEAST_S = 1;

/**
 * A whole start of a device that feeds its motor with the voltage of the supply: the highest current, the time until the motor
 * has full voltage for good, the step of the current then. Nothing is asked of a device that changes the speed.
 */
export function startTests(t: LiveTests): void {
  const { c } = t;
  const facts = startOf(c.device);
  if (!facts || !t.s.directions.includes('forward')) return;
  const s = t.begin('start.full', 'speed', 1);
  const fromMs = s.nowMs;
  s.start();
  const begun = stateTimes(s.trace, fromMs).find((x) => fedStates.includes(x.state));
  const ran = stateTimes(s.trace, fromMs).find((x) => x.state === 'running');
  const args = { ...startArgs(c), ...s.speed.args };
  const restsOn: RestsOn = [...behindStart(c), 'motor'];
  if (begun) {
    const peak = s.most('device.amps', fromMs);
    const limited = facts.limitA !== null && peak >= AT_LIMIT * facts.limitA;
    const low = peak * (1 - (limited ? LIMITED_SHARE : FREE_SHARE.below));
    const high = peak * (1 + (limited ? LIMITED_SHARE : FREE_SHARE.above));
    t.ask(
      {
        key: 'start.peak',
        do: phrase('start.peak', { ...args, six: c.arrangement.insideDelta === true }),
        must: phrase('start.peak.must', { amps: peak }),
        instrument: 'clampPeak',
        expect: between(low, peak, high, 'A'),
        cautions: ['liveWork', 'category'],
      },
      restsOn,
    );
    const time = ran ? (ran.t - begun.t) / 1e6 : 0;
    if (time >= LEAST_S) askTime(t, time, args, restsOn);
    if (ran) askStep(t, facts.motorA, args, restsOn);
  }
  t.end();
  again(t);
}

/** How long the start takes: between what the lightest and the heaviest load of this plate would need. */
function askTime(t: LiveTests, time: number, args: Args, restsOn: RestsOn): void {
  const { c } = t;
  const unknown = c.device.facts.assumed.some((what) => what === 'load' || what === 'inertia');
  const band = startBandOf(c.device);
  const limitS = startOf(c.device)?.limitS ?? time;
  const lo = Math.min(band?.fromS ?? 0, time);
  const hi = Math.max(Math.min(band?.toS ?? limitS, limitS), time);
  t.ask(
    {
      key: 'start.time',
      do: phrase('start.time', args),
      ...(unknown
        ? { must: phrase('start.time.unknown'), expect: state('reachesFull') }
        : {
            must: phrase('start.time.must', { s: time, limitS }),
            instrument: 'stopwatch',
            expect: between(lo, time, hi, 's'),
          }),
      reads: 'state',
    },
    restsOn,
  );
}

/** What the current jumps by when the bypass closes: more than half of rated current says that it closes too early. */
function askStep(t: LiveTests, motorA: number, args: Args, restsOn: RestsOn): void {
  const most = BYPASS_STEP * motorA;
  t.ask(
    {
      key: 'start.step',
      do: phrase('start.step', args),
      must: phrase('start.step.must', { amps: most }),
      instrument: 'clampPeak',
      expect: between(0, most, most, 'A'),
      cautions: ['liveWork', 'category'],
    },
    restsOn,
  );
}

/** A start given while the device still waits between two starts. */
function again(t: LiveTests): void {
  const { c } = t;
  const { waitS } = c.device.facts;
  if (waitS <= 0) return;
  const s = t.begin('start.again', 'speed', 1);
  s.start();
  s.stop('forward', 500);
  const stoppedMs = s.nowMs - 500;
  s.start('forward', 1000);
  const waits = Math.abs(s.hz) === 0 || !s.fed;
  s.wait(1000 * waitS + s.travelMs);
  const begun = stateTimes(s.trace, stoppedMs + 500).find((x) => fedStates.includes(x.state));
  const is = begun ? 'startsByItself' : 'staysStopped';
  const args = { ...startArgs(c), ...s.speed.args, s: waitS, waits };
  t.ask(
    {
      key: 'start.again',
      do: phrase('start.again', args),
      must: phrase(`start.again.${is}`, args),
      expect: state(is),
      cautions: is === 'startsByItself' ? ['automaticRestart'] : [],
      sees: { kind: 'starts' },
    },
    behindStart(c),
  );
  t.end();
}

/** Sequence of the phases at the supply, where the direction of the motor hangs on it. */
export function rotationTest(t: LiveTests): void {
  const { c } = t;
  if (!t.s.has('amps') || c.device.mains.rotation.length !== 3) return;
  t.begin('supply.rotation', 'power');
  t.ask(
    {
      key: 'supply.rotation',
      do: phrase('supply.rotation'),
      must: phrase('supply.rotation.must'),
      instrument: 'rotationTester',
      expect: state('clockwise'),
      cautions: ['liveWork', 'category'],
      from: { kind: 'standard', name: 'IEC 60034-8: L1, L2, L3 at U, V, W turn clockwise' },
    },
    ['supply'],
  );
  t.end();
}

/** The contacts at the ends of a way: each opens its direction, and the other one leads away again. */
export function endTests(t: LiveTests): void {
  const { c } = t;
  const { arrangement: a } = c;
  for (const way of ['forward', 'reverse'] as const) {
    const end = a.ends[way];
    if (!end) continue;
    const s = t.begin(end, 'stops', BUMP_SHARE);
    s.start(way);
    const args = { ...startArgs(c, way), ...s.speed.args, device: tagOfEnd(t, end), way };
    s.give(end, s.travelMs + 1000).settle();
    t.ask(
      {
        key: `${end}.stops`,
        do: phrase('end.stops', args),
        must: phrase('turns.stopped', { machine: '' }),
        expect: state('stopped'),
        requirement: `${end}.stops`,
        seen: s.shaft.turns === 'rest' ? 'stopped' : s.shaft.turns,
        sees: { kind: 'turns' },
      },
      behindStart(c, way),
    );
    t.end();
  }
}

const tagOfEnd = ({ c }: LiveTests, end: OperationId): string =>
  c.job.adopted?.devices[c.arrangement.operations[end]?.device ?? '']?.tag ?? '';

import type { OperationId } from '../../scheme/index.js';
import { phrase, range, state, stateTimes } from '../context.js';
import type { LiveTests } from '../sequence/tests.js';
import { tolerances } from '../tolerances.js';
import { behindStart, startArgs } from './bump.js';

/** What a start at the voltage of the supply may miss its simulation by: plates, loads and supplies differ. */
const PEAK_SHARE = 0.15;
const TIME_SHARE = 0.25;
/** Shorter than this nobody can time by hand, s. */
const LEAST_S = 1;

/**
 * A whole start of a device that feeds its motor with the voltage of the supply: the highest current, the time until the motor
 * has full voltage for good, and the current then. Nothing is asked of a device that changes the speed.
 */
export function startTests(t: LiveTests): void {
  const { c } = t;
  if (!t.s.has('amps') || !t.s.directions.includes('forward')) return;
  const s = t.begin('start.full', 'speed', 1);
  const fromMs = s.nowMs;
  s.start();
  const begun = stateTimes(s.trace, fromMs).find((x) => fedStates.includes(x.state));
  const ran = stateTimes(s.trace, fromMs).find((x) => x.state === 'running');
  const args = { ...startArgs(c), ...s.speed.args };
  if (begun) {
    const peak = s.most('device.amps', fromMs);
    t.ask(
      {
        key: 'start.peak',
        do: phrase('start.peak', args),
        must: phrase('start.peak.must', { amps: peak }),
        instrument: 'clampPeak',
        expect: range(peak, peak * PEAK_SHARE, 'A'),
        cautions: ['liveWork', 'category'],
      },
      [...behindStart(c), 'motor'],
    );
    const time = ran ? (ran.t - begun.t) / 1e6 : 0;
    if (time >= LEAST_S) {
      const unknown = c.device.facts.assumed.some((what) => what === 'load' || what === 'inertia');
      t.ask(
        {
          key: 'start.time',
          do: phrase('start.time', args),
          ...(unknown
            ? { must: phrase('start.time.unknown'), expect: state('reachesFull') }
            : {
                must: phrase('seconds', { s: time }),
                instrument: 'stopwatch',
                expect: range(time, time * TIME_SHARE, 's'),
              }),
          reads: 'state',
        },
        [...behindStart(c), 'motor'],
      );
    }
  }
  t.end();
  again(t);
}

const fedStates: readonly string[] = ['kick', 'ramping', 'running'];

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
    const s = t.begin(end, 'stops', tolerances.bumpShare);
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

import { hasKeys } from '../../catalogue/index.js';
import type { OperationId } from '../../scheme/index.js';
import { operationOf, phrase, starterOf, state, tagOf } from '../context.js';
import type { LiveTests, RestsOn } from '../sequence/tests.js';
import { behindStart, bump, BUMP_SHARE, gathering, hzRange, startArgs, turning } from './bump.js';

/** Both directions given together where two hands can do it, and the release of one. */
function bothTogether(t: LiveTests): void {
  const { c } = t;
  const { arrangement: a } = c;
  const [forward, reverse] = [starterOf(c), starterOf(c, 'reverse')];
  if (a.givenBy === 'pulse' || !forward || !reverse || forward.device === reverse.device) return;
  const s = t.begin('direction.both', 'motions', BUMP_SHARE);
  s.start();
  s.give(a.starts.reverse, 2 * s.travelMs);
  const args = {
    forward: tagOf(c, forward.device),
    reverse: tagOf(c, reverse.device),
    ...s.speed.args,
  };
  const together = turning(t);
  t.ask(
    {
      key: 'direction.both',
      do: phrase('direction.both', args),
      must: phrase(`turns.${together}`, { machine: '' }),
      expect: state(together),
      sees: { kind: 'turns' },
      reads: 'state',
    },
    [forward, reverse],
  );
  if (s.fault !== null && hasKeys(c.profile))
    resetHeld(t, 'direction.both', [args.forward, args.reverse], [forward, reverse]);
  s.take(a.starts.forward, 2 * s.travelMs);
  const alone = turning(t);
  t.ask(
    {
      key: 'direction.one',
      do: phrase('direction.one', args),
      must: phrase(`turns.${alone}`, { machine: '' }),
      expect: state(alone),
      sees: { kind: 'turns' },
      cautions: together === 'stopped' && alone !== 'stopped' ? ['releasedToOne'] : [],
    },
    [forward, reverse],
  );
  t.end();
}

/**
 * The fault that the device shows, and its reset with everything still given: a reset starts nothing that is not asked anew.
 */
export function resetHeld(
  t: LiveTests,
  act: string,
  given: readonly string[],
  restsOn: RestsOn,
): void {
  const { c, s } = t;
  const fault = s.fault ?? '';
  s.key('reset', s.travelMs + 2000);
  const is = Math.abs(s.hz) > 0 ? 'startsByItself' : 'staysStopped';
  t.ask(
    {
      key: `${act}.reset`,
      do: phrase('fault.reset', {
        fault,
        code: c.profile.faults[fault]?.code ?? '',
        given: given.join(', '),
        back: s.fault !== null,
      }),
      must: phrase(`fault.reset.${is}`, { back: s.fault !== null }),
      expect: state(is),
      reads: 'state',
      sees: { kind: 'starts' },
      cautions: is === 'startsByItself' ? ['automaticRestart'] : [],
    },
    restsOn,
  );
}

/** The direction changed under way: by the selector, or by the other start. */
function reversal(t: LiveTests): void {
  const { c } = t;
  const { arrangement: a } = c;
  const { forward, reverse } = a.starts;
  const same =
    forward && reverse && a.operations[forward]?.device === a.operations[reverse]?.device;
  if (!forward || !reverse || (a.givenBy === 'level' && !a.direction && !same)) return;
  const s = t.begin('direction.change', 'motions', BUMP_SHARE);
  s.start();
  const other = operationOf(c, a.direction ?? reverse);
  if (!other) return;
  if (a.givenBy === 'pulse' && !a.direction) s.pulse(reverse, 2 * s.travelMs);
  else s.give(other.id as OperationId, 2 * s.travelMs);
  // A fault on the way is no answer that could be expected: what is wished is asked for.
  const is = s.fault === null ? turning(t) : 'reverse';
  t.ask(
    {
      key: 'direction.change',
      do: phrase('direction.change', {
        ...startArgs(c),
        other: tagOf(c, other.device),
        press: a.givenBy === 'pulse' && !a.direction,
        ...s.speed.args,
      }),
      must: phrase(`direction.change.${is}`),
      expect: state(is),
      sees: { kind: 'turns' },
    },
    [...behindStart(c), other, 'motor'],
  );
  t.end();
}

/** Jog by itself: which way, at which frequency, and only while it is held. */
function jogs(t: LiveTests): void {
  const { c } = t;
  for (const way of ['forward', 'reverse'] as const) {
    const jog = operationOf(c, c.arrangement.jogs[way]);
    if (!jog) continue;
    const s = t.begin(`jog.${way}`, 'motions', BUMP_SHARE);
    s.give(jog.id as OperationId, s.travelMs);
    const hz = Math.abs(s.hz);
    const args = { device: tagOf(c, jog.device), way, hz };
    t.ask(
      {
        key: `jog.${way}`,
        do: phrase('jog.run', args),
        must: phrase('jog.hz', args),
        expect: hzRange(c, hz),
        reads: 'hz',
        sees: { kind: 'hz' },
        requirement: `jog.${way}.turns`,
      },
      [jog, 'motor'],
    );
    s.take(jog.id as OperationId, s.travelMs);
    t.ask(
      {
        key: `jog.${way}.released`,
        do: phrase('jog.released', args),
        must: phrase('turns.stopped', { machine: '' }),
        expect: state('stopped'),
        requirement: `jog.${way}.onlyHeld`,
        seen: turning(t),
        sees: { kind: 'turns' },
      },
      [jog],
    );
    t.end();
  }
}

/** Jog given while a run goes on: what the device makes of it. */
function jogUnderWay(t: LiveTests): void {
  const { c } = t;
  const jog = operationOf(c, c.arrangement.jogs.forward);
  if (!jog || !t.s.directions.includes('forward')) return;
  const s = t.begin('jog.run', 'motions', BUMP_SHARE);
  s.start();
  const before = Math.abs(s.hz);
  s.give(jog.id as OperationId, s.travelMs);
  const hz = Math.abs(s.hz);
  const args = {
    ...startArgs(c),
    jog: tagOf(c, jog.device),
    same: Math.abs(hz - before) < 0.05,
    hz,
    ...s.speed.args,
  };
  t.ask(
    {
      key: 'jog.run',
      do: phrase('jog.underWay', args),
      must: phrase('jog.underWay.must', args),
      expect: hzRange(c, hz),
      reads: 'hz',
      sees: { kind: 'hz' },
    },
    [jog, ...behindStart(c)],
  );
  t.end();
}

/** A stop, or the emergency stop, while the machine is still running up to full speed. */
function whileAccelerating(t: LiveTests, by: 'stop' | 'estop'): void {
  const { c } = t;
  const { estop } = c.arrangement;
  const worked = operationOf(c, by === 'estop' ? estop : c.arrangement.stops[0]);
  if (!t.s.directions.includes('forward') || (by === 'estop' && !worked)) return;
  const s = t.begin(`${by}.accelerating`, 'motions', 1);
  s.start('forward', c.arrangement.warningMs + Math.min(c.device.facts.travelMs / 3, 3000) + 500);
  if (!gathering.includes(s.state)) return t.end();
  const args = {
    ...startArgs(c),
    device: worked ? tagOf(c, worked.device) : '',
    ...s.speed.args,
  };
  if (by === 'estop') s.give(estop, s.travelMs + 3000);
  else s.stop();
  s.settle();
  t.ask(
    {
      key: `${by}.accelerating`,
      do: phrase(`${by}.accelerating`, args),
      must: phrase('turns.stopped', { machine: '' }),
      expect: state('stopped'),
      sees: { kind: 'turns' },
      ...(by === 'estop' ? { requirement: 'estop.stops', seen: turning(t) } : {}),
    },
    [...behindStart(c), ...(worked ? [worked] : [])],
  );
  t.end();
}

/** Second direction, reversal, both together, jog, and the stop under way to full speed. */
export function motionTests(t: LiveTests): void {
  if (t.s.directions.includes('reverse')) bump(t, 'reverse');
  bothTogether(t);
  reversal(t);
  jogs(t);
  jogUnderWay(t);
  whileAccelerating(t, 'stop');
  whileAccelerating(t, 'estop');
}

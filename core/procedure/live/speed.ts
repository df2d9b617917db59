import { plateNumbers } from '../../line/index.js';
import { shaftSpeed } from '../../motor/index.js';
import { chosenApart, type OperationId } from '../../scheme/index.js';
import {
  isAtRest,
  operationOf,
  phrase,
  range,
  state,
  stateTimes,
  tagOf,
  tagsOf,
} from '../context.js';
import type { LiveTests } from '../sequence/tests.js';
import { placeTolerance, rampTolerance, restTolerance } from '../tolerances.js';
import { inTime, timed } from './rest-time.js';
import { behindStart, BUMP_SHARE, hzRange, startArgs } from './bump.js';
import { startTests } from './starts.js';
import { DIAL_PCT } from './inputs.js';

/** Shorter than this nobody can time by hand, s. */
const LEAST_TIMED_S = 1;

/** Least share of the plate's current that a motor draws unloaded: below it a lead is missing. */
const LEAST_AMPS_SHARE = 0.15;

/** The dial under way at five places: the frequency it gives; and what can be measured at full speed. */
function references(t: LiveTests): void {
  const { c } = t;
  const { dial } = c.arrangement;
  if (!t.s.directions.includes('forward')) return;
  const s = t.begin('speed', 'speed', dial ? 0 : 1);
  s.start();
  if (dial)
    for (const pct of DIAL_PCT) {
      s.speed.set(pct / 100).s.wait(s.travelMs);
      const hz = Math.abs(s.hz);
      const args = {
        ...startArgs(c),
        ...s.speed.args,
        device: dial === c.device.id ? `the dial of ${tagOf(c, dial)}` : tagOf(c, dial),
        first: pct === 0,
      };
      t.ask(
        {
          key: `dial.${pct}.hz`,
          do: phrase('dial.hz', args),
          must: phrase('hz', { hz }),
          expect: hzRange(c, hz, c.maxHz * placeTolerance(c, pct)),
          reads: 'hz',
          sees: { kind: 'hz' },
          ...requirementAt(c, pct),
        },
        ['dial'],
      );
    }
  atFullSpeed(t);
  t.end();
}

/** Required function that a place of the dial shows, where the job has it. */
function requirementAt({ required }: LiveTests['c'], pct: number): { requirement?: string } {
  const id = { 0: 'speed.lowest', 75: 'speed.rises', 100: 'speed.highest' }[pct] ?? '';
  return required.has(id) ? { requirement: id } : {};
}

/** Speed of the shaft and the currents of the motor's leads, while it runs as fast as it may. */
function atFullSpeed(t: LiveTests): void {
  const { c, s } = t;
  const { job, installation } = c;
  const { hz: ratedHz, rpm } = plateNumbers(job.plate);
  const { polePairs } = installation.shaft;
  const args = { ...startArgs(c), ...s.speed.args, first: c.arrangement.dial === undefined };
  const amps = plateAmps(c);
  if (amps !== undefined)
    t.ask(
      {
        key: 'current.full',
        do: phrase('current.full', { ...args, six: c.arrangement.insideDelta === true }),
        must: phrase('current.atMost', { amps }),
        instrument: 'clamp',
        expect: {
          kind: 'range',
          lo: Math.round(amps * LEAST_AMPS_SHARE * 100) / 100,
          hi: amps,
          nominal: amps,
          unit: 'A',
        },
        fields: c.arrangement.insideDelta ? ['L1', 'L2', 'L3'] : ['U', 'V', 'W'],
        unbalancePct: c.within.currentUnbalancePct,
        cautions: ['liveWork', 'category'],
        from: { kind: 'standard', name: 'plate of the motor' },
      },
      [],
    );
  if (!ratedHz || !rpm || polePairs === undefined) return;
  const torque = job.plate.load.torquePct ?? 0;
  const { shaftRpm, slipRpm } = shaftSpeed.run({
    hz: Math.abs(s.hz),
    poles: 2 * polePairs,
    ratedHz,
    ratedRpm: rpm,
    loadTorquePct: torque,
  });
  t.ask(
    {
      key: 'speed.full',
      do: phrase('speed.measure', { ...args, first: args.first && amps === undefined }),
      must: phrase('rpm', { rpm: shaftRpm, torque }),
      instrument: 'tachometer',
      expect: range(shaftRpm, Math.max(slipRpm, shaftRpm * c.within.rpmShare), 'rpm'),
    },
    [],
  );
}

/** Current of the motor's plate for the link it has; undefined where it is not entered. */
function plateAmps({ job, profile }: LiveTests['c']): number | undefined {
  const amps = plateNumbers(job.plate, profile).rated?.amps;
  return amps === undefined ? undefined : Math.round(amps * 100) / 100;
}

/** Every preset with the selector turned under way. */
function presets(t: LiveTests): void {
  const { c } = t;
  const { arrangement: a } = c;
  if (a.presets.length === 0 || !t.s.directions.includes('forward')) return;
  const apart = chosenApart(a);
  const s = t.begin('presets', 'speed', 0);
  s.start();
  a.presets.forEach((id, i) => {
    const preset = operationOf(c, id);
    if (!preset) return;
    if (i > 0 || !isAtRest(c, id)) s.speed.choose(id, s.travelMs);
    const hz = Math.abs(s.hz);
    const args = {
      ...startArgs(c),
      device: tagOf(c, preset.device),
      preset: preset.position ?? '',
      opens: apart ? tagsOf(c, a.presets.slice(Math.max(0, i - 1), i)).join('') : '',
      first: i === 0,
      hz,
    };
    const requirement = `preset.${i + 1}.speed`;
    t.ask(
      {
        key: `preset.${i + 1}`,
        do: phrase('preset.run', args),
        must: phrase('hz', args),
        expect: hzRange(c, hz),
        reads: 'hz',
        sees: { kind: 'hz' },
        ...(c.required.has(requirement) ? { requirement } : {}),
      },
      [preset, ...behindStart(c)],
    );
  });
  if (apart) together(t, a.presets);
  t.end();
}

/** Presets that have a switch each, all of them closed. */
function together(t: LiveTests, presets: readonly OperationId[]): void {
  const { c, s } = t;
  for (const id of presets) if (!s.isGiven(id)) s.give(id, s.travelMs);
  const hz = Math.abs(s.hz);
  t.ask(
    {
      key: 'preset.together',
      do: phrase('preset.together', { devices: tagsOf(c, presets).join(', ') }),
      must: phrase('hz', { hz }),
      expect: hzRange(c, hz),
      reads: 'hz',
      sees: { kind: 'hz' },
      requirement: 'preset.together',
    },
    [...presets.flatMap((id) => operationOf(c, id) ?? []), ...behindStart(c)],
  );
}

/** A switch that only chooses the jog speed: alone, then with a run given. */
function jogSelected(t: LiveTests): void {
  const { c } = t;
  const jog = operationOf(c, 'jogReferenceSelect');
  if (!jog || !t.s.directions.includes('forward')) return;
  const s = t.begin('jogSelect', 'speed', BUMP_SHARE);
  s.give('jogReferenceSelect', 2000);
  const args = { ...startArgs(c), device: tagOf(c, jog.device), ...s.speed.args };
  t.ask(
    {
      key: 'jogSelect.alone',
      do: phrase('jogSelect.alone', args),
      must: phrase('turns.stopped', { machine: '' }),
      expect: state('staysStopped'),
      requirement: 'jogSelect.startsNothing',
      seen: Math.abs(s.hz) > 0 ? 'startsByItself' : 'staysStopped',
      sees: { kind: 'starts' },
    },
    [jog],
  );
  s.start();
  const hz = Math.abs(s.hz);
  t.ask(
    {
      key: 'jogSelect.run',
      do: phrase('jogSelect.run', args),
      must: phrase('hz', { hz }),
      expect: hzRange(c, hz),
      reads: 'hz',
      sees: { kind: 'hz' },
      requirement: 'jogSelect.speed',
    },
    [jog, ...behindStart(c)],
  );
  t.end();
}

/** Ramps up and down, or the time in which the free shaft runs down; with the second ramps chosen, those. */
function ramps(t: LiveTests, second: boolean): void {
  const { c } = t;
  const suffix = second ? '.2' : '';
  const select = second ? operationOf(c, 'rampSelect') : undefined;
  if (!t.s.directions.includes('forward') || (second && !select)) return;
  const s = t.begin(`ramps${suffix}`, 'speed', 1);
  if (select) s.give('rampSelect', 500);
  const startedMs = s.nowMs;
  s.start();
  if (!s.has('amps')) s.until('atSpeed');
  const up = stateTimes(s.trace, startedMs);
  const began = up.find((x) => x.state === 'accelerating');
  const reached = up.find((x) => x.state === 'atSpeed');
  const hz = Math.abs(s.hz);
  const args = {
    ...startArgs(c),
    hz,
    select: select ? tagOf(c, select.device) : '',
    ...s.speed.args,
  };
  const functions = select ? [select] : [];
  // Where a button raises it, the rise is as long as somebody holds it.
  if (began && reached && c.job.scheme.speed !== 'upDown') {
    const time = (reached.t - began.t) / 1e6;
    t.ask(
      {
        key: `ramp.up${suffix}`,
        do: phrase('ramp.up', args),
        must: phrase('seconds', { s: time }),
        instrument: 'stopwatch',
        expect: range(time, rampTolerance(c, time), 's'),
      },
      functions,
    );
  }
  const stoppedMs = s.nowMs;
  if (s.has('amps')) {
    timeToRest(t, args, stoppedMs);
    return t.end();
  }
  const runsUnknown = (): boolean => s.saw('shaft.state', 'runsDownUnknown', stoppedMs);
  s.stop().until('ready');
  const down = stateTimes(s.trace, stoppedMs);
  const slowing = down.find((x) => x.state === 'decelerating' || x.state === 'coasting');
  const stopped = down.find((x) => slowing && x.t > slowing.t && x.state === 'ready');
  if (slowing && stopped) {
    const time = (stopped.t - slowing.t) / 1e6;
    const coasts = slowing.state === 'coasting';
    const known = !coasts || !runsUnknown();
    const tolerance = coasts ? time * c.within.restShare : rampTolerance(c, time);
    t.ask(
      {
        key: `ramp.down${suffix}`,
        do: phrase(coasts ? 'coast.down' : 'ramp.down', args),
        ...((second
          ? undefined
          : inTime(c, 'stop.1.inTime', known ? time : undefined, tolerance)) ??
          (known
            ? timed(time, tolerance)
            : { must: phrase('coast.unknown'), expect: state('comesToRest') })),
      },
      functions,
    );
  } else if (s.fault === 'overvoltage') wishedStop(t, args, second);
  t.end();
}

/** A stop that the DC link does not bear is asked for as it is wished: it cannot be passed while the ramp is as it is. */
function wishedStop(
  t: LiveTests,
  args: ReturnType<typeof startArgs> & { readonly hz: number },
  second: boolean,
): void {
  const { decelS, decel2S, maxHz } = t.c.job.scheme;
  const wished = second ? (decel2S ?? decelS) : decelS;
  if (wished === undefined) return;
  const time = (wished * args.hz) / (maxHz ?? args.hz);
  t.ask(
    {
      key: `ramp.down${second ? '.2' : ''}`,
      do: phrase('ramp.down', args),
      ...timed(time, rampTolerance(t.c, time)),
    },
    [],
  );
}

/** The stop of a device that feeds its motor with the voltage of the supply: how long until the shaft stands. */
function timeToRest(t: LiveTests, args: ReturnType<typeof startArgs>, stoppedMs: number): void {
  const { c, s } = t;
  s.stop().settle();
  const restMs = s.restSince(stoppedMs);
  if (restMs === undefined) return;
  const known = !s.saw('shaft.state', 'runsDownUnknown', stoppedMs);
  const time = (restMs - stoppedMs) / 1000;
  const tolerance = restTolerance(c, time);
  if (time < LEAST_TIMED_S && !c.required.has('stop.1.inTime')) return;
  t.ask(
    {
      key: 'ramp.down',
      do: phrase('coast.down', args),
      ...(inTime(c, 'stop.1.inTime', known ? time : undefined, tolerance) ??
        (known
          ? timed(time, tolerance)
          : { must: phrase('coast.unknown'), expect: state('comesToRest') })),
    },
    [],
  );
}

/** Speed points, currents, presets and ramps, up to the highest. */
export function speedTests(t: LiveTests): void {
  startTests(t);
  references(t);
  presets(t);
  jogSelected(t);
  ramps(t, false);
  ramps(t, true);
}

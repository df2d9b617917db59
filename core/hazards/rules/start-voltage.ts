import { insideFailures } from '../../catalogue/index.js';
import { startOf } from '../../installation/index.js';
import { classTime, imageTripTime, shaftRpm } from '../../motor/index.js';
import { startsAllowed, type StartFacts } from '../../starter/index.js';
import type { Finding } from '../../job/index.js';
import { atPart, tagOf, tagOfOperation, type HazardContext, type HazardRule } from '../rule.js';

/** Excess of torque below which a start may stall: the model leaves out harmonics, which take a few per cent of torque. */
const SLIGHT_PCT = 10;
/** Time under voltage without moving that somebody hears, s. */
const HUMS_S = 1;

/** How many times a start an overload of its own must bear from warm, so that it need not be spoken of. */
const NEAR = 3;

/** A motor breaker ahead has an overload of its own, of class 10 unless its maker says otherwise, beside that of the device. */
function overloadTwice(
  { job }: HazardContext,
  { rmsA, motorA, startS }: StartFacts,
): { readonly trips: boolean; readonly args: Finding['args'] } | undefined {
  if (job.plate.line?.protection?.kind !== 'motorBreaker' || startS === null) return undefined;
  const at = (heat: number): number | null => imageTripTime(rmsA / motorA, classTime('10'), heat);
  const [coldS, hotS] = [at(0), at(1)];
  // A start that is over long before is none of its business.
  if (hotS === null || hotS > NEAR * startS) return undefined;
  return {
    trips: coldS !== null && coldS <= startS,
    args: {
      rmsA,
      startS,
      coldS: coldS ?? 0,
      hotS: hotS ?? 0,
      hot: hotS !== null && hotS <= startS,
    },
  };
}

/**
 * What the motor does with the bypass welded, or with all poles shorted where there is none: how fast it turns after its stop,
 * and whether already when the power comes.
 */
function runsWelded(c: HazardContext): Finding['args'] | undefined {
  const { trials, device, arrangement } = c;
  const inside = insideFailures(c.profile);
  if (!trials.has('ramps') || inside.length === 0) return undefined;
  const bypass = inside.includes('bypassWelded');
  const one = (what: 'bypassWelded' | 'poleShorted') =>
    ({ kind: 'part', device: device.id, what }) as const;
  // Without a bypass it is the poles themselves that may all conduct.
  const faults = bypass ? [one('bypassWelded')] : Array(3).fill(one('poleShorted'));
  const run = trials.faulty('ramps', faults);
  if (!run.runs('stop')) return undefined;
  const rpm = shaftRpm(c.installation.shaft, 'driven', Math.abs(run.hz('stop')));
  const estop = trials.has('estop') ? trials.faulty('estop', faults) : undefined;
  const stops = estop !== undefined && !estop.runs('opens');
  return {
    stop: tagOfOperation(c, arrangement.stops[0] ?? arrangement.starts.forward),
    rpm: Math.round(rpm ?? 0),
    byPower: run.runs('ready'),
    poles: !bypass,
    estop: stops ? tagOfOperation(c, arrangement.estop) : '',
  };
}

/** A start at the voltage of the supply that does not come to speed, takes too long, or is too much for the motor. */
export const startVoltage: HazardRule = {
  finds: {
    'start.hums': 'moves',
    'start.stalls': 'moves',
    'start.mayStall': 'moves',
    'start.direct': 'moves',
    'overload.twice': 'moves',
    'start.trips': 'moves',
    'start.hotTrips': 'moves',
    'start.tooLong': 'moves',
    'start.tooOften': 'moves',
    'start.plugs': 'moves',
    'starter.nothingAhead': 'protects',
    'starter.weldedRunsOn': 'protects',
  },
  stage: 'scheme',
  look(c, find) {
    const start = startOf(c.device);
    if (!start) return [];
    const where = atPart(c.device.id);
    const device = tagOf(c, c.device.id);
    const source = 'run-up of this motor and load under the settings planned';
    const findings: Finding[] = [];
    const say = (
      rule: string,
      severity: Finding['severity'],
      args: Finding['args'],
      from = source,
    ): void =>
      void findings.push(find(rule, { severity, where, args: { device, ...args }, source: from }));
    const { breakNm, beginNm, humsS, startS } = start;
    if (humsS === null) say('start.hums', 'stop', { beginNm, breakNm });
    else if (start.stalls)
      say('start.stalls', 'stop', {
        rpm: start.stallRpm,
        motorNm: start.stallNm,
        loadNm: start.loadNm,
      });
    else {
      if (humsS > HUMS_S) say('start.hums', 'warn', { beginNm, breakNm, s: humsS });
      if (start.heavier.stalls || start.marginPct < SLIGHT_PCT)
        say('start.mayStall', 'warn', {
          pct: Math.min(start.marginPct, 1000),
          heavier: start.heavier.stalls,
        });
      if (start.coldTripS !== null && startS !== null)
        say('start.trips', 'stop', { s: start.coldTripS, startS });
      else if (start.hotTripS !== null && startS !== null)
        say('start.hotTrips', 'warn', { s: start.hotTripS, startS });
      if (startS !== null && startS > start.limitS)
        say('start.tooLong', 'stop', { startS, limitS: start.limitS });
    }
    const perHour = startsAllowed(start, c.profile.duty);
    const asked = c.job.plate.load.stopsPerHour;
    if (asked !== undefined && perHour !== undefined && asked > perHour.perHour)
      say(
        'start.tooOften',
        'stop',
        {
          asked,
          perHour: perHour.perHour,
          motorPerHour: perHour.motorPerHour,
          starterPerHour: perHour.starterPerHour,
        },
        'IEC 60947-4-2 duty; thermal image of the motor',
      );
    const twice = overloadTwice(c, start);
    if (twice) say('overload.twice', twice.trips ? 'stop' : 'advise', twice.args);
    if (start.direct) say('start.direct', 'warn', { peakA: start.peakA });
    if (start.plugs) say('start.plugs', 'stop', {});
    const welded = runsWelded(c);
    if (welded && c.exposed !== 'nobody')
      say(
        c.arrangement.contactor === undefined ? 'starter.nothingAhead' : 'starter.weldedRunsOn',
        c.arrangement.contactor === undefined ? 'stop' : 'advise',
        welded,
        'a stopped soft starter is no disconnection: IEC 60947-4-2:2020',
      );
    return findings;
  },
};

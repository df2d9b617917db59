import { insideFailures } from '../../catalogue/index.js';
import { startOf } from '../../installation/index.js';
import { REST_FACTOR, shaftRpm, startsPerHour } from '../../motor/index.js';
import type { StartFacts } from '../../starter/index.js';
import type { Finding } from '../../job/index.js';
import { atPart, tagOf, tagOfOperation, type HazardContext, type HazardRule } from '../rule.js';

/** Excess of torque below which a start may stall: the model leaves out harmonics, which take a few per cent of torque. */
const SLIGHT_PCT = 10;
/** Time under voltage without moving that somebody hears, s. */
const HUMS_S = 1;

/** Starts an hour that motor and device bear; undefined where the start is never over. */
function startsAllowed(
  { profile }: HazardContext,
  { startS, rmsA, runA, motorA, deviceA, tripClass, peakA }: StartFacts,
): { perHour: number; motorPerHour: number; starterPerHour: number } | undefined {
  if (startS === null || startS <= 0) return undefined;
  const { duty } = profile;
  const run = { startS, rmsA, runA, ratedA: motorA, peakA };
  const index = duty && { ...duty, ratedA: deviceA };
  const { motorPerHour, starterPerHour, perHour } = startsPerHour.run({
    run,
    tripClass,
    restFactor: REST_FACTOR,
    ...(index ? { duty: index as never } : {}),
  });
  return { perHour, motorPerHour, starterPerHour: starterPerHour ?? perHour };
}

/** What the motor does with the bypass welded: how fast it turns after its stop, and whether already when the power comes. */
function runsWelded(c: HazardContext): Finding['args'] | undefined {
  const { trials, device, arrangement } = c;
  if (!trials.has('ramps') || !insideFailures(c.profile).includes('bypassWelded')) return undefined;
  const fault = { kind: 'part', device: device.id, what: 'bypassWelded' } as const;
  const run = trials.faulty('ramps', fault);
  if (!run.runs('stop')) return undefined;
  const rpm = shaftRpm(c.installation.shaft, 'driven', Math.abs(run.hz('stop')));
  const estop = trials.has('estop') ? trials.faulty('estop', fault) : undefined;
  const stops = estop !== undefined && !estop.runs('opens');
  return {
    stop: tagOfOperation(c, arrangement.stops[0] ?? arrangement.starts.forward),
    rpm: Math.round(rpm ?? 0),
    byPower: run.runs('ready'),
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
    const perHour = startsAllowed(c, start);
    const asked = c.job.plate.load.stopsPerHour;
    if (asked !== undefined && perHour !== undefined && asked > perHour.perHour)
      say(
        'start.tooOften',
        'stop',
        { asked, ...perHour },
        'IEC 60947-4-2 duty; thermal image of the motor',
      );
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

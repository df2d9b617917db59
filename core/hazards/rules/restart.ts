import { installWithKeypad } from '../../installation/index.js';
import type { Act } from '../../job/index.js';
import { stateAt } from '../../rehearsal/index.js';
import {
  actsOf,
  give,
  powerOnActs,
  powerUp,
  READY_MS,
  startActs,
  take,
} from '../../scheme/index.js';
import {
  deviceOf,
  firstThat,
  make,
  runs,
  tagOf,
  tagOfOperation,
  travelMs,
  type HazardContext,
  type Rule,
} from './context.js';

const DARK_MS = 60_000;

/** Power up and start forward, both with time to come to speed. @returns acts, and when it runs at speed */
function started(c: HazardContext): { acts: Act[]; at: number } {
  const { arrangement } = c;
  return {
    acts: actsOf(...powerUp(arrangement, 1), ...startActs(arrangement, 'forward', READY_MS)),
    at: READY_MS + arrangement.warningMs + travelMs(c.drive),
  };
}

/** A motor that starts by itself when the supply comes back; and a wish for it that this circuit cannot meet. */
export const restartWhenPowerReturns: Rule = (c) => {
  const { job, arrangement, drive, exposed } = c;
  const start = arrangement.starts.forward;
  if (!start) return [];
  const { acts, at } = started(c);
  const on = at + DARK_MS;
  const end = on + 5000 + arrangement.warningMs + travelMs(drive);
  const found = firstThat(
    c,
    [...acts, { do: 'supplyOff', atMs: at }, { do: 'supplyOn', atMs: on }],
    end,
    (trace) => runs(trace, end - 200),
  );
  const stated = job.scheme.powerReturn === 'restart';
  const device = arrangement.operations[start].device;
  if (!found) {
    const args = {
      pulse: arrangement.givenBy === 'pulse' || arrangement.power !== undefined,
      device: tagOfOperation(c, arrangement.power?.on ?? start),
    };
    return stated
      ? [
          make(
            'restart.notPossible',
            '',
            'warn',
            deviceOf(device),
            args,
            'rehearsal of this wiring and these settings',
            drive.control.onPowerReturn,
          ),
        ]
      : [];
  }
  const severity =
    exposed === 'nobody' && stated
      ? 'advise'
      : exposed === 'behindGuard' && stated
        ? 'warn'
        : 'stop';
  const args = {
    stated,
    exposed,
    device: tagOf(job, device),
    afterS: (drive.control.powerUpDelayMs + arrangement.warningMs) / 1000,
  };
  const proof = { script: 'power.return', atUs: on * 1000 } as const;
  const warning =
    stated && exposed !== 'nobody' && arrangement.warningMs === 0
      ? [
          make(
            'restart.noWarning',
            '',
            'warn',
            deviceOf(device),
            { device: tagOf(job, device) },
            'IEC 60204-1 §9.2.3.2',
          ),
        ]
      : [];
  return [
    make(
      'restart.powerReturn',
      '',
      severity,
      deviceOf(device),
      args,
      'IEC 60204-1 §7.5; NFPA 79 §7.5',
      drive.control.onPowerReturn,
      proof,
    ),
    ...warning,
  ];
};

/** A latch beside the drive that stays in when only the drive's supply goes: the drive sees a held level when it returns. */
export const latchOutlivesPower: Rule = (c) => {
  const { arrangement, exposed, job } = c;
  if (arrangement.givenBy !== 'pulse' || !arrangement.starts.forward) return [];
  const { acts, at } = started(c);
  const on = at + DARK_MS;
  const end = on + 5000 + travelMs(c.drive);
  const cut: Act[] = [
    { do: 'turn', atMs: at, device: 'breaker', position: 'off' },
    { do: 'turn', atMs: on, device: 'breaker', position: 'on' },
  ];
  if (!firstThat(c, [...acts, ...cut], end, (trace) => runs(trace, end - 200))) return [];
  const args = { breaker: tagOf(job, 'breaker'), relay: tagOf(job, 'relay.sealIn') };
  return [
    make(
      'latch.outlivesPower',
      '',
      exposed === 'nobody' ? 'warn' : 'stop',
      deviceOf('relay.sealIn'),
      args,
      'IEC 60204-1 §7.5',
      [],
      { script: 'breaker.return', atUs: on * 1000 },
    ),
  ];
};

/** A start that is still held when the stop circuit closes again starts the motor: letting go of a stop is then a start. */
export const stopReleaseStarts: Rule = (c) => {
  const { arrangement, drive, exposed } = c;
  const start = arrangement.starts.forward;
  if (arrangement.givenBy !== 'pulse' || !start) return [];
  const pressed = READY_MS + travelMs(drive);
  const released = pressed + travelMs(drive);
  const end = released + travelMs(drive) + arrangement.warningMs;
  return arrangement.stops.slice(0, 1).flatMap((stop) => {
    const acts = actsOf(
      ...powerUp(arrangement, 1),
      give(arrangement, start, READY_MS),
      give(arrangement, stop, pressed),
      take(arrangement, stop, released),
    );
    const found = firstThat(
      c,
      acts,
      end,
      (trace) => !runs(trace, released - 100) && runs(trace, end - 100),
    );
    if (!found) return [];
    const args = {
      start: tagOfOperation(c, start),
      stop: tagOfOperation(c, stop),
      chained: arrangement.chained,
      relay: c.job.scheme.startStop === 'sealInRelay',
    };
    const basis = [drive.control.startEdgeWithStopReturn, drive.control.onStartHeld];
    return [
      make(
        'stop.releaseStarts',
        '',
        exposed === 'atMachine' ? 'stop' : 'warn',
        deviceOf(arrangement.operations[stop].device),
        args,
        'IEC 60204-1 §9.2.3.2; ISO 13850 for an emergency stop',
        basis,
        { script: 'stop.release', atUs: released * 1000 },
      ),
    ];
  });
};

/** A condition or an emergency stop that closes again with the run still given starts the motor. */
export const conditionReturnStarts: Rule = (c) => {
  const { arrangement, drive, exposed, job } = c;
  if (!arrangement.starts.forward) return [];
  const { acts, at } = started(c);
  const back = at + Math.max(travelMs(drive), 5000);
  const end = back + 3000 + arrangement.warningMs + travelMs(drive);
  const opens = [...(arrangement.estop ? [arrangement.estop] : []), ...arrangement.interlocks];
  return opens.flatMap((operation) => {
    const again =
      operation === arrangement.estop && arrangement.contactor
        ? powerOnActs(arrangement, back + 1000)
        : [];
    const script = actsOf(
      ...acts,
      give(arrangement, operation, at),
      take(arrangement, operation, back),
      ...again,
    );
    if (!firstThat(c, script, end, (trace) => !runs(trace, back - 100) && runs(trace, end - 200)))
      return [];
    const estop = operation === arrangement.estop;
    const automatic = job.scheme.powerReturn === 'restart' && exposed !== 'atMachine' && !estop;
    const args = {
      device: tagOfOperation(c, operation),
      estop,
      run: tagOfOperation(c, arrangement.starts.forward),
      reset: again.length > 0,
    };
    return [
      make(
        'condition.returnStarts',
        operation,
        automatic ? 'advise' : exposed === 'nobody' ? 'warn' : 'stop',
        deviceOf(arrangement.operations[operation].device),
        args,
        estop ? 'ISO 13850 §4.1.4: resetting must not start' : 'IEC 60204-1 §9.2.3.2',
        [],
        { script: 'condition.return', atUs: back * 1000 },
      ),
    ];
  });
};

/** The key turned back to remote with the run contact closed starts the motor; the station's stop ignored under the keypad. */
export const placeChangeHazards: Rule = (c) => {
  const { arrangement, drive, exposed } = c;
  const local = arrangement.operations['local'] && 'local';
  const start = arrangement.starts.forward;
  if (!local || !start) return [];
  const findings = [];
  const t = READY_MS;
  const end = t + 4000 + travelMs(drive);
  const takeover = actsOf(
    ...powerUp(arrangement, 1),
    give(arrangement, local, t),
    give(arrangement, start, t + 1000),
    take(arrangement, local, t + 2000),
  );
  if (firstThat(c, takeover, end, (trace) => !runs(trace, t + 1900) && runs(trace, end - 100)))
    findings.push(
      make(
        'place.takeoverStarts',
        '',
        exposed === 'nobody' ? 'warn' : 'stop',
        deviceOf('select.local'),
        { key: tagOfOperation(c, local), run: tagOfOperation(c, start) },
        'IEC 60204-1 §9.2.3.3',
        drive.control.onTakeover,
        { script: 'takeover', atUs: (t + 2000) * 1000 },
      ),
    );
  const [stop] = arrangement.stops;
  if (stop) {
    const key = (down: boolean, atMs: number): Act => ({ do: 'key', atMs, key: 'start', down });
    const acts = actsOf(
      ...powerUp(arrangement, 1),
      give(arrangement, local, t),
      key(true, t + 500),
      key(false, t + 800),
      give(arrangement, stop, t + 4000),
    );
    const byKeypad = {
      ...c,
      variants: c.variants.map((v) => ({
        ...v,
        installation: installWithKeypad(c.job, c.profile, 0.5, v.policies),
      })),
    };
    if (
      firstThat(
        byKeypad,
        acts,
        end + 20_000,
        (trace) => runs(trace, t + 3900) && runs(trace, end + 19_900),
      )
    )
      findings.push(
        make(
          'place.stopIgnored',
          '',
          exposed === 'nobody' ? 'warn' : 'stop',
          deviceOf(arrangement.operations[stop].device),
          { stop: tagOfOperation(c, stop), key: tagOfOperation(c, local) },
          'IEC 60204-1 §9.2.3.3: a stop acts from every place',
          drive.control.terminalStopUnderKeypad,
        ),
      );
  }
  return findings;
};

/** An emergency stop that cuts the supply of a running drive: a fault each time, and a motor driven until the link is empty. */
export const emergencyStopBehaviour: Rule = (c) => {
  const { arrangement, job } = c;
  const { estop } = arrangement;
  if (!estop || !arrangement.starts.forward) return [];
  const where = deviceOf('estop');
  const findings = [];
  const { acts, at } = started(c);
  const found = firstThat(
    c,
    [...acts, ...actsOf(give(arrangement, estop, at))],
    at + 5000,
    (trace) =>
      [20, 50, 100, 200, 400, 800, 1500].some(
        (ms) => stateAt(trace, 'drive.state', (at + ms) * 1000) === 'faulted',
      ),
  );
  if (found)
    findings.push(
      make(
        'estop.undervoltage',
        '',
        'warn',
        where,
        { device: tagOf(job, 'estop'), contactor: tagOf(job, arrangement.contactor) },
        'rehearsal of this wiring',
        [],
        { script: 'estop', atUs: at * 1000 },
      ),
    );
  const kind = job.scheme.estop;
  if (kind === 'outputInhibit')
    findings.push(
      make(
        'estop.ordinaryInput',
        '',
        'stop',
        where,
        { device: tagOf(job, 'estop') },
        'ISO 13849-1; IEC 61800-5-2',
      ),
    );
  if (kind === 'safeTorqueOffOneContact')
    findings.push(
      make(
        'estop.oneChannel',
        '',
        'warn',
        where,
        { device: tagOf(job, 'estop') },
        'IEC 61800-5-2; ISO 13849-1 category',
      ),
    );
  const heavy = job.plate.load.overhauls === true;
  if (arrangement.usesEnables && heavy)
    findings.push(
      make(
        'estop.overhauls',
        '',
        'warn',
        where,
        { brake: job.scheme.brakeRelease === true },
        'IEC 61800-5-2 §4.2.2.2: torque off does not hold a load',
      ),
    );
  return findings;
};

/** A fault reset with the run still given starts the motor: the person at the keypad starts the machine. */
export const resetStarts: Rule = (c) => {
  const { arrangement, drive, exposed } = c;
  const start = arrangement.starts.forward;
  if (!start) return [];
  const { acts, at } = started(c);
  // A dip long enough for the fault and too short for the display to go dark.
  const reset = at + 6000;
  const end = reset + 2000 + arrangement.warningMs + travelMs(drive);
  const key = (down: boolean, atMs: number): Act => ({ do: 'key', atMs, key: 'reset', down });
  const dips = [150, 300, 600].map((ms): Act[] => [
    { do: 'supplyOff', atMs: at },
    { do: 'supplyOn', atMs: at + ms },
  ]);
  const shows = dips.some((dip) =>
    firstThat(
      c,
      [...acts, ...dip, key(true, reset), key(false, reset + 200)],
      end,
      (trace) =>
        stateAt(trace, 'drive.state', (reset - 100) * 1000) === 'faulted' && runs(trace, end - 200),
    ),
  );
  if (!shows) return [];
  const args = { run: tagOfOperation(c, start) };
  return [
    make(
      'reset.starts',
      '',
      exposed === 'nobody' ? 'advise' : 'warn',
      deviceOf(arrangement.operations[start].device),
      args,
      'IEC 60204-1 §9.2.3.2',
      drive.control.onFaultReset,
      { script: 'fault.reset', atUs: reset * 1000 },
    ),
  ];
};

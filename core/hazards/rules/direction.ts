import type { Finding } from '../../job/index.js';
import { actsOf, give, powerUp, READY_MS, take } from '../../scheme/index.js';
import { deviceOf, firstThat, hzAt, make, tagOfOperation, travelMs, type Rule } from './context.js';

/** Both directions given together and one released: the motor starts the other way by itself. */
export const bothDirectionsReleased: Rule = (c) => {
  const { arrangement, drive } = c;
  const { forward, reverse } = arrangement.starts;
  if (arrangement.givenBy === 'pulse' || !forward || !reverse) return [];
  const devices = [forward, reverse].map((id) => arrangement.operations[id].device);
  if (devices[0] === devices[1]) return [];
  const travel = travelMs(drive) + arrangement.warningMs;
  const [both, released] = [READY_MS + travel, READY_MS + 2 * travel];
  const end = released + 2 * travel;
  const acts = actsOf(
    ...powerUp(arrangement, 1),
    give(arrangement, forward, READY_MS),
    give(arrangement, reverse, both),
    take(arrangement, forward, released),
  );
  if (!firstThat(c, acts, end, (trace) => hzAt(trace, end - 100) < 0)) return [];
  const args = {
    policy: drive.control.onBothDirections,
    forward: tagOfOperation(c, forward),
    reverse: tagOfOperation(c, reverse),
  };
  const where = devices.map((id) => ({ kind: 'device', id }) as const);
  return [
    make(
      'directions.releasedToOne',
      '',
      'warn',
      where,
      args,
      'IEC 60204-1 §9.2.3.3 interlocking of contradictory functions',
      [],
      { script: 'directions.together', atUs: released * 1000 },
    ),
  ];
};

/** Only forward is wanted and the device would follow a reverse command. */
export const directionNotLocked: Rule = ({ job, drive }) => {
  if (
    job.scheme.direction !== 'forwardOnly' ||
    drive.control.noReverse ||
    job.scheme.jog === 'bothWays'
  )
    return [];
  const reverse = drive.inputs.find((i) =>
    ['reverse', 'direction', 'startReverse', 'jogReverse'].includes(i.task),
  );
  const where: Finding['where'] = reverse
    ? [{ kind: 'landing', id: `drive:${reverse.terminal}` }]
    : deviceOf('drive');
  return [
    make(
      'direction.notLocked',
      '',
      'warn',
      where,
      { terminal: reverse?.terminal ?? '', machine: job.machine },
      'keypad or a stray input may ask for reverse',
    ),
  ];
};

/** A device that behaves in an unknown way where it matters: every way was simulated and the worse reported. */
export const unknownPolicy: Rule = ({ profile, arrangement }) => {
  const chained =
    arrangement.chained && arrangement.inputs.some((f) => f.task === 'stop')
      ? ['startEdgeWithStopReturn']
      : [];
  const local = arrangement.operations['local'] ? ['onTakeover', 'terminalStopUnderKeypad'] : [];
  const matters = [
    'onPowerReturn',
    'onBothDirections',
    'onFaultReset',
    ...local,
    ...chained,
    ...(arrangement.usesEnables ? ['onEnableReturn'] : []),
  ];
  return matters
    .filter((name) => profile.policies[name] === 'unknown')
    .map((name) =>
      make(
        'policy.unknown',
        name,
        'warn',
        deviceOf('drive'),
        { policy: name, device: profile.title },
        'device profile',
      ),
    );
};

import type { Scheme } from '../job/index.js';
import type { Arrangement, PointRef } from './arrangement.js';
import type { Contact, Sketch } from './sketch.js';
import type { Supplies } from './supplies.js';

type LineSide = Pick<Arrangement, 'power' | 'estop' | 'contactor' | 'usesEnables'>;

/** Coil of a line contactor by its voltage, Ω at pull-in and hold taken as one. */
const coilOhm = (volts: number): number => (volts * volts) / 8;

/** Whether the wishes call for a line contactor. */
export const wantsContactor = (s: Scheme): boolean =>
  s.startStop === 'lineContactor' ||
  s.estop === 'contactor' ||
  s.estop === 'contactorInhibit' ||
  s.lineContactor === 'byRelay' ||
  s.lineContactor === 'byButtons';

/** Whether a relay of the device closes its contactor: it is open at rest. */
export const contactorByRelay = ({ outputs }: Pick<Arrangement, 'outputs'>): boolean =>
  outputs.some(({ task, wired }) => task === 'lineContactor' && wired);

/** Line contactor that a relay of the device closes for a run, its coil behind the emergency stop. */
function relayContactor(sketch: Sketch, supplies: Supplies, drops: readonly Contact[]): void {
  const { line, neutral } = supplies.alternating();
  const coil = { volts: supplies.alternatingV, ac: true, ohm: coilOhm(supplies.alternatingV) };
  sketch.device('contactor.line', 'contactor', 'panel', coil);
  sketch.output('lineContactor', 'lineContactor', true);
  const common: PointRef = '@out:lineContactor:common';
  if (drops.length > 0) {
    sketch.series(line, drops, 'line.permit', 'line', 'controlAc');
    sketch.join('line.permit', common, 'line.relay', 'controlAc');
  } else sketch.join(line, common, 'feed.line', 'controlAc');
  sketch.join('line.coil', '@out:lineContactor:no', 'line.coil', 'controlAc');
  sketch.join('line.coil', 'contactor.line:A1', 'line.coil', 'controlAc');
  sketch.join(neutral, 'contactor.line:A2', 'line.return', 'controlAc');
}

/** Contactor without a latch: it closes as soon as everything that drops it is closed. */
function unlatched(sketch: Sketch, supplies: Supplies, drops: readonly Contact[]): void {
  const { line, neutral } = supplies.alternating();
  sketch.series(line, drops, 'power.coil', 'power', 'controlAc');
  sketch.join('power.coil', 'contactor.line:A1', 'power.coil', 'controlAc');
  sketch.join(neutral, 'contactor.line:A2', 'power.return', 'controlAc');
}

/**
 * Line contactor with its own latch: power on and off by buttons, dropped by the emergency stop; or without the off button, or
 * without the latch.
 */
function lineContactor(
  sketch: Sketch,
  supplies: Supplies,
  drops: readonly Contact[],
  latch: NonNullable<Scheme['contactorLatch']>,
): Arrangement['power'] {
  const { line, neutral } = supplies.alternating();
  const coil = { volts: supplies.alternatingV, ac: true, ohm: coilOhm(supplies.alternatingV) };
  sketch.device('contactor.line', 'contactor', 'panel', coil);
  if (latch !== 'onOff' && drops.length === 0)
    sketch.conflict(['contactorLatch', 'estop'], 'nothingOpensContactor');
  if (latch === 'none') {
    unlatched(sketch, supplies, drops);
    return undefined;
  }
  const off = latch === 'onOff' ? sketch.device('button.powerOff', 'stopButton') : undefined;
  const on = sketch.device('button.powerOn', 'startButton');
  const chain = [...drops, ...(off ? [[off, '11', '12'] as const] : [])];
  sketch.series(line, chain, 'power.stop', 'power', 'controlAc');
  sketch.join('power.stop', `${on}:13`, 'feed.power.on', 'controlAc');
  sketch.join('power.stop', 'contactor.line:13', 'power.hold', 'controlAc');
  sketch.join('power.coil', `${on}:14`, 'power.on', 'controlAc');
  sketch.join('power.coil', 'contactor.line:14', 'power.held', 'controlAc');
  sketch.join('power.coil', 'contactor.line:A1', 'power.coil', 'controlAc');
  sketch.join(neutral, 'contactor.line:A2', 'power.return', 'controlAc');
  return {
    on: sketch.operation('power.on', on),
    ...(off ? { off: sketch.operation('power.off', off) } : {}),
  };
}

/** Contacts that act on the line side beside the emergency stop. */
interface LineContacts {
  /** They take the output away before something lies in the way of the motor's current. */
  readonly inhibits: readonly Contact[];
  /** They drop the line contactor. */
  readonly trips: readonly Contact[];
}

/** Contact of the head that takes the output away; none where it acts otherwise. */
function headInhibit(kind: NonNullable<Scheme['estop']>): Contact[] {
  if (kind === 'outputInhibit') return [['estop', '11', '12']];
  return kind === 'contactorInhibit' ? [['estop', '21', '22']] : [];
}

/**
 * Emergency stop and line contactor. Which of them a machine needs is for its risk assessment; here only what each
 * arrangement is wired to.
 *
 * @param contacts what acts beside the head
 */
export function lineSide(
  sketch: Sketch,
  supplies: Supplies,
  s: Scheme,
  { inhibits, trips }: LineContacts = { inhibits: [], trips: [] },
): LineSide {
  const kind = s.estop ?? 'none';
  const head = kind !== 'none';
  if (head) {
    sketch.device('estop', 'emergencyStop');
    sketch.operation('estop', 'estop');
  }
  if (s.estopInFeed && head) {
    sketch.join('source', '@feed', 'feed');
    sketch.series('source', [['estop', '31', '32']], 'feed', 'estop.feed');
  } else sketch.join('feed', '@feed', 'feed');
  if (s.estopInFeed && !head) sketch.conflict(['estopInFeed', 'estop'], 'feedContactNeedsHead');
  const acts = kind === 'contactor' || kind === 'contactorInhibit';
  const byRelay = s.lineContactor === 'byRelay';
  const drops: Contact[] = [...(acts ? [['estop', '11', '12'] as const] : []), ...trips];
  if (byRelay) relayContactor(sketch, supplies, drops);
  const power =
    !byRelay && wantsContactor(s)
      ? lineContactor(sketch, supplies, drops, s.contactorLatch ?? 'onOff')
      : undefined;
  const heads = headInhibit(kind);
  if (heads.length > 0) {
    sketch.series('feed', [...heads, ...inhibits], 'inhibit', 'inhibit');
    sketch.input('inhibit', 'outputInhibit', 'estop', 'estop', 'inhibit');
  }
  const usesEnables = kind === 'safeTorqueOff' || kind === 'safeTorqueOffOneContact';
  if (usesEnables) {
    const { plus } = supplies.device();
    sketch.series(plus, [['estop', '11', '12']], 'enable.A', 'enable.A', 'safety');
    sketch.join('enable.A', '@enableA', 'enable.A', 'safety');
    if (kind === 'safeTorqueOff') {
      sketch.series(plus, [['estop', '21', '22']], 'enable.B', 'enable.B', 'safety');
      sketch.join('enable.B', '@enableB', 'enable.B', 'safety');
    } else sketch.join('enable.A', '@enableB', 'enable.B', 'safety');
  }
  return {
    ...(power ? { power } : {}),
    usesEnables,
    ...(head ? { estop: 'estop' } : {}),
    ...(wantsContactor(s) ? { contactor: 'contactor.line' } : {}),
  };
}

/**
 * Guard locking by time: the magnet that unlocks is fed only when the contactor, by its mirror contact, has been open for the
 * time. Without power the guard stays locked (ISO 14119 §5.7: power to release).
 */
export function guardLock(
  sketch: Sketch,
  supplies: Supplies,
  s: Scheme,
): Pick<Arrangement, 'lock'> {
  if (!s.guardLockS) return {};
  if (!s.interlocks?.includes('guard')) sketch.conflict(['guardLockS', 'interlocks'], 'noGuard');
  else if (s.lineContactor !== 'byRelay')
    sketch.conflict(['guardLockS', 'lineContactor'], 'lockNeedsContactor');
  else {
    const { line, neutral } = supplies.alternating();
    const volts = supplies.alternatingV;
    const timer = sketch.device('timer.guard', 'timerRelay', 'panel', {
      volts,
      ac: true,
      ohm: (volts * volts) / 3,
      delayOnS: s.guardLockS,
    });
    const lock = sketch.device('lock.guard', 'guardLock', 'machine', {
      volts,
      ac: true,
      ohm: (volts * volts) / 8,
    });
    const contact = ['contactor.line', '21', '22'] as const;
    sketch.series(line, [contact], 'lock.call', 'lock.call', 'controlAc');
    sketch.join('lock.call', `${timer}:A1`, 'lock.call', 'controlAc');
    sketch.join(neutral, `${timer}:A2`, 'lock.call.return', 'controlAc');
    sketch.series(line, [[timer, '15', '18']], 'lock.guard', 'lock.guard', 'controlAc');
    sketch.join('lock.guard', `${lock}:A1`, 'lock.guard', 'controlAc');
    sketch.join(neutral, `${lock}:A2`, 'lock.guard.return', 'controlAc');
    return { lock: { device: lock, ms: s.guardLockS * 1000 } };
  }
  return {};
}

/** Loads beside the drive: what stays on when the contactor opens, and what goes with it. */
export function besideLoads(sketch: Sketch, supplies: Supplies, s: Scheme): void {
  for (const [wish, kind, device] of [
    ['workLight', 'workLight', 'light.work'],
    ['panelFan', 'panelFan', 'fan.panel'],
  ] as const) {
    const side = s[wish] ?? 'none';
    if (side === 'none') continue;
    const { line, neutral } = supplies.alternating();
    const volts = supplies.alternatingV;
    sketch.device(device, kind, kind === 'workLight' ? 'machine' : 'panel', {
      volts,
      ac: true,
      ohm: (volts * volts) / 20,
    });
    if (side === 'goes' && !wantsContactor(s)) sketch.conflict([wish, 'estop'], 'nothingToGoWith');
    if (side === 'goes' && wantsContactor(s)) {
      if (!sketch.has('switched.L'))
        sketch.series(
          line,
          [['contactor.line', '43', '44']],
          'switched.L',
          'switched',
          'controlAc',
        );
      sketch.join('switched.L', `${device}:X1`, device, 'controlAc');
    } else sketch.join(line, `${device}:X1`, device, 'controlAc');
    sketch.join(neutral, `${device}:X2`, `${device}.return`, 'controlAc');
  }
}

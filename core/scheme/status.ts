import type { Scheme } from '../job/index.js';
import type { Sketch } from './sketch.js';
import type { Supplies } from './supplies.js';
import { wantsContactor } from './line-side.js';

const LED_OHM = 3000;

/** What a lamp is for the supply it hangs on. */
const lampOn = ({ volts, ac }: { volts: number; ac: boolean }): Record<string, number | boolean> =>
  ac ? { volts, ac, ohm: (volts * volts) / 2 } : { volts, ohm: LED_OHM };

/** Lamps, meter, handshake and brake: what the device's outputs and the circuit itself show. */
export function statusDevices(
  sketch: Sketch,
  supplies: Supplies,
  s: Scheme,
  stopPotential: string | undefined,
): void {
  for (const wish of s.status ?? []) {
    if (wish === 'meter') meter(sketch);
    else sketch.output(wish, 'status', false);
  }
  for (const lamp of s.lamps ?? []) {
    if (lamp === 'contactorClosed') contactorLamp(sketch, supplies, s);
    else if (lamp === 'stopReleased') stopLamp(sketch, supplies, stopPotential);
    else if (lamp === 'stopped') stoppedLamp(sketch, supplies);
    else relayLamp(sketch, supplies, lamp);
  }
  if (s.handshake) handshake(sketch, supplies);
  if (s.brakeRelease) brake(sketch, supplies);
}

function relayLamp(sketch: Sketch, supplies: Supplies, task: 'running' | 'healthy'): void {
  const { plus, minus, ...on } = supplies.device();
  const lamp = sketch.device(`lamp.${task}`, 'lamp', 'station', lampOn(on));
  sketch.output(task, 'lamps', true);
  sketch.join(plus, `@out:${task}:common`, `feed.${lamp}`);
  sketch.join(lamp, `@out:${task}:no`, lamp);
  sketch.join(lamp, `${lamp}:X1`, lamp);
  sketch.join(minus, `${lamp}:X2`, `${lamp}.return`);
}

/** Lit by the break contact of the relay for running: while the motor does not run and the device has its supply. */
function stoppedLamp(sketch: Sketch, supplies: Supplies): void {
  const { plus, minus, ...on } = supplies.device();
  const lamp = sketch.device('lamp.stopped', 'lamp', 'station', lampOn(on));
  sketch.output('running', 'lamps', true, true);
  sketch.join(plus, '@out:running:common', `feed.${lamp}`);
  sketch.join(lamp, '@out:running:nc', lamp);
  sketch.join(lamp, `${lamp}:X1`, lamp);
  sketch.join(minus, `${lamp}:X2`, `${lamp}.return`);
}

/** Lit while the stop circuit is closed: it says that the stop is released, not that anything runs. */
function stopLamp(sketch: Sketch, supplies: Supplies, stopPotential: string | undefined): void {
  if (!stopPotential) return sketch.conflict(['lamps', 'startStop'], 'noStopToShow');
  const lamp = sketch.device('lamp.stopReleased', 'lamp', 'station', lampOn(supplies.device()));
  sketch.join(stopPotential, `${lamp}:X1`, lamp);
  sketch.join('return', '@return', `${lamp}.return`);
  sketch.join('return', `${lamp}:X2`, `${lamp}.return`);
}

function contactorLamp(sketch: Sketch, supplies: Supplies, s: Scheme): void {
  if (!wantsContactor(s)) return sketch.conflict(['lamps', 'estop'], 'noContactorToShow');
  const { line, neutral } = supplies.alternating();
  const volts = supplies.alternatingV;
  const lamp = sketch.device('lamp.contactorClosed', 'lamp', 'station', {
    volts,
    ac: true,
    ohm: (volts * volts) / 2,
  });
  sketch.series(line, [['contactor.line', '33', '34']], lamp, lamp, 'controlAc');
  sketch.join(lamp, `${lamp}:X1`, lamp, 'controlAc');
  sketch.join(neutral, `${lamp}:X2`, `${lamp}.return`, 'controlAc');
}

function meter(sketch: Sketch): void {
  sketch.mean('ao1.task', 'frequency', 'status');
  const device = sketch.device('meter.speed', 'meter', 'station', { ohm: 20_000, volts: 10 });
  sketch.join('meter', '@aout', 'meter.plus', 'analogue');
  sketch.join('meter', `${device}:X1`, 'meter.plus', 'analogue');
  sketch.join('analogueCommon', '@analogueCommon', 'meter.minus', 'analogue');
  sketch.join('analogueCommon', `${device}:X2`, 'meter.minus', 'analogue');
}

/** The run contact of the device tells the controller that it runs. */
function handshake(sketch: Sketch, supplies: Supplies): void {
  const { plus, minus } = supplies.controller();
  const input = sketch.device('controller.runs', 'controllerInput', 'machine', {
    volts: 24,
    ohm: 4700,
  });
  sketch.output('running', 'handshake', true);
  sketch.join(plus, '@out:running:common', 'feed.handshake');
  sketch.join('handshake', '@out:running:no', 'handshake');
  sketch.join('handshake', `${input}:X1`, 'handshake');
  sketch.join(minus, `${input}:X2`, 'handshake.return');
}

/** A brake that closes by spring: opened through a contactor by the device's relay while the motor holds the load. */
function brake(sketch: Sketch, supplies: Supplies): void {
  const { line, neutral } = supplies.alternating();
  const volts = supplies.alternatingV;
  sketch.output('brakeRelease', 'brakeRelease', true);
  sketch.device('contactor.brake', 'contactorRelay', 'panel', {
    volts,
    ac: true,
    ohm: (volts * volts) / 6,
  });
  sketch.device('brake', 'brake', 'machine', { volts, ac: true, ohm: (volts * volts) / 60 });
  sketch.join(line, '@out:brakeRelease:common', 'feed.brake', 'controlAc');
  sketch.join('brake.coil', '@out:brakeRelease:no', 'brake.coil', 'controlAc');
  sketch.join('brake.coil', 'contactor.brake:A1', 'brake.coil', 'controlAc');
  sketch.join(neutral, 'contactor.brake:A2', 'brake.coil.return', 'controlAc');
  sketch.series(line, [['contactor.brake', '13', '14']], 'brake.line', 'brake.line', 'controlAc');
  sketch.join('brake.line', 'brake:A1', 'brake', 'controlAc');
  sketch.join(neutral, 'brake:A2', 'brake.return', 'controlAc');
}

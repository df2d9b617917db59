import { n, type Args } from './numbers.js';

const s = (x: unknown): string => String(x ?? '');

/** What a device does when its signal is gone. */
const losses: Readonly<Partial<Record<string, string>>> = {
  stop: 'the device stops',
  preset: 'the device goes to its first preset',
  holdLast: 'the device goes on with the last speed',
  fault: 'the device stops with a fault',
};

/** Signals of an outside controller. */
export const signalPhrases: Readonly<Record<string, (a: Args) => string>> = {
  'signal.run': (a) => `run ${s(a['way']) === 'reverse' ? 'in reverse' : 'forward'}`,
  'signal.run.closed': (a) => `asks to run ${s(a['way']) === 'reverse' ? 'in reverse' : 'forward'}`,
  'signal.run.open': () => 'asks to stop',
  'signal.run.unpowered': () => 'as open: it stops',
  'signal.speed': () => 'speed',
  'signal.speed.high': (a) => `${n(a['high'])} ${s(a['unit'])}: ${n(a['hzHigh'])} Hz`,
  'signal.speed.low': (a) =>
    `${n(a['low'])} ${s(a['unit'])}: ${n(a['hzLow'])} Hz, or the lowest set`,
  'signal.speed.lost': (a) =>
    `below 4 mA: ${losses[s(a['does'])] ?? 'not known: see the maker’s manual'}`,
  'signal.runs': () => 'runs, told to the controller',
  'signal.runs.closed': () => 'the device runs: a speed may be given',
  'signal.runs.open': () => 'the device does not run',
  'signal.supply': () => 'supply of the controller’s signals',
  'signal.supply.on': () => 'signals work',
  'signal.supply.off': () => 'as if every contact were open',
  'signal.controllerContact': () => 'dry contact of the controller',
  'signal.transistorOutput': () => 'transistor output, 24 V of the controller',
  'signal.voltageSource': (a) => `${n(a['low'])} … ${n(a['high'])} V`,
  'signal.currentSource': (a) => `${n(a['low'])} … ${n(a['high'])} mA`,
  'signal.controllerInput': () => '24 V input of the controller, over a contact of the device',
  'signal.loopSupply': () => '24 V of the controller',
};

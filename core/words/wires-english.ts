import { landingParts, type Wiring } from '../job/index.js';

/** What a wire of the circuit is for, by the parts of its function. */
const whole: Readonly<Record<string, string>> = {
  'drive.plus': '24 V of the device', 'drive.minus': '0 V of the device', inputCommon: 'input common', 'dial.high': 'dial, high end', 'dial.wiper': 'dial, wiper', 'dial.low': 'dial, low end',
  'signal.plus': 'controller signal', 'signal.minus': 'controller signal, return', 'meter.plus': 'speed meter', 'meter.minus': 'speed meter, return', 'enable.A': 'enable, channel A', 'enable.B': 'enable, channel B',
  'latch.stop': 'behind the stops of the seal-in relay', 'latch.hold': 'holding contact of the seal-in relay', 'latch.held': 'holding contact of the seal-in relay', 'latch.coil': 'coil of the seal-in relay',
  'latch.return': 'coil return of the seal-in relay', 'power.stop': 'behind power off', 'power.hold': 'holding contact of the contactor', 'power.held': 'holding contact of the contactor', 'power.on': 'power on',
  'power.coil': 'coil of the contactor', 'power.return': 'coil return of the contactor', 'control.line': 'control line', 'control.neutral': 'control neutral', 'control.earth': 'bond of the control common', 'supply24.earth': 'bond of the 24 V supply, minus',
  'control.secondary': 'control transformer, secondary', 'control.L1': 'control supply L1', 'control.L2': 'control supply L2', 'control.N': 'control supply N', 'supply24.plus': '24 V supply, plus',
  'supply24.minus': '24 V supply, minus', 'supply24.line': '24 V supply, input', 'supply24.neutral': '24 V supply, input', 'controller.plus': 'controller 24 V', 'controller.minus': 'controller 0 V',
  'brake.coil': 'brake contactor, coil', 'brake.coil.return': 'brake contactor, return', 'brake.line': 'brake, line', brake: 'brake', 'brake.return': 'brake, return', 'handshake.return': 'run contact, return', 'supply24.L1': '24 V supply, input L1', 'supply24.L2': '24 V supply, input L2', 'supply24.N': '24 V supply, input N', handshake: 'run contact to the controller',
  'brakingUnit.plus': 'braking unit, plus of the DC link', 'brakingUnit.minus': 'braking unit, minus of the DC link', 'resistor.1': 'braking resistor, wire rated for its heat', 'resistor.2': 'braking resistor, wire rated for its heat', 'fault.external': 'external fault, thermal contact',
  'control.supply': 'supply of the control of the device', 'control.return': 'supply of the control of the device, return', 'line.relay': 'to the relay that closes the line contactor', 'line.coil': 'coil of the line contactor', 'line.return': 'coil return of the line contactor',
  'lock.call': 'time of the guard lock', 'lock.call.return': 'time of the guard lock, return', 'lock.guard': 'guard lock', 'lock.guard.return': 'guard lock, return', 'thermistor.1': 'sensors of the windings', 'thermistor.2': 'sensors of the windings, return', horn: 'start warning horn', 'horn.return': 'horn, return', permit: 'run permitted', inhibit: 'output enable', 'feed.brake': 'feed to the brake relay', 'feed.handshake': 'feed to the run contact', feed: 'feed of the contacts',
}; // prettier-ignore

const kinds: readonly (readonly [RegExp, (of: string) => string])[] = [
  [/^feed\.(L\d|N|PE)$/u, (of) => `feed ${of}`],
  [/^motorIsolator\.(.+)$/u, (of) => `motor ${of}, to the isolator`],
  [/^isolator\.(.+)$/u, (of) => `incoming supply ${of}`],
  [/^(?:supply|line)\.(.+)$/u, (of) => `supply ${of}`],
  [/^output\.(?:call|close|hold|wait|coil)(?:\.|$)/u, () => 'output contactor'],
  [/^outputContactor\.(.+)$/u, (of) => `output ${of}, to its contactor`],
  [/^feed\.output\./u, () => 'output contactor, feed'],
  [/^output\.(.+)$/u, (of) => `output ${of}, to the filter`],
  [/^filter\.(.+)$/u, (of) => `supply ${of}, to the filter`],
  [/^fuse\.(.+)$/u, (of) => `supply ${of}, to the fuse behind the contactor`],
  [/^reactor\.(.+)$/u, (of) => `supply ${of}, to the reactor`],
  [/^motor\.([UVW][12])$/u, (of) => `winding end ${of}`],
  [/^motor\.(.+)$/u, (of) => `motor ${of}`],
  [/^feed\.(lamp\..+)$/u, () => 'feed to a lamp'],
  [/^pe\./u, () => 'protective conductor'],
  [/^lamp\.(\w+)\.return$/u, () => 'lamp, return'],
  [/^lamp\.(\w+)/u, () => 'lamp'],
  [/^light\./u, () => 'work light'],
  [/^fan\./u, () => 'panel fan'],
  [/^control\.primary/u, () => 'control transformer, primary'],
  [/^feed\.(.+)$/u, () => 'feed to the contact'],
  [/^(.+)\.link\.\d+$/u, () => 'to the next contact in series'],
  [/^stage\.plus$/u, () => 'supply of the speed output, plus'],
  [/^stage\.minus$/u, () => 'supply of the speed output, minus'],
  [/^permission\.return$/u, () => 'permission, return'],
  [/^permission/u, () => 'permission, to its drive'],
  [/\.asks\.return$/u, () => 'relay that asks, return'],
  [/\.asks(\.|$)/u, () => 'run asked for'],
  [/^jogReferenceSelect(\.|$)/u, () => 'jog speed instead'],
  [/\.call(\.|$)/u, () => 'start warning, call'],
  [/^run\.(forward|reverse)/u, (of) => `run ${of === 'reverse' ? 'in reverse' : 'forward'}`],
  [/^preset\.bit(\d)/u, (of) => `preset, bit ${Number(of) + 1}`],
  [/^jog(Forward|Reverse)/u, (of) => `jog ${of.toLowerCase()}`],
  [/^rampSelect(\.|$)/u, () => 'second ramps'],
  [/^up(\.|$)/u, () => 'faster'],
  [/^down(\.|$)/u, () => 'slower'],
  [/^start(\.|$)/u, () => 'start'],
  [/^stop(\.|$)/u, () => 'stop circuit'],
];

/** A wire that is only told by where it leads: the feed of a contact, the next one in series, a lamp. */
const leads: readonly (readonly [RegExp, (to: string, from: string) => string])[] = [
  [/^feed\.(?!L\d$|N$|PE$)/u, (to) => `feed to ${to}`],
  [/\.link\.\d+$/u, (to, from) => `${from} to ${to}, in series`],
  [/^(?:lamp|light|fan)\.\w+$/u, (to) => `to ${to}`],
  [/^pe\./u, (to) => `protective conductor of ${to}`],
];

/**
 * What a wire of a wiring is for: by the tags of the parts where it is only told by where it leads.
 *
 * @example sayWireOf(wiring, wire) // 'feed to S3'
 */
export function sayWireOf(
  { devices, device }: Pick<Wiring, 'devices' | 'device'>,
  { function: name, from, to }: Pick<Wiring['wires'][string], 'function' | 'from' | 'to'>,
): string {
  if (/\.(?:strip|plug)$/u.test(name)) return sayWire(name);
  // A part by its tag; of the device, which has many, the terminal.
  const named = (landing: string): string => {
    const at = landingParts(landing);
    const tag = devices[at.device]?.tag ?? at.device;
    return at.device === device ? `${tag}:${at.terminal}` : tag;
  };
  for (const [pattern, said] of leads) if (pattern.test(name)) return said(named(to), named(from));
  return sayWire(name);
}

/**
 * What a wire is for, in words.
 *
 * @example sayWire('latch.coil') // 'coil of the seal-in relay'
 */
export function sayWire(name: string): string {
  const joint = /^(.+)\.(strip|plug)$/u.exec(name);
  if (joint) return `${sayWire(joint[1])}, to the ${joint[2]}`;
  if (whole[name]) return whole[name];
  for (const [pattern, say] of kinds) {
    const match = pattern.exec(name);
    if (match) return say(match[1] ?? '');
  }
  return name;
}

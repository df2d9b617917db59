import { names } from './names-english.js';
import { n, type Args } from './numbers.js';
import { relayNames } from './requirements-english.js';

const s = (x: unknown): string => String(x ?? '');

const upper = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;

/** How the speed is to be set for a step: the dial in per cent, or the keypad in Hz. */
export function speedAt(a: Args): string {
  const pct = Number(a['pct'] ?? 0);
  if (typeof a['keypadHz'] === 'number') return `keypad reference at ${n(a['keypadHz'], 1)} Hz`;
  const share = pct === 0 ? 'at zero' : `at ${pct} %`;
  switch (a['giver']) {
    case 'presets':
      return pct >= 90 ? 'highest preset' : 'lowest preset';
    case 'upDown':
      return 'speed at nothing';
    case 'voltage':
    case 'current':
      return `controller signal ${share}`;
    case 'panelDial':
      return `dial of the device ${share}`;
    case 'dial':
      return `dial ${share}`;
    case 'none':
      return '';
    default:
      return 'speed as keyed';
  }
}

/** The speed ahead of what is done; where a device does not change it, how long the motor is left to cool. */
const at = (a: Args): string => {
  const cool = Number(a['coolMin'] ?? 0);
  const wait = cool > 0 ? `let the motor cool for ${n(cool, 0)} min, then ` : '';
  const speed = speedAt(a);
  const off = a['off'] ? `with ${s(a['off'])} off, ` : '';
  return speed === '' ? `${off}${wait}` : `${speed}: ${wait}`;
};

/** What keeps the motor still while something is tried. */
const held = (a: Args): string => (a['held'] ? `${s(a['held'])} pressed in and left in; ` : '');

/** A contact that opens hot is worked by its test, or by heat. */
const asHot = (device: string): string =>
  `let the contact of ${device} open as if it were hot, never by lifting a live wire`;
/** How a part is brought into a position: what is pressed in, and what is turned. */
export const put = (device: string, position: string): string =>
  position === 'in'
    ? `press ${device} in`
    : position === 'closed'
      ? `let ${device} close`
      : position === 'hot'
        ? asHot(device)
        : `put ${device} to ${position}`;
/** How it is brought back. */
const back = (device: string, position: string): string =>
  position === 'in'
    ? `press ${device} out again`
    : position === 'closed'
      ? `let ${device} open`
      : position === 'hot'
        ? `let the contact of ${device} close again`
        : `put ${device} back`;

/** How a run is started, as an order. */
function start(a: Args): string {
  if (a['by'] === 'key') return 'press the start key of the device';
  const how =
    a['by'] === 'pulse'
      ? `press ${s(a['start'])} for a moment`
      : put(s(a['start']), s(a['position']));
  const turned = a['selector']
    ? `put ${s(a['selector'])} to ${s(a['direction'])}, then ${how}`
    : how;
  return a['up'] && Number(a['pct']) > 0
    ? `${turned}, then hold ${s(a['up'])} until the display shows about ${n(a['upHz'], 0)} Hz`
    : turned;
}

/** How a run is stopped, as an order. */
function stop(a: Args): string {
  if (a['by'] === 'key') return 'press the stop key of the device';
  return a['by'] === 'pulse' ? `press ${s(a['stop'])}` : back(s(a['start']), s(a['position']));
}

/** Speed set, run started: how most acts begin. */
const running = (a: Args): string => upper(`${at(a)}${start(a)} and let it come to speed.`);
const worked = (a: Args): string =>
  a['press'] ? `press ${s(a['device'])} and hold it` : put(s(a['device']), s(a['position']));
const against = (a: Args): string => (a['against'] ? s(a['against']) : 'its common');
/** What is done with a contact so that it opens. */
const opens = (a: Args): string =>
  a['turnOff']
    ? `put ${s(a['device'])} to ${s(a['turnOff'])}`
    : a['hot']
      ? asHot(s(a['device']))
      : a['condition']
        ? `open ${s(a['device'])}`
        : `press ${s(a['device'])}${a['estop'] ? '' : ' and hold it'}`;

/** How a fault is read and reset at the end of an act. */
const faultReset = (a: Args): string =>
  a['fault']
    ? `the device shows ${a['code'] ? `${s(a['code'])}, ` : ''}a fault (${names[s(a['fault'])] ?? s(a['fault'])}): reset it with its key`
    : '';

/** What a live step says, and what a reading of it must show. */
export const livePhrases: Readonly<Record<string, (a: Args) => string>> = {
  'link.look': (a) => `Still switched off: look at ${s(a['link'])} of ${s(a['device'])} (${s(a['name'])}).`,
  'link.stands': (a) => `${s(a['link'])} stands at “${s(a['stands'])}”.`,
  'supply.volts': (a) => `Measure the supply ${a['places'] ? `at the incoming side of ${s(a['breaker'])} (${s(a['places'])}): ${s(a['at'])}` : `at ${s(a['at'])}, ahead of the device`}. ${Number(a['count']) > 1 ? 'Enter each.' : ''}`.trim(),
  'supply.on': (a) => `${speedAt(a) ? `${upper(speedAt(a))}, every` : 'Every'} run contact open: close ${s(a['device'])}${a['power'] ? `, then press ${s(a['power'])}` : ''}. Nothing may move. ${a['lights'] ? 'Look at its lights' : 'Read the display'}.`,
  'link.volts': (a) => `Measure the DC link between ${s(a['plus'])} and ${s(a['minus'])}, motor stopped.`,
  'link.volts.asRead': (a) => `${n(a['volts'], 0)} V: the crest of the ${n(a['read'], 0)} V that were read at the supply`,
  'input.work': (a) => upper(`${held(a)}${a['preset'] ? '' : `${at(a)}`}${worked(a)}. Read the state of ${s(a['terminal'])} on the display.`),
  'simulated.jumper': (a) => upper(`${held(a)}put a jumper between ${s(a['a'])} and ${s(a['b'])}, in place of ${s(a['device'])}. Read the state of ${s(a['terminal'])} on the display.`),
  'simulated.signal': (a) => `Lift wire ${s(a['wire'])} at ${s(a['a'])}, and put ${n(a['value'], 2)} ${s(a['unit'])} from a calibrator or a battery between ${s(a['a'])} (+) and ${s(a['b'])} (−). Read ${s(a['a'])} on the display.`,
  'simulated.shows': (a) => `${n(a['value'], 2)} ${s(a['unit'])}`,
  'input.volts': (a) => `${upper(s(a['device']))} still ${a['press'] ? 'pressed' : a['position'] === 'in' || a['position'] === 'closed' ? s(a['position']) : `at ${s(a['position'])}`}: measure ${s(a['terminal'])} against ${against(a)}.`,
  'input.on': (a) => `${s(a['terminal'])} is on.`,
  'input.off': (a) => `${s(a['terminal'])} stays off.`,
  'input.goesOff': (a) =>
    `${s(a['terminal'])} goes off, and comes back ${a['press'] ? `when ${s(a['device'])} is let go` : a['device'] ? `when ${s(a['device'])} is back` : 'with it'}.`,
  'dial.volts': (a) => upper(`${held(a)}put ${s(a['device'])} at ${n(a['pct'])} %. Measure ${s(a['terminal'])} against its common.`),
  'dial.amps': (a) => upper(`${held(a)}put ${s(a['device'])} at ${n(a['pct'])} %. Read the current into ${s(a['terminal'])}, by clamp or in series.`),
  'branch.off': (a) => `Open ${s(a['device'])} and lock it: the control stays live, the power branch is dead. Look at the device.`,
  'branch.on': (a) => `Every run contact open: close ${s(a['device'])}. Nothing may move. Look at the device.`,
  'input.workVolts': (a) => upper(`${held(a)}${at(a)}${worked(a)}. Measure ${s(a['terminal'])} against ${against(a)}.`),
  'supply.rotation': () => 'Rotation tester at L1, L2, L3 ahead of the device: the direction of the motor hangs on it.',
  'supply.rotation.must': () => 'L1, L2, L3 in this order, clockwise.',
  'start.peak': (a) => upper(`clamp with peak hold on one ${a['six'] ? 'conductor of the supply ahead of the device' : 'lead of the motor'}; ${at(a)}${start(a)}. Enter the highest current.`),
  'start.peak.must': (a) => `${n(a['amps'])} A at most, by simulation of this motor and load`,
  'start.time': () => 'Enter the time from the start until the device shows full voltage.',
  'start.time.unknown': () => 'The motor comes to full voltage. Inertia or load is not entered, so no time is expected.',
  'start.again': (a) => upper(`${at(a)}${start(a)} and let it come to speed; ${stop(a)}, and start it again at once. Stand clear and watch for ${n(a['s'], 0)} s and a little more.`),
  'start.again.startsByItself': (a) => `It waits ${n(a['s'], 0)} s from the stop, and then starts by itself.`,
  'start.again.staysStopped': () => 'The start is forgotten: the motor stays stopped until it is given anew.',
  'end.stops': (a) => upper(`${at(a)}${start(a)}, and let ${s(a['device'])} open at the end of the way, or open it by hand. Watch the shaft.`),
  'contact.opens': (a) =>
    a['more']
      ? 'Look at the next one while it is still open.'
      : upper(`${held(a)}${a['start'] ? `${speedAt(a) ? `${speedAt(a)}, ` : at(a)}${s(a['start'])} given: ` : ''}${opens(a)}. Look at the device.`),
  'contact.seen': (a) => `Something at the device tells that ${s(a['device'])} is open: an input or an enable goes off.`,
  'contactor.state': (a) => `${s(a['device'])} ${a['is'] === 'on' ? 'pulls in' : 'drops out'}.`,
  'direction.bump': (a) =>
    upper(
      `${at(a)}${start(a)}. Watch the shaft${a['giver'] === 'none' ? ', and stop it again within a second' : ''}.`,
    ),
  'direction.watch': () => 'Watch which way the shaft turns.',
  'permission.time': (a) => upper(`${at(a)}${start(a)}. ${s(a['device'])} is asked and opens first. Time from the start until the shaft moves.`),
  'warning.time': (a) => upper(`${at(a)}${start(a)}. Time from there until the shaft moves; the horn must sound all the while.`),
  'stop.works': (a) => upper(`${stop(a)}. Watch the shaft until it stands.`),
  'stop.wins': (a) => upper(`${at(a)}press ${s(a['start'])} and keep it pressed${a['up'] ? `, raise the speed with ${s(a['up'])}` : ''}. When it runs, press ${s(a['stop'])} as well and keep both.`),
  'stop.released': (a) => `${s(a['start'])} still held: let go of ${s(a['stop'])}. Stand clear and watch.`,
  'stop.staysStopped': (a) => `The motor stays stopped until ${s(a['start'])} is let go and pressed again.`,
  'stop.accelerating': (a) => upper(`${at(a)}${start(a)}, and while it is still gathering speed ${stop(a)}.`),
  'estop.accelerating': (a) => upper(`${at(a)}${start(a)}, and while it is still gathering speed press ${s(a['device'])}.`),
  'station.works': (a) => upper(`${at(a)}start with ${s(a['start'])} and stop with ${s(a['stop'])}.`),
  'station.worked': () => 'The motor starts, and stops again.',
  'estop.stops': (a) => `${running(a)} Press ${s(a['device'])} and watch the shaft until it stands.`,
  'estop.blocks': (a) => `${s(a['device'])} still pressed in: ${a['by'] === 'level' ? `${stop(a)}, then ${start(a)}` : start(a)}.`,
  'estop.blocks.must': () => 'The motor does not turn.',
  'estop.returns': (a) => `${a['by'] === 'level' ? `${s(a['start'])} still given. ` : ''}Stand clear, twist ${s(a['device'])} out${a['power'] ? ` and press ${s(a['power'])}` : ''}.`,
  'channel.blocks': (a) => `Everything at rest: every supply off, locked and proved dead. Lift wire ${s(a['wire'])} at ${s(a['landing'])} and cover its end: one channel of ${s(a['device'])} is now open by itself. Covers back, supplies on, ${s(a['device'])} not pressed; ${start(a)}.`,
  'channel.landed': (a) => `${a['by'] === 'level' ? `${upper(stop(a))}. ` : ''}Every supply off, locked and proved dead. Land wire ${s(a['wire'])} at ${s(a['landing'])} again, pull it to see that it holds. Covers back, supplies on; read the device.`,
  'estop.time': () => 'Enter how long it took from the press until the shaft stood.',
  'condition.stops': (a) => a['turnOff'] ? `${running(a)} Put ${s(a['device'])} to ${s(a['turnOff'])} and watch the shaft until it stands.` : a['hot'] ? `${running(a)} ${upper(asHot(s(a['device'])))}; watch the shaft until it stands.` : `${running(a)} ${a['lock'] ? `Free ${s(a['lock'])} with its auxiliary release and open` : 'Open'} ${s(a['device'])} and watch the shaft until it stands.`,
  'condition.blocks': (a) => `${s(a['device'])} still ${a['turnOff'] ? `at ${s(a['turnOff'])}` : 'open'}: ${a['by'] === 'level' ? `${stop(a)}, then ${start(a)}` : start(a)}.`,
  'condition.blocks.must': () => 'The motor does not turn.',
  'condition.returns': (a) => `${a['by'] === 'level' ? `${s(a['start'])} still given. ` : ''}Stand clear and ${a['turnOn'] ? `put ${s(a['device'])} back to ${s(a['turnOn'])}` : `let ${s(a['device'])} close again`}.`,
  'condition.staysStopped': () => 'The motor stays stopped until a new start is given.',
  'condition.startsByItself': () => 'The motor starts by itself.',
  'direction.both': (a) => upper(`${at(a)}give ${s(a['forward'])}, then ${s(a['reverse'])} as well. Watch the shaft.`),
  'direction.one': (a) => `Everybody clear: take ${s(a['forward'])} back alone.`,
  'direction.change': (a) => `${running(a)} Then ${a['press'] ? `press ${s(a['other'])}` : `turn ${s(a['other'])} to reverse`} and watch the shaft.`,
  'direction.change.reverse': () => 'The motor slows down to rest and runs in reverse.',
  'direction.change.forward': () => 'The motor goes on forward: it takes the other direction only from rest.',
  'direction.change.stopped': () => 'The motor stops and stays stopped.',
  'jog.run': (a) => `Stopped. Hold ${s(a['device'])} and read the output frequency; the motor runs ${a['way'] === 'reverse' ? 'in reverse' : 'forward'}.`,
  'jog.hz': (a) => `${n(a['hz'])} Hz, only while it is held`,
  'jog.released': (a) => `Let go of ${s(a['device'])}.`,
  'dial.hz': (a) => `${a['first'] ? upper(`${at(a)}${start(a)}. Read`) : `Put ${s(a['device'])} at ${n(a['pct'])} % and read`} the output frequency when it is steady.`,
  'current.full': (a) => `${a['first'] ? running(a) : 'Still running:'} ${a['first'] ? 'Clamp' : 'clamp'} each ${a['six'] ? 'conductor of the supply ahead of the device' : 'lead of the motor'} and enter its current.`,
  'current.atMost': (a) => `not above ${n(a['amps'])} A, the plate’s current, and none missing; unloaded the three agree within 10 %`,
  'speed.measure': (a) => `${a['first'] ? `${running(a)} Measure` : 'Still running forward: measure'} the speed of the shaft.`,
  'preset.run': (a) => `${a['first'] ? `${upper(start(a))}. ` : ''}${a['preset'] ? `Put ${s(a['device'])} to ${s(a['preset'])}` : `${a['opens'] ? `Open ${s(a['opens'])} and close` : 'Close'} ${s(a['device'])}`} and read the output frequency when it is steady.`,
  'preset.together': (a) => `Close ${s(a['devices'])} together and read the output frequency when it is steady.`,
  'ramp.up': (a) => upper(`${a['select'] ? `${s(a['select'])} given, ` : ''}${at(a)}${start(a)} and time the rise to ${n(a['hz'], 1)} Hz.`),
  'ramp.down': (a) => `${a['up'] ? `${running(a)} ` : ''}From ${n(a['hz'], 1)} Hz, ${stop(a)} and time the fall to zero.`,
  'coast.down': (a) => `${a['up'] ? `${running(a)} ` : ''}${a['giver'] === 'none' ? 'Running' : `From ${n(a['hz'], 1)} Hz`}, ${stop(a)} and time until the shaft stands.`,
  'rest.within': (a) => `At rest within ${n(a['s'], 1)} s, as required${a['time'] === undefined ? '' : ` (${n(a['time'], 1)} s by simulation)`}.`,
  'coast.unknown': () => 'The shaft comes to rest by itself. Inertia or load is not entered, so no time is expected.',
  'tells.rest': (a) => `${a['first'] ? 'At rest: look' : 'Look'} at ${s(a['device'])}.`,
  'tells.running': (a) => `${a['first'] ? `${running(a)} ` : ''}Look at ${s(a['device'])}.`,
  'tells.lamp.on': (a) => `${s(a['device'])} is lit.`,
  'tells.lamp.off': (a) => `${s(a['device'])} is dark.`,
  'tells.controller.on': (a) => `${s(a['device'])}: the controller sees its signal.`,
  'tells.controller.off': (a) => `${s(a['device'])}: the controller sees no signal.`,
  'relay.rest': (a) => `${a['first'] ? 'At rest: measure' : 'Measure'} ohms at the contacts of the relay for “${relayNames[s(a['name'])] ?? s(a['name'])}”${a['makes'] ? '' : ': none has this task'}.`,
  'relay.running': (a) => `${a['first'] ? `${running(a)} ` : ''}Measure ohms at the contacts of the relay for “${relayNames[s(a['name'])] ?? s(a['name'])}”.`,
  'relay.on': (a) => `Picked up${a['makes'] ? `: closed between ${s(a['makes'])}` : ''}${a['breaks'] ? `; open between ${s(a['breaks'])}` : ''}.`,
  'relay.off': (a) => `Not picked up${a['makes'] ? `: open between ${s(a['makes'])}` : ''}${a['breaks'] ? `; closed between ${s(a['breaks'])}` : ''}.`,
  'tells.brake.on': (a) => `${s(a['device'])} is open: its magnet holds it.`,
  'tells.brake.off': (a) => `${s(a['device'])} is closed and holds the shaft.`,
  'meter.volts': (a) => `${a['first'] ? running(a) : `${upper(speedAt(a))}, running.`} Measure at ${s(a['device'])}.`,
  'signal.loss': (a) => `${running(a)} Interrupt the signal of ${s(a['device'])} at its source (wire ${s(a['wire'])}). Read the output frequency, then put it back.`,
  'signal.loss.must': (a) => `${n(a['hz'], 1)} Hz${a['fault'] ? `, with the fault ${s(a['code'])}` : ''}`,
  'place.keypad': (a) => `${speedAt(a) ? `${upper(speedAt(a))}, everything` : 'Everything'} let go: press the start key of the device.`,
  'place.keypad.staysStopped': () => 'The motor stays stopped: the terminals command.',
  'place.keypad.startsByItself': () => 'The motor starts: this device obeys its start key also while the terminals command.',
  'place.local': (a) => `${upper(speedAt(a))}: turn ${s(a['key'])} to local, then ${start(a)}.`,
  'place.local.staysStopped': () => 'The motor stays stopped: at local the keypad commands.',
  'place.local.startsByItself': () => 'The motor starts: the station commands at local as well.',
  'place.remote': (a) => `Stand clear and turn ${s(a['key'])} back.`,
  'power.return': (a) => `${running(a)} Open ${s(a['breaker'])}, ${s(a['device'])} left as it is. Wait until the display is dark, stand clear, close ${s(a['breaker'])}.`,
  'power.returnPulse': (a) => `${running(a)} Open ${s(a['breaker'])}. Wait until the display is dark, stand clear, close ${s(a['breaker'])}.`,
  'power.staysStopped': () => 'The motor stays stopped until the contact is opened and closed again.',
  'power.startsByItself': () => 'The motor starts by itself.',
  'power.staysStoppedPulse': (a) => `The motor stays stopped until ${s(a['device'])} is pressed again.`,
  'power.startsByItselfPulse': () => 'The motor starts by itself.',
  'section.bump': (a) => `${a['settings'] ? `Temporary: ${s(a['settings'])}. ` : ''}${a['linked'] ? `${s(a['linked'])} still linked as delivered. ` : ''}Machine free to turn, one hand at ${s(a['breaker'])}: it cuts the power. Press the start key of the device and hold its key for faster until about ${n(a['atHz'], 0)} Hz. Watch the shaft.`,
  'section.stop': (a) => `Press the stop key of the device${a['breaker'] ? `; if it does not stop, open ${s(a['breaker'])}` : ''}. Watch the shaft until it stands.`,
  'isolator.dead': (a) => `Everything at rest: ${a['plug'] ? `pull ${s(a['isolator'])} and keep it where you see it, its cap locked` : `put ${s(a['isolator'])} to off and lock it`}. When the device has discharged, prove dead with a proved tester at ${s(a['at'])}, against each other and against earth.`,
  'isolator.dead.must': (a) => `No voltage at any of them${a['foreign'] ? `; ${s(a['foreign'])} has a source of its own and is switched off elsewhere` : ''}.`,
  'start.time.must': (a) => `${n(a['s'], 1)} s; with more or less load somewhat longer or shorter, and the device trips after ${n(a['limitS'], 0)} s`,
  'start.step': () => 'Of the same start, or of the next one: enter by how much the current jumps when the bypass closes.',
  'start.step.must': (a) => `hardly a step; more than ${n(a['amps'], 0)} A says that it closes too early`,
  'control.volts': (a) => `Measure ${s(a['plus'])} against ${s(a['minus'])}: the control supply at the device itself.`,
  'control.volts.must': (a) => `${n(a['volts'], 1)} V${a['ac'] ? ', somewhat more while hardly anything is switched on' : ''}; below ${n(a['least'], 0)} V the device does not work`,
  'motor.dead': (a) => `${a['press'] ? `Press ${s(a['press'])}. ` : ''}${s(a['contactor'])} is open, the mains stand ahead of it: measure ${s(a['at'])} against each other and against earth.`,
  'motor.dead.must': (a) => `No voltage at any of them: ${s(a['contactor'])} keeps it away.`,
  'thermistor.opens': (a) => `Every supply off, locked and proved dead. ${a['wire'] ? `Lift wire ${s(a['wire'])} at ${s(a['landing'])} and cover its end` : `Take out the link in place of the sensors (${s(a['name'])}) at ${s(a['device'])}`}. Covers back, supplies on; read the device.`,
  'thermistor.blocks': (a) => `Still open: ${start(a)}.`,
  'thermistor.closes': (a) => `Every supply off, locked and proved dead. ${a['wire'] ? `Land wire ${s(a['wire'])} at ${s(a['landing'])} again` : `Put the link (${s(a['name'])}) back`}, pull it to see that it holds. Covers back, supplies on; read the device.`,
  'guard.locked': (a) => `${running(a)} Pull at ${s(a['guard'])} from outside: ${s(a['lock'])} must hold it.`,
  'guard.locked.must': (a) => `${s(a['guard'])} cannot be opened.`,
  'guard.frees': (a) => `${upper(stop(a))} and time until ${s(a['lock'])} lets ${s(a['guard'])} go. Watch the shaft: it must stand before.`,
  'guard.frees.must': (a) => `after ${n(a['s'], 1)} s${a['rest'] ? ', with the shaft at rest' : ''}`,
  'power.cut': (a) => `${running(a)} Press ${s(a['off'])} and watch the shaft until it stands.`,
  'power.refuses': (a) => `Power still off: ${a['by'] === 'level' ? `${stop(a)}, then ${start(a)}` : start(a)}. Read the device.`,
  'power.comes': (a) => `${a['by'] === 'level' ? `${s(a['start'])} still given. ` : ''}Stand clear and press ${s(a['on'])}.`,
  'stop.cut': (a) => `${running(a)} ${upper(stop(a))}, and while the voltage still falls work ${s(a['device'])}. Watch the shaft until it stands, and read the device.`,
  'stop.cut.must': () => 'The machine coasts to rest; the device shows no fault.',
  'stop.cut.fault': (a) => `The machine coasts to rest; the device shows ${s(a['code'])}.`,
  'supply.returns': (a) => `${running(a)} Open ${s(a['device'])}${a['kept'] ? '; the motor runs on' : ' and wait until the shaft stands'}. Stand clear, close ${s(a['device'])}.`,
  'supply.runsOn': () => 'The motor has run on all the while.',
  'supply.staysStopped': () => 'The motor stays stopped until a new start is given.',
  'supply.startsByItself': () => 'The motor starts by itself.',
  'fault.reset': (a) => `The device shows ${a['code'] ? `${s(a['code'])}, ` : ''}a fault (${names[s(a['fault'])] ?? s(a['fault'])}). ${a['given'] ? `${s(a['given'])} still given: stand` : 'Stand'} clear and press its reset key.`,
  'fault.reset.staysStopped': (a) => `The motor stays stopped${a['back'] ? ', and the fault is back at once' : ', and the fault is gone'}.`,
  'fault.reset.startsByItself': () => 'The motor starts by itself.',
  'jogSelect.alone': (a) => upper(`${at(a)}turn ${s(a['device'])} on, and give no run. Wait.`),
  'jogSelect.run': (a) => upper(`with ${s(a['device'])} still on, ${start(a)}. Read the output frequency.`),
  'jog.underWay': (a) => `${running(a)} Press ${s(a['jog'])} as well and hold it. Read the output frequency.`,
  'jog.underWay.must': (a) => a['same'] ? `${n(a['hz'], 1)} Hz: the run goes on, jog is not taken` : `${n(a['hz'], 1)} Hz: jog has taken over`,
  'place.stop': (a) => `Turn ${s(a['key'])} to local, press the start key of the device and hold its key for faster until about ${n(a['atHz'], 0)} Hz. Then press ${s(a['stop'])} and hold it.`,
  'turns.forward': (a) => `The motor runs forward${a['machine'] ? `: ${s(a['machine'])}` : ''}.`,
  'turns.reverse': () => 'The motor runs in reverse.',
  'turns.stopped': () => 'The motor does not turn.',
  stated: (a) => `As this job does it: it ${names[s(a['is'])] ?? s(a['is'])}. Not required otherwise: ${s(a['by'])}, ${s(a['role'])}: “${s(a['why'])}”.`,
  'loop.sourceZero': (a) => `${s(a['source'])} gives ${n(a['is'], 2)} ${s(a['unit'])} at nothing: turn its zero trimmer, or set the range of its output, until ${n(a['wanted'], 2)} ${s(a['unit'])} stand there.`,
  'loop.sourceSpan': (a) => `${s(a['source'])} gives ${n(a['is'], 2)} ${s(a['unit'])} at full scale: turn its full-scale trimmer, or set the full scale of its output, until ${n(a['wanted'], 2)} ${s(a['unit'])} stand there. Look at zero again after it.`,
  'loop.setting': (a) => `Set ${s(a['code'])}, the ${a['end'] === 'low' ? 'lower' : 'upper'} end of the signal, to ${n(a['to'], 1)} %.`,
  milliamps: (a) => `${n(a['amps'])} mA`,
  rest: (a) =>
    `Then ${[
      a['jumper'] ? `take the jumper ${s(a['jumper'])} out` : '',
      a['source'] ? `take the source away from ${s(a['source'])} and land wire ${s(a['lifted'])} at ${s(a['at'])} again` : '',
      a['letGo'] ? `let go of ${s(a['letGo'])}` : '',
      a['letOpen'] ? `let ${s(a['letOpen'])} open` : '',
      a['putBack'] ? `put ${s(a['putBack'])} back` : '',
      a['twistOut'] ? `twist ${s(a['twistOut'])} out` : '',
      a['power'] ? `press ${s(a['power'])}` : '',
      a['stop'] === 'key' ? 'press the stop key of the device' : a['stop'] ? `press ${s(a['stop'])}` : '',
      a['lowered'] ? `hold ${s(a['lowered'])} until the speed is at nothing` : '',
      faultReset(a),
      a['breaker'] ? `the motor has not come to rest: open ${s(a['breaker'])}, wait until the display is dark, close it again` : '',
    ]
      .filter(Boolean)
      .join('; ')}. Wait until the shaft stands.`,
}; // prettier-ignore

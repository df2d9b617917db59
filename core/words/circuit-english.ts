import { n, type Args } from './numbers.js';

type Saying = { what: string; why: string; remedy: string };
const s = (x: unknown): string => String(x ?? '');

/** What a finding about the circuit, the stops and restarts says. */
export const circuitFindings: Readonly<Record<string, (a: Args) => Saying>> = {
  'restart.noWarning': (a) => ({ what: 'The motor restarts by itself and nothing warns before it.', why: `With ${s(a['device'])} closed it starts when power returns, and somebody can be there.`, remedy: 'Wish a start warning on the Scheme stage: a horn sounds for some seconds before the run is passed on.' }),
  'latch.outlivesPower': (a) => ({ what: `Opening and closing ${s(a['breaker'])} restarts the motor by itself.`, why: `${s(a['relay'])} stays in on a supply of its own while the drive is dark, so the drive finds its run contact closed when it comes back.`, remedy: 'Feed the latch from the drive’s 24 V, drop it by a contact of the breaker, or set the device to wait for a new start.' }),
  'condition.returnStarts': (a) => ({ what: a['estop'] ? `Twisting ${s(a['device'])} out with ${s(a['run'])} given starts the motor${a['reset'] ? ' as soon as power is switched on' : ''}.` : `When ${s(a['device'])} closes again with ${s(a['run'])} given, the motor starts by itself.`, why: a['apart'] ? 'Its contacts do not close in the same moment: when the one in the feed closes last, the device takes the run that comes then for a new start.' : a['estop'] ? 'Resetting an emergency stop must only permit a start, never make one.' : 'The run is still asked for, and only the condition had taken it away.', remedy: a['estop'] ? 'Use start buttons with a latch, or a device setting that waits for a new start when its enable returns.' : 'Use start buttons with a latch, or accept it with a reason where nobody can be at the machine.' }),
  'place.takeoverStarts': (a) => ({ what: `Turning ${s(a['key'])} back to remote with ${s(a['run'])} closed starts the motor.`, why: 'The device follows the level that it finds when the terminals take command.', remedy: 'Put the run contact to off before the key is turned, or choose a device or setting that waits for a new start.' }),
  'place.stopIgnored': (a) => ({ what: `With ${s(a['key'])} at local, ${s(a['stop'])} does nothing.`, why: 'The device ignores the stop of the terminals while its keypad commands: the stop on the machine is dead.', remedy: 'Leave local and remote out of the wishes, or stop through safe torque off, which acts from every place.' }),
  'wish.stopCoasts': (a) => ({ what: `With the treadle ${s(a['foot'])} every stop lets the machine coast${a['wished'] ? ', although a ramp is wished' : ''}.`, why: 'The brake of the treadle must not work against the motor, so the output goes off at every stop; ramps of the stop count for nothing.', remedy: 'Let it coast, as planned; or choose a foot stop without a brake, and the ramp stops the machine.' }),
  'supply.staysLive': (a) => ({ what: `With ${s(a['breaker'])} open, ${s(a['taps'])} and all that hangs on it stays live.`, why: 'No supply disconnecting device is entered, so the control supply is tapped ahead of everything that can be opened here. Its alternating wires are orange; what hangs on a 24 V supply of it is live too, and is not.', remedy: 'Enter the disconnecting device on Plate: the control supply is then tapped after it. Otherwise label the circuit and put it on the isolation card.' }),
  'coast.startTrips': (a) => ({ what: `A start at ${s(a['start'])} while the machine still runs down${a['estop'] ? ` after ${s(a['estop'])}` : ''} trips the device.`, why: 'It switches onto a turning motor and its current is too high: it needs a reset, and nobody at the station sees why.', remedy: 'Set it to catch a turning motor or to wait until it stands, where it can; otherwise say at the station that a new start waits for rest.' }),
  'reset.starts': (a) => ({ what: `Resetting a fault with ${s(a['run'])} still given starts the motor.`, why: 'The device follows the run that it finds when the fault is cleared.', remedy: 'Put the run to off before a reset, and say so at the machine; or choose a device or setting that waits for a new start.' }),
  'start.hums': (a) => ({ what: a['s'] === undefined ? `${s(a['device'])} does not break the load loose: ${n(a['beginNm'])} Nm at first, ${n(a['breakNm'])} Nm are needed.` : `The motor stands under voltage for ${n(a['s'], 1)} s before it moves: it begins with ${n(a['beginNm'])} Nm, the load asks for ${n(a['breakNm'])} Nm.`, why: 'It hums with its locked current and heats, and nobody sees it turn.', remedy: 'Begin at a higher voltage, add a boost, or let the current limit rise.' }),
  'start.stalls': (a) => ({ what: `The start stalls at ${n(a['rpm'], 0)} rpm: the motor gives ${n(a['motorNm'])} Nm there, the load asks for ${n(a['loadNm'])} Nm.`, why: 'Torque falls with the square of the voltage. It stays at that speed until it trips.', remedy: 'A higher current limit or longer ramp, an unloaded start, or a drive where the supply does not allow it.' }),
  'start.mayStall': (a) => ({ what: a['heavier'] ? 'With a load that is 20 % heavier this start stalls.' : `The start has ${n(a['pct'], 0)} % of torque to spare at its tightest place.`, why: 'Harmonics, a low supply and a cold machine take more than that.', remedy: 'A higher limit, or measure the load.' }),
  'start.tooOften': (a) => ({ what: `${n(a['asked'], 0)} starts an hour are wanted; ${n(a['perHour'], 0)} are allowed (motor ${n(a['motorPerHour'], 0)}, device ${n(a['starterPerHour'], 0)}).`, why: 'Each start heats windings and thyristors more than an hour of rest cools.', remedy: 'Start less often, a lighter or shorter start, a larger device, or a drive.' }),
  'start.direct': (a) => ({ what: `The ramp is off: this is a direct start with ${n(a['peakA'], 0)} A.`, why: 'A ramp at nothing is no soft start.', remedy: 'Set a ramp, or take a contactor.' }),
  'start.trips': (a) => ({ what: `The overload trips after ${n(a['s'], 1)} s; the start takes ${n(a['startS'], 1)} s.`, why: 'From cold already the class is too quick for this run-up.', remedy: 'A slower class where the motor allows it, or a higher limit that starts faster.' }),
  'start.hotTrips': (a) => ({ what: `A start of the warm motor trips after ${n(a['s'], 1)} s of ${n(a['startS'], 1)} s.`, why: 'Right after a long run the image has no room for a second start.', remedy: 'Wait until it has cooled, or a slower class where the motor allows it.' }),
  'start.tooLong': (a) => ({ what: `The start takes ${n(a['startS'], 1)} s; the longest allowed is set to ${n(a['limitS'], 0)} s.`, why: 'The device trips before the motor is at speed.', remedy: 'Allow a longer start, if motor and device bear it.' }),
  'start.plugs': (a) => ({ what: `${s(a['device'])} feeds the other direction while the motor still turns.`, why: 'Both pauses are at nothing: the motor is braked by its own supply, with more than its locked current.', remedy: 'Set a wait between starts or a pause before the other direction.' }),
  'starter.nothingAhead': (a) => ({ what: `Nothing ahead of ${s(a['device'])} can take its supply away: with ${a['poles'] ? 'its poles shorted' : 'its bypass welded'} the motor still turns at ${n(a['rpm'], 0)} rpm after ${s(a['stop'])}${a['byPower'] ? ', and starts as soon as the mains come' : ''}.`, why: 'Every stop hangs on its poles alone: shorted or welded they keep the motor running, and its stop does nothing.', remedy: 'A line contactor that opens with the stop, the emergency stop and a fault.' }),
  'overload.twice': (a) => ({ what: `The motor breaker ahead has an overload of its own: at ${n(a['rmsA'], 0)} A a class 10 trips after ${n(a['coldS'], 0)} s cold, ${n(a['hotS'], 0)} s hot; the start takes ${n(a['startS'], 1)} s.`, why: a['hot'] ? 'It trips before the start is over, at least from a warm motor.' : 'Two overloads are set, and one of them may be forgotten.', remedy: 'Say which of the two protects: set the other so that it never trips first, or take a breaker without overload.' }),
  'starter.weldedRunsOn': (a) => ({ what: `With the ${a['poles'] ? 'poles' : 'bypass'} of ${s(a['device'])} ${a['poles'] ? 'shorted' : 'welded'}, ${s(a['stop'])} leaves the motor at ${n(a['rpm'], 0)} rpm${a['byPower'] ? ', and it starts as soon as the mains are there' : ''}.`, why: `Its contactor does not open with that stop${a['estop'] ? `; ${s(a['estop'])} takes the supply away and stops it` : ', and the emergency stop does not open it either'}.`, remedy: `Tell the operator what stops it then${a['estop'] ? `: ${s(a['estop'])} or power off` : ''}; a relay of the device on the contactor would open it with every stop.` }),
  'estop.trips': (a) => ({ what: `Every emergency stop under way trips the device.`, why: `${s(a['contactor']) || 'The contactor'} takes the mains away while the motor is fed, and the device keeps that as a fault: after each it has to be reset.`, remedy: 'Take the run away by a second contact of the emergency stop in the same instant, or accept it with a reason.' }),
  'estop.undervoltage': (a) => ({ what: `Every emergency stop under way leaves an undervoltage fault.`, why: `${s(a['contactor']) || 'The contactor'} cuts the supply while the drive is still running, and until its link is empty it goes on driving.`, remedy: 'Let a second contact of the emergency stop inhibit the output at the same instant, or use safe torque off where the device has it.' }),
  'estop.ordinaryInput': (a) => ({ what: `${s(a['device'])} acts through an ordinary input only.`, why: 'An inhibit input is not a safety function: one fault in the device or one wrong setting defeats it.', remedy: 'Use safe torque off in two channels, or a contactor in the supply together with the inhibit. The risk assessment decides the category.' }),
  'estop.oneChannel': (a) => ({ what: `Both channels of safe torque off hang on one contact of ${s(a['device'])}.`, why: 'A welded contact or one short to 24 V defeats both channels, and nobody notices.', remedy: 'Use a second contact for the second channel, or have the risk assessment say that one is enough.' }),
  'estop.overhauls': (a) => ({ what: 'Safe torque off lets the load go: it does not hold an overhauling machine.', why: `The load can drive the shaft when the torque is gone${a['brake'] ? '; the brake closes with its own delay' : ''}.`, remedy: 'A holding brake, and a controlled stop before torque off where the risk assessment asks for it (stop category 1, IEC 60204-1).' }),
  'input.uncertain': (a) => ({ what: `${s(a['terminal'])} stands at ${n(a['volts'], 1)} V with ${s(a['device'])} open: neither on nor off.`, why: 'Between its thresholds an input keeps its last state: a leakage of the output, or two supplies against each other.', remedy: 'Put a load resistor to the input, use a relay contact, or take an input of lower resistance.' }),
  'contact.overload': (a) => ({ what: `The contact of ${s(a['device'])} at ${s(a['terminal'])} carries ${n(a['amps'], 1)} A; it may carry ${n(a['rated'], 1)} A.`, why: 'What hangs on it draws more than a control contact is made for.', remedy: 'Let the contact work a contactor, and the contactor the load.' }),
  'setting.impossible': (a) => ({ what: `${s(a['code'])}${a['name'] === a['code'] ? '' : ` ${s(a['name'])}`} cannot be ${typeof a['value'] === 'number' ? n(a['value'], 3) : s(a['value'])}${a['unit'] ? ` ${s(a['unit'])}` : ''}: ${a['why'] === 'unknown' ? 'this device has no such setting' : a['why'] === 'choice' ? 'it is none of its choices' : a['why'] === 'number' ? 'it takes a number' : `it goes from ${s(a['min'])} to ${s(a['max'])}`}.`, why: 'The device would not take it and keeps what it has; nothing that rests on the value can be relied on.', remedy: 'Plan it anew, or choose a value the device takes.' }),
  'damage.mainsAtOutput': (a) => ({ what: `${n(a['volts'], 0)} V of the supply stands at ${s(a['terminal'])}, an output of the device.`, why: 'Mains at its output destroys a drive the moment it is switched on.', remedy: 'Do not switch on. Follow the wires at this terminal and at the supply terminals: they are exchanged or joined.' }),
  'damage.mainsAtControl': (a) => ({ what: `${n(a['volts'], 0)} V alternating stands at ${s(a['terminal'])}.`, why: 'Only direct control voltage belongs at this terminal: the device is destroyed, and what hangs on the control circuit becomes dangerous to touch.', remedy: 'Do not switch on. Follow the wires that land there to where the alternating circuit meets them.' }),
  'damage.overvoltage': (a) => ({ what: `${n(a['volts'], 0)} V stands at ${s(a['terminal'])}, more than it withstands.`, why: 'Another source feeds into this terminal.', remedy: 'Do not switch on. Follow the wires at this terminal to the source that does not belong there.' }),
  'damage.overcurrent': (a) => ({ what: `${n(a['amps'], 0)} mA would flow into ${s(a['terminal'])}.`, why: 'The input is switched to milliamperes and a voltage is landed on it: its burden burns.', remedy: 'Set its slide switch to volts, or land a current signal on it.' }),
  'motor.leadsExchanged': (a) => ({ what: `The leads reach ${s(a['motor'])} in another order: forward turns it in reverse.`, why: a['stated'] ? 'The machine was seen to need two leads exchanged, and they are not.' : 'Two of U, V and W are exchanged between device and motor.', remedy: 'Land them in order, or say on the Plate stage that this machine turns forward with two leads exchanged.' }),
  'delta.staysLive': (a) => ({ what: `Nothing ahead of ${s(a['device'])} takes the supply away: each winding of ${s(a['motor'])} has one end at ${n(a['volts'], 0)} V, also while it stands.`, why: 'With the poles in series with the windings the other ends lie straight at the supply.', remedy: 'A line contactor that opens with every stop, and isolate and lock before anybody works at the motor.' }),
  'delta.volts': (a) => ({ what: `Inside the delta each winding of ${s(a['motor'])} gets ${n(a['supplyV'], 0)} V; by its plate it is made for ${n(a['windingV'], 0)} V.`, why: 'Each winding lies between two phases, as in delta.', remedy: 'Only a motor whose delta voltage is that of the supply; otherwise put the starter in the line.' }),
  'motor.leadMissing': (a) => ({ what: `${s(a['motor'])} does not get three phases: ${s(a['leads']) || 'its leads'} ${a['six'] ? 'lies elsewhere than its winding asks' : 'is not reached by one output of its own'}.`, why: a['six'] ? 'The delta is not closed as the poles fire: windings in pairs at one phase are a short, and the device is destroyed.' : 'A lead is missing, or two outputs are joined: the motor hums and burns, or the device trips on its output.', remedy: a['six'] ? 'Follow each winding by ohms, first end to its pole, second end to the next phase.' : 'Follow U, V and W from the device to the motor.' }),
  'signal.switchAgainst': (a) => ({ what: `Slide switch ${s(a['link'])} of ${s(a['device'])} is set against its signal: ${s(a['source'])} gives ${a['amps'] ? 'milliamperes' : 'volts'}.`, why: 'The input reads a wrong speed, full speed at a small signal, or is damaged.', remedy: `Set ${s(a['link'])} for ${a['amps'] ? 'milliamperes' : 'volts'}.` }),
  'dial.endsExchanged': (a) => ({ what: `${s(a['dial'])} works the wrong way round: ${n(a['low'], 0)} Hz at its low end, ${n(a['high'], 0)} Hz at its high end.`, why: 'Its two ends are exchanged: at “nothing” the machine runs at full speed.', remedy: 'Exchange the wires at its ends.' }),
  'dial.endOpen': (a) => ({ what: `${s(a['dial'])} hardly changes the speed: ${n(a['low'], 0)} Hz at its low end, ${n(a['high'], 0)} Hz at its high end.`, why: 'One of its ends is open: its wiper carries the whole reference, or nothing.', remedy: 'Follow the wires at its ends to the reference and to the analogue common.' }),
  'supplies.parallel': (a) => ({ what: `${s(a['one'])} and ${s(a['other'])} feed the same wire.`, why: 'Two supplies push against each other; with one off, the other feeds back into it, and what should be dead is live.', remedy: 'Give each its own circuit, and join only their 0 V.' }),
  'coil.unsuppressed': (a) => ({ what: `Nothing is across the coil of ${s(a['coil'])}, which a contact of the device switches.`, why: 'Each time it drops, its coil gives back a voltage that wears the contact and disturbs signals.', remedy: `Fit ${a['ac'] ? 'an RC element' : 'a diode'} straight at the coil.` }),
  'load.overVoltage': (a) => ({ what: `${s(a['device'])} is made for ${n(a['ratedV'], 0)} V and gets ${n(a['volts'], 0)} V.`, why: 'It overheats and fails, a coil with its contacts where they happen to be.', remedy: 'Fit it for the voltage of the supply it hangs on, or hang it on the one it is made for.' }),
  'load.underVoltage': (a) => ({ what: `${s(a['device'])} is made for ${n(a['ratedV'], 0)} V and gets no more than ${n(a['volts'], 0)} V.`, why: 'A coil hums, chatters or does not pull in; a lamp stays dark.', remedy: 'Fit it for the voltage of the supply it hangs on, or hang it on the one it is made for.' }),
  'resistor.staysFed': (a) => ({ what: `When ${s(a['device'])} is too hot the device stops, and its supply stays on.`, why: 'A chopper that has failed shorted feeds the resistor as long as the link is charged: the device cannot switch that off.', remedy: a['contactor'] ? `Lead its thermal contact through the coil circuit of ${s(a['contactor'])}.` : 'A line contactor that its thermal contact drops.' }),
  'guard.turnsOn': (a) => ({ what: `${s(a['device'])} opens at once, and the machine turns on${a['s'] === undefined ? ' for longer than was looked at' : ` for ${n(a['s'], 1)} s from half speed`}.`, why: 'Somebody reaches in before it stands.', remedy: 'A guard that stays locked until the machine stands, or a stop that is short enough for the way to the danger. The risk assessment decides.' }),
  'conductor.colourUsed': (a) => ({ what: a['is'] === 'keptForEarth' ? `Wire ${s(a['wire'])} is ${s(a['colour'])}: that colour is kept for protective conductors.` : `Wire ${s(a['wire'])} is ${s(a['colour'])}; as ${a['is'] === 'notNeutral' ? 'a neutral' : 'a protective conductor'} it must be ${s(a['wanted'])}.`, why: 'Whoever opens the panel next takes the colour for what it says.', remedy: a['is'] === 'keptForEarth' ? 'Take another core. A green-yellow core must not be used for anything else, nor marked over.' : 'Take a conductor of that colour, or mark both ends where the local code allows it.' }),
  'coil.neutralSwitched': (a) => ({ what: `${s(a['coil'])} hangs with its first terminal on the earthed side; its contacts switch ${s(a['terminal'])} to the phase.`, why: 'Switched on its earthed side or landed the wrong way round, an earth fault can hold or pull it in.', remedy: 'Land one end of the coil straight on the earthed side, and every contact in the phase.' }),
  'estop.channelStays': (a) => ({ what: `${s(a['terminal'])} stays on while ${s(a['device'])} is pressed.`, why: 'One channel of torque off is bypassed: the other one stops alone, and the device faults on the difference of its enables or hides it.', remedy: 'Land this channel through its own contact of the emergency stop.' }),
  'pe.open': (a) => ({ what: `${s(a['device'])} has no protective conductor that reaches the supply’s.`, why: 'A fault to its frame makes it live to touch, and no protective device trips.', remedy: 'Land the protective conductor straight between its protective terminals.' }),
  'pe.onPhase': (a) => ({ what: `A protective conductor and a phase meet at ${s(a['landing'])}.`, why: 'Frames become live, or the supply is shorted to earth the moment it is switched on.', remedy: 'Do not switch on. Follow the green-yellow conductors at both ends.' }),
  'pe.small': (a) => ({ what: `Protective conductor ${s(a['wire'])} has ${n(a['mm2'], 2)} mm²; its phases ask for ${n(a['leastMm2'], 2)} mm².`, why: 'It has to carry a fault to earth until the protective device trips.', remedy: 'Take a conductor of the size of the phases (up to 16 mm²).' }),
  'pe.switched': (a) => ({ what: `Protective conductor ${s(a['wire'])} lands on ${s(a['device'])}.`, why: 'A protective conductor must never be switched or broken.', remedy: 'Land it straight on the protective terminals.' }),
  'input.zeroSide': (a) => ({ what: 'The contacts switch 0 V: where 0 V is earthed, one earth fault can start the motor.', why: 'An earthed wire does to a sinking input what its contact does.', remedy: a['choice'] ? 'Let the contacts switch 24 V, or do not earth 0 V and monitor its insulation.' : 'This device has no other way: keep 0 V off earth, or monitor its insulation.' }),
  'supply24.overload': (a) => ({ what: `The device’s 24 V falls to ${n(a['volts'], 1)} V.`, why: `Coils, lamps and inputs together ask for more than the ${n(a['maxMA'], 0)} mA it gives.`, remedy: 'Feed relays and lamps from a 24 V supply of their own.' }),
  'reference10.overload': (a) => ({ what: `${s(a['device'])}, ${n(a['ohm'], 0)} Ω, overloads the 10 V reference.`, why: `It gives ${n(a['maxMA'], 0)} mA: a potentiometer needs at least ${n(a['leastOhm'], 0)} Ω.`, remedy: 'Use a potentiometer of higher resistance.' }),
  'circuit.chatters': (a) => ({ what: `${s(a['device'])} switches itself on and off without end.`, why: 'Its own contact opens its own coil.', remedy: 'Look at the contact that feeds the coil: a break contact where a make contact is wanted.' }),
  'lamp.saysLess': (a) => ({ what: `${s(a['lamp'])} shows that the stop is released, not that anything runs or is switched on.`, why: 'It lies behind the stop contact only.', remedy: 'Label it “stop released”, and take a lamp from the run contact of the device where “running” is meant.' }),
  'contactor.normalStops': (a) => ({ what: `${s(a['contactor'])} is the normal way of switching on and off${a['wanted'] === undefined ? '' : `, ${n(a['wanted'], 0)} times an hour`}.`, why: Number(a['perHour']) > 0 ? `The device bears its supply being switched ${n(a['perHour'], 0)} times an hour, and each time its link has to charge.` : 'Each time the link of the device has to charge.', remedy: 'Start and stop by the run input, and use the contactor for the beginning and end of work only.' }),
  'load.wrongSide': (a) => ({ what: a['stays'] ? `${s(a['device'])} goes out with ${s(a['contactor'])}.` : `${s(a['device'])} stays on when ${s(a['contactor'])} opens.`, why: a['stays'] ? 'It is wished to stay on: a work light is needed most when the machine stands.' : 'It is wished to go with the contactor.', remedy: 'Move its wire to the other side of the contactor.' }),
}; // prettier-ignore

/** Why wishes cannot be met together, by code. */
export const conflicts: Readonly<Record<string, (what: string) => string>> = {
  inputs: (what) => `Together they need more inputs of their kind than this device has (${what.replace('/', ' functions, ')} inputs). Drop one of them.`,
  outputs: (what) => `Together they need more relays than this device has; “${what}” finds none. Drop one of them.`,
  terminal: (what) => `This device has no terminal for it (${what.replace('@', '')}). Drop the wish, or choose another device.`,
  noSetting: (what) => `No setting of this device brings it about (${what}). Choose another way, or another device.`,
  noSpeed: () => 'A soft starter changes the voltage, not the frequency: the motor has one speed. For other speeds, a jog or a brake held by the motor a drive is needed. Take this wish away, or choose a drive on the Plate stage.',
  oneDirection: () => 'This soft starter feeds one direction. For two, take one with an enable each way, or a drive.',
  noThermistor: () => 'This device has no terminals for sensors in the windings. Take a device with them, or a relay of its own for them.',
  noGuard: () => 'A lock needs a guard to hold: choose the guard among what must be closed for a run.',
  isolatorSixLeads: () => 'A motor with six leads takes six poles: this isolator has three. Connect the motor in the line, or isolate it ahead of the soft starter.',
  lockNeedsContactor: () => 'The lock counts from the moment the line contactor has opened: let a relay of the soft starter close it for every run.',
  endsNeedLevel: () => 'A contact at the end of a way opens a run that stays: give the run by a selector or a contact, one for each direction.',
  transistorOnAlternating: () => 'Transistor outputs switch direct voltage; the inputs of this device take alternating voltage. Use relay outputs, or a variant with 24 V control.',
  noTask: (what) => `This device has no input task for it (${what}). Choose another way, or another device.`,
  presets: (what) => `This device has ${what} presets.`,
  warningNeedsLevel: () => 'A start warning delays a run that stays; a start pulse would be over. Use a seal-in relay or a two-wire start.',
  feedContactNeedsHead: () => 'A contact in the control feed needs an emergency stop to belong to.',
  keypadHasNoCircuit: () => 'With start and stop at the keypad there is no circuit for a contact to open.',
  nothingToGoWith: () => 'Nothing to go with: there is no line contactor.',
  noStopToShow: () => 'There is no stop circuit for the lamp to show.',
  noContactorToShow: () => 'There is no contactor for the lamp to show.',
  presetsNeedValues: () => 'Enter the frequencies of the presets.',
}; // prettier-ignore

/** Wishes as a person would name them. */
export const wishNames: Readonly<Record<string, string>> = {
  startStop: 'how it starts and stops', direction: 'direction', directionBy: 'what gives the direction', speed: 'where the speed comes from', maxHz: 'highest frequency', minHz: 'lowest frequency',
  lineContactor: 'line contactor', startKind: 'how it ramps up', beginPct: 'where the start begins', limitPct: 'current limit', kick: 'boost at first', tripClass: 'overload class', endTorquePct: 'end of the soft stop', inhibitS: 'wait between starts', reversePauseS: 'pause before the other direction', endLimits: 'contacts at the ends of the way',
  accelS: 'time to speed up', decelS: 'time to slow down', stopMode: 'how it stops', powerReturn: 'what happens when power returns', status: 'status wanted', estop: 'emergency stop',
  estopInFeed: 'emergency stop in the control feed', jog: 'jog', presetsHz: 'preset speeds', secondRamp: 'second ramps', localRemote: 'local and remote', lamps: 'lamps', handshake: 'handshake with the controller',
  brakeRelease: 'brake release', startWarningS: 'start warning', restWithinS: 'required time to rest', interlocks: 'interlocks', thermistor: 'sensors in the windings', starterConnection: 'how the soft starter is connected', guardLockS: 'guard locked until standstill', footStop: 'foot stop', motorIsolator: 'isolator at the motor', relayBase: 'base of the relay', resistor: 'braking resistor', workLight: 'work light', panelFan: 'panel fan', contactsSwitch: 'what the contacts switch',
  startBy: 'what gives the command', controllerOutput: 'outputs of the controller', stations: 'stations', stationFeed: 'feed of the buttons', latchSupply: 'supply of the seal-in relay', dialOhm: 'resistance of the dial', accel2S: 'second time to speed up', decel2S: 'second time to slow down', exposed: 'who can be at the machine', stationLength: 'way to the station', fieldWires: 'how field wires go', jogHz: 'jog speed',
}; // prettier-ignore

/** What is done at each phase of a trial, on cards, lanes and in the sweep. */
export const markNames: Readonly<Record<string, string>> = {
  start: 'start', stop: 'stop', both: 'both directions', firstReleased: 'first let go', flip: 'direction flipped', flipBack: 'flipped back', otherStart: 'other start',
  startHeld: 'start held', stopPressed: 'stop pressed', stopReleased: 'stop let go', startReleased: 'start let go', estop: 'e-stop', estopReleased: 'e-stop out', powerOn: 'contactor on',
  powerOff: 'power cut', powerReturns: 'power back', conditionOpens: 'interlock opens', conditionReturns: 'interlock closes', keyLocal: 'key to local', keyUp: 'keypad to its highest', startAgain: 'start again', isolatorOff: 'supply disconnected', reversed: 'other direction', keyRemote: 'key to remote',
  other: 'the other way', ready: 'power-up', given: 'given', opens: 'opened', closes: 'closed again', keyStart: 'start on the keypad', dip: 'power dip', reset: 'fault reset', lost: 'supply lost', returns: 'supply back', preset: 'preset', jog: 'jog', jogReleased: 'jog let go', powerOffPressed: 'power off pressed',
}; // prettier-ignore

/** Questions on which practitioners differ, and the schools. */
export const schools: Readonly<Record<string, string>> = {
  'startStop': 'How it starts and stops', 'startStop.threeWire': 'Three-wire in the device', 'startStop.threeWireTwoStarts': 'Three-wire, a start each way', 'startStop.sealInRelay': 'Seal-in relay, two-wire run', 'startStop.twoWire': 'Two-wire',
  'lineContactor': 'What closes a contactor ahead', 'lineContactor.byRelay': 'A relay of the soft starter', 'lineContactor.byButtons': 'On and off buttons of its own', 'lineContactor.none': 'No contactor',
  'startKind': 'What is ramped up', 'startKind.voltage': 'The voltage', 'startKind.torque': 'The torque',
  'stopMode': 'How it stops', 'stopMode.coast': 'Let go: it coasts', 'stopMode.ramp': 'Soft stop',
  'stationFeed': 'How the start contact is fed', 'stationFeed.separate': 'Start fed separately', 'stationFeed.chained': 'Start fed through stop',
  'latchSupply': 'What feeds the seal-in relay', 'latchSupply.drive24': 'The drive’s own 24 V', 'latchSupply.own24': 'A 24 V supply of its own',
  'directionBy': 'How a direction is given', 'directionBy.selector': 'One selector', 'directionBy.runAndDirection': 'Run and direction', 'directionBy.twoContacts': 'Two contacts',
  'powerReturn': 'When power returns', 'powerReturn.stayStopped': 'Stays stopped', 'powerReturn.restart': 'Starts by itself',
  'estop': 'What the emergency stop acts on', 'estop.safeTorqueOff': 'Safe torque off, two channels', 'estop.contactorInhibit': 'Contactor with inhibit', 'estop.contactor': 'Contactor alone', 'estop.safeTorqueOffOneContact': 'Safe torque off, one contact', 'estop.outputInhibit': 'Inhibit input alone',
}; // prettier-ignore

/** Why a school is recommended. */
export const reasons: Readonly<Record<string, string>> = {
  restartWished: 'It restarts by itself, as the scheme states.',
  noRestart: 'It does not restart by itself when power returns.',
  noRestartPeople: 'Somebody can be at the machine, and it does not restart by itself when power returns.',
  noReleaseStart: 'Letting go of a stop never starts it.',
  fewerHazards: 'It leaves fewer hazards than the others on this job.',
  noHazard: 'The rules there are find no hazard in it.',
  fewestParts: 'It needs no more parts than the others.',
  othersImpossible: 'Not every school can be had on this device.',
}; // prettier-ignore

/** Conditions of "Why is it not running?", met or not. */
export const conditions: Readonly<Record<string, (a: Args) => { met: string; unmet: string }>> = {
  supply: (a) => ({ met: 'The supply is on.', unmet: a['phase'] ? `Phase ${s(a['phase'])} of the supply is missing.` : 'The supply is off.' }),
  destroyed: (a) => ({ met: 'The device is whole.', unmet: `The device is destroyed: ${s(a['terminal'])} had to bear more than it withstands. Nothing else can be said of this circuit until its wiring is right.` }),
  mains: (a) => ({ met: 'All supply terminals of the device have voltage.', unmet: `No voltage at ${s(a['terminal'])}${opened(a)}.` }),
  waits: (a) => ({ met: 'No time between two starts is running.', unmet: `It waits ${n(a['seconds'], 0)} s more since the motor was last fed.` }),
  hums: (a) => ({ met: 'The torque of the motor turns it.', unmet: `It stands under voltage: ${n(a['torqueNm'])} Nm so far, the load asks for ${n(a['loadNm'])} Nm.` }),
  stalls: () => ({ met: 'The motor comes to full voltage.', unmet: 'The motor does not come to speed: at this voltage or limit its torque is less than the load asks for.' }),
  logic: (a) => ({ met: 'The device is powered up.', unmet: a['state'] === 'off' ? 'The device is dark.' : 'The device is still powering up.' }),
  fault: (a) => ({ met: 'No fault is stored.', unmet: `A fault is stored: ${s(a['name'])}. Remove its cause, then reset.` }),
  enable: (a) => ({ met: `Enable ${s(a['terminal'])} is closed.`, unmet: `Enable ${s(a['terminal'])} is open${opened(a)}.` }),
  inhibit: (a) => ({ met: `${s(a['terminal'])} lets the output work.`, unmet: `${s(a['terminal'])} inhibits the output${opened(a)}.` }),
  place: (a) => ({ met: 'The terminals command.', unmet: a['local'] ? `${s(a['terminal'])} selects local: the keypad commands.` : `The keypad commands: setting ${s(a['setting'])}.` }),
  stop: (a) => ({ met: `The stop circuit at ${s(a['terminal'])} is closed.`, unmet: `The stop circuit at ${s(a['terminal'])} is open${opened(a)}.` }),
  demand: (a) => ({ met: 'A run is asked for.', unmet: a['pulse'] ? `No start has been given since the last stop: press ${s(a['device'])}.` : `${a['device'] && a['device'] !== a['terminal'] ? `Work ${s(a['device'])}: no` : 'No'} run is asked for at ${s(a['terminal'])}${opened(a)}.` }),
  common: (a) => ({ met: 'The input common is joined.', unmet: `The input common ${s(a['terminal'])} is joined to nothing: link ${s(a['link'])} stands at “${s(a['position'])}”.` }),
  warning: (a) => ({ met: 'The start warning is over.', unmet: `The start warning of ${s(a['device'])} is running.` }),
  fresh: () => ({ met: 'No new start is waited for.', unmet: 'A run was already asked for when it became able to run: let go, then start again.' }),
  direction: () => ({ met: 'The direction asked for is allowed.', unmet: 'Reverse is asked for and locked.' }),
  together: () => ({ met: 'One direction is asked for.', unmet: 'Both directions are asked for together.' }),
  coasting: () => ({ met: 'The shaft is not coasting.', unmet: 'The shaft is still coasting, and the device waits until it stands.' }),
  reference: (a) => ({ met: `The reference is ${n(a['hz'], 1)} Hz.`, unmet: `The reference is 0 Hz${a['terminal'] ? `: ${n(a['volts'], 2)} V at ${s(a['terminal'])}` : ''}${a['device'] ? `; ${s(a['device'])} stands at ${n(a['pct'], 0)} %` : ''}${opened(a)}.` }),
}; // prettier-ignore

/** What is open on the way, as a phrase behind a sentence. */
function opened(a: Args): string {
  const list = s(a['open']);
  return list ? `: ${list}` : '';
}

/** One open place on the way of a circuit. */
export const openPlaces: Readonly<Record<string, (a: Args) => string>> = {
  wire: (a) => `wire ${s(a['number'])} is broken`,
  contact: (a) => `${s(a['device'])} is open between ${s(a['a'])} and ${s(a['b'])}`,
  link: (a) => `link ${s(a['device'])} stands at “${s(a['position'])}”`,
  missing: () => 'nothing is wired to it',
};

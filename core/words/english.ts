import { n, type Args } from './numbers.js';
import { circuitFindings, wishNames } from './circuit-english.js';
import { kinds, parts } from './parts-english.js';
import { deadPhrases } from './dead-english.js';
import { energisePhrases } from './energise-english.js';
import { handPhrases } from './hand-english.js';
import { livePhrases } from './live-english.js';
import { names } from './names-english.js';
import { signalPhrases } from './signals-english.js';
import { plateFindings } from './plate-english.js';
import { policyNames } from './profile-english.js';

const likely = (x: unknown, unit = ''): string =>
  typeof x === 'number' && x > 0 ? ` Most likely ${n(x, 3)}${unit} is meant.` : '';

/** What a finding says: what, why, and what to do. */
export const findings: Readonly<Record<string, (a: Args) => { what: string; why: string; remedy: string }>> = {
  ...plateFindings,
  ...circuitFindings,
  'plate.efficiencyImpossible': (a) => ({ what: `Efficiency ${n(a['value'])} is not possible.`, why: 'A motor gives out less than it takes in: efficiency lies between 0 and 1.', remedy: `Read the plate again.${likely(a['likely'])}` }),
  'plate.powerFactorImpossible': (a) => ({ what: `Power factor ${n(a['value'])} is not possible.`, why: 'cos φ lies between 0 and 1.', remedy: `Read the plate again.${likely(a['likely'])}` }),
  'plate.speedAtOrAboveSynchronous': (a) => ({ what: `${n(a['rpm'], 0)} rpm is at or above synchronous speed (${n(a['synchronous'], 0)} rpm).`, why: 'An induction motor runs just below the speed of its field.', remedy: `Read the rated speed again.${likely(a['likely'], ' rpm')}` }),
  'plate.slipTooLarge': (a) => ({ what: `${n(a['rpm'], 0)} rpm would be ${n(a['slipPct'], 0)} % below synchronous speed (${n(a['synchronous'], 0)} rpm).`, why: 'Rated slip is a few per cent; this number does not belong to a motor at this frequency.', remedy: `Read speed and frequency again.${likely(a['likely'], ' rpm')}` }),
  'plate.currentDisagrees': (a) => ({
    what: `Plate current ${n(a['amps'])} A and power disagree: ${n(a['reckoned'])} A is reckoned, ${n(Math.abs(Number(a['offPct'])), 0)} % apart.`,
    why: 'I = P/(η·√3·U·cosφ); more than 15 % apart is a typing error more often than a strange motor.',
    remedy: a['swapped'] ? 'The currents of the two voltages seem to be swapped.' : a['hp'] ? 'Is the power in hp and not in kW?' : `Compare power, current, efficiency and power factor with the plate.${likely(a['likely'], ' A')}`,
  }),
  'plate.voltageRatio': (a) => ({ what: `The two plate voltages are ${n(a['ratio'])} apart; ${n(a['wanted'])} is usual for this connection.`, why: 'Delta and star differ by √3, parallel and series by 2.', remedy: 'Check both voltages and the kind of connection.' }),
  'plate.noLinkSuits': (a) => ({ what: `Neither plate voltage suits ${n(a['outputV'], 0)} V.`, why: 'The motor would be starved or saturated in either link position.', remedy: 'Check the supply voltage and the plate; otherwise another motor or another device.' }),
  'plate.linkWrong': (a) => ({ what: `The links are in ${names[String(a['link'])]}; this supply needs ${names[String(a['wanted'])]}.`, why: `The windings would get ${n(a['voltsPct'], 0)} % of their voltage and the motor ${n(a['torquePct'], 0)} % of its torque${Number(a['voltsPct']) > 100 ? ', with the iron saturated and a large current' : ''}.`, remedy: `With everything isolated and proved dead, put the links in ${names[String(a['wanted'])]}; then measure the winding resistances.` }),
  'plate.supplyOutsideDevice': (a) => ({ what: `${n(a['supplyV'], 0)} V is outside the range of ${String(a['device'])} (${n(a['low'], 0)}–${n(a['high'], 0)} V).`, why: 'Above its range a device is destroyed; below, it trips on undervoltage.', remedy: 'Choose a device for this supply, or check the voltage entered.' }),
  'plate.singlePhaseFeed': (a) => ({ what: `${String(a['device'])} is made for three phases and the supply has one.`, why: 'Fed from one phase it gives about half its current at most.', remedy: Number(a['sharePct']) > 0 ? `The maker allows ${n(a['sharePct'], 0)} % of the rating; it is reckoned with.` : 'Ask the maker for the single-phase rating, or choose a device made for it.' }),
  'input.doesNotSwitch': (a) => ({ what: `Working ${String(a['device'])} does not switch ${String(a['terminal'])}.`, why: 'In the rehearsal of this wiring the voltage at the input never reaches its on threshold.', remedy: 'Follow the wires from the feed to the input and its common on the Land stage.' }),
  'input.commonMissing': (a) => ({ what: `No input works: ${String(a['common'])} is joined to nothing that fits the contacts.`, why: `The input common is the return of every input${a['link'] ? `; link ${String(a['link'])} stands at "${String(a['position'])}"` : ''}.`, remedy: 'Put the input link in the position of the plan, or wire the common.' }),
  'restart.powerReturn': (a) => ({ what: `If power returns while ${String(a['device'])} is closed, the motor starts by itself ${n(a['afterS'], 1)} s later.`, why: a['stated'] ? `Automatic restart is stated in the scheme; exposed: ${names[String(a['exposed'])]}.` : 'The scheme does not ask for automatic restart.', remedy: a['stated'] ? 'Keep it only where nobody can be at the machine; give a start warning and a notice. Otherwise set the device to wait for a new start.' : 'Set the device to wait for a new start after power-off.' }),
  'restart.notPossible': (a) => ({ what: 'The scheme asks for automatic restart, and the motor stays stopped when power returns.', why: a['pulse'] ? `A start by button is lost with the power: ${String(a['device'])} must be pressed again. The two wishes exclude each other.` : 'The device waits for a new start.', remedy: a['pulse'] ? 'Choose a two-wire start where it must restart by itself, or let it stay stopped.' : 'Set the device to follow the closed contact, where automatic restart is meant.' }),
  'stop.releaseStarts': (a) => ({ what: `With ${String(a['start'])} held or welded, letting go of ${String(a['stop'])} starts the motor.`, why: a['relay'] ? 'The relay pulls in as soon as the stop lets current through the start again.' : a['chained'] ? `${String(a['start'])} is fed through ${String(a['stop'])}: both come back in the same moment, and the device takes that for a new start.` : 'The device follows a start that is still held when its stop circuit closes.', remedy: a['relay'] ? 'Take start and stop in the device where it ignores a start that is held, or accept it with a reason.' : a['chained'] ? 'Feed start and stop separately on the Scheme stage, or accept it with a reason where the maker’s manual says that such a start is ignored.' : 'Set the device to wait for a new start.' }),
  'directions.releasedToOne': (a) => ({ what: 'With both directions closed, letting go of one starts the motor the other way by itself.', why: a['stands'] ? 'The device stops while both are closed and follows the contact that remains.' : 'The device goes on in the direction that came first while both are closed, and follows the contact that remains: it reverses by itself.', remedy: 'Use one selector for both directions, interlock the two contacts, or accept it with a reason.' }),
  'direction.notLocked': (a) => ({ what: `Only forward is wanted, but reverse is not locked${a['terminal'] ? ` and ${String(a['terminal'])} can ask for it` : ''}.`, why: 'A stray input or the keypad can turn the machine the wrong way.', remedy: 'Lock reverse in the device, and give the input no task.' }),
  'policy.unknown': (a) => ({ what: `The profile of ${String(a['device'])} does not say how it behaves: “${policyNames[String(a['policy'])] ?? String(a['policy'])}”.`, why: 'Every way it may behave was simulated, and the worse is what the findings tell.', remedy: 'Look it up in the maker’s manual, put it in the profile, and try it in the live tests.' }),
  'plan.tooManyConductors': (a) => ({ what: `${String(a['landing'])} would hold more conductors than it may.`, why: 'The profile limits the conductors of a terminal.', remedy: 'Use a double ferrule where allowed, or an extra terminal.' }),
  'plan.logicFixed': () => ({ what: 'This device cannot be switched the way that is wished.', why: 'Its input common is fixed.', remedy: 'The plan follows the device; clear the wish on the Scheme stage.' }),
  'plan.settingEnds': (a) => ({ what: `${String(a['name'])} would have to be ${n(a['wanted'], 3)}${a['unit'] ? ` ${String(a['unit'])}` : ''}: this device ends at ${n(a['end'], 3)}${a['unit'] ? ` ${String(a['unit'])}` : ''}.`, why: 'What is wished or stands on the plate cannot be keyed; a value that ends short makes the motor do otherwise.', remedy: 'Choose a device that reaches it, correct the plate, or change the wish.' }),
  'plan.wishUnmet': (a) => ({ what: `No setting of this device brings about the wish "${String(a['wish'])}".`, why: `It has no setting for ${String(a['role'])}.`, remedy: 'Change the wish, or choose another device.' }),
  'decision.unmet': (a) => ({ what: `A decision can no longer be kept: ${String(a['what'])}.`, why: 'The terminal or wire it names is not there, or is taken.', remedy: 'Land the wire again, or clear the decision.' }),
}; // prettier-ignore

const named = (a: Args): string => names[String(a['name'])] ?? String(a['name']);
const kindName = (kind: unknown): string => kinds[String(kind)] ?? String(kind);

/** What a recommended value of a start is taken from. */
const recommendations: Readonly<Record<string, string>> = {
  beginPct: 'torque at first 15 % above what breaks the load loose',
  limitPct:
    'the smallest limit that starts a load a fifth heavier, and this one within 15 s where 400 % do it',
  rampS: 'as long as this run-up',
  tripClass: 'the quickest class that leaves room for a second start',
};

/** What a step says, what a reading must show, and why a line is keyed. */
export const phrases: Readonly<Record<string, (a: Args) => string>> = {
  ...parts,
  ...livePhrases,
  ...deadPhrases,
  ...energisePhrases,
  ...signalPhrases,
  ...handPhrases,
  volts: (a) => `${n(a['volts'])} V`,
  hz: (a) => `${n(a['hz'])} Hz`,
  rpm: (a) => `${n(a['rpm'], 0)} rpm at ${n(a['torque'], 0)} % load torque; uncoupled it runs nearer to synchronous speed`,
  seconds: (a) => `${n(a['s'])} s`,
  'state.lights': (a) => `Its lights say: ${names[String(a['state'])] ?? String(a['state'])}.`,
  state: (a) => `The display says: ${names[String(a['state'])] ?? String(a['state'])}.`,
  'hold.openRunContacts': (a) => `Open every run contact and keep it open.${a['fixed'] ? '' : ' Dial at zero.'}`,
  'hold.estopIn': () => 'Press the emergency stop in and leave it in until command is handed over.',
  'hold.atRest': () => 'The motor at rest, every run contact open: nothing that is keyed now can move it.',
  'hold.dialsDead': () => 'Everything off, locked and proved dead: dials and switches are set so, and read when the power comes. Covers on before it does.',
  'hold.noteAsFound': () => 'Note the values as found before anything is changed.',
  'hold.identify': () => 'Identification run: the device measures its motor.',
  'hold.stillAgain': () => 'Everything still again: emergency stop in where there is one, every run contact open, the display at rest.',
  'hold.afterReadyMade': () => 'Check again: every run contact open, nobody at the machine. The arrangement may have given command to the terminals.',
  readyMade: (a) => `The device keys its arrangement “${String(a['name'])}” by itself. It sets ${String(a['wipes'])} back to the factory’s values: what the plan has of them is keyed again after it.`,
  'pair.warned': (a) => `The device warns of half a pair: ${a['half'] === 'stop' ? 'a stop without its start' : 'a start without its stop'}. Confirm the warning and go on; the other half follows.`,
  'pair.refused': (a) => `Half a pair until the other half is keyed${a['half'] === 'stop' ? ': the stop comes first, for the device refuses a start without it' : ''}. Go on at once.`,
  'pair.unknown': () => 'Half a pair of start and stop: what this device makes of it is not known. Key the other half at once.',
  'hold.contactsStillOpen': () => 'Check again: every run contact open, nobody at the machine.',
  'hold.readBack': () => 'Read back every line, compare, and store a copy.',
  makeSafe: () => 'The keypad takes command, so no terminal can start the motor while tasks change.',
  handOver: () => 'Last of all: the terminals take command.',
  'difference.wire.added': (a) => `wire ${String(a['name'])} is new: ${String(a['is'])}`,
  'difference.wire.removed': (a) => `wire ${String(a['name'])} goes: ${String(a['was'])}`,
  'difference.wire.changed': (a) => `wire ${String(a['name'])}: ${String(a['was'])} → ${String(a['is'])}`,
  'difference.device.added': (a) => `${String(a['name'])} is new: ${kindName(a['is'])}`,
  'difference.device.removed': (a) => `${String(a['name'])} goes: ${kindName(a['was'])}`,
  'difference.device.changed': (a) => (a['was'] === a['is'] ? `${String(a['name'])} (${kindName(a['is'])}) has other contacts or ratings` : `${String(a['name'])}: ${kindName(a['was'])} → ${kindName(a['is'])}`),
  'difference.assignment.added': (a) => `${named(a)} lands on ${String(a['is'])}`,
  'difference.assignment.removed': (a) => `${named(a)} leaves ${String(a['was'])}`,
  'difference.assignment.changed': (a) => `${named(a)} moves from ${String(a['was'])} to ${String(a['is'])}`,
  'difference.link.added': (a) => `link ${String(a['name'])} is new: ${String(a['is'])}`,
  'difference.link.removed': (a) => `link ${String(a['name'])} goes: ${String(a['was'])}`,
  'difference.link.changed': (a) => `link ${String(a['name'])}: ${String(a['was'])} → ${String(a['is'])}`,
  'difference.setting.added': (a) => `setting ${String(a['name'])} is new: ${String(a['is'])}`,
  'difference.setting.removed': (a) => `setting ${String(a['name'])} goes: ${String(a['was'])}`,
  'difference.setting.changed': (a) => `setting ${String(a['name'])}: ${String(a['was'])} → ${String(a['is'])}`,
  'move.noWire': () => 'There is no such wire in the adopted plan.',
  'move.bothEnds': () => 'Both ends of a wire cannot land on the same terminal.',
  'move.taken': (a) => `${String(a['landing'])} already carries ${names[String(a['task'])] ?? String(a['task'])}. Move that wire first.`,
  plate: () => 'From the motor plate.',
  recommended: (a) => `Recommended for this motor and load: ${recommendations[String(a['role'])] ?? String(a['role'])}.`,
  wish: (a) => `From the scheme: ${wishNames[String(a['wish'])] ?? String(a['wish'])}.`,
  wiring: (a) => `The wire for this task lands on ${String(a['terminal'])}.`,
  unused: (a) => `Nothing lands on ${String(a['terminal'])}; an unused input holds no task.`,
  freeTask: (a) => `Frees the task for setting ${String(a['code'])}: two inputs must not hold it.`,
  person: (a) => `Your own value: ${String(a['why'])}`,
  'obstacle.noPlan': () => 'No plan is adopted yet.',
  'obstacle.finding': (a) => `An open finding: ${String(a['title'] ?? a['rule'])}`,
  'obstacle.dead.open': (a) => `${n(a['count'], 0)} dead ${a['count'] === 1 ? 'check is' : 'checks are'} not done.`,
  'obstacle.dead.fail': (a) => `${n(a['count'], 0)} dead ${a['count'] === 1 ? 'check has' : 'checks have'} failed.`,
  'obstacle.dead.stale': (a) => `${n(a['count'], 0)} dead ${a['count'] === 1 ? 'reading is' : 'readings are'} stale: check again.`,
  'obstacle.steps.open': (a) => `${n(a['count'], 0)} live ${a['count'] === 1 ? 'test is' : 'tests are'} not done.`,
  'obstacle.steps.fail': (a) => `${n(a['count'], 0)} live ${a['count'] === 1 ? 'test has' : 'tests have'} failed.`,
  'obstacle.steps.stale': (a) => `${n(a['count'], 0)} ${a['count'] === 1 ? 'reading is' : 'readings are'} stale: test again.`,
  'obstacle.dead.twice': (a) => `${n(a['count'], 0)} dead ${a['count'] === 1 ? 'check was' : 'checks were'} read twice apart: read once more, that stands for both.`,
  'obstacle.steps.twice': (a) => `${n(a['count'], 0)} live ${a['count'] === 1 ? 'test was' : 'tests were'} read twice apart: test once more, that stands for both.`,
  'obstacle.settingsDiffer': (a) => `${n(a['count'], 0)} ${a['count'] === 1 ? 'setting' : 'settings'} as left differ from the plan, the first ${String(a['first'])}.`,
  'obstacle.settingsUnread': (a) => `${n(a['count'], 0)} ${a['count'] === 1 ? 'setting' : 'settings'} the plan rests on ${a['count'] === 1 ? 'is' : 'are'} not read back, the first ${String(a['first'])}.`,
  'obstacle.temporary': (a) => a['count'] === 1 ? `One thing put in for a test is still in: ${String(a['first'])}.` : `${n(a['count'], 0)} things put in for tests are still in, the first at ${String(a['first'])}.`,
  'obstacle.punch': (a) => `${a['count'] === 1 ? 'One open point is' : `${n(a['count'], 0)} open points are`} not closed: ${String(a['first'])}${a['count'] === 1 ? '' : ' …'}`,
  'obstacle.notLanded': (a) => `${n(a['count'], 0)} of ${n(a['of'], 0)} wires are not ticked as landed.`,
  'obstacle.noAsLeft': () => 'The settings as left are not recorded.',
}; // prettier-ignore

/** How much a finding asks for, in words. */
export const severities = { stop: 'must fix', warn: 'look at', advise: 'advice' } as const;

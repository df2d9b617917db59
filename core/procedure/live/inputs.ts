import { controlFeed, showsWords } from '../../catalogue/index.js';
import type { Sees } from '../../job/index.js';
import type { InstalledInput } from '../../installation/index.js';
import { isMomentary } from '../../parts/index.js';
import { operationsOn, type InputFunction, type OperationId } from '../../scheme/index.js';
import {
  kindOf,
  landingOf,
  operationOf,
  phrase,
  positionOf,
  range,
  state,
  tagOf,
  tagsOf,
  terminalOf,
  type StepContext,
  type Worked,
} from '../context.js';
import type { Sequence } from '../sequence/sequence.js';
import type { LiveTests } from '../sequence/tests.js';
import { placeTolerance } from '../tolerances.js';

/** How long an input is given to follow its contact, through relays, ms. */
export const INPUT_MS = 500;
/** Least tolerance of a control voltage, V. */
const LEAST_V = 0.5;

/** Operations that open something a run needs: they are seen at the device before anything turns. */
export const openers = ({ arrangement: a }: StepContext): OperationId[] => [
  ...a.stops,
  ...a.interlocks,
  ...(a.power?.off && a.contactor ? [a.power.off] : []),
  ...(a.estop ? [a.estop] : []),
];

/** The operation that really works an input: the first that is seen to switch it. */
export function workerOf(
  c: StepContext,
  s: Sequence,
  f: InputFunction,
  terminal: string,
): Worked | undefined {
  const operations = operationsOn(c.arrangement, f);
  const switches = (id: OperationId): boolean => {
    const before = s.at(`device.${terminal}`);
    return (
      s.attempt((x) => x.give(id, INPUT_MS + c.arrangement.warningMs).at(`device.${terminal}`)) !==
      before
    );
  };
  const found = operations.find(switches);
  // Where only a part is landed, what works nothing yet is not asked.
  return operationOf(c, found ?? (c.section ? undefined : operations[0]));
}

/** What every answer at an input says of it: which part, which terminal, against which. */
function inputArgs(c: StepContext, f: InputFunction, worked: Worked, input: InstalledInput) {
  return {
    function: f.task,
    device: tagOf(c, worked.device),
    terminal: landingOf(c, input.terminal),
    against: landingOf(c, landingNamed(c, input)),
    position: positionOf(c, worked),
    preset: f.id.startsWith('preset'),
    press: isMomentary(kindOf(c, worked)?.kind ?? ''),
  };
}

/** The other end between which the volts of an input are measured, as a terminal of the device where it is one. */
function landingNamed({ installation, device }: StepContext, input: InstalledInput): string {
  const own = `${device.id}:${input.terminal}`;
  const ends = [input.plus, input.minus].map((i) => installation.landings[i]);
  const other = ends.find((at) => at !== own) ?? '';
  return other.startsWith(`${device.id}:`) ? other.slice(device.id.length + 1) : '';
}

/** A voltage between two landings of the installation, as a thing that is looked at. */
export const voltsBetween = (
  { installation: { landings } }: StepContext,
  plus: number,
  minus: number,
  ac = false,
): Sees => ({
  kind: 'volts',
  plus: landings[plus],
  minus: landings[minus],
  ...(ac ? { ac } : {}),
});

/** State and volts of an input while its part is worked. */
export function askInput(
  t: LiveTests,
  f: InputFunction,
  worked: Worked,
  input: InstalledInput,
  before: number,
): void {
  const { c, s } = t;
  const args = {
    ...inputArgs(c, f, worked, input),
    ...s.speed.args,
    held: tagsOf(c, s.holds).join(', '),
  };
  const on = s.at(`device.${input.terminal}`) === 1;
  const across = s.volts(input.plus, input.minus);
  const volts = Math.abs((input.ac ? across?.ac : across?.dc) ?? 0);
  const off = before === 1 ? 'input.goesOff' : 'input.off';
  const shown =
    c.profile.display === undefined || c.profile.display.monitors['inputs'] !== undefined;
  if (shown)
    t.ask(
      {
        key: `input.${f.id}`,
        do: phrase('input.work', args),
        must: phrase(on ? 'input.on' : off, args),
        expect: state(on ? 'on' : 'off'),
        reads: 'inputs',
        sees: { kind: 'level', signal: `device.${input.terminal}` },
      },
      [f],
    );
  t.ask(
    {
      key: `input.${f.id}.volts`,
      do: phrase(shown ? 'input.volts' : 'input.workVolts', args),
      must: phrase('volts', { volts }),
      instrument: 'voltmeter',
      expect: range(volts, Math.max(LEAST_V, volts * c.within.controlShare), 'V'),
      sees: voltsBetween(c, input.plus, input.minus, input.ac),
    },
    [f],
  );
}

/**
 * Opens the main breaker of a device whose control has a supply of its own, or closes it again: its inputs are read with the
 * power branch dead.
 */
export function branch(t: LiveTests, off: boolean): void {
  const { c } = t;
  const s = t.begin(off ? 'branch.off' : 'branch.on', off ? 'inputs' : 'contacts');
  s.branch(off);
  const args = { device: tagOf(c, c.arrangement.mainBreaker) };
  t.ask(
    {
      key: off ? 'branch.off' : 'branch.on',
      do: phrase(off ? 'branch.off' : 'branch.on', args),
      must: phrase(showsWords(c.profile) ? 'state' : 'state.lights', { state: s.state }),
      expect: state(s.state),
      reads: 'state',
      sees: { kind: 'state' },
      cautions: off ? [] : ['contactsOpen'],
    },
    ['supply'],
  );
  t.end();
}

/** Keeps the motor from running while inputs are read, where this job has a means for it. */
export function keepStill(c: StepContext, s: Sequence): void {
  const { estop } = c.arrangement;
  if (!s.branchOff && estop && keepsStill(c, s)) s.hold([estop]);
}

/** Inputs that only ask for something: none that a stop, a guard or an emergency stop works. */
export const testedInputs = (c: StepContext): { f: InputFunction; input: InstalledInput }[] =>
  c.arrangement.inputs.flatMap((f) => {
    const terminal = terminalOf(c, f);
    const input = c.device.inputs.find((i) => i.terminal === terminal);
    const opens = operationsOn(c.arrangement, f).some((id) => openers(c).includes(id));
    return input && !opens ? [{ f, input }] : [];
  });

/** Whether an emergency stop that is pressed in keeps the motor from running and yet lets the inputs be read. */
function keepsStill(c: StepContext, s: Sequence): boolean {
  const { arrangement: a } = c;
  const [f] = a.inputs.filter(
    (x) =>
      c.device.inputs.some((i) => i.terminal === terminalOf(c, x)) &&
      !operationsOn(a, x).some((id) => openers(c).includes(id)),
  );
  if (!a.estop || a.contactor || !f) return false;
  const signal = `device.${terminalOf(c, f)}`;
  return s.attempt((x) => {
    x.give(a.estop, 1500);
    if (x.state === 'off' || x.state === 'ready') return false;
    const before = x.at(signal);
    return operationsOn(a, f).some((id) => {
      const on = x.give(id, INPUT_MS + a.warningMs).at(signal) !== before;
      x.take(id, INPUT_MS);
      return on;
    });
  });
}

/** Every input that asks for something, by its own control, with the motor unable to run where this job has a means for it. */
export function inputTests(t: LiveTests): void {
  const { c, s } = t;
  const { arrangement: a } = c;
  if (controlFeed(c.profile) !== 'own' && !c.section) branch(t, true);
  t.begin('still', 'inputs', 0);
  keepStill(c, s);
  t.end();
  for (const { f, input } of testedInputs(c)) {
    const { terminal } = input;
    t.begin(`input.${f.id}`, 'inputs');
    const worker = workerOf(c, s, f, terminal);
    if (!worker) continue;
    const before = s.at(`device.${terminal}`);
    if (asksForRun(c, worker)) t.asksForRun();
    s.give(worker.id as OperationId, INPUT_MS + a.warningMs);
    askInput(t, f, worker, input, before);
    t.end();
  }
  referenceTests(t);
}

/** Whether working a part asks for a run, of which only the speed keeps the motor. */
export const asksForRun = (
  { arrangement: { starts, jogs } }: StepContext,
  { id }: Worked,
): boolean => [...Object.values(starts), ...Object.values(jogs)].some((start) => start === id);

/** Places at which a dial or signal is read, % of its travel. */
export const DIAL_PCT = [0, 25, 50, 75, 100] as const;

/** Where the speed signal is read: while the keypad gives the speed, the input that a wire of it reaches. */
export function referenceInput({ device, job, section }: StepContext) {
  const wired = Object.values(job.adopted?.wires ?? {}).flatMap((w) =>
    w.class === 'analogue' ? [w.from, w.to] : [],
  );
  return device.analogue.find(({ terminal }) =>
    section ? wired.includes(`${device.id}:${terminal}`) : terminal === device.facts.referenceInput,
  );
}

/** Whether the dial or signal reaches its input. */
const follows = ({ s }: LiveTests, { plus, minus }: { plus: number; minus: number }): boolean => {
  const at = (share: number): number =>
    s.attempt((x) => {
      x.speed.set(share);
      return x.volts(plus, minus)?.dc ?? 0;
    });
  return Math.abs(at(1) - at(0)) > LEAST_V;
};

/** The dial or signal at five places, in its own unit, with nothing asked to run. */
function referenceTests(t: LiveTests): void {
  const { c, s } = t;
  const { dial } = c.arrangement;
  const input = referenceInput(c);
  if (!dial || !input || (c.section && !follows(t, input))) return;
  const amps = c.job.scheme.speed === 'current';
  t.begin('dial.volts', 'inputs');
  for (const pct of DIAL_PCT) {
    s.speed.set(pct / 100);
    const volts = s.volts(input.plus, input.minus)?.dc ?? 0;
    const args = {
      pct,
      device: tagOf(c, dial),
      terminal: landingOf(c, input.terminal),
      held: tagsOf(c, s.holds).join(', '),
    };
    const value = amps ? (1000 * volts) / input.currentOhm : volts;
    const span = amps ? 20 : 10;
    t.ask(
      {
        key: `dial.${pct}.volts`,
        do: phrase(amps ? 'dial.amps' : 'dial.volts', args),
        must: amps ? phrase('milliamps', { amps: value }) : phrase('volts', { volts }),
        instrument: amps ? 'ammeter' : 'voltmeter',
        expect: range(
          value,
          span * (c.within.analogueShare + placeTolerance(c, pct)),
          amps ? 'mA' : 'V',
        ),
        sees: {
          ...voltsBetween(c, input.plus, input.minus),
          ...(amps ? { throughOhm: input.currentOhm } : {}),
        },
      },
      ['dial'],
    );
  }
  s.speed.set(0);
  t.end();
}

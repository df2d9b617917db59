import type { InstalledInput } from '../../installation/index.js';
import { operationsOn, type OperationId } from '../../scheme/index.js';
import {
  landingOf,
  operationOf,
  phrase,
  state,
  tagOf,
  tagsOf,
  terminalOf,
  turnedBetween,
  type Worked,
} from '../context.js';
import type { Sequence } from '../sequence/sequence.js';
import type { LiveTests } from '../sequence/tests.js';
import { motorSideTest, thermistorTest } from './power-section.js';
import { askInput, branch, INPUT_MS, openers } from './inputs.js';

/** How long a contactor and a display that goes dark are waited for, ms. */
const OPENS_MS = 1500;

/** What at the device tells that a contact is open: inputs, enables, a contactor; the display where the supply goes. */
function tells(t: LiveTests): string[] {
  const { device } = t.c;
  const contactors = t.s.trace.signals
    .map(({ id }) => id)
    .filter((id) => /^contactor\.[\w.]+\.on$/u.test(id));
  const terminals = [...device.enables, ...device.inputs].map((i) => `device.${i.terminal}`);
  return [...terminals, ...contactors];
}

/** What of these changes when a contact is opened. */
function changedBy(s: Sequence, id: OperationId, signals: readonly string[]): string[] {
  const before = signals.map((signal) => s.at(signal));
  const after = s.attempt((x) => {
    x.give(id, OPENS_MS);
    return signals.map((signal) => x.at(signal));
  });
  return signals.filter((_, i) => before[i] !== after[i]);
}

/**
 * Every stop, guard and emergency-stop contact and channel, seen open at the device before anything turns: the hold point of
 * the live tests.
 */
export function contactTests(t: LiveTests): void {
  const { c, s } = t;
  const before = t.steps.length;
  for (const id of openers(c)) {
    const worked = operationOf(c, id);
    if (!worked) continue;
    t.begin(`contact.${id}`, 'contacts', 0);
    // The emergency stop that keeps the motor still is let go for its own test, and where it hides what another opens.
    if (id === c.arrangement.estop) s.hold([]);
    const signals = tells(t);
    let changed = changedBy(s, id, signals);
    if (changed.length === 0 && s.holds.length > 0) {
      s.hold([]);
      changed = changedBy(s, id, signals);
    }
    const atRest = changed.length > 0;
    if (!atRest) {
      t.asksForRun();
      s.start('forward', INPUT_MS + c.arrangement.warningMs + 500);
      changed = changedBy(s, id, signals);
    }
    // Where only a part is landed, what opens nothing yet is not asked.
    if (changed.length === 0 && c.section) {
      t.end();
      continue;
    }
    const levels = new Map(changed.map((signal) => [signal, s.at(signal)]));
    s.give(id, OPENS_MS);
    askOpened(t, worked, levels, atRest);
    t.end();
  }
  if (s.holds.length > 0) {
    t.begin('released', 'contacts');
    s.hold([]);
    t.end();
  }
  // Where nothing is required of it, a loop that only trips is looked at before the power branch is closed.
  if (!c.section && !c.required.has('thermistor.blocks')) thermistorTest(t, 'contacts');
  if (s.branchOff) branch(t, false);
  if (!c.section) motorSideTest(t);
  const last = t.steps.at(-1);
  if (last && t.steps.length > before) last.hold = true;
}

/** How a step names the contactor it looks at: that of the line by its place, any other by its id. */
const contactorName = ({ arrangement }: LiveTests['c'], signal: string): string => {
  const id = signal.replace(/\.on$/u, '');
  return id === arrangement.contactor ? 'contactor' : id;
};

/** What is to be seen at the device while a contact is open. */
function askOpened(
  t: LiveTests,
  worked: Worked,
  changed: ReadonlyMap<string, number>,
  atRest: boolean,
): void {
  const { c, s } = t;
  const { device, arrangement: a } = c;
  const start = atRest ? '' : tagsOf(c, a.starts.forward ? [a.starts.forward] : []).join('');
  const args = {
    device: tagOf(c, worked.device),
    held: tagsOf(c, s.holds).join(', '),
    condition: worked.id.startsWith('interlock.') || worked.id === 'foot',
    estop: worked.id === a.estop,
    start,
    ...turnedBetween(c, worked),
    ...s.speed.args,
  };
  const own = a.inputs.find((f) => operationsOn(a, f).some((id) => id === worked.id));
  let asked = false;
  for (const [signal, before] of changed) {
    const terminal = signal.replace(/^device\./u, '');
    const input: InstalledInput | undefined = device.inputs.find((i) => i.terminal === terminal);
    if (own && input && terminalOf(c, own) === terminal) {
      askInput(t, own, worked, input, before);
      asked = true;
      continue;
    }
    // Of all that a feed takes away, the first input is enough; every channel of an enable is looked at.
    const enable = device.enables.some((e) => e.terminal === terminal);
    const contactor = !signal.startsWith('device.');
    if (!enable && !contactor && asked) continue;
    const is = s.at(signal) === 1 ? 'on' : 'off';
    t.ask(
      {
        key: `contact.${worked.id}.${contactor ? contactorName(c, signal) : terminal}`,
        do: phrase('contact.opens', { ...args, more: asked }),
        must: contactor
          ? phrase('contactor.state', { device: tagOf(c, signal.replace(/\.on$/u, '')), is })
          : phrase(is === 'on' ? 'input.on' : 'input.goesOff', {
              terminal: landingOf(c, terminal),
            }),
        expect: state(is),
        sees: { kind: 'level', signal },
        reads: enable && s.state === 'enableOpen' ? 'state' : 'inputs',
        ...(contactor && c.required.has(worked.id) ? { requirement: worked.id, seen: is } : {}),
      },
      [worked],
    );
    asked = true;
  }
  if (asked) return;
  // Nothing at the device tells of it: its function is expected all the same, not its silence.
  t.ask(
    {
      key: `contact.${worked.id}`,
      do: phrase('contact.opens', { ...args, more: false }),
      must: phrase('contact.seen', args),
      expect: state('changes'),
      requirement: c.required.has(worked.id)
        ? worked.id
        : `${worked.id === a.estop ? 'estop' : stopName(a.stops, worked.id)}.stops`,
      seen: 'nothing',
    },
    [worked],
  );
}

/** What the requirement of a stop, a guard or a foot stop is called. */
export const stopName = (stops: readonly OperationId[], id: string): string => {
  const at = stops.findIndex((stop) => stop === id);
  return at < 0 ? id : `stop.${at + 1}`;
};

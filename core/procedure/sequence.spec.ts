import { liveSections, type ProcedureStep } from '../job/index.js';
import { rehearse } from '../rehearsal/index.js';
import { requirementsHeld } from '../hazards/index.js';
import { everyArrangement, type BuiltCase } from '../testing/matrix.js';
import { signalAt, stateAt, type Trace } from '../trace/index.js';
import { trialsOf, type Trial } from '../trials/index.js';
import { say, sayCaution } from '../words/index.js';
import { liveOf } from './live/index.js';

const STANDSTILL_HZ = 0.05;
const cases = everyArrangement();
const byFamily = new Map<string, BuiltCase[]>();
for (const c of cases)
  byFamily.set(c.profile.family, [...(byFamily.get(c.profile.family) ?? []), c]);

/** Acts of one trial with the answers asked in it, rehearsed anew by a way of its own. */
function replayed({ job, profile }: BuiltCase, trial: Trial): Trace {
  return rehearse(trialsOf(job, profile).installed(trial.keypad), trial.acts, trial.endMs);
}

/** Whether the shaft moves between two moments, looked at every 20 ms. */
function moves(trace: Trace, fromUs: number, toUs: number): boolean {
  for (let t = fromUs; t <= toUs; t += 20_000)
    if (Math.abs(signalAt(trace, 'shaft.hz', t)) > STANDSTILL_HZ) return true;
  return false;
}

/** What stands on the display at a moment of a trace, worked out from its signals alone. */
function showsThere({ profile }: BuiltCase, trace: Trace, at: number, { display }: ProcedureStep) {
  const { monitor = '', keys = [] } = display ?? {};
  const form = Object.values(profile.display?.monitors ?? {}).find((m) => m.name === monitor)?.form;
  const on = (terminal: string): boolean =>
    trace.signals.some((s) => s.id === `device.${terminal}`) &&
    signalAt(trace, `device.${terminal}`, at) === 1;
  if (form?.as === 'marks')
    return form.terminals.map((t) => (on(t) ? form.on : form.off)).join(form.between);
  if (form?.as === 'word') {
    const bits = [...form.terminals].reverse().map((t) => (on(t) ? '1' : '0'));
    return `${form.lead}${String(parseInt(bits.join(''), 2)).padStart(form.digits, '0')}`;
  }
  const hz = signalAt(trace, 'device.hz', at);
  const digits = profile.display?.monitors['hz']?.form;
  const unit = digits?.as === 'number' && digits.unit ? ` ${digits.unit}` : '';
  const number = `${hz.toFixed(digits?.as === 'number' ? digits.decimals : 1)}${unit}`;
  if (keys.length > 0) return number;
  const fault = stateAt(trace, 'device.fault', at);
  const { text = '?' } = profile.display?.states[stateAt(trace, 'device.state', at)] ?? {};
  const amps = trace.signals.some((s) => s.id === 'device.amps')
    ? signalAt(trace, 'device.amps', at)
    : 0;
  return text
    .replace('{hz}', number)
    .replace('{amps}', `${amps.toFixed(1)} A`)
    .replace('{fault}', profile.faults[fault]?.code ?? '');
}

const lookUs = ({ from }: ProcedureStep): number => (from.kind === 'simulation' ? from.atUs : 0);
const ofAct = (steps: readonly ProcedureStep[], { id }: Trial): ProcedureStep[] =>
  steps.filter((s) => `live.${s.act ?? ''}` === id);

describe('live tests as one sequence', () => {
  for (const [family, own] of byFamily) {
    it(`on ${family}: replayed act by act, nothing moves without its caution and nothing that is told fails to move`, () => {
      let looked = 0;
      for (const c of own) {
        const { steps, trials } = liveOf(c.job, c.profile);
        for (const trial of trials) {
          const answers = ofAct(steps, trial);
          const trace = replayed(c, trial);
          const context = `${c.name} ${trial.id}`;
          let before = 0;
          for (const step of answers) {
            const at = lookUs(step);
            if (step.from.kind !== 'simulation' || step.from.script !== trial.id) continue;
            const shaft = signalAt(trace, 'shaft.hz', at);
            const turns =
              Math.abs(shaft) <= STANDSTILL_HZ ? 'rest' : shaft > 0 ? 'forward' : 'reverse';
            expect([step.key, step.shaftAfter?.turns])
              .withContext(context)
              .toEqual([step.key, turns]);
            if (moves(trace, before, at))
              expect(step.cautions).withContext(`${context} ${step.key}`).toContain('turns');
            expect(step.cautions.includes('cannotRun') && step.cautions.includes('turns'))
              .withContext(`${context} ${step.key}`)
              .toBeFalse();
            if (step.display)
              expect(step.display.shows)
                .withContext(`${context} ${step.key}: ${step.display.monitor}`)
                .toBe(showsThere(c, trace, at, step));
            before = at;
            looked++;
          }
          // What ends the act brings the machine to rest; else the last answer has said that it moves.
          const end = signalAt(trace, 'shaft.hz', trial.endMs * 1000);
          expect(Math.abs(end) <= STANDSTILL_HZ)
            .withContext(`${context} ends at ${end} Hz`)
            .toBeTrue();
          const last = answers.at(-1);
          if (last && moves(trace, before, trial.endMs * 1000))
            expect(last.cautions).withContext(`${context} end`).toContain('turns');
        }
      }
      expect(looked).toBeGreaterThan(60);
    });

    it(`on ${family}: rise in energy, each waiting for what came before, and every required function is asked`, () => {
      for (const c of own) {
        const { steps } = liveOf(c.job, c.profile);
        const order = steps.map((s) => liveSections.findIndex((name) => name === s.section));
        expect(order)
          .withContext(c.name)
          .toEqual([...order].sort((x, y) => x - y));
        const keys = steps.map((s) => s.key);
        expect(new Set(keys).size).withContext(c.name).toBe(keys.length);
        for (const [i, s] of steps.entries())
          for (const need of s.needs)
            expect(keys.slice(0, i)).withContext(`${c.name} ${s.key}`).toContain(need);
        const first = steps.findIndex((s) => s.section === 'bump');
        const still = steps.slice(0, first).filter((s) => s.cautions.includes('turns'));
        expect(still.every((s) => s.cautions.includes('freeToTurn')))
          .withContext(`${c.name}: ${still.map((s) => s.key).join()}`)
          .toBeTrue();
        const asked = new Map(steps.flatMap((s) => (s.requirement ? [[s.requirement.id, s]] : [])));
        for (const { requirement, state } of requirementsHeld(c.job, c.profile)) {
          if (requirement.simulatedOnly) continue;
          const step = asked.get(requirement.id);
          expect(step).withContext(`${c.name}: ${requirement.id} is asked`).toBeDefined();
          expect(step?.requirement?.unmet === undefined)
            .withContext(`${c.name}: ${requirement.id} is ${state}`)
            .toBe(state === 'met');
        }
      }
    });

    it(`on ${family}: every contact that protects is seen at the device before anything turns, and all has words`, () => {
      for (const c of own) {
        const { steps } = liveOf(c.job, c.profile);
        const { arrangement: a } = trialsOf(c.job, c.profile);
        const openers = [...a.stops, ...a.interlocks, ...(a.estop ? [a.estop] : [])];
        const seen = steps.filter((s) => s.section === 'contacts').map((s) => s.act);
        for (const id of openers) expect(seen).withContext(c.name).toContain(`contact.${id}`);
        if (openers.length > 0)
          expect(steps.filter((s) => s.section === 'contacts').at(-1)?.hold)
            .withContext(c.name)
            .toBeTrue();
        for (const s of steps)
          for (const text of [
            say(s.do),
            say(s.must),
            s.then ? say(s.then) : 'Then.',
            ...s.cautions.map(sayCaution),
          ])
            expect(text)
              .withContext(`${c.name} ${s.key}`)
              .not.toMatch(/undefined|NaN|^[a-z]+\.\w+|\bsafe\b| {2}|: ?\.|; ?\.|\. ?\./u);
      }
    });
  }
});

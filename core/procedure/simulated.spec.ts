import { hookPlaces, install } from '../installation/index.js';
import { landingParts, type Act, type ProcedureStep } from '../job/index.js';
import { rehearse } from '../rehearsal/index.js';
import { actsOf, give, operationsOn, powerUp, READY_MS } from '../scheme/index.js';
import { adopted, bareJob } from '../testing/jobs.js';
import { everyArrangement, type BuiltCase } from '../testing/matrix.js';
import { signalAt } from '../trace/index.js';
import { trialsOf } from '../trials/index.js';
import { stepContext } from './context.js';
import { shownTrial } from './live/index.js';
import { openers } from './live/inputs.js';
import { simulatedOf } from './live/simulated.js';

const hooksIn = (s: ProcedureStep) =>
  (s.acts ?? []).flatMap((a) => (a.do === 'hook' && a.as !== 'off' ? [a] : []));
const cases = everyArrangement();
const LASTS_MS = 9000;

/** Output frequency a while after something was given with a stop or guard open. */
function hzWith({ job, profile }: BuiltCase, opener: Act[], given: readonly Act[]): number {
  const trials = trialsOf(job, profile);
  const panel = trials.panelFor({ keypad: { share: 1 } });
  const hooks = hookPlaces(given);
  const installation = install(job, profile, { from: 'planned' }, { panel, hooks, lean: true });
  const acts = [...powerUp(trials.arrangement, 1), ...opener, ...given];
  const trace = rehearse(installation, acts, READY_MS + LASTS_MS);
  return signalAt(trace, 'device.hz', (READY_MS + LASTS_MS) * 1000);
}

describe('inputs simulated before the real ones', () => {
  it('are given at the device or at the control’s own contact, never at what stops or guards, and are put right again', () => {
    let count = 0;
    for (const { job, profile, name } of cases) {
      const c = stepContext(job, profile);
      const guarding = new Set(openers(c).map((id) => c.arrangement.operations[id]?.device));
      for (const s of simulatedOf(job, profile).steps) {
        const hooks = hooksIn(s);
        expect(hooks.length).withContext(`${name} ${s.key}`).toBe(1);
        for (const end of [hooks[0].a, hooks[0].b])
          expect(guarding.has(landingParts(end).device))
            .withContext(`${name} ${s.key}`)
            .toBeFalse();
        const off = (s.acts ?? []).filter((a) => a.do === 'hook' && a.as === 'off');
        expect(off.length).withContext(`${name} ${s.key}`).toBe(1);
        if (s.expect?.kind === 'state') expect(s.expect.is).toBe('on');
        expect(s.requirement).toBeUndefined();
        const trial = s.from.kind === 'simulation' ? s.from.script : '';
        expect(shownTrial(job, profile, trial))
          .withContext(trial)
          .toBeDefined();
        count++;
      }
    }
    expect(count).toBeGreaterThan(150);
  });

  it('run the motor with a stop, a guard or an emergency stop open only where the control itself would', () => {
    let tried = 0;
    for (const one of cases.filter((_, i) => i % 8 === 0)) {
      const c = stepContext(one.job, one.profile);
      const { arrangement: a } = c;
      for (const s of simulatedOf(one.job, one.profile).steps) {
        const [hook] = hooksIn(s);
        const f = a.inputs.find((x) => s.key === `simulated.${x.id}`);
        if (!f || hook.as !== 'short') continue;
        const atMs = READY_MS + 1000;
        for (const id of openers(c)) {
          const opener = actsOf(give(a, id, READY_MS));
          const bridged = hzWith(one, opener, [{ ...hook, atMs }]);
          const real = operationsOn(a, f).map((own) =>
            hzWith(one, opener, actsOf(give(a, own, atMs))),
          );
          const same = real.some((hz) => Math.abs(hz) > 0 === Math.abs(bridged) > 0);
          expect(same)
            .withContext(`${one.name} ${s.key} with ${id} open: ${bridged} Hz`)
            .toBeTrue();
          tried++;
        }
      }
    }
    expect(tried).toBeGreaterThan(20);
  });

  it('read a signal in the unit of the monitor, with the controller’s wire lifted', () => {
    const job = adopted(
      bareJob({ startStop: 'controller', controllerOutput: 'relay', speed: 'voltage' }),
    );
    const c = cases.find((x) => x.job.scheme.speed === 'voltage') ?? {
      job,
      profile: cases[0].profile,
    };
    const s = simulatedOf(c.job, c.profile).steps.find((x) => x.key === 'simulated.reference');
    expect(s?.acts?.map((a) => a.do)).toEqual(['breakWire', 'hook', 'hook', 'mendWire']);
    const expect_ = s?.expect;
    if (expect_?.kind !== 'range') throw new Error('no number is expected');
    const half = { '%': 50, V: 5, mA: 12 }[expect_.unit] ?? 0;
    expect(Math.abs(expect_.nominal - half)).toBeLessThan(half * 0.01);
    expect(s?.display?.monitor).toBeTruthy();
  });

  it('are none for a control that goes by alternating voltage, and none without a plan', () => {
    for (const { job, profile } of cases)
      for (const s of simulatedOf(job, profile).steps) {
        const { inputs } = stepContext(job, profile).device;
        const at = hooksIn(s)[0].b.split(':')[1];
        expect(inputs.find((i) => i.terminal === at)?.ac ?? false).toBeFalse();
      }
    const [{ job, profile }] = cases;
    expect(simulatedOf({ ...job, adopted: undefined }, profile).steps).toEqual([]);
  });
});

import type { Job } from '../job/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { menuStarter, starterJob, withPlan } from '../testing/starter-jobs.js';
import { rehearse } from '../rehearsal/index.js';
import { signalAt } from '../trace/index.js';
import { trialsOf } from '../trials/index.js';
import { say } from '../words/index.js';
import { stepContext } from './context.js';
import { deadOf } from './dead/index.js';
import { energiseOf } from './energise/index.js';
import { liveSteps } from './live/index.js';

const cases = everyArrangement();

describe('switching on', () => {
  it('goes from the source to the power branch, with nothing expected where nothing is fed', () => {
    for (const { name, job, profile } of cases) {
      const steps = liveSteps(job, profile).filter((s) => s.section === 'energise');
      const { arrangement } = trialsOf(job, profile);
      const breakers = arrangement.ownBreakers.map((id) => `energise.${id}`);
      expect(steps.map((s) => s.key).filter((key) => !key.endsWith('.volts')))
        .withContext(name)
        .toEqual([
          'energise.ready',
          'energise.source',
          ...breakers,
          ...(arrangement.estop ? ['energise.estop'] : []),
        ]);
      expect(steps[1].expect).withContext(name).toEqual({ kind: 'state', is: 'nothingHappens' });
      // The voltage of every branch that has one of its own is read, and lies about what its coils hang on.
      for (const key of breakers) {
        const volts = steps.find((s) => s.key === `${key}.volts`)?.expect;
        const nominal = volts?.kind === 'range' ? volts.nominal : 0;
        expect([24, 120, 230].some((v) => Math.abs(nominal - v) < 0.02 * v))
          .withContext(`${name} ${key} ${nominal}`)
          .toBeTrue();
      }
      const text = steps.map((s) => `${say(s.do)} ${say(s.must)}`).join(' ');
      expect(text)
        .withContext(name)
        .not.toMatch(/undefined|NaN|energise\.|, ,|\ball open\b/u);
      for (const s of steps)
        expect(s.shaftAfter?.turns).withContext(`${name} ${s.key}`).toBe('rest');
    }
  });

  it('goes from the load end where the job says so: nothing before the source, the same parts and volts after it', () => {
    let other = 0;
    for (const { name, job, profile } of cases) {
      const [usual, back] = (['sourceFirst', 'loadFirst'] as const).map((energise) =>
        liveSteps({ ...job, decisions: { ...job.decisions, energise } }, profile).filter(
          (s) => s.section === 'energise',
        ),
      );
      const keys = (steps: typeof usual): string[] => steps.map((s) => s.key);
      expect(keys(back).sort()).withContext(name).toEqual(keys(usual).sort());
      const volts = (steps: typeof usual) =>
        steps.filter((s) => s.key.endsWith('.volts')).map((s) => [s.key, s.expect]);
      expect(volts(back)).withContext(name).toEqual(volts(usual));
      const parts = (steps: typeof usual): string[] =>
        [...new Set(steps.flatMap((s) => String(s.must.args['parts'] ?? '').split(', ')))].sort();
      expect(parts(back)).withContext(name).toEqual(parts(usual));
      if (!trialsOf(job, profile).arrangement.ownBreakers.length) {
        expect(back).withContext(name).toEqual(usual);
        continue;
      }
      other++;
      const source = keys(back).indexOf('energise.source');
      expect(source).withContext(name).toBeGreaterThan(1);
      for (const s of back.slice(1, source))
        expect(s.expect)
          .withContext(`${name} ${s.key}`)
          .toEqual({ kind: 'state', is: 'nothingHappens' });
      const text = back.map((s) => `${say(s.do)} ${say(s.must)}`).join(' ');
      expect(text)
        .withContext(name)
        .not.toMatch(/undefined|NaN|energise\.|, ,|\ball open\b/u);
    }
    expect(other).toBeGreaterThan(5);
  });

  it('tells which state of isolation each step is done in, and has no CONTROL LIVE where the control has no supply of its own', () => {
    for (const { name, job, profile } of cases) {
      const live = liveSteps(job, profile);
      const own = trialsOf(job, profile).arrangement.ownBreakers.length > 0;
      const states = new Set(live.map((s) => s.isolation));
      expect(states.has('DEAD')).withContext(name).toBeFalse();
      expect(states.has('CONTROL LIVE')).withContext(name).toBe(own);
      expect(live.find((s) => s.key === 'supply.on')?.isolation)
        .withContext(name)
        .toBe('MAIN LIVE');
      // What isolates comes before it can be declared; everything after it is done dead.
      for (const step of deadOf(job, profile).steps)
        expect(step.isolation)
          .withContext(`${name} ${step.key}`)
          .toBe(step.act === 'dead.isolate' ? undefined : 'DEAD');
    }
  });

  it('names every lamp, light and fan that works once it is switched on, and none that does not', () => {
    let working = 0;
    for (const { name, job, profile } of cases) {
      const c = stepContext(job, profile);
      const { trial, steps } = energiseOf(c);
      const trace = rehearse(c.trials.installed({ share: 0 }), trial.acts, trial.endMs);
      const last = new Set<string>();
      for (const { must } of steps) {
        const told = (x: unknown): string[] =>
          String(x ?? '')
            .split(', ')
            .filter(Boolean);
        told(must.args['parts']).forEach((tag) => last.add(tag));
        told(must.args['gone']).forEach((tag) => last.delete(tag));
      }
      for (const [id, { tag }] of Object.entries(job.adopted?.devices ?? {})) {
        if (!trace.signals.some((s) => s.id === `${id}.lit`)) continue;
        const lit = signalAt(trace, `${id}.lit`, trial.endMs * 1000 - 1) === 1;
        if (lit) working++;
        expect(last.has(tag)).withContext(`${name} ${tag}`).toBe(lit);
      }
    }
    expect(working).toBeGreaterThan(3);
  });

  it('never expects a contactor that pulls in by itself', () => {
    const sound = withPlan(starterJob({ lineContactor: 'byButtons' }));
    const job: Job = {
      ...sound,
      deviations: {
        one: {
          ord: 1,
          where: { kind: 'device', id: 'contactor.line' },
          actual: { kind: 'stuck', device: 'button.powerOn', contact: '13', is: 'closed' },
          why: 'found so',
        },
      },
    };
    const branch = (j: Job) =>
      liveSteps(j, menuStarter).find((s) => s.key === 'energise.breaker.control')?.must;
    // With the button closed for ever the contactor is fed with the branch; the answer stays what it should be.
    expect(trialsOf(job, menuStarter).arrangement.power).toBeDefined();
    expect(branch(sound)?.code).toMatch(/^energise/u);
    expect(branch(job)).toEqual(branch(sound));
    expect(JSON.stringify(branch(job))).not.toContain('Q2');
  });
});

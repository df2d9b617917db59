import type { Job } from '../job/index.js';
import { rehearse } from '../rehearsal/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { signalAt } from '../trace/index.js';
import { say } from '../words/index.js';
import { trialsOf } from '../trials/index.js';
import { liveOfSection } from './live/index.js';
import { sectionJob } from './live/section.js';

const power = (job: Job): string[] =>
  Object.entries(job.adopted?.wires ?? {}).flatMap(([id, w]) =>
    ['mains', 'motor', 'neutral', 'pe'].includes(w.class) ? [id] : [],
  );
const all = (job: Job): string[] => Object.keys(job.adopted?.wires ?? {});
const STANDSTILL_HZ = 0.05;

describe('live tests of a section', () => {
  const cases = everyArrangement();

  it('ask nothing of what is not landed, require nothing, and name no part whose wires are missing', () => {
    for (const { name, job, profile } of cases) {
      const landed = new Set(power(job));
      const { steps } = liveOfSection(job, profile, landed);
      const wires = Object.entries(job.adopted?.wires ?? {}).filter(([id]) => landed.has(id));
      const there = new Set(wires.flatMap(([, w]) => [w.from, w.to].map((at) => at.split(':')[0])));
      const missing = Object.entries(job.adopted?.devices ?? {})
        .filter(([id]) => !there.has(id))
        .map(([, d]) => d.tag);
      expect(steps.length).withContext(name).toBeGreaterThan(1);
      for (const s of steps) {
        expect(s.requirement).withContext(`${name} ${s.key}`).toBeUndefined();
        expect(s.section)
          .withContext(name)
          .toMatch(/^(?:energise|power|inputs|contacts|bump)$/u);
        // A line contactor that has no supply yet is waited for in words of its own.
        for (const tag of s.key.startsWith('link.') ? [] : missing)
          expect(say(s.do))
            .withContext(`${name} ${s.key}`)
            .not.toMatch(new RegExp(`\\b${tag}\\b(?!:)`, 'u'));
      }
    }
  });

  it('turn the motor only from the keypad, slowly, with its caution, and stop it there', () => {
    let turned = 0;
    for (const { name, job, profile } of cases) {
      const landed = new Set(power(job));
      const { steps, trials } = liveOfSection(job, profile, landed);
      const part = sectionJob(job, profile, landed).job;
      for (const trial of trials) {
        const trace = rehearse(
          trialsOf(part, profile).installed(trial.keypad),
          trial.acts,
          trial.endMs,
        );
        const top = trialsOf(part, profile).installation.device.facts.maxHz;
        let most = 0;
        for (let t = 0; t <= trial.endMs; t += 50)
          most = Math.max(most, Math.abs(signalAt(trace, 'shaft.hz', t * 1000)));
        if (most <= STANDSTILL_HZ) continue;
        turned++;
        expect(trial.id).withContext(name).toBe('live.section.bump');
        expect(most)
          .withContext(name)
          .toBeLessThan(0.25 * top);
        expect(Math.abs(signalAt(trace, 'shaft.hz', trial.endMs * 1000))).toBeLessThan(
          STANDSTILL_HZ,
        );
        const bump = steps.find((s) => s.key === 'section.bump');
        expect(bump?.cautions)
          .withContext(name)
          .toEqual(jasmine.arrayContaining(['turns', 'freeToTurn', 'noProtection']));
      }
    }
    expect(turned).toBeGreaterThan(20);
  });

  it('with everything but one wire landed, see whatever contacts are there, without counting them', () => {
    for (const { name, job, profile } of cases.filter((_, i) => i % 3 === 0)) {
      const dial = Object.entries(job.adopted?.wires ?? {}).find(([, w]) => w.class === 'analogue');
      if (!dial) continue;
      const landed = new Set(all(job).filter((id) => id !== dial[0]));
      const { steps } = liveOfSection(job, profile, landed);
      const { stops } = trialsOf(job, profile).arrangement;
      const seen = steps.filter((s) => s.section === 'contacts').map((s) => s.act);
      for (const stop of stops) expect(seen).withContext(name).toContain(`contact.${stop}`);
      expect(steps.every((s) => s.requirement === undefined)).toBeTrue();
    }
  });
});

import { factorySettings, modelOf } from '../catalogue/index.js';
import { checkJob, hazardRules } from '../hazards/index.js';
import { hashOf, type Job } from '../job/index.js';
import { plateFacts } from '../line/index.js';
import { adoption, differs, planJob, wiringDifference } from '../plan/index.js';
import { liveOf, liveSteps, shownTrial } from '../procedure/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { isTrialId, trialsOf } from '../trials/index.js';
import { markNames } from '../words/circuit-english.js';
import { factTitles } from '../words/facts-english.js';
import { deviceKinds, say, sayCaution, sayFinding, sayTitle } from '../words/index.js';
import { recordFiles } from './record-files.js';
import { wireTable } from './tables.js';

const cases = everyArrangement();

describe('every arrangement on every family', () => {
  it('is there', () => expect(cases.length).toBeGreaterThan(80));

  it('has every wire of its plan in the schedule and in the record', () => {
    for (const { name, job, profile } of cases) {
      const { wires = {} } = job.adopted ?? {};
      const tags = Object.values(wires).map((w) => w.number);
      expect(
        wireTable(job)
          .rows.map((r) => r[0])
          .sort(),
      )
        .withContext(name)
        .toEqual(tags.sort());
      const files = recordFiles(job, profile);
      expect(files['wires.csv'].split('\r\n').length - 2)
        .withContext(name)
        .toBe(tags.length);
      const hands = files['hand-list.csv'].split('\r\n').map((row) => row.split(','));
      expect(
        hands
          .slice(1)
          .flatMap((cells) => (cells[2] ? [cells[2]] : []))
          .sort(),
      )
        .withContext(name)
        .toEqual(tags.sort());
    }
  });

  it('has nothing that is planned and untold: links, settings and voltages are listed, tested and recorded', () => {
    for (const { name, job, profile } of cases) {
      const files = recordFiles(job, profile);
      const keys = liveSteps(job, profile).map((s) => s.key);
      for (const id of Object.keys(job.adopted?.links ?? {})) {
        expect(files['links.csv']).withContext(name).toContain(`\r\n${id},`);
        expect(keys).withContext(name).toContain(`link.${id}`);
      }
      const plan = planJob(job, profile);
      const keyed = plan.ok ? plan.keying.map((line) => line.code) : [];
      const model = modelOf(profile, job.profile.model);
      const factory = model ? factorySettings(profile, model) : {};
      for (const [code, { value }] of Object.entries(job.adopted?.settings ?? {})) {
        if (value === factory[code]) continue;
        expect(keyed).withContext(`${name} ${code}`).toContain(code);
        expect(files['keying.csv']).withContext(`${name} ${code}`).toContain(`,${code},`);
      }
    }
  });

  it('is planned once more as it is built: adopting changes nothing', () => {
    for (const { name, job, profile } of cases) {
      const again = planJob(job, profile);
      if (!again.ok) throw new Error(`${name}: no plan`);
      expect(wiringDifference(job.adopted, again.wiring).map((c) => c.said))
        .withContext(name)
        .toEqual([]);
      expect(differs(job.adopted, again.wiring)).withContext(name).toBeFalse();
      expect(adoption(again).planHash)
        .withContext(name)
        .toBe(job.adopted?.planHash as string);
      // The order in which keys happen to lie is no difference.
      const turned = JSON.parse(JSON.stringify(job), (_k, v: unknown) =>
        typeof v === 'object' && v !== null && !Array.isArray(v)
          ? Object.fromEntries(Object.entries(v).reverse())
          : v,
      ) as Job;
      expect(hashOf(turned)).withContext(name).toBe(hashOf(job));
      expect(differs(turned.adopted, again.wiring)).withContext(name).toBeFalse();
    }
  });

  it('has a word for everything it says: steps, cautions, findings, marks, wires, devices', () => {
    const rules = new Set(hazardRules.flatMap((r) => Object.keys(r.finds)));
    for (const rule of rules)
      expect(sayFinding({ rule, args: {} } as never).why.length)
        .withContext(rule)
        .toBeGreaterThan(10);
    for (const { name, job, profile } of cases) {
      for (const step of liveSteps(job, profile)) {
        for (const phrase of [step.do, step.must])
          expect(say(phrase)).withContext(`${name} ${phrase.code}`).not.toBe(phrase.code);
        for (const c of step.cautions) expect(sayCaution(c)).withContext(c).not.toBe(c);
      }
      for (const { phases, id } of trialsOf(job, profile).list)
        for (const { mark } of phases)
          expect(markNames[mark]).withContext(`${id} ${mark}`).toBeDefined();
      for (const { working } of plateFacts(job, profile))
        for (const { title } of [working, ...working.inputs, ...working.results]) {
          const code = /^fact\.(\w+)/u.exec(title)?.[1];
          if (code !== undefined) expect(factTitles[code]).withContext(code).toBeDefined();
          expect(sayTitle(title)).withContext(name).not.toContain('fact.');
        }
      for (const { why } of Object.values(job.adopted?.settings ?? {}))
        expect(say(why)).withContext(`${name} ${why.code}`).not.toBe(why.code);
      for (const { kind } of Object.values(job.adopted?.devices ?? {}))
        expect(deviceKinds[kind]).withContext(kind).toBeDefined();
    }
  });

  it('names a trial that is there for every expected value and every proof, within its time', () => {
    for (const { name, job, profile } of cases) {
      const trials = trialsOf(job, profile);
      const named = [
        ...liveSteps(job, profile).flatMap(({ from }) =>
          from.kind === 'simulation' ? [from] : [],
        ),
        ...checkJob(job, profile).flatMap(({ proof }) => (proof ? [proof] : [])),
      ];
      expect(named.length).withContext(name).toBeGreaterThan(3);
      expect(
        [...trials.list, ...liveOf(job, profile).trials]
          .map((t) => t.id)
          .filter((id) => !isTrialId(id)),
      )
        .withContext(name)
        .toEqual([]);
      for (const { script, atUs } of named) {
        const trial = shownTrial(job, profile, script);
        expect(trial).withContext(`${name} ${script}`).toBeDefined();
        expect(atUs <= (trial?.endMs ?? 0) * 1000 && atUs >= 0)
          .withContext(`${name} ${script} ${atUs}`)
          .toBeTrue();
      }
    }
  });
});

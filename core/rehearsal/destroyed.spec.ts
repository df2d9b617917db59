import { shippedProfile, type Profile } from '../catalogue/index.js';
import { checkJob } from '../hazards/index.js';
import { harmable, install } from '../installation/index.js';
import type { Act, Job } from '../job/index.js';
import { adopted, bareJob } from '../testing/jobs.js';
import { everyArrangement } from '../testing/matrix.js';
import { trialsOf } from '../trials/index.js';
import { stateAt, type Trace } from '../trace/index.js';
import { sayFinding } from '../words/index.js';
import { DESTROYED, Engine, timedActs, whyNotRunning } from './index.js';

const ondulet = (): Profile => shippedProfile('ondulet-n');
const sound = (): Job =>
  adopted(bareJob({ estop: 'safeTorqueOff' }, ondulet(), 'N0220'), ondulet());

/** A job in which the landings of its wires are exchanged for others. */
function landed(change: Readonly<Record<string, string>>): Job {
  const job = structuredClone(sound());
  for (const w of Object.values(job.adopted?.wires ?? {})) {
    w.from = change[w.from] ?? w.from;
    w.to = change[w.to] ?? w.to;
  }
  return job;
}

function rehearsed(
  job: Job,
  acts: readonly Act[],
  endMs: number,
): { engine: Engine; trace: Trace } {
  const engine = new Engine(install(job, ondulet()));
  engine.runTo(endMs * 1000, timedActs(acts));
  return { engine, trace: engine.trace };
}

describe('a device that has to bear more than it withstands', () => {
  it('is destroyed at that moment and stays so: nothing works any more, and why it does not run names the terminal alone', () => {
    const job = landed({ 'device:L1': 'device:U', 'device:U': 'device:L1' });
    const acts: Act[] = [
      { do: 'supplyOn', atMs: 1000 },
      { do: 'supplyOff', atMs: 5000 },
      { do: 'supplyOn', atMs: 200_000 },
    ];
    const { engine, trace } = rehearsed(job, acts, 210_000);
    const at = (ms: number): string => stateAt(trace, 'device.state', ms * 1000);
    expect([at(900), at(1001), at(4000), at(209_000)]).toEqual([
      jasmine.stringMatching(/^(?!destroyed)/u),
      DESTROYED,
      DESTROYED,
      DESTROYED,
    ]);
    const { running, conditions } = whyNotRunning(install(job, ondulet()), engine, 210_000_000);
    expect(running).toBeFalse();
    expect(conditions.map((c) => [c.code, c.met, c.args['terminal']])).toEqual([
      ['destroyed', false, 'U'],
    ]);
  });

  it('is destroyed by its own 24 V on the input of the dial, and the finding tells the volts that reached it', () => {
    const job = landed({ 'device:10E': 'device:24E' });
    const found = checkJob(job, ondulet()).filter((f) => f.severity === 'stop');
    expect(found.map((f) => f.rule)).toEqual(['damage.overvoltage']);
    expect(sayFinding(found[0]).what).toMatch(/2[34] V/u);
    const trial = trialsOf(job, ondulet()).run(found[0].proof?.script ?? '');
    const ms = (found[0].proof?.atUs ?? 0) / 1000;
    expect(trial.state(ms)).toBe(DESTROYED);
  });

  it('is told nothing of in a sound job: no arrangement on any family destroys its device in any trial', () => {
    let tried = 0;
    for (const { name, job, profile } of everyArrangement()) {
      const trials = trialsOf(job, profile);
      if (trials.installation.device.withstand.length === 0) continue;
      for (const { id, endMs } of trials.list) {
        expect(trials.run(id).state(endMs)).withContext(`${name} ${id}`).not.toBe(DESTROYED);
        tried++;
      }
    }
    expect(tried).toBeGreaterThan(500);
  });

  it('is destroyed in a trial only where something is said to be able to harm it, whatever two wire ends are exchanged', () => {
    const every = [...everyArrangement()];
    let destroyed = 0;
    for (let n = 0; n < 80; n++) {
      const { name, job, profile } = every[(n * 37) % every.length];
      const mixed = structuredClone(job);
      const wires = Object.values(mixed.adopted?.wires ?? {});
      const [x, y] = [wires[(n * 7 + 1) % wires.length], wires[(n * 13 + 5) % wires.length]];
      [x.from, y.to] = [y.to, x.from];
      const trials = trialsOf(mixed, profile);
      const could = harmable(trials.installation);
      for (const { id, endMs } of trials.list) {
        if (trials.run(id).state(endMs) !== DESTROYED) continue;
        destroyed++;
        expect(could.length)
          .withContext(`${name}, ${id}, ${x.from} for ${y.to}`)
          .toBeGreaterThan(0);
      }
    }
    expect(destroyed).toBeGreaterThan(50);
  });

  it('needs no look at any trial where nothing of it can be harmed: so it is on the drum and with its supplies crossed it is not', () => {
    const names = (job: Job): string[] =>
      harmable(install(job, ondulet())).map(({ terminal }) => terminal);
    expect(names(sound())).toEqual([]);
    expect(names(landed({ 'device:10E': 'device:24E' }))).toContain('A1');
  });
});

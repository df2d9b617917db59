import { faultKey, type Fault, type Job } from '../../job/index.js';
import { Sweep } from '../../hazards/index.js';
import { everyArrangement } from '../../testing/matrix.js';
import { seeded } from '../../testing/mutate-job.js';
import { planned } from '../../testing/station.js';
import type { PanelReading } from './judged.js';
import { readingsOf } from './readings.js';

const failed = (readings: readonly PanelReading[]): string[] =>
  readings.flatMap(({ step, verdict }) =>
    verdict === 'fail' && step.requirement?.unmet === undefined ? [step.key] : [],
  );

/** The panel of a job with one thing otherwise that nobody has noticed. */
const hidden = (job: Job, actual: Fault): Job => ({
  ...job,
  deviations: {
    one: { ord: 1, where: { kind: 'device', id: 'device' }, actual, why: 'nobody knows' },
  },
});

const cases = everyArrangement();

describe('readings of a panel', () => {
  it('pass every step where the panel is as planned, as simulated and a little off', () => {
    const random = seeded(11);
    let steps = 0;
    cases
      .filter((_, i) => i % 12 === 0)
      .forEach(({ name, job, profile }) => {
        for (const by of [undefined, random]) {
          const readings = readingsOf(job, profile, structuredClone(job), by);
          steps += readings.length;
          expect(failed(readings)).withContext(name).toEqual([]);
          // Nothing passes where the job itself has not what is required.
          for (const { step, verdict } of readings)
            if (step.requirement?.unmet) expect(verdict).withContext(step.key).toBe('fail');
        }
      });
    expect(steps).toBeGreaterThan(700);
  });

  it('fail where a fault lets it start by itself or takes a stop away, whatever it is', () => {
    const random = seeded(5);
    let looked = 0;
    for (const { name, job, profile } of cases.filter((_, i) => i % 19 === 4)) {
      const sweep = new Sweep(job, profile);
      const grave = sweep.faults.flatMap((fault) => {
        const is = sweep.judge(fault).at.beforePower;
        return is === 'startsByItself' || is === 'losesStop' ? [fault.fault] : [];
      });
      for (const fault of grave.filter(() => random() < 0.5).slice(0, 4)) {
        looked++;
        expect(failed(readingsOf(job, profile, hidden(job, fault))).length)
          .withContext(`${name} ${faultKey(fault)}`)
          .toBeGreaterThan(0);
      }
    }
    expect(looked).toBeGreaterThan(6);
  });

  it('fail at exactly the loops and inputs that a lifted wire or a stuck contact concerns', () => {
    const { job, profile } = planned('ondulet-n', 'threeWireDirection');
    const sound = readingsOf(job, profile, job);
    const loops = (bad: readonly string[]): string[] =>
      bad.filter((key) => key.startsWith('dead.loop.')).map((key) => key.split('.')[2]);
    const { assignments = {}, wires = {} } = job.adopted ?? {};
    const inputs = Object.entries(assignments).filter(([, { at }]) =>
      sound.some(
        ({ step }) =>
          step.key.startsWith('dead.loop.') &&
          JSON.stringify(step.do).includes(at.slice(at.indexOf(':'))),
      ),
    );
    expect(inputs.length).toBeGreaterThan(2);
    for (const [id, { at }] of inputs) {
      const [wire] = Object.entries(wires).find(([, w]) => w.from === at || w.to === at) ?? [];
      if (!wire) throw new Error(at);
      const bad = failed(readingsOf(job, profile, hidden(job, { kind: 'open', wire })));
      // Dead, only its own loop; live, what it commands.
      expect([...new Set(loops(bad))])
        .withContext(id)
        .toEqual([id]);
      expect(bad.some((key) => !key.startsWith('dead.')))
        .withContext(`${id}: ${bad.join(' ')}`)
        .toBeTrue();
    }
  });

  it('fail for a dial the wrong way round, links and settings otherwise, leads of the motor exchanged, a burnt coil', () => {
    const { job, profile } = planned('marrowick-f', 'sealInOwn24');
    const { wires = {}, links = {} } = job.adopted ?? {};
    const bad = (fault: Fault): string[] => failed(readingsOf(job, profile, hidden(job, fault)));
    const at = (landing: string): string =>
      Object.entries(wires).find(([, w]) => w.from === landing || w.to === landing)?.[0] ?? '';
    const end = (wire: string, landing: string): 'from' | 'to' =>
      wires[wire].from === landing ? 'from' : 'to';
    const swapped = (a: string, b: string): Fault => ({
      kind: 'swapped',
      wires: [at(a), at(b)],
      ends: [end(at(a), a), end(at(b), b)],
    });
    const motor = bad(swapped('device:U', 'device:V'));
    expect(motor.length).toBeGreaterThan(0);
    expect(motor.every((key) => /^(?:bump|direction|jog)\./u.test(key)))
      .withContext(motor.join())
      .toBeTrue();
    const dial = bad(swapped('device:P10', 'device:A0'));
    expect(dial).toEqual(jasmine.arrayContaining(['dead.dial.0', 'dead.dial.100']));
    const [link, position] = Object.entries(links)[0];
    const other =
      Object.keys(profile.links[link].positions).find((x) => x !== position.position) ?? '';
    expect(bad({ kind: 'link', link, position: other })).toEqual(
      jasmine.arrayContaining([`link.${link}`, 'dead.links']),
    );
    expect(bad({ kind: 'part', device: 'relay.sealIn', what: 'coil' }).length).toBeGreaterThan(0);
    const accel = Object.entries(job.adopted?.settings ?? {}).find(([code]) => code === '212');
    expect(bad({ kind: 'setting', code: accel?.[0] ?? '', value: 30 })).toContain('ramp.up');
  });
});

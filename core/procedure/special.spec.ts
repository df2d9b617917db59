import { shippedProfile } from '../catalogue/index.js';
import { checkJob } from '../hazards/index.js';
import type { Act, Job } from '../job/index.js';
import {
  give,
  powerOnActs,
  powerUp,
  READY_MS,
  shippedArrangements,
  startActs,
  stopActs,
  take,
} from '../scheme/index.js';
import { adopted } from '../testing/jobs.js';
import { sayFinding } from '../words/index.js';
import { families, jobFor, planned, Run, SETTLED_MS } from '../testing/station.js';

describe('what is special about an arrangement', () => {
  const at = READY_MS + SETTLED_MS;

  it('several stations: every start starts, every stop stops', () => {
    const { job, profile, a } = planned('ondulet-n', 'severalStations');
    expect(a.stops).toEqual(['stop', 'stop.2', 'stop.3']);
    for (const start of ['start', 'start.2', 'start.3'] as const)
      for (const [i] of a.stops.entries()) {
        const run = new Run(
          job,
          profile,
          [
            ...powerUp(a, 1),
            give(a, start, READY_MS),
            take(a, start, READY_MS + 300),
            ...stopActs(a, 'forward', at, i),
          ],
          at + 4000,
        );
        expect([Math.round(run.hz(at - 100)), run.hz(at + 3900)]).toEqual([49, 0]);
      }
  });

  it('e-stop on the contactor alone cuts the supply of a running drive; with the inhibit it leaves no fault', () => {
    for (const [id, fault] of [
      ['estopContactor', true],
      ['estopContactorInhibit', false],
    ] as const) {
      const { job, profile, a } = planned('marrowick-f', id);
      const run = new Run(
        job,
        profile,
        [...powerUp(a, 1), ...startActs(a, 'forward', READY_MS), give(a, 'estop', at)],
        at + 2000,
      );
      expect([
        Math.round(run.hz(at - 50)),
        run.level('contactor.line.on', at + 100),
        run.state(at + 200) === 'faulted',
      ]).toEqual([49, 0, fault]);
      expect(checkJob(job, profile).some((f) => f.rule === 'estop.undervoltage')).toBe(fault);
    }
  });

  it('safe torque off: both channels open, no torque at once, no restart when it is twisted out', () => {
    const { job, profile, a } = planned('ondulet-n', 'estopTorqueOff');
    const run = new Run(
      job,
      profile,
      [
        ...powerUp(a, 1),
        ...startActs(a, 'forward', READY_MS),
        give(a, 'estop', at),
        take(a, 'estop', at + 20_000),
      ],
      at + 25_000,
    );
    expect([
      run.level('device.SA', at - 50),
      run.level('device.SB', at - 50),
      run.level('device.SA', at + 50),
      run.level('device.SB', at + 50),
    ]).toEqual([1, 1, 0, 0]);
    expect([
      run.state(at + 50),
      run.hz(at + 50),
      run.state(at + 24_000),
      run.hz(at + 24_000),
    ]).toEqual(['enableOpen', 0, 'ready', 0]);
  });

  it('without such an e-stop the enables are bridged by wires, and the sweep and the meter find them', () => {
    const { job } = planned('ondulet-n', 'twoWire');
    const wires = Object.values(job.adopted?.wires ?? {}).filter((w) => w.class === 'safety');
    expect(wires.map((w) => `${w.from} ${w.to}`).sort()).toEqual([
      'device:24E device:SA',
      'device:SA device:SB',
    ]);
  });

  it('a level run starts by itself when its e-stop is twisted out on a device that follows the level', () => {
    const { job, profile } = planned('ondulet-micro', 'twoWire', { estop: 'outputInhibit' });
    const rules = checkJob(job, profile).map((f) => `${f.severity} ${f.rule}`);
    expect(rules).toContain('stop condition.returnStarts');
    expect(rules).toContain('stop estop.ordinaryInput');
  });

  it('a latch on its own supply outlives the drive; on the drive’s 24 V it does not', () => {
    const followLevel = (id: string, family = 'marrowick-f') => {
      const { job, profile } = planned(family, id, { powerReturn: 'restart' });
      return checkJob(job, profile).some((f) => f.rule === 'latch.outlivesPower');
    };
    expect([followLevel('sealInOwn24'), followLevel('sealInDrive24')]).toEqual([true, false]);
  });

  it('the warning horn sounds for its time, then the motor starts', () => {
    const { job, profile, a } = planned('marrowick-f', 'startWarning');
    const run = new Run(
      job,
      profile,
      [...powerUp(a, 1), ...startActs(a, 'forward', READY_MS)],
      READY_MS + 9000,
    );
    expect([
      run.lit('horn', READY_MS - 100),
      run.lit('horn', READY_MS + 2500),
      run.lit('horn', READY_MS + 5500),
    ]).toEqual([false, true, false]);
    expect([run.hz(READY_MS + 4900), run.hz(READY_MS + 8500) > 0]).toEqual([0, true]);
  });

  it('the brake opens when the motor carries the load and closes before it stands', () => {
    const { job, profile, a } = planned('ondulet-n', 'brakeRelease');
    const run = new Run(
      job,
      profile,
      [...powerUp(a, 1), ...startActs(a, 'forward', READY_MS), ...stopActs(a, 'forward', at)],
      at + 6000,
    );
    const open = (ms: number): boolean => run.level('brake.on', ms) === 1;
    expect([open(READY_MS), open(at - 100), open(at + 5900)]).toEqual([false, true, false]);
    // Released at 1.5 Hz of a 25 Hz/s ramp, then relay and brake need their times: 15 ms and 80 ms.
    const openedMs = Array.from({ length: 400 }, (_, i) => READY_MS + i).find(open) ?? 0;
    const reached = READY_MS + 4 + (1.5 / 25) * 1000;
    expect(openedMs).toBeGreaterThan(reached + 80);
    expect(openedMs).toBeLessThan(reached + 120);
  });

  it('each condition stops and does not start a three-wire station again', () => {
    const { job, profile, a } = planned('marrowick-f', 'interlocks');
    expect(a.interlocks).toEqual([
      'interlock.level',
      'interlock.pressure',
      'interlock.guard',
      'interlock.thermostat',
    ]);
    for (const condition of a.interlocks) {
      const run = new Run(
        job,
        profile,
        [
          ...powerUp(a, 1),
          ...startActs(a, 'forward', READY_MS),
          give(a, condition, at),
          take(a, condition, at + 5000),
        ],
        at + 9000,
      );
      expect([run.hz(at - 50), run.hz(at + 4900), run.hz(at + 8900)].map(Math.floor))
        .withContext(condition)
        .toEqual([49, 0, 0]);
    }
  });

  it('the foot stop with its brake coasts, and the plan says why', () => {
    const { job, profile, a } = planned('ondulet-n', 'footStopBrake');
    expect(job.adopted?.settings['R/09']).toEqual(
      jasmine.objectContaining({
        value: 1,
        why: { code: 'wish', args: { wish: 'footStop', role: 'stopMode' } },
      }),
    );
    const run = new Run(
      job,
      profile,
      [...powerUp(a, 1), ...startActs(a, 'forward', READY_MS), give(a, 'foot', at)],
      at + 3000,
    );
    expect([Math.round(run.hz(at - 50)), run.hz(at + 50)]).toEqual([49, 0]);
  });

  it('a transistor output leaks less than the input needs, and is found where it does not', () => {
    const { job, profile } = planned('ondulet-n', 'controllerTransistor');
    expect(checkJob(job, profile).filter((f) => f.rule.startsWith('input.'))).toEqual([]);
    const adoptedJob = job.adopted as NonNullable<Job['adopted']>;
    const leaking = {
      ...adoptedJob.devices,
      'controller.run': {
        ...adoptedJob.devices['controller.run'],
        params: { leakageMA: 2, dropV: 0.5, place: 'machine' },
      },
    };
    const found = checkJob({ ...job, adopted: { ...adoptedJob, devices: leaking } }, profile).find(
      (f) => f.rule === 'input.uncertain',
    );
    // 2 mA through 4.4 kΩ.
    expect(found?.args['volts']).toBeCloseTo(8.8, 1);
  });

  it('the controller hears the run contact before it gives a speed', () => {
    const { job, profile, a } = planned('quernstone-t', 'controllerHandshake');
    const acts = [
      { do: 'supplyOn', atMs: 0 } as Act,
      ...startActs(a, 'forward', READY_MS),
      { do: 'dial', atMs: READY_MS + 1000, device: a.dial as string, to: 0.5 } as Act,
    ];
    const run = new Run(job, profile, acts, READY_MS + 5000);
    // At 0 V the drive is at its lowest speed: a run contact that counts zero speed as running would be dishonest.
    expect([
      run.lit('controller.runs', READY_MS - 100),
      run.lit('controller.runs', READY_MS + 4000),
      Math.round(run.hz(READY_MS + 4000)),
    ]).toEqual([false, true, 25]);
  });

  it('presets come one by one, coded as the device codes them', () => {
    for (const family of ['ondulet-n', 'ondulet-micro']) {
      const { job, profile, a } = planned(family, 'presets');
      const acts = [
        ...powerUp(a, 1),
        ...startActs(a, 'forward', READY_MS),
        ...a.presets.map((p, i) => give(a, p, READY_MS + (i + 1) * 5000)),
      ];
      const run = new Run(job, profile, acts, READY_MS + 20_000);
      expect(a.presets.map((_, i) => Math.round(run.hz(READY_MS + (i + 1) * 5000 + 4800))))
        .withContext(family)
        .toEqual([15, 30, 45]);
    }
  });

  it('work light and fan lie on their sides of the contactor', () => {
    const { job, profile, a } = planned('marrowick-f', 'lightAndFan');
    const run = new Run(job, profile, [...powerUp(a, 0), give(a, 'estop', at)], at + 500);
    expect(
      ['light.work', 'fan.panel', 'lamp.contactorClosed'].map((id) => [
        run.lit(id, at - 50),
        run.lit(id, at + 400),
      ]),
    ).toEqual([
      [true, true],
      [true, false],
      [true, false],
    ]);
    const switched = adopted({ ...job, scheme: { ...job.scheme, workLight: 'goes' } }, profile);
    expect(
      checkJob({ ...switched, scheme: { ...switched.scheme, workLight: 'stays' } }, profile).map(
        (f) => f.rule,
      ),
    ).toContain('load.wrongSide');
  });

  it('the lamp behind the stop is lit while nothing runs, the running lamp is not', () => {
    const { job, profile, a } = planned('ondulet-n', 'lamps');
    const run = new Run(
      job,
      profile,
      [...powerUp(a, 1), ...startActs(a, 'forward', READY_MS), give(a, 'stop', at)],
      at + 4000,
    );
    expect(
      [READY_MS - 50, at - 50, at + 3900].map((ms) => [
        run.lit('lamp.stopReleased', ms),
        run.lit('lamp.running', ms),
      ]),
    ).toEqual([
      [true, false],
      [true, true],
      [false, false],
    ]);
  });

  it('up and down move the reference at its rate, held where it is let go', () => {
    const { job, profile, a } = planned('ondulet-n', 'upDown');
    const acts = [
      ...powerUp(a, 1),
      ...startActs(a, 'forward', READY_MS),
      give(a, 'up', at),
      take(a, 'up', at + 4000),
      give(a, 'down', at + 8000),
      take(a, 'down', at + 9000),
    ];
    const run = new Run(job, profile, acts, at + 12_000);
    // 5 Hz/s for 4 s, then for 1 s.
    expect(run.hz(at + 7000)).toBeCloseTo(20, 0);
    expect(run.hz(at + 11_900)).toBeCloseTo(15, 0);
  });

  it('the key to local makes the station’s stop dead on a device that ignores it, and says so', () => {
    const rules = (family: string): string[] => {
      const { job, profile } = planned(family, 'localRemote');
      return checkJob(job, profile).map((f) => f.rule);
    };
    expect(rules('quernstone-t')).toContain('place.stopIgnored');
    expect(rules('ondulet-n')).not.toContain('place.stopIgnored');
  });

  it('power is only given when the contactor’s button is pressed again', () => {
    const { job, profile, a } = planned('marrowick-f', 'lineContactor');
    const on = at + 60_000;
    const acts: (Act | undefined)[] = [
      ...powerUp(a, 1),
      ...startActs(a, 'forward', READY_MS),
      ...stopActs(a, 'forward', at),
      { do: 'supplyOff', atMs: at + 5000 },
      { do: 'supplyOn', atMs: on },
      ...powerOnActs(a, on + 5000),
    ];
    const run = new Run(job, profile, acts, on + 9000);
    expect([run.state(on + 4900), run.state(on + 8900)]).toEqual(['off', 'ready']);
  });

  it('every finding on every arrangement and family has words', () => {
    for (const [family, { model, cannot }] of Object.entries(families)) {
      const profile = shippedProfile(family);
      for (const { id, scheme } of shippedArrangements.filter((s) => !cannot[s.id])) {
        for (const finding of checkJob(adopted(jobFor(scheme, profile, model), profile), profile)) {
          const said = Object.values(sayFinding(finding));
          expect(
            said.every(
              (text) => text.length > 10 && !/undefined|NaN|\bsafe\b(?! torque)/u.test(text),
            ),
          )
            .withContext(`${family} ${id} ${finding.key}: ${said.join(' | ')}`)
            .toBeTrue();
        }
      }
    }
  });
});

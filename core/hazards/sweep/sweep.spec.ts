import type { Job, Scheme } from '../../job/index.js';
import { shippedProfile } from '../../catalogue/index.js';
import { adopted, bareJob, marrowick } from '../../testing/jobs.js';
import { faultClasses, Sweep, type FaultClass, type Moment, type SweepRow } from './index.js';

const profile = marrowick();
const jobOf = (scheme: Partial<Scheme>): Job =>
  adopted(bareJob({ accelS: 2, decelS: 2, ...scheme }));

/** Every row by what it breaks: "open feed.start", "welded button.stop". */
function swept(job: Job): Record<string, SweepRow> {
  const sweep = new Sweep(job, profile);
  const rows = sweep.faults.map((f) => sweep.judge(f));
  const name = ({ fault }: SweepRow): string =>
    `${fault.kind} ${fault.wire ? job.adopted?.wires[fault.wire].function : fault.subject}`;
  return Object.fromEntries(rows.map((r) => sweep.lookBehind(r, rows)).map((r) => [name(r), r]));
}
const worst = (rows: Record<string, SweepRow>): Record<string, FaultClass> =>
  Object.fromEntries(Object.entries(rows).map(([name, r]) => [name, r.worst]));

describe('sweep of single faults', () => {
  const twoWire = jobOf({
    startStop: 'twoWire',
    direction: 'forwardOnly',
    powerReturn: 'stayStopped',
  });
  const threeWire = jobOf({
    startStop: 'threeWire',
    direction: 'forwardOnly',
    stationFeed: 'separate',
  });
  const chained = jobOf({
    startStop: 'threeWire',
    direction: 'forwardOnly',
    stationFeed: 'chained',
  });
  const bothWays = jobOf({
    startStop: 'threeWire',
    direction: 'forwardReverse',
    stationFeed: 'separate',
  });

  it('of a two-wire station: an open wire stops, a wire at 24 V starts, as worked by hand', () => {
    const rows = worst(swept(twoWire));
    const wanted: Record<string, FaultClass> = {
      // The run contact is the only thing between 24 V and the input.
      'open feed.run.forward': 'failsSafe',
      'open run.forward': 'failsSafe',
      'to0 run.forward': 'failsSafe',
      'to24 run.forward': 'startsByItself',
      'welded contact.forward': 'startsByItself',
      // The feed is at 24 V anyway; at 0 V it takes the supply of every input down.
      'to24 feed.run.forward': 'noEffect',
      'to0 feed.run.forward': 'failsSafe',
      // The dial: wiper or its upper end lost is standstill, its lower end lost is full speed.
      'open dial.wiper': 'failsSafe',
      'open dial.high': 'failsSafe',
      'open dial.low': 'wrongDirectionOrSpeed',
      // 24 V on an input that takes ten.
      'to24 dial.wiper': 'destroys',
      'to0 dial.low': 'noEffect',
      'open motor.PE': 'hidden',
      'open feed.PE': 'hidden',
    };
    for (const [name, c] of Object.entries(wanted)) expect([name, rows[name]]).toEqual([name, c]);
  });

  it('of a three-wire station: a welded stop or 24 V on its wire loses the stop; a welded start waits for a stop', () => {
    const rows = worst(swept(threeWire));
    const wanted: Record<string, FaultClass> = {
      'open feed.stop': 'failsSafe',
      'open stop': 'failsSafe',
      'to0 stop': 'failsSafe',
      'to24 stop': 'losesStop',
      'welded button.stop': 'losesStop',
      'open start': 'losesFunction',
      'to24 start': 'startsByItself',
      'welded button.start': 'startsByItself',
    };
    for (const [name, c] of Object.entries(wanted)) expect([name, rows[name]]).toEqual([name, c]);
    const chainedRows = swept(chained);
    expect(chainedRows['to24 stop'].worst).toBe('losesStop');
    expect(chainedRows['welded button.start'].at.beforePower).toBe('startsByItself');
    expect(swept(threeWire)['welded button.start'].at.beforePower).toBe('failsSafe');
  });

  it('of a direction selector: its wire decides the way', () => {
    const rows = worst(swept(bothWays));
    expect([
      rows['open direction'],
      rows['to24 direction'],
      rows['welded select.direction'],
    ]).toEqual(['wrongDirectionOrSpeed', 'wrongDirectionOrSpeed', 'wrongDirectionOrSpeed']);
  });

  it('knows the moment: the same fault is harmless before power-up and starts the motor while it stands', () => {
    const row = swept(twoWire)['to24 run.forward'];
    const expected: Record<Moment, FaultClass> = {
      beforePower: 'failsSafe',
      stopped: 'startsByItself',
      running: 'losesStop',
      stopping: 'losesStop',
    };
    expect(row.at).toEqual(expected);
    expect(row.moment).toBe('stopped');
  });

  it('gives the same verdicts in any order, and covers every control wire with every kind of fault', () => {
    const sweep = new Sweep(bothWays, profile);
    const forward = sweep.faults.map((f) => sweep.judge(f));
    const again = new Sweep(bothWays, profile);
    const backward = [...again.faults]
      .reverse()
      .map((f) => again.judge(f))
      .reverse();
    expect(backward).toEqual(forward);
    const wires = Object.entries(bothWays.adopted?.wires ?? {}).filter(
      ([, w]) => w.class === 'controlDc' || w.class === 'analogue',
    );
    for (const [id] of wires)
      expect(sweep.faults.filter((f) => f.wire === id).map((f) => f.kind)).toEqual([
        'open',
        'to24',
        'to0',
      ]);
    expect(forward.every((r) => faultClasses.includes(r.worst))).toBeTrue();
  });

  it('with automatic restart stated, a start on return is no fault of the wire', () => {
    const restart = jobOf({
      startStop: 'twoWire',
      direction: 'forwardOnly',
      powerReturn: 'restart',
      exposed: 'nobody',
    });
    const rows = swept(restart);
    expect(rows['open run.forward'].worst).toBe('failsSafe');
    expect(rows['to24 run.forward'].at.beforePower).toBe('startsByItself');
  });

  it('by the first difference gives the verdicts of a run from power-up', () => {
    const n = shippedProfile('ondulet-n');
    const wishes: Partial<Scheme>[] = [
      {
        startStop: 'threeWire',
        stationFeed: 'chained',
        direction: 'forwardReverse',
        estop: 'safeTorqueOff',
        jog: 'forward',
        stations: 2,
      },
      {
        startStop: 'sealInRelay',
        latchSupply: 'own24',
        direction: 'forwardOnly',
        interlocks: ['guard'],
      },
      {
        startStop: 'twoWire',
        direction: 'forwardOnly',
        directionBy: undefined,
        estop: 'contactorInhibit',
      },
    ];
    for (const scheme of wishes) {
      const job = adopted(bareJob({ accelS: 2, decelS: 2, ...scheme }, n, 'N0220'), n);
      const [quick, slow] = [new Sweep(job, n), new Sweep(job, n, { fromZero: true })];
      quick.faults
        .filter((_, i) => i % 5 === 0)
        .forEach((fault) =>
          expect(quick.judge(fault).at).withContext(fault.key).toEqual(slow.judge(fault).at),
        );
    }
  });

  it('finds that one welded contact of a two-channel emergency stop is hidden, and of a one-contact one loses the stop', () => {
    const n = shippedProfile('ondulet-n');
    const rows = (
      estop: 'safeTorqueOff' | 'safeTorqueOffOneContact',
    ): Record<string, FaultClass> => {
      const job = adopted(
        bareJob(
          {
            accelS: 2,
            decelS: 2,
            startStop: 'threeWire',
            stationFeed: 'separate',
            direction: 'forwardOnly',
            estop,
          },
          n,
          'N0220',
        ),
        n,
      );
      const sweep = new Sweep(job, n);
      const judged = sweep.faults.map((f) => sweep.judge(f));
      return Object.fromEntries(
        judged.map((r) => sweep.lookBehind(r, judged)).map((r) => [r.fault.key, r.worst]),
      );
    };
    // Both channels: the discrepancy of one trips the drive, so the other still stops it.
    expect(['losesFunction', 'hidden', 'failsSafe', 'noEffect']).toContain(
      rows('safeTorqueOff')['welded:estop:11'],
    );
    expect(rows('safeTorqueOffOneContact')['welded:estop:11']).toBe('losesStop');
  });
});

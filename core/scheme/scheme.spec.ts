import type { Job, Scheme } from '../job/index.js';
import { bareJob } from '../testing/jobs.js';
import {
  arrange,
  directionsOf,
  give,
  operationsOn,
  shippedArrangements,
  startActs,
  startFrom,
  stopActs,
  take,
  type Arrangement,
} from './index.js';
import { presetBits } from './speed.js';

const of = (scheme: Scheme, practice: Job['practice'] = 'IEC', phases: 1 | 3 = 3): Arrangement =>
  arrange({ scheme, practice, plate: { ...bareJob().plate, supply: { phases } } });
/** Landings of a potential in the order of its chain. */
const chain = (a: Arrangement, potential: string): string[] =>
  a.nets.find((n) => n.potential === potential)?.points.map((p) => p.at) ?? [];
const shipped = (id: string): Scheme => shippedArrangements.find((s) => s.id === id)?.scheme ?? {};

describe('circuits of the arrangements, against drawings made by hand', () => {
  it('three-wire fed separately: both contacts on the feed', () => {
    const a = of(shipped('threeWireSeparate'));
    expect(chain(a, 'feed')).toEqual(['@feed', 'button.stop:11', 'button.start:13']);
    expect(chain(a, 'stop')).toEqual(['button.stop:12', '@in:stop']);
    expect(chain(a, 'start')).toEqual(['button.start:14', '@in:start']);
  });

  it('chained: the start behind the stop', () => {
    const a = of(shipped('threeWireChained'));
    expect(chain(a, 'feed')).toEqual(['@feed', 'button.stop:11']);
    expect(chain(a, 'stop')).toEqual(['button.stop:12', 'button.start:13', '@in:stop']);
  });

  it('three stations: stops in series, starts in parallel', () => {
    const a = of(shipped('severalStations'));
    expect([chain(a, 'stop.1'), chain(a, 'stop.2')]).toEqual([
      ['button.stop:12', 'button.stop.2:11'],
      ['button.stop.2:12', 'button.stop.3:11'],
    ]);
    expect(chain(a, 'stop')).toEqual(['button.stop.3:12', '@in:stop']);
    expect(chain(a, 'start')).toEqual([
      'button.start:14',
      'button.start.2:14',
      'button.start.3:14',
      '@in:start',
    ]);
  });

  it('a seal-in relay holds itself past the start, and both fall with the stop', () => {
    const a = of(shipped('sealInDrive24'));
    expect(chain(a, 'latch.stop')).toEqual([
      'button.stop:12',
      'button.start:13',
      'relay.sealIn:13',
    ]);
    expect(chain(a, 'latch.coil')).toEqual([
      'button.start:14',
      'relay.sealIn:14',
      'relay.sealIn:A1',
    ]);
    expect(chain(a, 'run.forward')).toEqual(['relay.sealIn:24', '@in:run.forward']);
    expect(a.devices.find((d) => d.id === 'supply24')).toBeUndefined();
    expect(of(shipped('sealInOwn24')).devices.some((d) => d.id === 'supply24')).toBeTrue();
  });

  it('a line contactor: emergency stop, power off, power on with its holding contact, coil', () => {
    const a = of(shipped('estopContactor'));
    expect(chain(a, 'control.L')).toContain('estop:11');
    expect(chain(a, 'power.stop.1')).toEqual(['estop:12', 'button.powerOff:11']);
    expect(chain(a, 'power.stop')).toEqual([
      'button.powerOff:12',
      'button.powerOn:13',
      'contactor.line:13',
    ]);
    expect(chain(a, 'power.coil')).toEqual([
      'button.powerOn:14',
      'contactor.line:14',
      'contactor.line:A1',
    ]);
  });

  it('control voltage by practice and supply: 230 V behind a transformer, 120 V by NFPA, the phase itself on one phase', () => {
    const coil = (a: Arrangement) =>
      a.devices.find((d) => d.id === 'contactor.line')?.params['volts'];
    const transformer = (a: Arrangement): boolean =>
      a.devices.some((d) => d.kind === 'controlTransformer');
    const cases = [
      of(shipped('estopContactor')),
      of(shipped('estopContactor'), 'NFPA'),
      of(shipped('estopContactor'), 'IEC', 1),
    ];
    expect(cases.map((a) => [coil(a), transformer(a)])).toEqual([
      [230, true],
      [120, true],
      [230, false],
    ]);
    // The bond of the common is a conductor of its own, not a part of its chain.
    expect(chain(cases[0], 'control.N')).not.toContain('supply:PE');
  });

  it('safe torque off: a contact a channel, or one for both', () => {
    const two = of(shipped('estopTorqueOff'));
    expect([chain(two, 'enable.A'), chain(two, 'enable.B')]).toEqual([
      ['estop:12', '@enableA'],
      ['estop:22', '@enableB'],
    ]);
    expect(chain(of(shipped('estopTorqueOffOneContact')), 'enable.A')).toEqual([
      'estop:12',
      '@enableA',
      '@enableB',
    ]);
    const feed = of(shipped('estopTorqueOffAndFeed'));
    expect([chain(feed, 'source'), chain(feed, 'feed')[0]]).toEqual([
      ['@feed', 'estop:31'],
      'estop:32',
    ]);
  });

  it('interlocks lie before the stop of a latch, and before the run contact of a level', () => {
    const conditions: Scheme['interlocks'] = ['guard', 'level'];
    const latch = of({ ...shipped('threeWireSeparate'), interlocks: conditions });
    expect(chain(latch, 'feed')).toContain('interlock.guard:11');
    expect(chain(latch, 'stop.1')).toEqual(['interlock.guard:12', 'interlock.level:11']);
    const level = of({ ...shipped('twoWire'), interlocks: conditions });
    expect(chain(level, 'permit')).toEqual(['interlock.level:12', 'contact.forward:13']);
  });

  it('tags count up by letter in the order of the circuit, none twice', () => {
    for (const { id, scheme } of shippedArrangements) {
      const tags = of(scheme).devices.map((d) => d.tag);
      expect(new Set(tags).size).withContext(id).toBe(tags.length);
      expect(tags).withContext(id).not.toContain('Q1');
    }
  });

  it('a landing lies on one potential only, unless two potentials are one', () => {
    for (const { id, scheme } of shippedArrangements) {
      const seen = new Map<string, string>();
      for (const { potential, points } of of(scheme).nets)
        for (const { at } of points.filter((p) => !p.at.startsWith('@'))) {
          expect(seen.get(at) ?? potential)
            .withContext(`${id} ${at}`)
            .toBe(potential);
          seen.set(at, potential);
        }
    }
  });

  it('every contact that lies in a circuit has both its ends there', () => {
    for (const { id, scheme } of shippedArrangements) {
      const a = of(scheme);
      const wired = new Set(a.nets.flatMap((n) => n.points.map((p) => p.at)));
      for (const f of a.inputs) {
        expect(wired.has(`@in:${f.id}`))
          .withContext(`${id} ${f.id}`)
          .toBeTrue();
        expect([...wired].some((at) => at.startsWith(`${f.device}:`)))
          .withContext(`${id} ${f.device}`)
          .toBeTrue();
      }
    }
  });
});

describe('presets', () => {
  it('binary counts combinations, priority takes one input each; the first is the base where presets are all there is', () => {
    expect([1, 2, 3, 4, 5].map((p) => presetBits(p, 'binary', false))).toEqual([
      [0],
      [1],
      [0, 1],
      [2],
      [0, 2],
    ]);
    expect([1, 2, 3].map((p) => presetBits(p, 'binary', true))).toEqual([[], [1], [0, 1]]);
    expect([1, 2, 3].map((p) => presetBits(p, 'priority', false))).toEqual([[0], [1], [2]]);
  });

  it('the selector closes for each position what its combination asks for', () => {
    const a = of({ ...shipped('presets'), presetsHz: [10, 20, 30, 40] });
    const selector = a.devices.find((d) => d.kind === 'presetSelector');
    // Positions 1 (base) to 4: bit 0 in 3, bit 1 in 2 and 3, bit 2 in 4.
    expect(selector?.positions).toEqual(['1', '2', '3', '4']);
    expect(selector?.contacts?.map((c) => c.closedIn)).toEqual([['3'], ['2', '3'], ['4']]);
    expect(a.inputs.map((f) => f.task)).toEqual([
      'forward',
      'presetBit0',
      'presetBit1',
      'presetBit2',
    ]);
  });
});

describe('standard scripts', () => {
  it('hold a pulse for its time, keep a level until it is let go', () => {
    const pulse = of(shipped('threeWireSeparate'));
    expect(startActs(pulse, 'forward', 1000)).toEqual([
      { do: 'press', atMs: 1000, device: 'button.start' },
      { do: 'release', atMs: 1400, device: 'button.start' },
    ]);
    const level = of(shipped('twoWire'));
    expect(startActs(level, 'forward', 1000)).toEqual([
      { do: 'press', atMs: 1000, device: 'contact.forward' },
    ]);
    expect(stopActs(level, 'forward', 2000)).toEqual([
      { do: 'release', atMs: 2000, device: 'contact.forward' },
    ]);
  });

  it('turn the direction before the start, and give nothing a station has not', () => {
    const a = of(shipped('threeWireDirection'));
    expect(startActs(a, 'reverse', 1000)[0]).toEqual({
      do: 'turn',
      atMs: 900,
      device: 'select.direction',
      position: 'reverse',
    });
    expect([
      directionsOf(of(shipped('twoWire'))),
      startActs(of(shipped('twoWire')), 'reverse', 0),
      give(a, 'estop', 0),
      take(a, 'jogForward', 0),
    ]).toEqual([['forward'], [], undefined, undefined]);
  });

  it('find the hand behind an input: its own contact, or the button at the coil of its relay', () => {
    const relay = of(shipped('sealInDrive24'));
    expect(operationsOn(relay, relay.inputs[0])).toEqual(['start']);
    const selector = of(shipped('twoWireSelector'));
    expect(operationsOn(selector, selector.inputs[1])[0]).toBe('run.reverse');
  });
});

describe('wishes that exclude each other, whatever the device', () => {
  const conflicts = (scheme: Scheme): string[] =>
    of({ direction: 'forwardOnly', ...scheme }).conflicts.map((c) => c.code);
  it('are named by a code', () => {
    expect(conflicts({ startStop: 'threeWire', startWarningS: 5 })).toEqual(['warningNeedsLevel']);
    expect(conflicts({ startStop: 'twoWire', estopInFeed: true })).toEqual([
      'feedContactNeedsHead',
    ]);
    expect(conflicts({ startStop: 'twoWire', lamps: ['contactorClosed'] })).toEqual([
      'noContactorToShow',
    ]);
    expect(conflicts({ startStop: 'twoWire', lamps: ['stopReleased'] })).toEqual(['noStopToShow']);
    expect(conflicts({ startStop: 'twoWire', panelFan: 'goes' })).toEqual(['nothingToGoWith']);
    expect(conflicts({ startStop: 'keypad', interlocks: ['guard'] })).toEqual([
      'keypadHasNoCircuit',
    ]);
    expect(conflicts({ startStop: 'twoWire', speed: 'presets' })).toEqual(['presetsNeedValues']);
    expect(conflicts({ startStop: 'sealInRelay', startWarningS: 5 })).toEqual([]);
  });
});

describe('starting from a shipped arrangement', () => {
  const from = (scheme: Scheme, id: string): Scheme =>
    startFrom(scheme, { id, scheme: shipped(id) });

  it('gives the arrangement itself where nothing was wished', () => {
    for (const { id, scheme } of shippedArrangements)
      expect(from({}, id)).withContext(id).toEqual(scheme);
  });

  it('takes start, direction and speed as a whole: nothing of the last arrangement is left between', () => {
    for (const last of shippedArrangements)
      for (const next of shippedArrangements) {
        const taken = from(last.scheme, next.id);
        for (const k of [
          'startStop',
          'startBy',
          'controllerOutput',
          'handshake',
          'direction',
          'directionBy',
          'stations',
          'stationFeed',
          'latchSupply',
          'speed',
        ] as const)
          expect(taken[k]).withContext(`${last.id} → ${next.id}: ${k}`).toEqual(next.scheme[k]);
      }
  });

  it('never takes an emergency stop, an interlock or a figure of the job away', () => {
    const job: Scheme = {
      startStop: 'keypad',
      estop: 'safeTorqueOff',
      interlocks: ['guard'],
      maxHz: 60,
      exposed: 'nobody',
      powerReturn: 'stayStopped',
      presetsHz: [7, 21],
    };
    for (const { id, scheme } of shippedArrangements) {
      const taken = from(job, id);
      expect(taken.estop)
        .withContext(id)
        .toBe(scheme.estop ?? 'safeTorqueOff');
      expect(taken.interlocks)
        .withContext(id)
        .toEqual(scheme.interlocks ?? ['guard']);
      expect([taken.maxHz, taken.exposed, taken.powerReturn, taken.presetsHz])
        .withContext(id)
        .toEqual([60, 'nobody', 'stayStopped', [7, 21]]);
    }
  });
});

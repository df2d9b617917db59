import fc from 'fast-check';
import { CalculationError, runCalculation } from '../calculation/index.js';
import type { Job } from '../job/index.js';
import { calculations } from '../sums/index.js';
import { bareJob, marrowick } from '../testing/jobs.js';
import { coastTime } from './run-down.js';
import { likelyTyping } from './plate/likely-typing.js';
import { plateFacts } from './plate/facts.js';
import { plateFindings } from './plate/plate-findings.js';

const calc = (name: string, args: object) =>
  runCalculation(calculations[name], args as Record<string, unknown>).result as Record<
    string,
    number
  >;
type Motor = Job['plate']['motor'];
const rules = (change: Partial<Motor>, supplyV = 400): string[] => {
  const job = bareJob();
  Object.assign(job.plate.motor, change);
  job.plate.supply.volts = { v: supplyV, u: 'V' };
  return plateFindings(job, marrowick())
    .map((f) => `${f.rule}@${f.where[0].id}`)
    .filter((rule) => rule.startsWith('plate.'));
};
const only = (change: Partial<Motor>) => {
  const job = bareJob();
  Object.assign(job.plate.motor, change);
  return plateFindings(job, marrowick())[0];
};

describe('calculations', () => {
  // Plates of the demo scenario: I = P/(η·√3·U·cosφ) within 1 %, rated torque as listed there.
  const plates: readonly (readonly [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ])[] = [
    [7.5, 400, 0.907, 0.83, 14.4, 50, 1460, 49.1],
    [2.2, 400, 0.87, 0.81, 4.5, 50, 1440, 14.6],
    [0.75, 230, 0.826, 0.76, 3.0, 50, 1420, 5.04],
    [1.1, 400, 0.843, 0.78, 2.4, 50, 1435, 7.32],
    [37, 400, 0.94, 0.85, 66.8, 50, 1480, 238.7],
    [1.5, 400, 0.856, 0.79, 3.2, 50, 1435, 9.98],
    [11.1855, 460, 0.924, 0.81, 18.8, 60, 1770, 60.4],
    [44.742, 460, 0.95, 0.86, 68.9, 60, 1785, 239.4],
  ];
  for (const [powerKw, voltageV, efficiency, powerFactor, amps, hz, rpm, torque] of plates) {
    it(`agree with the plate of ${powerKw} kW at ${voltageV} V`, () => {
      expect(
        Math.abs(
          calc('motorCurrent', { powerKw, voltageV, efficiency, powerFactor })['currentA'] / amps -
            1,
        ),
      ).toBeLessThan(0.01);
      const speed = calc('plateSpeed', { hz, rpm, powerKw });
      expect(speed['polePairs']).toBe(2);
      expect(Math.abs(speed['torqueNm'] / torque - 1)).toBeLessThan(0.01);
    });
  }

  it('agree with values worked by hand', () => {
    expect(calc('dcLinkVoltage', { supplyV: 480 })['unloadedV']).toBeCloseTo(678.8, 1);
    expect(calc('unbalance', { values: [400, 396, 398] })['unbalancePct']).toBeCloseTo(0.5025, 4);
    expect(calc('unbalance', { values: [230, 232, 225] })['unbalancePct']).toBeCloseTo(
      (100 * 4) / 229,
      4,
    );
    expect(
      calc('analogScale', { x: 12, xLow: 4, xHigh: 20, hzAtLow: 0, hzAtHigh: 50 })['hz'],
    ).toBeCloseTo(25, 9);
    expect(calc('analogScale', { x: 3, xLow: 4, xHigh: 20, hzAtLow: 50, hzAtHigh: 0 })['hz']).toBe(
      50,
    );
    expect(
      calc('rampTime', { fromHz: 10, toHz: 35, maxHz: 50, accelS: 5, decelS: 10 })['timeS'],
    ).toBeCloseTo(2.5, 9);
    expect(
      calc('reversalTime', {
        forwardHz: 30,
        reverseHz: 20,
        maxHz: 50,
        accelS: 5,
        decelS: 10,
        deadMs: 500,
      })['totalS'],
    ).toBeCloseTo(8.5, 9);
    expect(
      calc('shaftSpeed', { hz: 25, poles: 4, ratedHz: 50, ratedRpm: 1440, loadTorquePct: 50 })[
        'shaftRpm'
      ],
    ).toBeCloseTo(720, 9);
    expect(
      calc('discharge', { capacityUF: 470, bleedKOhm: 47, startV: 566, limitV: 60 })['timeS'],
    ).toBeCloseTo(22.09 * Math.log(566 / 60), 6);
    // IEC 60364-5-52 annex G form, 1.5 mm² at 70 °C: 0.017241/1.5·(1 + 0.00393·50)
    expect(
      calc('voltageDrop', {
        system: 'three',
        currentA: 4.5,
        lengthM: 48,
        areaMm2: 1.5,
        conductorC: 70,
        powerFactor: 0.81,
        nominalV: 400,
      })['dropV'],
    ).toBeCloseTo(Math.sqrt(3) * 4.5 * 48 * 0.011494 * 1.1965 * 0.81, 2);
  });

  it('show a loading error of −100·(4/27)·R/R_in near two thirds of the dial', () => {
    const error = calc('dialLoading', { potOhm: 5000, inputOhm: 100_000, dial: 2 / 3 })[
      'loadingErrorPct'
    ];
    expect(error).toBeCloseTo(-100 * (4 / 27) * 0.05, 1);
    expect(
      calc('dialLoading', { potOhm: 10_000, inputOhm: 20_000, dial: 2 / 3 })['wiperV'],
    ).toBeCloseTo(6, 6);
  });

  it('go back where they came from', () => {
    const scale = fc.record({
      hz: fc.integer({ min: 0, max: 50 }),
      xLow: fc.integer({ min: 0, max: 4 }),
      xHigh: fc.integer({ min: 5, max: 20 }),
      hzAtLow: fc.constant(0),
      hzAtHigh: fc.constant(50),
    });
    fc.assert(
      fc.property(scale, (a) => {
        const { hz: _hz, ...ends } = a;
        expect(
          calc('analogScale', { x: calc('analogScaleInverse', a)['x'], ...ends })['hz'],
        ).toBeCloseTo(a.hz, 9);
      }),
      { seed: 1 },
    );
  });

  it('refuse what is outside their range, by name and limit', () => {
    const refuse = (name: string, args: object): string => {
      try {
        calc(name, args);
        return 'accepted';
      } catch (error) {
        return error instanceof CalculationError
          ? `${error.argument}: ${error.message}`
          : String(error);
      }
    };
    expect(
      refuse('motorCurrent', { powerKw: 2, voltageV: 400, efficiency: 1.2, powerFactor: 0.8 }),
    ).toBe('efficiency: efficiency must be at most 1');
    expect(refuse('motorCurrent', { powerKw: 2, voltageV: 400, powerFactor: 0.8 })).toBe(
      'efficiency: efficiency is missing',
    );
    expect(refuse('dcLinkVoltage', { supplyV: 400, wind: 3 })).toMatch(/^wind:/u);
    expect(
      refuse('analogScaleInverse', { hz: 5, xLow: 0, xHigh: 10, hzAtLow: 50, hzAtHigh: 50 }),
    ).toMatch(/finite/u);
  });
});

describe('a plate', () => {
  it('of the auger is without findings, and says all that follows from it', () => {
    expect(plateFindings(bareJob(), marrowick())).toEqual([]);
    const facts = Object.fromEntries(
      plateFacts(bareJob(), marrowick()).map((f) => [f.id, f.value]),
    );
    expect(facts['motorLink']).toBe('star');
    expect(facts['polePairs']).toBe(2);
    expect(facts['slip']).toBeCloseTo(4, 6);
    expect(facts['dcLinkStopped']).toBeCloseTo(565.7, 1);
    expect(facts['deviceShare']).toBeCloseTo((100 * 4.5) / 5.6, 6);
  });

  it('that is impossible is explained at the field, with what was most likely meant', () => {
    expect(rules({ efficiency: 87 })).toContain('plate.efficiencyImpossible@motor.efficiency');
    expect(only({ efficiency: 87 }).args['likely']).toBeCloseTo(0.87, 9);
    expect(rules({ rpm: { v: 1500, u: 'rpm' } })).toEqual([
      'plate.speedAtOrAboveSynchronous@motor.rpm',
    ]);
    expect(only({ rpm: { v: 4140, u: 'rpm' } }).args['likely']).toBe(1440);
    expect(rules({ highA: { v: 45, u: 'A' } })).toEqual(['plate.currentDisagrees@motor.highA']);
    expect(only({ highA: { v: 45, u: 'A' } }).args['likely']).toBe(4.5);
    expect(
      only({ lowA: { v: 4.5, u: 'A' }, highA: { v: 7.8, u: 'A' } }).args['swapped'],
    ).toBeTrue();
    expect(rules({ link: 'delta' })).toEqual(['plate.linkWrong@motor.link']);
    expect(Math.round(Number(only({ link: 'delta' }).args['voltsPct']))).toBe(174);
    expect(rules({}, 575)).toContain('plate.noLinkSuits@motor.lowV');
  });

  it('of 460 V suits a supply of 480 V', () => {
    const nineLead: Partial<Motor> = {
      connection: 'seriesParallel',
      lowV: { v: 230, u: 'V' },
      highV: { v: 460, u: 'V' },
      lowA: undefined,
      highA: undefined,
      link: 'series',
    };
    expect(rules(nineLead, 480)).toEqual([]);
  });

  it('doubles the run-down with twice the inertia, and halves it with twice the torque', () => {
    const { plate } = bareJob();
    const twice = {
      ...plate,
      motor: { ...plate.motor, inertia: { v: 0.0184, u: 'kg·m²' as const } },
      load: { ...plate.load, inertia: { v: 1.7, u: 'kg·m²' as const } },
    };
    const t = coastTime(plate, 50) as number;
    expect(coastTime(twice, 50)).toBeCloseTo(2 * t, 9);
    expect(coastTime({ ...plate, load: { ...plate.load, torquePct: 37.5 } }, 50)).toBeCloseTo(
      2 * t,
      9,
    );
    // J·ω/T = (0.0092 + 0.85/9.6²)·157.08/(0.75·14.589)
    expect(t).toBeCloseTo(((0.0092 + 0.85 / 92.16) * 157.0796) / (0.75 * 14.5892), 3);
  });
});

describe('likelyTyping', () => {
  it('finds swapped digits, a moved mark and one wrong digit, and nothing else', () => {
    expect(likelyTyping(4140, (x) => x === 1440)).toBe(1440);
    expect(likelyTyping(45, (x) => x === 4.5)).toBe(4.5);
    expect(likelyTyping(1740, (x) => x === 1440)).toBe(1440);
    expect(likelyTyping(1234, (x) => x === 9999)).toBeUndefined();
  });
});

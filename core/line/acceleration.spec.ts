import fc from 'fast-check';
import { CalculationError } from '../calculation/index.js';
import { calc, near } from '../testing/calculations.js';

const positive = (max: number) => fc.double({ min: 0.01, max, noNaN: true });

describe('acceleration and braking', () => {
  it('accelerates as a fine sum of small steps does, for every kind of load', () => {
    for (const loadKind of ['constant', 'linear', 'square'] as const) {
      const args = {
        inertiaKgm2: 0.5,
        availableTorqueNm: 60,
        loadKind,
        loadTorqueNm: 40,
        loadRatedRpm: 1500,
        speedRpm: 1300,
      };
      let seconds = 0;
      const n = 200_000;
      const w = (2 * Math.PI * 1300) / 60;
      for (let i = 0; i < n; i++) {
        const at = ((i + 0.5) / n) * (1300 / 1500);
        seconds +=
          (0.5 * w) / n / (60 - 40 * { constant: 1, linear: at, square: at * at }[loadKind]);
      }
      near(calc('shortestAcceleration', args)['timeS'], seconds, 1e-6);
    }
    expect(
      calc('shortestAcceleration', {
        inertiaKgm2: 1,
        availableTorqueNm: 10,
        loadKind: 'constant',
        loadTorqueNm: 10,
        speedRpm: 100,
      }) as unknown,
    ).toEqual({ possible: false, timeS: null });
  });

  it('doubling the inertia doubles the time', () => {
    fc.assert(
      fc.property(
        positive(10),
        fc.constantFrom('constant', 'linear', 'square'),
        (inertiaKgm2, loadKind) => {
          const t = (k: number) =>
            calc('shortestAcceleration', {
              inertiaKgm2: inertiaKgm2 * k,
              availableTorqueNm: 60,
              loadKind,
              loadTorqueNm: 40,
              speedRpm: 1400,
            })['timeS'];
          near(t(2), 2 * t(1), 1e-9);
        },
      ),
    );
  });

  const stop = {
    inertiaKgm2: 2,
    fromRpm: 1500,
    toRpm: 300,
    decelS: 4,
    loadTorqueNm: 0,
    efficiency: 1,
    chopperV: 750,
    chopperMaxA: 40,
    cycleS: 60,
    ratedTorqueNm: 50,
  };

  it('brakes exactly the kinetic energy away', () => {
    const kinetic = 0.5 * 2 * ((50 * Math.PI) ** 2 - (10 * Math.PI) ** 2);
    const r = calc('braking', stop);
    near(r['energyJ'], kinetic, 1e-9);
    near(r['averageStopPowerW'], kinetic / 4, 1e-9);
    near(r['averageCyclePowerW'], kinetic / 60, 1e-9);
    near(r['inertiaTorqueNm'], (2 * 40 * Math.PI) / 4, 1e-9);
    near(r['peakPowerW'], 20 * Math.PI * 50 * Math.PI, 1e-9);
    expect([r['minOhm'], r['windowExists'], r['needed']] as unknown[]).toEqual([18.75, true, true]);
  });

  it('a load that brakes enough needs no resistor; too hard a stop has no window', () => {
    const easy = calc('braking', { ...stop, loadTorqueNm: 80 });
    expect([
      easy['brakeTorqueNm'],
      easy['maxOhm'],
      easy['needed'],
      easy['windowExists'],
    ] as unknown[]).toEqual([0, null, false, true]);
    expect(calc('braking', { ...stop, decelS: 0.5 })['windowExists'] as unknown).toBeFalse();
    expect(() => calc('braking', { ...stop, toRpm: 1500 })).toThrowError(
      CalculationError,
      /toRpm must be below 1500/u,
    );
  });

  it('lowers a load, and lifts the link by its energy', () => {
    near(
      calc('overhaulingBraking', {
        massKg: 100,
        speedMPerS: 1,
        efficiency: 1,
        lowerS: 10,
        cycleS: 100,
        chopperV: 700,
      })['powerW'],
      980.665,
    );
    near(
      calc('overhaulingBraking', {
        massKg: 100,
        speedMPerS: 1,
        efficiency: 0.5,
        lowerS: 10,
        cycleS: 100,
        chopperV: 700,
      })['averageCyclePowerW'],
      49.033,
    );
    const rise = calc('dcLinkRise', { capacityUF: 1000, startV: 600, tripV: 800, energyJ: 140 });
    near(rise['afterV'], 800);
    near(rise['energyToTripJ'], 140);
    expect([
      rise['trips'],
      calc('dcLinkRise', { capacityUF: 1000, startV: 600, tripV: 800, energyJ: 139 })['trips'],
    ] as unknown[]).toEqual([true, false]);
  });
});

describe('inertia', () => {
  it('is referred to the motor through the square of the gear, by hand', () => {
    near(
      calc('inertiaAtMotor', { motorKgm2: 0.0092, loadKgm2: 0.85, gearRatio: 9.6 })['totalKgm2'],
      0.0092 + 0.85 / 92.16,
      1e-12,
    );
  });
});

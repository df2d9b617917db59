import { linkRise, linkVolts, linkWatts, overvoltageUs, type LinkBraking } from './link-rise.js';
import { planRamp } from './ramp.js';

/** 0.2 kg·m² at two pole pairs, 7.4 Nm of losses, a steady load of 12 Nm, 300 µF at 400 V. */
const perHz = Math.PI;
const bare: LinkBraking = {
  massW: 0.2 * perHz * perHz,
  lossW: 7.4 * perHz,
  helpW: [12 * perHz, 0, 0],
  idleW: 25,
  capacityF: 300e-6,
  usualV: Math.SQRT2 * 400,
  tripV: 800,
  lostV: 400,
  dischargeS: 300,
};

describe('the DC link while a load is slowed down', () => {
  it('rises by the energy of the mass less losses and load', () => {
    // 50 Hz in 1 s: E(t) = ∫ (m·a − l)·f(t) dt − idle·t with f = 50 − 50·t.
    const k = bare.massW * 50 - bare.lossW - bare.helpW[0];
    const energy = (t: number): number => k * (50 * t - 25 * t * t) - bare.idleW * t;
    const trip = (bare.capacityF / 2) * (bare.tripV ** 2 - bare.usualV ** 2);
    let [low, high] = [0, 1];
    for (let i = 0; i < 60; i++)
      if (energy((low + high) / 2) < trip) low = (low + high) / 2;
      else high = (low + high) / 2;
    const at = overvoltageUs(bare, planRamp(0, 50, 0, 1, 50, 0));
    expect(at / 1e6).toBeCloseTo(low, 3);
    expect(low).toBeGreaterThan(0.01);
  });

  it('never trips where losses and load take up what the mass gives', () => {
    const shortest = (0.2 * perHz * 50) / (7.4 + 12);
    for (const s of [0, 20]) {
      const ramp = planRamp(0, 50, 0, shortest * 1.001, 50, s);
      expect(overvoltageUs(bare, ramp)).withContext(`${s} %`).toBe(Infinity);
      expect(Math.max(...linkRise(bare, ramp).map((x) => x.joules))).toBeLessThan(1e-6);
    }
    expect(overvoltageUs(bare, planRamp(0, 50, 0, shortest / 2, 50, 0))).toBeLessThan(1e6);
  });

  it('is the same backwards, and nothing while it speeds up', () => {
    const stop = (hz: number): number => overvoltageUs(bare, planRamp(0, hz, 0, 0.5, 50, 0));
    expect(stop(-50)).toBe(stop(50));
    expect(overvoltageUs(bare, planRamp(0, 0, 50, 0.1, 50, 0))).toBe(Infinity);
    expect(linkWatts(bare, 30, -40)).toBeLessThan(0);
  });

  it('is held at the threshold of a chopper that burns enough, and passes it where it does not', () => {
    const chopper = (watts: number): LinkBraking => ({ ...bare, chopper: { volts: 740, watts } });
    const ramp = planRamp(0, 50, 0, 0.8, 50, 0);
    const peak = linkWatts(bare, 50, 62.5);
    const held = linkRise(chopper(peak * 1.01), ramp);
    expect(overvoltageUs(chopper(peak * 1.01), ramp)).toBe(Infinity);
    expect(Math.max(...held.map((x) => linkVolts(bare, x.joules)))).toBeCloseTo(740, 6);
    const weak = overvoltageUs(chopper(peak / 3), ramp);
    expect(weak).toBeLessThan(800_000);
    expect(weak).toBeGreaterThan(overvoltageUs(bare, ramp));
  });

  it('goes back to its usual voltage by what the device itself draws', () => {
    const rest = { stretches: [{ t0: 0, y: 0, dy: 0, ddy: 0 }], endUs: 4e6, rest: 0 };
    const samples = linkRise(bare, rest, 50);
    expect(samples.at(-1)?.joules).toBe(0);
    expect(samples[6].joules).toBeCloseTo(50 - 25, 6);
  });
});

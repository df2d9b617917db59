/**
 * Makes the demo files anew: plates and wishes as a person would type them; everything else comes out of the core.
 * Run: node --conditions=source --import tsx demo/make.ts
 */
import { writeFileSync } from 'node:fs';
import { shippedProfile } from '@tactron/core/catalogue';
import { envelopeOf } from '@tactron/core/formats';
import { emptyJob, hashOf, type Job } from '@tactron/core/job';
import { adoption, planJob } from '@tactron/core/plan';

const maltings = { id: '5b0c6c5e-2f0e-4f55-9a55-3b4f5a1e0a01', name: 'Fernhollow Maltings' };
const sawyard = { id: '5b0c6c5e-2f0e-4f55-9a55-3b4f5a1e0a02', name: 'Lowmere Sawyard' };
const profile = shippedProfile('marrowick-f');

const auger: Job = {
  ...emptyJob({
    id: '0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a11', siteId: maltings.id, tag: 'FM-AUGER', machine: 'Green-malt auger', practice: 'IEC',
    profile: { family: profile.family, model: 'F02', version: String(profile.version), sha256: hashOf(profile) },
  }),
  plate: {
    motor: {
      power: { v: 2.2, u: 'kW' }, connection: 'deltaStar', lowV: { v: 230, u: 'V' }, highV: { v: 400, u: 'V' }, lowA: { v: 7.8, u: 'A' }, highA: { v: 4.5, u: 'A' },
      hz: { v: 50, u: 'Hz' }, rpm: { v: 1440, u: 'rpm' }, powerFactor: 0.81, efficiency: 0.87, link: 'star',
      lockedCurrentRatio: 6.4, lockedTorqueRatio: 2.4, breakdownRatio: 3, inertia: { v: 0.0092, u: 'kg·m²' },
    },
    supply: { phases: 3, volts: { v: 400, u: 'V' }, hz: { v: 50, u: 'Hz' }, earthing: 'TN-S', transformer: { v: 250, u: 'kVA' }, impedancePct: 4, breakerA: { v: 10, u: 'A' } },
    load: { name: 'Auger behind a fixed guard', kind: 'constant', torquePct: 75, breakawayPct: 140, gearRatio: 9.6, gearEfficiency: 0.94, inertia: { v: 0.85, u: 'kg·m²' }, rpm: { v: 150, u: 'rpm' }, forwardMeans: 'malt towards the kiln' },
    cable: { length: { v: 48, u: 'm' }, size: { mm2: 1.5 }, cores: 4, screened: true },
  },
  scheme: {
    startStop: 'twoWire', startBy: 'levelContact', direction: 'forwardOnly', speed: 'dial', dialOhm: { v: 5, u: 'kΩ' }, minHz: 0, maxHz: 50, accelS: 4, decelS: 3, stopMode: 'ramp',
    powerReturn: 'restart', exposed: 'behindGuard', stationLength: { v: 12, u: 'm' },
  },
}; // prettier-ignore

const plan = planJob(auger, profile);
if (!plan.ok) throw new Error(`no plan for the demo: ${plan.path} ${plan.what}`);
const start = 'contact.forward';
const job: Job = {
  ...auger,
  adopted: adoption(plan),
  scripts: {
    fill: { ord: 1, name: 'Bin fills, level contact opens', acts: [
      { do: 'supplyOn', atMs: 0 }, { do: 'dial', atMs: 500, device: 'dial.speed', to: 0.8 }, { do: 'press', atMs: 2500, device: start }, { do: 'release', atMs: 12_000, device: start },
    ] },
    powerCut: { ord: 2, name: 'Power cut while running', acts: [
      { do: 'supplyOn', atMs: 0 }, { do: 'dial', atMs: 500, device: 'dial.speed', to: 0.6 }, { do: 'press', atMs: 2500, device: start }, { do: 'supplyOff', atMs: 9000 }, { do: 'supplyOn', atMs: 16_000 },
    ] },
  },
}; // prettier-ignore

writeFileSync(new URL('./sites.json', import.meta.url), `${JSON.stringify([maltings, sawyard], null, 2)}\n`);
writeFileSync(new URL('./fm-auger.tactron.json', import.meta.url), `${JSON.stringify(envelopeOf(job, profile, [], maltings), null, 1)}\n`);

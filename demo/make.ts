/**
 * Makes the demo files anew: plates and wishes as a person would type them; everything else comes out of the core.
 * Run: node --conditions=source --import tsx demo/make.ts
 */
import { writeFileSync } from 'node:fs';
import { shippedProfile } from '@tactron/core/catalogue';
import { envelopeOf } from '@tactron/core/formats';
import { emptyJob, hashOf, type Job } from '@tactron/core/job';
import { adoption, planJob } from '@tactron/core/plan';
import { plates } from './plates';

const maltings = { id: '5b0c6c5e-2f0e-4f55-9a55-3b4f5a1e0a01', name: 'Fernhollow Maltings' };
const sawyard = { id: '5b0c6c5e-2f0e-4f55-9a55-3b4f5a1e0a02', name: 'Lowmere Sawyard' };

/** Tag, end of the id, machine, family, model. */
const entries = [
  ['FM-AUGER', '11', 'Green-malt auger', 'marrowick-f', 'F02'],
  ['FM-DRUM-1', '01', 'Germination drum 1, turner', 'ondulet-n', 'N0750'],
  ['FM-DRUM-2', '02', 'Germination drum 2, turner', 'ondulet-n', 'N0750'],
  ['FM-DOSE', '03', 'Grist dosing screw', 'ondulet-micro', 'u07'],
  ['FM-ROTARY', '04', 'Dust-house rotary valve', 'ondulet-n', 'N0110'],
  ['FM-CRUSH', '05', 'Malt crusher', 'pendrift-s', 'S75'],
  ['FM-GATE', '06', 'Loading gate', 'pendrift-c', 'C6'],
  ['LS-DEBARK', '07', 'Debarker feed rolls', 'quernstone-t', 'T15'],
  ['LS-CHIP', '08', 'Disc chipper', 'pendrift-s', 'S75'],
] as const;

/** Ramps and limits wished for where a job has them by now; the rest of a scheme comes with its planning. */
const wishes: Readonly<Record<string, Job['scheme']>> = {
  'FM-AUGER': {
    startStop: 'twoWire', startBy: 'levelContact', direction: 'forwardOnly', speed: 'dial', dialOhm: { v: 5, u: 'kΩ' }, minHz: 0, maxHz: 50, accelS: 4, decelS: 3, stopMode: 'ramp',
    powerReturn: 'restart', exposed: 'behindGuard', stationLength: { v: 12, u: 'm' },
  },
  'FM-DRUM-1': { maxHz: 50, minHz: 10, accelS: 6, decelS: 4 },
  'FM-DRUM-2': { maxHz: 50, minHz: 10, accelS: 6, decelS: 4 },
  'FM-DOSE': { maxHz: 50, accelS: 3, decelS: 3 },
  'FM-ROTARY': { maxHz: 50, accelS: 3, decelS: 3 },
  'LS-DEBARK': { maxHz: 60, accelS: 4, decelS: 4 },
}; // prettier-ignore

function bare([tag, end, machine, family, model]: (typeof entries)[number]): Job {
  const profile = shippedProfile(family);
  const ids = { id: `0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a${end}`, siteId: tag.startsWith('FM') ? maltings.id : sawyard.id };
  const device = { family: profile.family, model, version: String(profile.version), sha256: hashOf(profile) };
  return {
    ...emptyJob({ ...ids, tag, machine, practice: tag.startsWith('FM') ? 'IEC' : 'NFPA', profile: device }),
    plate: plates[tag],
    scheme: wishes[tag] ?? {},
  };
}

const profile = shippedProfile('marrowick-f');
const auger = bare(entries[0]);
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
for (const entry of entries) {
  const site = entry[0].startsWith('FM') ? maltings : sawyard;
  const whole = entry[0] === auger.tag ? job : bare(entry);
  const name = `./${entry[0].toLowerCase()}.tactron.json`;
  writeFileSync(new URL(name, import.meta.url), `${JSON.stringify(envelopeOf(whole, shippedProfile(entry[3]), [], site), null, 1)}\n`);
}

/**
 * Makes the demo files anew: plates and wishes as a person would type them; everything else comes out of the core.
 * Run: node --conditions=source --import tsx demo/make.ts
 */
import { writeFileSync } from 'node:fs';
import { shippedProfile } from '@tactron/core/catalogue';
import { envelopeOf } from '@tactron/core/formats';
import { emptyJob, hashOf, timeOrder, type Job } from '@tactron/core/job';
import { adoption, arrangeFor, planJob } from '@tactron/core/plan';
import { powerUp, startActs, stopActs } from '@tactron/core/scheme';
import { trialsOf } from '@tactron/core/trials';
import { deadDone, halfDone, handedOver } from './evidence';
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
  ['FM-TILT', '09', 'Sack tilter', 'wendle-s', 'S05'],
  ['FM-SAMPLE', '10', 'Grain-sample centrifuge', 'halewick-r', 'R15'],
  ['LS-DEBARK', '07', 'Debarker feed rolls', 'quernstone-t', 'T15'],
  ['LS-CHIP', '08', 'Disc chipper', 'pendrift-s', 'S75'],
] as const;

const five = { v: 5, u: 'kΩ' } as const;
const drum: Job['scheme'] = {
  startStop: 'threeWire',
  stationFeed: 'separate',
  direction: 'forwardReverse',
  speed: 'dial',
  dialOhm: five,
  minHz: 10,
  maxHz: 50,
  accelS: 6,
  decelS: 4,
  stopMode: 'ramp',
  powerReturn: 'stayStopped',
  exposed: 'atMachine',
  stationLength: { v: 9, u: 'm' },
  estop: 'safeTorqueOff',
  jog: 'bothWays',
  jogHz: 12,
  brakeRelease: true,
  lamps: ['running', 'healthy'],
};

/** What the operators of each machine ask for. */
const wishes: Readonly<Record<string, Job['scheme']>> = {
  'FM-AUGER': {
    startStop: 'twoWire',
    startBy: 'levelContact',
    direction: 'forwardOnly',
    speed: 'presets',
    presetsHz: [20, 35, 50],
    minHz: 0,
    maxHz: 50,
    accelS: 4,
    decelS: 3,
    secondRamp: true,
    accel2S: 9,
    decel2S: 6,
    stopMode: 'ramp',
    powerReturn: 'restart',
    exposed: 'behindGuard',
    startWarningS: 5,
    status: ['running'],
    stationLength: { v: 12, u: 'm' },
  },
  'FM-DRUM-1': drum,
  'FM-DRUM-2': { ...drum, accelS: 7 },
  'FM-DOSE': {
    startStop: 'twoWire',
    startBy: 'maintainedButton',
    direction: 'forwardOnly',
    speed: 'panelDial',
    maxHz: 50,
    accelS: 3,
    decelS: 3,
    stopMode: 'ramp',
    powerReturn: 'stayStopped',
    exposed: 'atMachine',
    estop: 'contactorInhibit',
    lamps: ['contactorClosed'],
    workLight: 'stays',
    stationLength: { v: 4, u: 'm' },
  },
  'FM-ROTARY': {
    startStop: 'sealInRelay',
    latchSupply: 'own24',
    direction: 'forwardOnly',
    speed: 'current',
    maxHz: 50,
    accelS: 3,
    decelS: 3,
    stopMode: 'ramp',
    powerReturn: 'stayStopped',
    exposed: 'behindGuard',
    estop: 'safeTorqueOff',
    status: ['running'],
    stationLength: { v: 15, u: 'm' },
  },
  'FM-TILT': {
    startStop: 'threeWire',
    stationFeed: 'chained',
    direction: 'forwardReverse',
    speed: 'panelDial',
    maxHz: 50,
    accelS: 2,
    decelS: 2,
    stopMode: 'ramp',
    powerReturn: 'stayStopped',
    exposed: 'atMachine',
    estop: 'contactorInhibit',
    status: ['running'],
    stationLength: { v: 3, u: 'm' },
  },
  'FM-SAMPLE': {
    startStop: 'threeWire',
    stationFeed: 'separate',
    direction: 'forwardOnly',
    speed: 'dial',
    dialOhm: five,
    minHz: 60,
    maxHz: 400,
    accelS: 40,
    decelS: 240,
    stopMode: 'coast',
    powerReturn: 'stayStopped',
    exposed: 'behindGuard',
    estop: 'safeTorqueOff',
    interlocks: ['guard'],
    lamps: ['running'],
    stationLength: { v: 2, u: 'm' },
  },
  'FM-CRUSH': {
    startStop: 'threeWire',
    stationFeed: 'separate',
    direction: 'forwardOnly',
    lineContactor: 'byRelay',
    estop: 'contactor',
    estopInFeed: true,
    interlocks: ['guard'],
    guardLockS: 75,
    limitPct: 350,
    beginPct: 30,
    accelS: 10,
    tripClass: '20',
    stopMode: 'coast',
    powerReturn: 'stayStopped',
    exposed: 'behindGuard',
    lamps: ['running', 'healthy'],
    stationLength: { v: 14, u: 'm' },
  },
  'FM-GATE': {
    startStop: 'twoWire',
    startBy: 'selector',
    direction: 'forwardReverse',
    directionBy: 'selector',
    endLimits: true,
    lineContactor: 'byButtons',
    estop: 'contactor',
    estopInFeed: true,
    beginPct: 80,
    accelS: 2,
    stopMode: 'coast',
    inhibitS: 5,
    powerReturn: 'stayStopped',
    exposed: 'atMachine',
    stationLength: { v: 6, u: 'm' },
  },
  'LS-CHIP': {
    startStop: 'sealInRelay',
    latchSupply: 'drive24',
    direction: 'forwardOnly',
    lineContactor: 'byRelay',
    estop: 'contactor',
    interlocks: ['guard'],
    limitPct: 400,
    beginPct: 30,
    accelS: 5,
    tripClass: '20',
    stopMode: 'coast',
    powerReturn: 'stayStopped',
    exposed: 'behindGuard',
    lamps: ['running'],
    stationLength: { v: 40, u: 'ft' },
  },
  'LS-DEBARK': {
    startStop: 'threeWireTwoStarts',
    stationFeed: 'separate',
    direction: 'forwardReverse',
    speed: 'voltage',
    maxHz: 60,
    accelS: 4,
    decelS: 4,
    stopMode: 'ramp',
    powerReturn: 'stayStopped',
    exposed: 'atMachine',
    localRemote: true,
    estop: 'safeTorqueOff',
    interlocks: ['guard'],
    status: ['running'],
    stationLength: { v: 60, u: 'ft' },
  },
};

/** What the owners state not to be required, after their risk assessments. */
const stated: Readonly<Record<string, Job['decisions']['notRequired']>> = {
  'LS-DEBARK': {
    'place.stop': {
      why: 'at local one person stands at the keypad with its own stop key; the emergency stop acts in both places; assessment LM-14, point 6',
      by: 'J. Harrow',
      role: 'sawyard safety engineer',
    },
  },
};

function bare([tag, end, machine, family, model]: (typeof entries)[number]): Job {
  const profile = shippedProfile(family);
  const ids = {
    id: `0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a${end}`,
    siteId: tag.startsWith('FM') ? maltings.id : sawyard.id,
  };
  const device = {
    family: profile.family,
    model,
    version: String(profile.version),
    sha256: hashOf(profile),
  };
  const empty = emptyJob({
    ...ids,
    tag,
    machine,
    practice: tag.startsWith('FM') ? 'IEC' : 'NFPA',
    profile: device,
  });
  const notRequired = stated[tag];
  return {
    ...empty,
    ...(notRequired ? { decisions: { ...empty.decisions, notRequired } } : {}),
    plate: plates[tag],
    scheme: wishes[tag] ?? {},
  };
}

/** Plans and adopts a job that has wishes, and gives it its scripts: every control once, and what its trade would try. */
function planned(job: Job): Job {
  if (!job.scheme.startStop) return job;
  const profile = shippedProfile(job.profile.family);
  const plan = planJob(job, profile);
  if (!plan.ok) throw new Error(`no plan for ${job.tag}: ${plan.path} ${plan.what}`);
  const built: Job = { ...job, adopted: adoption(plan) };
  const arrangement = arrangeFor(built, profile);
  const travel = Math.max(job.scheme.accelS ?? 5, job.scheme.decelS ?? 5) * 1000;
  const script = trialsOf(built, profile).trial('show');
  const start = 3000 + arrangement.warningMs;
  const runs = [...powerUp(arrangement, 0.8), ...startActs(arrangement, 'forward', 3000)];
  return {
    ...built,
    scripts: {
      everyControl: {
        ord: 1,
        name: 'Every control once',
        acts: timeOrder(script.acts),
        endMs: script.endMs,
      },
      run: {
        ord: 2,
        name: 'Start, run, stop',
        acts: timeOrder([...runs, ...stopActs(arrangement, 'forward', start + travel + 3000)]),
      },
      powerCut: {
        ord: 3,
        name: 'Power cut while running',
        acts: timeOrder([
          ...runs,
          { do: 'supplyOff', atMs: start + travel },
          { do: 'supplyOn', atMs: start + travel + 15_000 },
        ]),
      },
    },
  };
}

writeFileSync(
  new URL('./sites.json', import.meta.url),
  `${JSON.stringify([maltings, sawyard], null, 2)}\n`,
);
/** What has been done at the panels so far. */
const done: Readonly<Record<string, typeof handedOver>> = {
  'FM-DRUM-2': handedOver,
  'FM-CRUSH': deadDone,
  'FM-AUGER': halfDone,
  'LS-DEBARK': handedOver,
};

for (const entry of entries) {
  const site = entry[0].startsWith('FM') ? maltings : sawyard;
  const name = `./${entry[0].toLowerCase()}.tactron.json`;
  const profile = shippedProfile(entry[3]);
  const job = planned(bare(entry));
  const evidence = done[entry[0]]?.(job, profile) ?? [];
  writeFileSync(
    new URL(name, import.meta.url),
    `${JSON.stringify(envelopeOf(job, profile, evidence, site), null, 1)}\n`,
  );
}

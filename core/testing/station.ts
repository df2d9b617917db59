import { shippedProfile, type Profile } from '../catalogue/index.js';
import { installAtSpeed } from '../installation/index.js';
import type { Act, Job, Scheme } from '../job/index.js';
import { arrangeFor } from '../plan/index.js';
import { rehearse } from '../rehearsal/index.js';
import { signalAt, stateAt, type Trace } from '../trace/index.js';
import { actsOf, shippedArrangements, type Arrangement } from '../scheme/index.js';
import { adopted, bareJob } from '../testing/jobs.js';

export const RAMP_S = 2;
export const SETTLED_MS = 4000;

/** Families with a model for the matrix, and what each cannot carry: wish and reason, found by hand from its terminals, tasks and settings. */
export const families: Readonly<
  Record<
    string,
    { model: string; cannot: Readonly<Record<string, readonly [code: string, wish: string]>> }
  >
> = {
  'ondulet-n': {
    model: 'N0220',
    cannot: { panelDial: ['noSetting', 'speed'], jogSelect: ['noTask', 'jog'] },
  },
  'marrowick-f': {
    model: 'F02',
    cannot: {
      panelDial: ['noSetting', 'speed'],
      jogSelect: ['noTask', 'jog'],
      analogueSecond: ['noSetting', 'analogueInput'],
      // Its relay tells no run at a speed of zero, and its controller waits for it.
      controllerHandshake: ['handshakeDeadlock', 'handshake'],
      estopTorqueOff: ['terminal', 'estop'],
      estopTorqueOffOneContact: ['terminal', 'estop'],
      estopTorqueOffAndFeed: ['terminal', 'estop'],
    },
  },
  'quernstone-t': {
    model: 'T05',
    cannot: {
      runAndDirection: ['noSetting', 'startStop'],
      panelDial: ['noSetting', 'speed'],
      jogSelect: ['noTask', 'jog'],
    },
  },
  'ondulet-micro': {
    model: 'u15',
    cannot: {
      runAndDirection: ['noSetting', 'startStop'],
      // No start and stop tasks: a latch has to stand beside the device.
      ...Object.fromEntries(
        [
          'threeWireSeparate',
          'threeWireChained',
          'threeWireDirection',
          'threeWireTwoStarts',
          'severalStations',
          'estopTorqueOff',
          'estopTorqueOffOneContact',
          'estopTorqueOffAndFeed',
          'footStopBrake',
          'interlocks',
          'brakeRelease',
          'lamps',
          'jogBothWays',
          'localRemote',
          'contactorOnOnly',
          'contactorNoLatch',
          'outputContactor',
          'analogueSecond',
          'presetSwitches',
        ].map((id) => [id, ['noSetting', 'startStop'] as const]),
      ),
      upDown: ['noSetting', 'startStop'],
      jogSelect: ['noTask', 'jog'],
      // Its relay has no break contact.
      lampStopped: ['outputs', 'lamps'],
      secondRamp: ['noTask', 'secondRamp'],
    },
  },
};

export function jobFor(
  scheme: Scheme,
  profile: Profile,
  model: string,
  contactsSwitch?: Scheme['contactsSwitch'],
): Job {
  const job = bareJob(
    {
      ...scheme,
      accelS: RAMP_S,
      decelS: RAMP_S,
      maxHz: 50,
      ...(contactsSwitch ? { contactsSwitch } : {}),
    },
    profile,
    model,
  );
  const clean: Job = {
    ...job,
    scheme: Object.fromEntries(
      Object.entries(job.scheme).filter(
        ([wish]) =>
          wish in scheme ||
          wish === 'contactsSwitch' ||
          ['accelS', 'decelS', 'maxHz'].includes(wish),
      ),
    ),
  };
  const supply =
    profile.supply.phases === 1
      ? { phases: 1, volts: { v: 230, u: 'V' } }
      : profile.family === 'quernstone-t'
        ? { phases: 3, volts: { v: 480, u: 'V' } }
        : {};
  return {
    ...clean,
    plate: {
      ...clean.plate,
      supply: { ...clean.plate.supply, ...supply } as Job['plate']['supply'],
    },
  };
}

/** A run of the station: what the motor does at the moments asked. */
export class Run {
  private readonly trace: Trace;
  constructor(job: Job, profile: Profile, acts: readonly (Act | undefined)[], endMs: number) {
    const sorted = [...actsOf(...acts)].sort((x, y) => x.atMs - y.atMs);
    this.trace = rehearse(installAtSpeed(job, profile, { share: 1 }), sorted, endMs);
  }
  hz = (ms: number): number => signalAt(this.trace, 'device.hz', ms * 1000);
  state = (ms: number): string => stateAt(this.trace, 'device.state', ms * 1000);
  lit = (id: string, ms: number): boolean => signalAt(this.trace, `${id}.lit`, ms * 1000) === 1;
  level = (id: string, ms: number): number => signalAt(this.trace, id, ms * 1000);
}

export const topHz = (job: Job): number =>
  job.scheme.speed === 'presets'
    ? (job.scheme.presetsHz?.[0] ?? 0)
    : job.scheme.speed === 'upDown'
      ? 0
      : 50;

/** A named arrangement on a family, planned and adopted. */
export const planned = (
  family: string,
  id: string,
  more: Partial<Scheme> = {},
): { job: Job; profile: Profile; a: Arrangement } => {
  const profile = shippedProfile(family);
  const found = shippedArrangements.find((s) => s.id === id);
  if (!found) throw new Error(id);
  const job = adopted(
    jobFor({ ...found.scheme, ...more }, profile, families[family].model),
    profile,
  );
  return { job, profile, a: arrangeFor(job, profile) };
};

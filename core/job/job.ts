import * as v from 'valibot';
import { faultSchema } from './fault.js';
import { plateSchema } from './plate.js';
import { sizeSchema } from './quantities.js';
import { schemeSchema } from './scheme.js';
import { tolerancesSchema } from './tolerances.js';

export const idSchema = v.pipe(
  v.string(),
  v.regex(/^[A-Za-z0-9][A-Za-z0-9._:-]{0,79}$/u, 'an id of letters, digits, dot, dash or colon'),
);
const landing = v.pipe(
  v.string(),
  v.regex(/^[^:]{1,80}:[^:]{1,40}$/u, 'a landing such as "device:IN1"'),
);
const words = v.pipe(v.string(), v.maxLength(400));
const reason = v.pipe(v.string(), v.trim(), v.minLength(1, 'a reason'), v.maxLength(400));
const value = v.union([
  v.pipe(v.number(), v.finite()),
  v.pipe(v.string(), v.maxLength(200)),
  v.boolean(),
]);
const origin = v.picklist(['plan', 'person']);
const ord = v.pipe(v.number(), v.finite());

export const wireClasses = [
  'mains',
  'motor',
  'controlAc',
  'controlDc',
  'analogue',
  'safety',
  'pe',
  'neutral',
  'screen',
] as const;

const wireEntries = {
  number: v.pipe(v.string(), v.maxLength(20)),
  from: landing,
  to: landing,
  function: words,
  size: sizeSchema,
  colour: v.pipe(v.string(), v.maxLength(40)),
  cable: v.optional(idSchema),
  core: v.optional(v.pipe(v.string(), v.maxLength(20))),
  lengthM: v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(5000)),
  potential: v.pipe(v.string(), v.maxLength(40)),
  class: v.picklist(wireClasses),
};
export const wireSpecSchema = v.strictObject(wireEntries);
export type WireSpec = v.InferOutput<typeof wireSpecSchema>;

/** A contact of a part whose contacts its plan decides: its two terminals, and the positions in which it is closed. */
const plannedContact = v.strictObject({
  a: v.pipe(v.string(), v.maxLength(20)),
  b: v.pipe(v.string(), v.maxLength(20)),
  closedIn: v.array(v.pipe(v.string(), v.maxLength(20))),
});
const partEntries = {
  kind: v.pipe(v.string(), v.maxLength(40)),
  tag: v.pipe(v.string(), v.maxLength(20)),
  params: v.record(v.string(), value),
  /** Positions and contacts, where they depend on what the part is for: a preset selector. */
  positions: v.optional(v.array(v.pipe(v.string(), v.maxLength(20)))),
  contacts: v.optional(v.array(plannedContact)),
};
const wiringEntries = {
  /** Id of the drive or soft starter among the devices. */
  device: idSchema,
  devices: v.record(idSchema, v.strictObject({ ...partEntries, role: idSchema })),
  wires: v.record(idSchema, v.strictObject({ ...wireEntries, origin })),
  assignments: v.record(
    idSchema,
    v.strictObject({ at: landing, task: v.pipe(v.string(), v.maxLength(40)), origin }),
  ),
  links: v.record(
    idSchema,
    v.strictObject({ position: v.pipe(v.string(), v.maxLength(40)), origin }),
  ),
  settings: v.record(
    v.pipe(v.string(), v.maxLength(80)),
    v.strictObject({
      value,
      origin,
      why: v.strictObject({
        code: v.pipe(v.string(), v.maxLength(60)),
        args: v.record(v.string(), value),
      }),
    }),
  ),
  retired: v.record(idSchema, v.strictObject({ number: v.pipe(v.string(), v.maxLength(20)) })),
};
export const wiringSchema = v.strictObject(wiringEntries);
export type Wiring = v.InferOutput<typeof wiringSchema>;

/** What the panel is built to: the plan that was adopted. */
const adoptedSchema = v.strictObject({
  ...wiringEntries,
  planHash: v.string(),
  coreVersion: v.string(),
});

const atMs = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(86_400_000));
const deviceAct = { atMs, device: idSchema };
/** A supply other than the main one, or one phase of it; the whole main supply where both are absent. */
const supplyPart = {
  device: v.optional(idSchema),
  phase: v.optional(v.picklist(['L1', 'L2', 'L3'])),
};

/** Keys of a keypad that a script can press; `up` and `down` move its own frequency. */
export const keypadKeys = ['start', 'stop', 'reset', 'up', 'down'] as const;
/** Contacts of one actuator never move together: which moves first, by its first terminal, and how long the others lag, ms. */
const contactOrder = {
  first: v.optional(v.pipe(v.string(), v.maxLength(20))),
  lagMs: v.optional(v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(60_000))),
};
/** One act of a script. */
export const actSchema = v.variant('do', [
  v.strictObject({ do: v.literal('supplyOn'), atMs, ...supplyPart }),
  v.strictObject({ do: v.literal('supplyOff'), atMs, ...supplyPart }),
  v.strictObject({ do: v.literal('press'), ...deviceAct, ...contactOrder }),
  v.strictObject({ do: v.literal('release'), ...deviceAct, ...contactOrder }),
  v.strictObject({
    do: v.literal('turn'),
    ...deviceAct,
    ...contactOrder,
    position: v.pipe(v.string(), v.maxLength(20)),
  }),
  v.strictObject({
    do: v.literal('dial'),
    ...deviceAct,
    to: v.pipe(v.number(), v.minValue(0), v.maxValue(1)),
  }),
  v.strictObject({ do: v.literal('breakWire'), atMs, wire: v.pipe(v.string(), v.maxLength(80)) }),
  v.strictObject({ do: v.literal('mendWire'), atMs, wire: v.pipe(v.string(), v.maxLength(80)) }),
  /** A bridge, a battery or a calibrator between two landings; amps are driven out of `a`. */
  v.strictObject({
    do: v.literal('hook'),
    atMs,
    a: landing,
    b: landing,
    as: v.picklist(['short', 'volts', 'amps', 'off']),
    value: v.optional(v.pipe(v.number(), v.finite(), v.minValue(-1000), v.maxValue(1000))),
  }),
  v.strictObject({
    do: v.literal('link'),
    atMs,
    link: idSchema,
    position: v.pipe(v.string(), v.maxLength(40)),
  }),
  v.strictObject({
    do: v.literal('key'),
    atMs,
    key: v.picklist(keypadKeys),
    down: v.boolean(),
  }),
]);
export type Act = v.InferOutput<typeof actSchema>;
/** Acts in order of time; those of one moment keep their order. */
export const timeOrder = (acts: readonly Act[]): Act[] =>
  acts
    .map((act, i) => ({ act, i }))
    .sort((x, y) => x.act.atMs - y.act.atMs || x.i - y.i)
    .map(({ act }) => act);
export const scriptSchema = v.pipe(v.array(actSchema), v.maxLength(10_000));

const jobEntries = {
  format: v.literal('tactron-job'),
  version: v.literal(2),
  id: v.pipe(v.string(), v.uuid()),
  siteId: v.pipe(v.string(), v.uuid()),
  tag: v.pipe(v.string(), v.trim(), v.minLength(1, 'a tag'), v.maxLength(40)),
  machine: v.pipe(v.string(), v.trim(), v.maxLength(200)),
  practice: v.picklist(['IEC', 'NFPA']),
  profile: v.strictObject({
    family: v.pipe(v.string(), v.maxLength(40)),
    model: v.pipe(v.string(), v.maxLength(40)),
    version: v.string(),
    sha256: v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/u, 'a SHA-256 in hexadecimal')),
  }),
  plate: plateSchema,
  scheme: schemeSchema,
  decisions: v.strictObject({
    pins: v.record(idSchema, v.strictObject({ at: landing, why: reason })),
    wires: v.record(
      idSchema,
      v.strictObject({ ...v.partial(wireSpecSchema).entries, why: reason }),
    ),
    settings: v.record(v.pipe(v.string(), v.maxLength(80)), v.strictObject({ value, why: reason })),
    devices: v.record(
      idSchema,
      v.strictObject({
        ...partEntries,
        ord,
        why: reason,
      }),
    ),
    /** End of the supply from which it is switched on for the first time; the source where nobody says otherwise. */
    energise: v.optional(v.picklist(['sourceFirst', 'loadFirst'])),
    /** Ready-made arrangement of the device with which keying begins; setting by setting where absent. */
    readyMade: v.optional(v.pipe(v.string(), v.maxLength(40))),
    /** Required functions that a person states not to be required, by the requirement's id, after the risk assessment. */
    notRequired: v.optional(
      v.record(
        v.pipe(v.string(), v.maxLength(80)),
        v.strictObject({
          why: reason,
          by: v.pipe(v.string(), v.trim(), v.minLength(1, 'a name'), v.maxLength(120)),
          role: v.pipe(v.string(), v.trim(), v.minLength(1, 'a role'), v.maxLength(120)),
        }),
      ),
    ),
  }),
  adopted: v.optional(adoptedSchema),
  /** As built, where it differs from the plan. */
  deviations: v.record(
    idSchema,
    v.strictObject({
      ord,
      where: v.strictObject({
        kind: v.picklist(['wire', 'landing', 'device', 'setting', 'plate']),
        id: v.string(),
      }),
      actual: faultSchema,
      why: reason,
    }),
  ),
  /** Conductors as they were really taken, by wire: colour, core and own marker beside the plan. No deviation, and no reason is asked. */
  asUsed: v.optional(
    v.record(
      idSchema,
      v.strictObject({
        colour: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(40))),
        core: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(20))),
        number: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(20))),
      }),
    ),
  ),
  /** Tolerances taken over from the site, where they are not the usual ones; what is signed keeps its own. */
  tolerances: v.optional(tolerancesSchema),
  scripts: v.record(
    idSchema,
    v.strictObject({
      ord,
      name: v.pipe(v.string(), v.trim(), v.minLength(1, 'a name'), v.maxLength(120)),
      acts: scriptSchema,
      endMs: v.optional(atMs),
    }),
  ),
};

/** Places in the adopted wiring that name a device which is not there: it was taken out while something still uses it. */
function danglingDevices({
  adopted,
}: v.InferOutput<typeof jobEntriesSchema>): { path: string[]; device: string }[] {
  if (!adopted) return [];
  const missing = (landingAt: string, path: string[]) => {
    const { device } = landingParts(landingAt);
    return adopted.devices[device] ? [] : [{ path: ['adopted', ...path], device }];
  };
  return [
    ...Object.entries(adopted.wires).flatMap(([id, w]) =>
      (['from', 'to'] as const).flatMap((end) => missing(w[end], ['wires', id, end])),
    ),
    ...Object.entries(adopted.assignments).flatMap(([id, a]) =>
      missing(a.at, ['assignments', id, 'at']),
    ),
  ];
}

const jobEntriesSchema = v.strictObject(jobEntries);

/** One job: facts, wishes, decisions and the adopted plan. The same document is file, API body and store state. */
export const jobSchema = v.pipe(
  jobEntriesSchema,
  v.rawCheck(({ dataset, addIssue }) => {
    if (!dataset.typed) return;
    const job = dataset.value;
    for (const { path, device } of danglingDevices(job)) {
      const steps: v.ObjectPathItem[] = [];
      let at: unknown = job;
      for (const key of path) {
        const input = at as Record<string, unknown>;
        steps.push({ type: 'object', origin: 'value', input, key, value: input[key] });
        at = input[key];
      }
      addIssue({
        message: `${path.at(-1) === 'at' ? 'this task lies' : 'this wire ends'} on "${device}", a device that is not there`,
        path: steps as [v.ObjectPathItem, ...v.ObjectPathItem[]],
      });
    }
  }),
);
export type Job = v.InferOutput<typeof jobSchema>;
export type Adopted = NonNullable<Job['adopted']>;
export type AdoptedWire = Adopted['wires'][string];
export type Script = Job['scripts'][string];
/** Who states that a function is not required, and why. */
export type StatedOtherwise = NonNullable<Job['decisions']['notRequired']>[string];

/** Job format version that this release reads and writes; older ones are upgraded when they are read. */
export const JOB_VERSION = 2;

/** Splits a landing into its device and terminal. */
export function landingParts(at: string): { device: string; terminal: string } {
  const colon = at.indexOf(':');
  return { device: at.slice(0, colon), terminal: at.slice(colon + 1) };
}

/**
 * A landing as it is marked on the panel: the tag of its part, and the terminal.
 *
 * @param devices parts by id; the id stands where a part is not among them
 * @example landingName(job.adopted.devices, 'button.start:14') // 'S3:14'
 */
export function landingName(
  devices: Readonly<Record<string, { readonly tag: string } | undefined>> | undefined,
  at: string,
): string {
  const { device, terminal } = landingParts(at);
  return `${devices?.[device]?.tag ?? device}:${terminal}`;
}

/** A job to which nothing has been entered but what it is called. */
export function emptyJob(
  named: Pick<Job, 'id' | 'siteId' | 'tag' | 'machine' | 'practice' | 'profile'>,
): Job {
  return {
    format: 'tactron-job',
    version: 2,
    ...named,
    plate: { motor: {}, supply: {}, load: {}, cable: {} },
    scheme: {},
    decisions: { pins: {}, wires: {}, settings: {}, devices: {} },
    deviations: {},
    scripts: {},
  };
}

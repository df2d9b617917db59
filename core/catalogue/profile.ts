import * as v from 'valibot';
import { displaySchema, type Display } from './display.js';
import {
  identificationFaults,
  identificationSchema,
  type Identification,
} from './identification.js';

const text = v.pipe(v.string(), v.minLength(1), v.maxLength(400));
const code = v.pipe(v.string(), v.minLength(1), v.maxLength(40));
const positive = v.pipe(v.number(), v.finite(), v.gtValue(0));
const notNegative = v.pipe(v.number(), v.finite(), v.minValue(0));
const value = v.union([v.number(), v.string(), v.boolean()]);
/** Records keep fields this version does not know. */
const open = v.looseObject;

/** What a terminal is, electrically. Resistances in Ω, volts and amps as named. */
const terminalSchema = v.variant('kind', [
  open({ kind: v.literal('mains'), phase: v.picklist(['L1', 'L2', 'L3', 'N', 'PE']), ...place() }),
  open({ kind: v.literal('motor'), phase: v.picklist(['U', 'V', 'W', 'PE']), ...place() }),
  open({
    kind: v.literal('power'),
    /** What it is for: the two ends of a braking resistor, or the poles of the DC link. */
    purpose: v.optional(v.picklist(['brakeResistor', 'linkPlus', 'linkMinus'])),
    ...place(),
  }),
  open({ kind: v.literal('zeroVolt'), ...place() }),
  open({ kind: v.literal('supply24'), volts: positive, maxA: positive, ...place() }),
  open({
    kind: v.literal('reference10'),
    volts: positive,
    sourceOhm: notNegative,
    maxA: positive,
    ...place(),
  }),
  open({ kind: v.literal('inputCommon'), ...place() }),
  open({
    kind: v.literal('digitalInput'),
    ohm: positive,
    onV: positive,
    offV: notNegative,
    tasks: v.union([v.literal('any'), v.array(code)]),
    fixedTask: v.optional(code),
    pullUpTo: v.optional(code),
    ...place(),
  }),
  open({
    kind: v.literal('enableInput'),
    channel: v.picklist(['A', 'B']),
    ohm: positive,
    onV: positive,
    offV: notNegative,
    ...place(),
  }),
  open({ kind: v.literal('analogueCommon'), ...place() }),
  open({
    kind: v.literal('analogueInput'),
    voltageOhm: positive,
    currentOhm: v.optional(positive),
    modes: v.pipe(v.array(v.picklist(['0-10V', '0-20mA', '4-20mA', '±10V'])), v.minLength(1)),
    ...place(),
  }),
  open({
    kind: v.literal('analogueOutput'),
    modes: v.array(v.picklist(['0-10V', '0-20mA', '4-20mA'])),
    ...place(),
  }),
  open({
    kind: v.literal('relay'),
    relay: code,
    part: v.picklist(['common', 'no', 'nc']),
    volts: positive,
    amps: positive,
    ...place(),
  }),
  /** Input for alternating voltage against another terminal. */
  open({
    kind: v.literal('acInput'),
    against: code,
    ohm: positive,
    onV: positive,
    offV: notNegative,
    tasks: v.union([v.literal('any'), v.array(code)]),
    fixedTask: v.optional(code),
    ...place(),
  }),
  /** One pole of a supply of its own for the control: window of voltage, and what it draws. */
  open({
    kind: v.literal('controlSupply'),
    pole: v.picklist(['a', 'b']),
    alternating: v.optional(v.boolean(), false),
    volts: v.tuple([positive, positive]),
    ohm: positive,
    ...place(),
  }),
  /** Watches the rotation of the supply where it does not do so at its mains terminals. */
  open({ kind: v.literal('phaseSense'), phase: v.picklist(['L1', 'L2', 'L3']), ...place() }),
  /** One end of a thermistor loop: trips above one resistance, is reset below another. */
  open({
    kind: v.literal('thermistor'),
    part: v.optional(v.picklist(['a', 'b'])),
    tripOhm: v.optional(positive, 3600),
    resetOhm: v.optional(positive, 1600),
    ...place(),
  }),
  open({ kind: v.literal('bus'), ...place() }),
]);

function place() {
  return {
    row: code,
    conductors: v.optional(v.pipe(v.number(), v.integer(), v.minValue(1)), 2),
    torqueNm: v.optional(positive),
    maxMm2: v.optional(positive),
    stripMm: v.optional(positive),
    note: v.optional(text),
  };
}

const linkSchema = open({
  /** `link` is a removable bridge, `slide` a slide switch, `plug` a plug link. */
  kind: v.picklist(['link', 'slide', 'plug']),
  name: text,
  factory: code,
  positions: v.record(
    code,
    open({
      name: text,
      joins: v.optional(v.array(v.tuple([code, code])), []),
      analogueMode: v.optional(open({ terminal: code, mode: code })),
      earthed: v.optional(v.boolean()),
    }),
  ),
});

/** A setting. `choices` maps the value keyed to what it means; a dial or a switch bank is a setting with positions. */
const settingSchema = open({
  name: text,
  group: text,
  type: v.picklist(['number', 'choice', 'dial', 'switch']),
  unit: v.optional(v.string(), ''),
  min: v.optional(v.number()),
  max: v.optional(v.number()),
  step: v.optional(positive),
  factory: v.union([
    value,
    open({ byModel: v.picklist(['ratedKw', 'ratedA', 'ratedV', 'ratedHz']) }),
  ]),
  choices: v.optional(v.record(code, text)),
  lockedWhileRunning: v.optional(v.boolean(), false),
  wipes: v.optional(v.array(code)),
  manualPage: v.optional(text),
  /** Analogue terminal or relay the setting belongs to, where it belongs to one. */
  terminal: v.optional(code),
  /** What one of its values means beside its number: a dial at 0. */
  note: v.optional(text),
});

/** A policy is fixed by the device, chosen by a setting (values keyed → meanings), or not known. */
const policySchema = v.union([
  v.literal('unknown'),
  open({ fixed: value }),
  open({ setting: code, values: v.optional(v.record(code, value)), scale: v.optional(v.number()) }),
]);
export type Policy = v.InferOutput<typeof policySchema>;

/** Policies that decide whether a motor moves by itself: every drive profile must name each, or say "unknown". */
export const requiredPolicies = [
  'startMethod',
  'onBothDirections',
  'onOppositeStart',
  'onStartHeld',
  'onPowerReturn',
  'onEnableReturn',
  'onFaultReset',
  'onTakeover',
  'onPlaceChange',
  'startEdgeWithStopReturn',
  'terminalStopUnderKeypad',
  'keypadStopAlways',
  'startWhileCoasting',
  'belowMin',
  'onReferenceLoss',
  'bothDirectionsFaultSelfClears',
  'jogWhileRunning',
  'onUndervoltageWhileStopping',
  'presetCoding',
  'noReverse',
  'stopMode',
] as const;

/** Policies that a drive profile may answer; one that says nothing of them is taken as the command logic takes it by itself. */
export const furtherPolicies = ['runningAtZero', 'faultMemoryOff'] as const;

/** Policies that every profile of a soft starter answers, or says to be unknown. */
export const requiredStarterPolicies = [
  'startMethod',
  'onControlReturn',
  'onMainsReturn',
  'onFaultReset',
  'onTakeover',
  'onStartHeld',
  'autoResetAttempts',
  'onAutoReset',
  'onThermistorCooled',
  'onOverloadCooled',
  'startEdgeWithStopReturn',
  'onBothDirections',
  'onOppositeEnable',
  'onRunInInhibit',
  'onRunWithoutMains',
  'onMainsLostRunning',
  'onCutWhileSoftStopping',
  'onStopWhileRamping',
  'onStartWhileSoftStopping',
  'onStartWhileCoasting',
  'onStartLimit',
  'kickUnderLimit',
  'limitOf',
  'limitBase',
  'rampTimeFrom',
  'afterTorqueRamp',
  'controlledPoles',
  'bypass',
  'bypassSensed',
  'lineRelay',
  'contactorFeedback',
  'thermalMemoryOff',
  'faultMemoryOff',
  'phaseSequence',
  'dialsRead',
  'dialSwitchWins',
  'noReverse',
] as const;

/** An input task. `asserts` says which state of the contact gives it: an enable or an external fault acts when its contact opens. */
const taskSchema = open({
  code: v.union([v.string(), v.number()]),
  name: text,
  meaning: code,
  needs: v.optional(code),
  asserts: v.optional(v.picklist(['closed', 'open']), 'closed'),
});

const modelSchema = open({
  name: code,
  ratedKw: v.optional(positive),
  ratedHp: v.optional(positive),
  ratedA: positive,
  ratedV: positive,
  capacityUF: v.optional(positive),
  lossW: v.optional(positive),
  overloadPct: v.optional(positive),
  overloadS: v.optional(positive),
  /** Largest prospective current at the terminals with the protective device named in the manual, kA. */
  shortCircuitKA: v.optional(positive),
  /** Largest current of the brake chopper, A. */
  chopperMaxA: v.optional(positive),
});

const keypadSchema = open({
  /** How one moves to a setting and changes it, for counting and printing key presses. */
  style: v.picklist(['listAndArrows', 'digitByDigit', 'textMenu', 'dialsAndSwitches']),
  keys: open({
    enter: text,
    up: text,
    down: text,
    back: text,
    start: v.optional(text),
    stop: v.optional(text),
  }),
  openList: v.optional(v.pipe(v.number(), v.integer(), v.minValue(0)), 1),
  confirmHoldS: v.optional(notNegative, 0),
});

const baseEntries = {
  format: v.literal('tactron-profile'),
  version: v.literal(1),
  family: code,
  maker: v.optional(text),
  kind: v.picklist(['drive', 'starter']),
  title: text,
  description: v.optional(text),
  supply: open({
    phases: v.picklist([1, 3]),
    volts: v.tuple([positive, positive]),
    hz: v.array(positive),
    outputPhases: v.optional(v.picklist([1, 3]), 3),
  }),
  models: v.pipe(v.array(modelSchema), v.minLength(1)),
  terminals: v.record(code, terminalSchema),
  rows: v.pipe(
    v.array(open({ id: code, name: text, terminals: v.array(code), option: v.optional(code) })),
    v.minLength(1),
  ),
  /** Terminals joined inside the device. */
  internalJoins: v.optional(v.array(v.tuple([code, code])), []),
  links: v.record(code, linkSchema),
  settings: v.record(code, settingSchema),
  /** Setting that holds the task of an input or output terminal. */
  taskSettings: v.record(code, code),
  inputTasks: v.record(code, taskSchema),
  outputTasks: v.record(code, taskSchema),
  duplicateTask: v.picklist(['refused', 'accepted', 'unknown']),
  incompletePair: v.picklist(['refused', 'warned', 'accepted', 'unknown']),
  /** Role of each setting in the control semantics and on the plate. */
  roles: v.record(code, policySchema),
  policies: v.record(code, policySchema),
  macros: v.optional(
    v.record(code, open({ name: text, sets: v.record(code, value), wipes: v.array(code) })),
    {},
  ),
  faults: v.record(code, open({ code: text, name: text, remedy: v.optional(text) })),
  keypad: keypadSchema,
  /** A run in which the device measures its motor; absent where it has none. */
  identification: v.optional(identificationSchema),
  /** Monitors, and display and lamps in each state; absent where the manual was not at hand. */
  display: v.optional(displaySchema),
  options: v.optional(v.record(code, open({ name: text })), {}),
  registers: v.optional(v.record(code, v.number())),
  dischargeS: positive,
  filterMs: v.optional(notNegative, 5),
  powerUpDelayMs: v.optional(notNegative, 500),
  link: v.optional(open({ thresholdShare: positive, darkShare: positive, idleW: positive })),
  derating: v.optional(
    open({
      altitudeFromM: notNegative,
      pctPer100M: notNegative,
      ambientFromC: v.number(),
      pctPerK: notNegative,
      carrierFromKHz: v.optional(positive),
      pctPerKHz: v.optional(notNegative),
    }),
  ),
  /** Share of the rating on one phase where the maker allows it; absent where not. */
  singlePhaseFactor: v.optional(positive),
  /** Voltage at which the brake chopper switches; absent where there is none. */
  chopperV: v.optional(positive),
  /** Voltage at which the DC link trips. */
  linkTripV: v.optional(positive),
  /** Rise time of the output, ns. */
  riseNs: v.optional(positive),
  /** Link that joins filter and varistors to earth. */
  earthLink: v.optional(code),
  /** Leakage of the filter inside the device, mA. */
  leakageMA: v.optional(positive),
  maxMotorCableM: v.optional(positive),
  supplyOperationsPerHour: v.optional(positive),
  /** Utilisation index of a soft starter, IEC 60947-4-2: X times its rating for Tx seconds, then rest or a share of running. */
  duty: v.optional(
    open({
      kind: v.picklist(['AC-53a', 'AC-53b']),
      times: positive,
      seconds: positive,
      offS: v.optional(positive),
      onPct: v.optional(positive),
      startsPerHour: v.optional(positive),
    }),
  ),
};

/** One device family in the open profile format. Checked here for shape and for every reference inside it. */
export const profileSchema = v.pipe(
  open(baseEntries),
  v.rawCheck(({ dataset, addIssue }) => {
    if (!dataset.typed) return;
    for (const fault of referenceFaults(dataset.value)) {
      const path: v.IssuePathItem[] = [];
      let at: unknown = dataset.value;
      for (const key of fault.path) {
        path.push({
          type: 'object',
          origin: 'value',
          input: at as Record<string, unknown>,
          key,
          value: (at as Record<string, unknown>)?.[key],
        });
        at = (at as Record<string, unknown>)?.[key];
      }
      addIssue({ message: fault.message, path: path as [v.IssuePathItem, ...v.IssuePathItem[]] });
    }
  }),
);
export type Profile = v.InferOutput<typeof profileSchema>;
export type Terminal = v.InferOutput<typeof terminalSchema>;
export type Setting = v.InferOutput<typeof settingSchema>;
export type ProfileLink = v.InferOutput<typeof linkSchema>;
export type Model = v.InferOutput<typeof modelSchema>;

interface Inner {
  kind: string;
  terminals: Record<string, Terminal>;
  rows: { id: string; terminals: string[] }[];
  links: Record<string, ProfileLink>;
  settings: Record<string, Setting>;
  taskSettings: Record<string, string>;
  roles: Record<string, Policy>;
  policies: Record<string, Policy>;
  display?: Display | undefined;
  identification?: Identification | undefined;
}

function* referenceFaults(p: Inner): Generator<{ path: string[]; message: string }> {
  for (const [at, row] of p.rows.entries()) {
    for (const id of row.terminals)
      if (!p.terminals[id])
        yield { path: ['rows', String(at), 'terminals'], message: `there is no terminal "${id}"` };
  }
  const placed = new Set(p.rows.flatMap((row) => row.terminals));
  for (const id of Object.keys(p.terminals))
    if (!placed.has(id)) yield { path: ['terminals', id], message: 'this terminal lies in no row' };
  for (const [id, link] of Object.entries(p.links)) {
    if (!link.positions[link.factory])
      yield { path: ['links', id, 'factory'], message: `there is no position "${link.factory}"` };
    for (const [name, position] of Object.entries(link.positions)) {
      for (const end of position.joins.flat())
        if (!p.terminals[end])
          yield {
            path: ['links', id, 'positions', name],
            message: `there is no terminal "${end}"`,
          };
    }
  }
  for (const [terminal, setting] of Object.entries(p.taskSettings)) {
    if (!p.terminals[terminal] && !terminal.startsWith('relay.'))
      yield { path: ['taskSettings', terminal], message: `there is no terminal "${terminal}"` };
    if (!p.settings[setting])
      yield { path: ['taskSettings', terminal], message: `there is no setting "${setting}"` };
  }
  yield* displayFaults(p);
  yield* identificationFaults(p);
  for (const group of ['roles', 'policies'] as const) {
    for (const [id, policy] of Object.entries(p[group])) {
      if (
        typeof policy === 'object' &&
        'setting' in policy &&
        !p.settings[policy.setting as string]
      )
        yield { path: [group, id], message: `there is no setting "${policy.setting}"` };
    }
  }
  const asked = p.kind === 'drive' ? requiredPolicies : requiredStarterPolicies;
  for (const id of asked)
    if (p.policies[id] === undefined)
      yield {
        path: ['policies', id],
        message: `a ${p.kind} profile must say how it behaves here, or "unknown"`,
      };
}

/** Terminals and lamps that the display names and the device does not have. */
function* displayFaults({
  display,
  terminals,
}: Inner): Generator<{ path: string[]; message: string }> {
  if (!display) return;
  for (const [id, { form }] of Object.entries(display.monitors))
    for (const terminal of form.as === 'number' ? [] : form.terminals)
      if (!terminals[terminal])
        yield { path: ['display', 'monitors', id], message: `there is no terminal "${terminal}"` };
  for (const [id, { lamps }] of Object.entries(display.states))
    for (const lamp of Object.keys(lamps))
      if (display.lamps[lamp] === undefined)
        yield { path: ['display', 'states', id], message: `there is no lamp "${lamp}"` };
}

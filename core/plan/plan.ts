import {
  factorySettings,
  changesSpeed,
  controlFeed,
  firstOfKind,
  inputLogics,
  isInput,
  linkTerminals,
  modelOf,
  planningGaps,
  resistorTerminals,
  taskCode,
  type InputLogic,
  type Profile,
  type Value,
} from '../catalogue/index.js';
import {
  CORE_VERSION,
  findingKey,
  hashOf,
  landingParts,
  sortedEntries,
  type Finding,
  type Job,
  type Wiring,
} from '../job/index.js';
import { arrange, DEVICE_ID, type Arrangement, type DeviceSymbol } from '../scheme/index.js';
import { assignInputs, assignOutputs, type AssignmentCost } from './assign.js';
import { identifyWires } from './identity.js';
import type { KeyLine } from './key-sheet.js';
import { keyingOrder } from './keying.js';
import { countPresses } from './keystrokes.js';
import { plannedDevices, plannedLinks, withJoints } from './planned-parts.js';
import { routeWires } from './route.js';
import { meaningIsMet, planSettings, type Beyond } from './settings.js';

export interface PlanCost {
  readonly settings: number;
  readonly keystrokes: number;
  readonly wires: number;
}

/** A proposal: nothing of it is in force until it is adopted. */
export interface PlanResult {
  readonly ok: true;
  readonly wiring: Wiring;
  readonly keying: readonly KeyLine[];
  readonly cost: PlanCost;
  readonly alternatives: readonly {
    readonly at: Readonly<Record<string, string>>;
    readonly cost: AssignmentCost;
  }[];
  /** Decisions and wishes that this device or wiring cannot meet; never dropped in silence. */
  readonly findings: readonly Finding[];
  readonly hash: string;
}

/** Why there is no plan: the wishes or gaps that stand against it. */
export interface NoPlan {
  readonly ok: false;
  readonly why: 'profileIncomplete' | 'conflict' | 'unknownModel';
  /** What stands against each other, as a code for words. */
  readonly code?: string;
  readonly path: string;
  readonly what: string;
  readonly wishes?: readonly string[];
}

/**
 * From wishes, plates and decisions to terminals, wires, settings and their keying order. The same input always gives
 * the same plan.
 *
 * @param found values in the device now; the factory's when nothing was noted
 * @returns a proposal, or why there is none
 * @example const plan = planJob(job, shippedProfile('marrowick-f')); if (plan.ok) plan.wiring.wires
 */
export function planJob(
  job: Job,
  profile: Profile,
  found?: Readonly<Record<string, Value>>,
): PlanResult | NoPlan {
  const gap = planningGaps(profile)[0];
  if (gap) return { ok: false, why: 'profileIncomplete', path: `profile.${gap}`, what: gap };
  const model = modelOf(profile, job.profile.model);
  if (!model)
    return { ok: false, why: 'unknownModel', path: 'profile.model', what: job.profile.model };
  const deviceId = deviceIdOf(job);
  const { logic, fixed } = logicOf(job, profile);
  const arrangement = arrangeFor(job, profile);
  const factory = factorySettings(profile, model);
  const asFound = found ?? factory;
  const findings: Finding[] = [];
  if (fixed) findings.push(planFinding('plan.logicFixed', 'contactsSwitch', { wish: fixed }));
  const clash = wishConflict(job, profile, arrangement);
  if (clash) return clash;
  const pins = usablePins(job, profile, arrangement, findings);
  const assigned = assignInputs(profile, arrangement.inputs, pins, previousTerminals(job), asFound);
  if (!assigned.ok)
    return conflict('inputs', assigned.wishes, `${assigned.functions.length}/${assigned.inputs}`);
  const { at } = assigned.best;
  const outputs = assignOutputs(profile, arrangement.outputs);
  if (!outputs.ok) return conflict('outputs', outputs.wishes, outputs.task);
  const routing = routeWires(
    { job, profile, model, arrangement, logic, device: deviceId },
    { inputs: at, outputs: outputs.relays },
  );
  if (routing.missing.length)
    return conflict('terminal', routing.missing.map(wishOfSymbol), routing.missing[0]);
  for (const landing of routing.crowded)
    findings.push(
      planFinding('plan.tooManyConductors', landing, { landing }, { kind: 'landing', id: landing }),
    );
  const identified = identifyWires(routing.wires, job.adopted, job.id);
  const wires = applyWireDecisions(job, identified.wires, profile, findings);
  const { settings, unmet, beyond } = planSettings(job, profile, arrangement, at, outputs.relays);
  findings.push(...settingFindings(profile, unmet, beyond));
  const wiring: Wiring = {
    device: deviceId,
    devices: withJoints(plannedDevices(job, profile, arrangement, deviceId), wires, profile),
    wires,
    retired: identified.retired,
    assignments: assignmentsOf(arrangement, deviceId, at, pins),
    links: plannedLinks(profile, arrangement, logic.links, job.plate.supply.earthing),
    settings,
  };
  const keying = keyingOrder(profile, asFound, settings, {
    factory,
    estop: arrangement.estop !== undefined,
    readyMade: job.decisions.readyMade,
  });
  return {
    ok: true,
    wiring,
    keying,
    cost: costOf(wires, keying),
    alternatives: assigned.alternatives.map((a) => ({ at: a.at, cost: a.cost })),
    findings,
    hash: hashOf(wiring),
  };
}

/** Wishes that no setting brings about, and values beyond the end of their setting. */
const settingFindings = (
  { settings }: Profile,
  unmet: readonly { readonly role: string; readonly wish: string }[],
  beyond: readonly Beyond[],
): Finding[] => [
  ...unmet.map(({ role, wish }) => planFinding('plan.wishUnmet', role, { role, wish })),
  ...beyond.map(({ code, wanted, end }): Finding => {
    const { name, unit = '' } = settings[code];
    const where = { kind: 'setting', id: code } as const;
    return {
      ...planFinding('plan.settingEnds', code, { name, unit, wanted, end }, where),
      severity: 'stop',
    };
  }),
];

/** Functions on the terminals they were given. */
const assignmentsOf = (
  { inputs }: Arrangement,
  device: string,
  at: Readonly<Record<string, string>>,
  pins: Readonly<Record<string, string>>,
): Wiring['assignments'] =>
  Object.fromEntries(
    inputs.map(({ id, task }) => [
      id,
      { at: `${device}:${at[id]}`, task, origin: pins[id] ? 'person' : 'plan' },
    ]),
  );

const costOf = (wires: Wiring['wires'], keying: readonly KeyLine[]): PlanCost => ({
  settings: keying.filter((l) => l.code).length,
  keystrokes: keying.reduce((sum, l) => sum + countPresses(l.presses), 0),
  wires: Object.keys(wires).length,
});

function planFinding(
  rule: string,
  subject: string,
  args: Finding['args'],
  where?: Finding['where'][number],
): Finding {
  return {
    key: findingKey(rule, subject),
    rule,
    severity: 'warn',
    rank: 'moves',
    stage: 'scheme',
    where: where ? [where] : [],
    args,
    source: 'plan',
    basis: hashOf([rule, subject, args]),
  };
}

/** Id of the device in the wiring of a job: the one it has, that of a pin made before any plan, else the usual one. */
export function deviceIdOf(job: Pick<Job, 'adopted' | 'decisions'>): string {
  const [pin] = Object.values(job.decisions.pins);
  return job.adopted?.device ?? (pin ? landingParts(pin.at).device : DEVICE_ID);
}

/** Pole that the contacts switch on this device: the wish where it can be, else the factory's. */
function logicOf(job: Job, profile: Profile): { logic: InputLogic; fixed?: string } {
  const logics = inputLogics(profile);
  const { contactsSwitch } = job.scheme;
  const wished = logics.find((l) => l.contactsSwitch === contactsSwitch);
  return contactsSwitch && !wished
    ? { logic: logics[0], fixed: contactsSwitch }
    : { logic: wished ?? logics[0] };
}

/** The arrangement of a job with what its device fixes: the pole its contacts switch, and how it codes presets. */
export function arrangeFor(job: Job, profile: Profile): Arrangement {
  const coding = profile.policies['presetCoding'];
  const presetCoding =
    typeof coding === 'object' && 'fixed' in coding && coding.fixed === 'priority'
      ? 'priority'
      : 'binary';
  const { contactsSwitch } = logicOf(job, profile).logic;
  const { phases } = profile.supply;
  const terminals = Object.keys(profile.terminals);
  return arrange(job, {
    contactsSwitch,
    presetCoding,
    device: deviceIdOf(job),
    phases,
    terminals,
    control: controlFeed(profile),
    speeds: changesSpeed(profile),
    enables: taskCode(profile, 'reverse') !== undefined,
    resistor: resistorTerminals(profile) !== undefined,
    link: linkTerminals(profile).length > 0,
    thermistor: firstOfKind(profile, 'thermistor') !== undefined,
  });
}

function conflict(code: string, wishes: readonly string[], what: string): NoPlan {
  return {
    ok: false,
    why: 'conflict',
    path: `scheme.${wishes[0] ?? ''}`,
    what,
    code,
    wishes: [...new Set(wishes)],
  };
}

/** Wishes that exclude each other, or that this family cannot carry at all. */
function wishConflict(job: Job, profile: Profile, arrangement: Arrangement): NoPlan | undefined {
  const [first] = arrangement.conflicts;
  if (first) return conflict(first.code, first.wishes, first.code);
  for (const role of [
    'startMethod',
    'referenceSource',
    'ai1.mode',
    'ai2.mode',
    'connectionKind',
  ] as const) {
    const meant = arrangement.meanings.find((m) => m.role === role);
    if (
      meant &&
      job.scheme[meant.wish as keyof Job['scheme']] !== undefined &&
      !meaningIsMet(profile, role, meant.value)
    )
      return conflict('noSetting', [meant.wish], String(meant.value));
  }
  if (waitsForEver(job, profile)) return conflict('handshakeDeadlock', ['handshake'], '');
  const noTask = arrangement.inputs.find((f) => taskCode(profile, f.task) === undefined);
  if (noTask) return conflict('noTask', [noTask.wish], noTask.task);
  const most = Object.keys(profile.roles).filter((role) => role.startsWith('preset.')).length;
  if (arrangement.presets.length > most) return conflict('presets', ['presetsHz'], String(most));
  return undefined;
}

/** A controller that waits for the run contact, and a device that is known to tell no run at a speed of zero. */
function waitsForEver({ scheme }: Job, { policies }: Profile): boolean {
  const tells = policies['runningAtZero'];
  const signalled = scheme.speed === 'voltage' || scheme.speed === 'current';
  const known = typeof tells === 'object' && 'fixed' in tells && tells.fixed === false;
  return known && scheme.handshake === true && signalled && !scheme.minHz;
}

/** Wish behind a symbol of the arrangement that found no terminal. */
function wishOfSymbol(symbol: DeviceSymbol): string {
  return symbol.startsWith('@enable')
    ? 'estop'
    : symbol === '@aout'
      ? 'status'
      : symbol === '@ai2'
        ? 'analogueInput'
        : symbol === '@ai1' || symbol === '@reference10'
          ? 'speed'
          : 'startStop';
}

function usablePins(
  job: Job,
  profile: Profile,
  arrangement: Arrangement,
  findings: Finding[],
): Record<string, string> {
  const pins: Record<string, string> = {};
  for (const [id, { at }] of sortedEntries(job.decisions.pins)) {
    const f = arrangement.inputs.find((input) => input.id === id);
    const { device, terminal } = landingParts(at);
    const clash = Object.values(pins).includes(terminal);
    if (f && device === deviceIdOf(job) && isInput(profile, terminal) && !clash)
      pins[id] = terminal;
    else
      findings.push(
        planFinding('decision.unmet', `pin.${id}`, { what: id, at }, { kind: 'landing', id: at }),
      );
  }
  return pins;
}

function previousTerminals(job: Job): Record<string, string> {
  return Object.fromEntries(
    Object.entries(job.adopted?.assignments ?? {}).map(([id, { at }]) => [
      id,
      landingParts(at).terminal,
    ]),
  );
}

function applyWireDecisions(
  job: Job,
  wires: Wiring['wires'],
  profile: Profile,
  findings: Finding[],
): Wiring['wires'] {
  const result: Wiring['wires'] = { ...wires };
  for (const [id, decision] of sortedEntries(job.decisions.wires)) {
    const { why: _why, ...change } = decision;
    const lands = [change.from, change.to].every(
      (end) =>
        end === undefined ||
        !end.startsWith(`${deviceIdOf(job)}:`) ||
        profile.terminals[landingParts(end).terminal] !== undefined,
    );
    if (result[id] && lands) result[id] = { ...result[id], ...change, origin: 'person' };
    else
      findings.push(
        planFinding('decision.unmet', `wire.${id}`, { what: id }, { kind: 'wire', id }),
      );
  }
  return result;
}

/** The change that adopts a proposal. */
export function adoption(plan: PlanResult): NonNullable<Job['adopted']> {
  return { ...plan.wiring, planHash: plan.hash, coreVersion: CORE_VERSION };
}

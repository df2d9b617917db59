import { planningGaps, type Profile, type Value } from '../catalogue/index.js';
import { CORE_VERSION, findingKey, hashOf, landingParts, notYetInScheme, sortedEntries, type Finding, type Job, type Wiring } from '../job/index.js';
import { arrange, type Arrangement } from '../scheme/index.js';
import { assignInputs, type AssignmentCost } from './assign.js';
import { identifyWires } from './identity.js';
import { keyingOrder, type KeyLine } from './keying.js';
import { countPresses } from './keystrokes.js';
import { routeWires } from './route.js';
import { factorySettings, planSettings } from './settings.js';
import { inputLogics } from './terminals.js';

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
  readonly alternatives: readonly { readonly at: Readonly<Record<string, string>>; readonly cost: AssignmentCost }[];
  /** Decisions and wishes that this device or wiring cannot meet; never dropped in silence. */
  readonly findings: readonly Finding[];
  readonly hash: string;
}

/** Why there is no plan: the wishes or gaps that stand against it. */
export interface NoPlan {
  readonly ok: false;
  readonly why: 'notYet' | 'profileIncomplete' | 'conflict' | 'unknownModel';
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
export function planJob(job: Job, profile: Profile, found?: Readonly<Record<string, Value>>): PlanResult | NoPlan {
  const notYet = notYetInScheme(job.scheme);
  if (notYet) return { ok: false, why: 'notYet', ...notYet };
  const gap = planningGaps(profile)[0];
  if (gap) return { ok: false, why: 'profileIncomplete', path: `profile.${gap}`, what: gap };
  const model = profile.models.find((m) => m.name === job.profile.model);
  if (!model) return { ok: false, why: 'unknownModel', path: 'profile.model', what: job.profile.model };
  const arrangement = arrange(job);
  const asFound = found ?? factorySettings(profile, model);
  const findings: Finding[] = [];
  const pins = usablePins(job, profile, arrangement, findings);
  const assigned = assignInputs(profile, arrangement.inputs, pins, previousTerminals(job), asFound);
  if (!assigned.ok) return { ok: false, why: 'conflict', path: 'scheme', what: `${arrangement.inputs.length}/${assigned.inputs}`, wishes: assigned.functions };
  const { at } = assigned.best;
  const logics = inputLogics(profile);
  const wished = logics.find((l) => l.contactsSwitch === job.scheme.contactsSwitch);
  if (job.scheme.contactsSwitch && !wished) findings.push(planFinding('plan.logicFixed', 'contactsSwitch', { wish: job.scheme.contactsSwitch }));
  const logic = wished ?? logics[0];
  const routing = routeWires(job, profile, model, arrangement, logic, at);
  for (const landing of routing.crowded) findings.push(planFinding('plan.tooManyConductors', landing, { landing }, { kind: 'landing', id: landing }));
  const identified = identifyWires(routing.wires, job.adopted, job.id);
  const wires = applyWireDecisions(job, identified.wires, profile, findings);
  const { settings, unmet } = planSettings(job, profile, arrangement, at);
  for (const { role, wish } of unmet) findings.push(planFinding('plan.wishUnmet', role, { role, wish }));
  const wiring: Wiring = {
    devices: plannedDevices(job, arrangement),
    wires,
    retired: identified.retired,
    assignments: Object.fromEntries(
      arrangement.inputs.map((f) => [f.id, { at: `drive:${at[f.id]}`, task: f.task, origin: pins[f.id] ? 'person' : 'plan' }] as const),
    ),
    links: plannedLinks(profile, arrangement, logic.links),
    settings,
  };
  const keying = keyingOrder(profile, asFound, settings);
  const cost = {
    settings: keying.filter((l) => l.code).length,
    keystrokes: keying.reduce((sum, l) => sum + countPresses(l.presses), 0),
    wires: Object.keys(wires).length,
  };
  return {
    ok: true,
    wiring,
    keying,
    cost,
    alternatives: assigned.alternatives.map((a) => ({ at: a.at, cost: a.cost })),
    findings,
    hash: hashOf([wiring, CORE_VERSION]),
  };
}

function planFinding(rule: string, subject: string, args: Finding['args'], where?: Finding['where'][number]): Finding {
  return { key: findingKey(rule, subject), rule, severity: 'warn', where: where ? [where] : [], args, source: 'plan', basis: hashOf([rule, subject, args]) };
}

function usablePins(job: Job, profile: Profile, arrangement: Arrangement, findings: Finding[]): Record<string, string> {
  const pins: Record<string, string> = {};
  for (const [id, { at }] of sortedEntries(job.decisions.pins)) {
    const f = arrangement.inputs.find((input) => input.id === id);
    const { device, terminal } = landingParts(at);
    const clash = Object.values(pins).includes(terminal);
    if (f && device === 'drive' && profile.terminals[terminal]?.kind === 'digitalInput' && !clash) pins[id] = terminal;
    else findings.push(planFinding('decision.unmet', `pin.${id}`, { what: id, at }, { kind: 'landing', id: at }));
  }
  return pins;
}

function previousTerminals(job: Job): Record<string, string> {
  return Object.fromEntries(Object.entries(job.adopted?.assignments ?? {}).map(([id, { at }]) => [id, landingParts(at).terminal]));
}

function applyWireDecisions(job: Job, wires: Wiring['wires'], profile: Profile, findings: Finding[]): Wiring['wires'] {
  const result: Wiring['wires'] = { ...wires };
  for (const [id, decision] of sortedEntries(job.decisions.wires)) {
    const { why: _why, ...change } = decision;
    const lands = [change.from, change.to].every(
      (end) => end === undefined || !end.startsWith('drive:') || profile.terminals[landingParts(end).terminal] !== undefined,
    );
    if (result[id] && lands) result[id] = { ...result[id], ...change, origin: 'person' };
    else findings.push(planFinding('decision.unmet', `wire.${id}`, { what: id }, { kind: 'wire', id }));
  }
  return result;
}

function plannedDevices(job: Job, arrangement: Arrangement): Wiring['devices'] {
  const devices: Wiring['devices'] = {
    supply: { kind: 'supplyThreePhase', role: 'supply', tag: 'X0', params: {} },
    breaker: { kind: 'breakerThreePole', role: 'breaker', tag: 'Q1', params: {} },
    drive: { kind: 'drive', role: 'drive', tag: 'T1', params: {} },
    motor: { kind: 'motor', role: 'motor', tag: 'M1', params: {} },
  };
  for (const device of arrangement.devices) devices[device.id] = { kind: device.kind, role: device.id, tag: device.tag, params: { ...device.params } };
  for (const [id, { kind, tag, params }] of Object.entries(job.decisions.devices)) devices[id] = { kind, role: id, tag, params };
  return devices;
}

function plannedLinks(profile: Profile, arrangement: Arrangement, chosen: Readonly<Record<string, string>>): Wiring['links'] {
  return Object.fromEntries(
    Object.entries(profile.links).map(([id, link]) => {
      const voltage = sortedEntries(link.positions).find(([, p]) => p.analogueMode?.mode === 'voltage')?.[0];
      return [id, { position: chosen[id] ?? (arrangement.dial && voltage ? voltage : link.factory), origin: 'plan' as const }];
    }),
  );
}

/** The change that adopts a proposal. */
export function adoption(plan: PlanResult): NonNullable<Job['adopted']> {
  return { ...plan.wiring, planHash: plan.hash, coreVersion: CORE_VERSION };
}

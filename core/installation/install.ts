import {
  changesSpeed,
  modelOf,
  presentTerminals,
  firstOfKind,
  factorySettings,
  settingsItTakes,
} from '../catalogue/index.js';
import type { Model, Profile, SettingValues, Value } from '../catalogue/index.js';
import { Layout } from '../circuit/index.js';
import { sortedEntries, type Act, type Job } from '../job/index.js';
import {
  areaOf,
  coastTime,
  copperOhm,
  brakingFacts,
  fedMachine,
  plateNumbers,
  runDownOf,
} from '../line/index.js';
import type { InstalledShaft, InstallFacts } from '../motor/index.js';
import { parts, terminalsOf, type InstalledPart } from '../parts/index.js';
import { specOf } from './logics.js';
import type { Installation, Installed, InstalledDevice } from './installation.js';
import { motorLeads, type MotorLeads } from './motor-leads.js';
import { asBuilt, type Panel } from './panel.js';
import { failureSwitches, WIRES } from './failures.js';
import { installBlock } from './terminal-block.js';
import { reachable, withstoodBy, type Withstood } from './withstand.js';

/** A device whose terminals have not been asked yet what can reach them. */
type Block = Omit<InstalledDevice, 'withstand' | 'reference' | 'earth'>;

/** Where the settings of a rehearsal come from. */
export type SettingsFrom =
  | { readonly from: 'planned' }
  | { readonly from: 'factory' }
  | { readonly from: 'snapshot'; readonly id: string; readonly values: SettingValues };

/** A place for a bridge, a battery or a calibrator, as acts of the script ask for it. */
export type HookPlace = readonly [a: string, b: string];

/** Pairs of landings that a script puts something to. */
export function hookPlaces(acts: readonly Act[]): HookPlace[] {
  const places: HookPlace[] = [];
  for (const act of acts) {
    if (
      act.do !== 'hook' ||
      places.some(([a, b]) => (a === act.a && b === act.b) || (a === act.b && b === act.a))
    )
      continue;
    places.push([act.a, act.b]);
  }
  return places;
}

export interface InstallOptions {
  /** Pairs of landings to which something may be put while it runs. */
  readonly hooks?: readonly HookPlace[];
  /** Behaviour to take where the profile does not know it. */
  readonly policies?: Readonly<Record<string, Value>>;
  /** Panel to install instead of the one the job describes: another fault, another wiring. */
  readonly panel?: Panel;
  /** Leaves out an analogue output that nothing is wired to: it moves with the speed and touches nothing. */
  readonly lean?: boolean;
  /** The device bears whatever reaches its terminals: to tell what that would be. */
  readonly bearsAll?: boolean;
}

/** Resistance of the two terminations of a wire, Ω. */
const TERMINATIONS_OHM = 2e-3;
/** Run-down that is taken where inertia and load are not entered, s: its true time is unknown, and is said to be. */
const ASSUMED_RUN_DOWN_S = 1;

/**
 * Builds the running model of a job as built: the adopted plan, with what was found otherwise laid over it.
 *
 * @param options places for bridges and batteries, policies to take for those the profile does not know, another panel
 * @throws RangeError when the job has no adopted plan, or names a model that the profile does not have
 * @example install(job, shippedProfile('marrowick-f')).device.inputs.map((i) => i.task)
 */
export function install(
  job: Job,
  profile: Profile,
  from: SettingsFrom = { from: 'planned' },
  options: InstallOptions = {},
): Installation {
  const panel = options.panel ?? asBuilt(job, profile);
  const settings = settingsOf(job, profile, panel, from);
  const layout = new Layout();
  for (const [id, device] of sortedEntries(panel.devices)) {
    const terminals = id === panel.device ? presentTerminals(profile) : terminalsOf(device);
    for (const terminal of terminals) layout.landing(`${id}:${terminal}`);
  }
  const laid = layParts(layout, job, panel);
  const shaft = shaftOf(job, profile, panel);
  const whole = deviceOf(layout, job, profile, panel, settings, shaft.id, options.policies);
  const block = options.lean ? withoutIdleOutput(whole, panel) : whole;
  const hooks = (options.hooks ?? []).map(([a, b], i): InstalledPart => {
    const id = `hook.${i}`;
    const edge = layout.edge(a, b, id, 'hand');
    const { modal } = layout.modalEdge(b, a, 'currentSource', id, 'hand');
    return { kind: 'hook', id, tag: id, a, b, edge, modal };
  });
  const wires = wiresOf(layout, panel);
  const switches = failureSwitches(layout, panel, laid);
  const zero = firstOfKind(profile, 'zeroVolt');
  const all = withstoodBy(profile, panel.device, (l) => layout.landing(l));
  const reference =
    zero === undefined ? earthOf(layout) : layout.landing(`${panel.device}:${zero}`);
  const device = withstanding(layout, options.bearsAll ? [] : all, block, reference);
  const devices: Installed[] = [wires, ...laid, device, shaft, ...hooks];
  return {
    settingsFrom: from.from === 'snapshot' ? { snapshot: from.id } : from.from,
    landings: layout.landings,
    reference,
    edgeA: layout.edgeA,
    edgeB: layout.edgeB,
    edges: layout.edges,
    modal: layout.modal,
    devices: [...devices, switches],
    device,
    shaft,
  };
}

/** The device with what of its terminals can be reached by a foreign source. */
function withstanding(
  layout: Layout,
  all: readonly Withstood[],
  block: Block,
  reference: number,
): InstalledDevice {
  const earth = layout.landings.findIndex((l) => l.endsWith(':PE') && l !== `${block.id}:PE`);
  return {
    ...block,
    withstand: reachable(all, layout, block),
    reference,
    earth: earth < 0 ? undefined : earth,
  };
}

/** Where nothing of the device lies at 0 V, volts are counted from the protective conductor. */
function earthOf({ landings }: Layout): number {
  return Math.max(
    0,
    landings.findIndex((l) => l.endsWith(':PE')),
  );
}

function settingsOf(job: Job, profile: Profile, panel: Panel, from: SettingsFrom): SettingValues {
  const model = modelOf(profile, job.profile.model);
  if (!model) throw new RangeError(`the profile has no model "${job.profile.model}"`);
  if (from.from === 'planned') return panel.settings;
  return {
    ...factorySettings(profile, model),
    ...(from.from === 'snapshot' ? settingsItTakes(profile, from.values) : {}),
  };
}

/** Voltage between two phases, or of the one phase. */
const lineVolts = (job: Job, otherwise: number): number =>
  plateNumbers(job.plate).supplyV ?? otherwise;

/** Line voltage taken where neither plate nor device tell it, V. */
const USUAL_LINE_V = 400;

function layParts(layout: Layout, job: Job, panel: Panel): InstalledPart[] {
  const around = { lineV: lineVolts(job, USUAL_LINE_V) };
  return sortedEntries(panel.devices).flatMap(([id, { kind, tag, params, ...more }]) => {
    if (id === panel.device) return [];
    const placed = { id, kind, tag, params, ...more };
    const part = parts[kind]?.install?.(layout, placed, around);
    // A dead source leaves its landings and gives nothing.
    const dead = panel.failed.some((f) => f.what === 'source' && f.device === id);
    return part && !dead ? [broken(otherContacts(part, panel), panel)] : [];
  });
}

/** A coil or lamp that is burnt through has its voltage and does nothing with it. */
function broken(part: InstalledPart, { failed }: Panel): InstalledPart {
  if (part.kind !== 'coil' && part.kind !== 'load') return part;
  const what = part.kind === 'coil' ? 'coil' : 'lamp';
  const dead = failed.some((f) => f.what === what && f.device === part.id);
  return dead ? { ...part, dead } : part;
}

/** Contacts that were found of the other kind: closed where they should be open, and the other way round. */
function otherContacts(part: InstalledPart, panel: Panel): InstalledPart {
  const wrong = panel.wrong.filter((at) => at.startsWith(`${part.id}:`));
  if (wrong.length === 0) return part;
  const terminals = wrong.map((at) => at.slice(part.id.length + 1));
  if (part.kind === 'contacts')
    return {
      ...part,
      contacts: part.contacts.map((c) =>
        terminals.includes(c.terminal)
          ? { ...c, closedIn: part.positions.filter((p) => !c.closedIn.includes(p)) }
          : c,
      ),
    };
  if (part.kind !== 'coil') return part;
  const spec = parts[panel.devices[part.id].kind]?.coil;
  if (!spec) return part;
  const is = (pairs: readonly (readonly [string, string])[]) => (_edge: number, i: number) =>
    terminals.includes(pairs[i][0]);
  const not = (pairs: readonly (readonly [string, string])[]) => (_edge: number, i: number) =>
    !terminals.includes(pairs[i][0]);
  return {
    ...part,
    makes: [...part.makes.filter(not(spec.makes)), ...part.breaks.filter(is(spec.breaks))],
    breaks: [...part.breaks.filter(not(spec.breaks)), ...part.makes.filter(is(spec.makes))],
  };
}

function wiresOf(layout: Layout, panel: Panel): InstalledPart {
  const wires = sortedEntries(panel.wires).map(([id, wire]) => ({
    id,
    number: wire.number,
    potential: wire.potential,
    edge: layout.edge(wire.from, wire.to, id, 'wire'),
    ohm: copperOhm(wire.lengthM, areaOf(wire.size)) + TERMINATIONS_OHM,
  }));
  return { kind: 'wires', id: WIRES, tag: '', wires, open: panel.open };
}

function shaftOf(job: Job, profile: Profile, panel: Panel): InstalledShaft {
  const entries = sortedEntries(panel.devices).filter(([id]) => id !== panel.device);
  const [id, motor] = entries.find(([, d]) => parts[d.kind]?.turns) ?? ['motor', undefined];
  const brake = entries.find(([, d]) => parts[d.kind]?.holds)?.[0];
  const isolator = entries.find(([, d]) => d.kind === 'motorIsolator')?.[0];
  const { hz, rpm, polePairs } = plateNumbers(job.plate);
  const maxHz = job.scheme.maxHz ?? hz ?? 50;
  const ratedSlip = hz && rpm && polePairs ? (60 * hz) / polePairs - rpm : 0;
  return {
    kind: 'shaft',
    id,
    tag: motor?.tag ?? '',
    drivenBy: panel.device,
    brake,
    isolator,
    turns: turnsOf(job, motorLeads(panel, profile, id)),
    polePairs,
    // Fed at the frequency of the supply, its speed is reckoned with its slip already.
    slipRpm: changesSpeed(profile) ? (ratedSlip * (job.plate.load.torquePct ?? 0)) / 100 : 0,
    runDown: runDownOf(job.plate),
    assumedS: ASSUMED_RUN_DOWN_S,
    maxHz,
  };
}

/** A machine that was seen to need two leads exchanged turns forward with them so. */
const turnsOf = ({ plate }: Job, { order }: MotorLeads): InstalledShaft['turns'] =>
  order !== 0 && plate.motor.leadsExchanged ? (order === 1 ? -1 : 1) : order;

function withoutIdleOutput(device: Block, panel: Panel): Block {
  const at = device.output && `${device.id}:${device.output.terminal}`;
  const wired = Object.values(panel.wires).some((w) => w.from === at || w.to === at);
  return wired ? device : { ...device, output: undefined };
}

const exponents = { constant: 0, linear: 1, square: 2 } as const;

function installFacts(job: Job, profile: Profile, model: Model, panel: Panel): InstallFacts {
  const n = plateNumbers(job.plate, profile);
  const { kind = 'constant', torquePct = 50 } = job.plate.load;
  return {
    lineV: n.supplyV ?? model.ratedV,
    load: {
      watts: ((n.powerKw ?? model.ratedKw ?? 1) * 1000 * torquePct) / 100 / (n.efficiency ?? 0.85),
      atHz: n.hz ?? 50,
      exponent: exponents[kind],
    },
    braking: brakingFacts(job.plate, n),
    coastS: (fromHz) => coastTime(job.plate, fromHz) ?? ASSUMED_RUN_DOWN_S,
    failed: panel.failed.flatMap((f) => (f.device === panel.device ? [f.what] : [])),
    get fed() {
      return fedMachine(job, profile, model);
    },
  };
}

function deviceOf(
  layout: Layout,
  job: Job,
  profile: Profile,
  panel: Panel,
  settings: SettingValues,
  shaft: string,
  policies: InstallOptions['policies'],
): Block {
  const model = modelOf(profile, job.profile.model);
  if (!model) throw new RangeError(`the profile has no model "${job.profile.model}"`);
  const about = installFacts(job, profile, model, panel);
  const { spec, facts } = specOf(profile, model, settings, about, policies);
  const id = panel.device;
  const block = installBlock({ layout, id, profile, settings, links: panel.links, facts });
  return { kind: 'device', id, tag: panel.devices[id]?.tag ?? id, spec, facts, shaft, ...block };
}

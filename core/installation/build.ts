import {
  roleValue,
  type Model,
  type Profile,
  type SettingValues,
  type Terminal,
  type Value,
} from '../catalogue/index.js';
import { terminalsOfKind } from '../parts/index.js';
import { hashOf, sortedEntries, type Act, type Job } from '../job/index.js';
import { factorySettings, presentTerminals, settingsInForce } from '../plan/index.js';
import { areaOf, coastTime, copperOhm, plateNumbers } from '../line/index.js';
import type { Link } from '../drive/index.js';
import { analogueScaleOf, controlOf } from './control.js';
import type {
  Installation,
  InstalledDevice,
  InstalledDrive,
  InstalledEnable,
  InstalledInput,
} from './installation.js';
import { Layout } from './layout.js';
import { installStationDevice } from './station-devices.js';

/** Where the settings of a rehearsal come from. */
export type SettingsFrom =
  | { readonly from: 'planned' }
  | { readonly from: 'factory' }
  | { readonly from: 'snapshot'; readonly id: string; readonly values: SettingValues };

/** Shaft run-down assumed when inertia and load are not entered, s. */
const COAST_WITHOUT_DATA_S = 1;

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
}

/**
 * Builds the running model of a job: what is really there, wired and set. Deviations of the panel as built are laid over
 * the adopted plan.
 *
 * @param options places for bridges and batteries, and policies to take for those the profile does not know
 * @throws RangeError when the job has no adopted plan, or names a model that the profile does not have
 */
export function install(
  job: Job,
  profile: Profile,
  from: SettingsFrom = { from: 'planned' },
  options: InstallOptions = {},
): Installation {
  const { adopted } = job;
  if (!adopted) throw new RangeError('the job has no adopted plan');
  const model = profile.models.find((m) => m.name === job.profile.model);
  if (!model) throw new RangeError(`the profile has no model "${job.profile.model}"`);
  const settings =
    from.from === 'planned'
      ? settingsInForce(profile, model, adopted.settings)
      : { ...factorySettings(profile, model), ...(from.from === 'snapshot' ? from.values : {}) };
  const layout = new Layout();
  const devices: InstalledDevice[] = [];
  const lineV = plateNumbers(job.plate).supplyV ?? model.ratedV;
  for (const [id, device] of sortedEntries(adopted.devices)) {
    const terminals =
      device.kind === 'drive'
        ? presentTerminals(profile)
        : terminalsOfKind(device.kind, device.params);
    for (const terminal of terminals) layout.landing(`${id}:${terminal}`);
  }
  for (const [id, device] of sortedEntries(adopted.devices)) {
    const laid =
      device.kind === 'drive'
        ? installDrive(layout, id, job, profile, model, settings, options.policies)
        : installStationDevice(layout, id, device, lineV);
    if (laid) devices.push(laid);
  }
  (options.hooks ?? []).forEach(([a, b], i) =>
    devices.push({
      kind: 'hook',
      id: `hook.${i}`,
      a,
      b,
      edge: layout.edge(a, b),
      modal: layout.modalEdge(b, a, 'currentSource').modal,
    }),
  );
  const wires = sortedEntries(adopted.wires).map(([id, wire]) => ({
    id,
    number: wire.number,
    edge: layout.edge(wire.from, wire.to),
    ohm: copperOhm(wire.lengthM, areaOf(wire.size)) + 2e-3,
  }));
  const zero = Object.entries(profile.terminals).find(([, t]) => t.kind === 'zeroVolt')?.[0];
  const body = {
    settingsFrom: from.from === 'snapshot' ? { snapshot: from.id } : from.from,
    landings: layout.landings,
    reference: zero ? layout.landing(`drive:${zero}`) : 0,
    edgeA: layout.edgeA,
    edgeB: layout.edgeB,
    modal: layout.modal,
    wires,
    devices,
  };
  return { hash: hashOf(body), ...body };
}

function installDrive(
  layout: Layout,
  id: string,
  job: Job,
  profile: Profile,
  model: Model,
  settings: SettingValues,
  policies: InstallOptions['policies'],
): InstalledDrive {
  const terminals = presentTerminals(profile).map((terminal) => ({
    terminal,
    at: `${id}:${terminal}`,
    spec: profile.terminals[terminal],
  }));
  const first = (kind: string): string | undefined =>
    terminals.find((t) => t.spec.kind === kind)?.at;
  const zero = first('zeroVolt') ?? `${id}:0`;
  const control0 = controlOf(profile, settings, 0, policies);
  const control = {
    ...control0,
    coastS: coastTime(job.plate, control0.maxHz) ?? COAST_WITHOUT_DATA_S,
  };
  const supply24 = terminals.find((t) => t.spec.kind === 'supply24');
  const ten = terminals.find((t) => t.spec.kind === 'reference10');
  const numbers = plateNumbers(job.plate, profile);
  const lineV = numbers.supplyV ?? model.ratedV;
  const mains = terminals.filter(
    (t) => t.spec.kind === 'mains' && ['L1', 'L2', 'L3', 'N'].includes(String(t.spec.phase)),
  );
  const used = usedAnalogue(profile, settings);
  const common = first('analogueCommon') ?? zero;
  return {
    kind: 'drive',
    id,
    control,
    link: linkEnergy(job, profile, model, lineV),
    supply24:
      supply24?.spec.kind === 'supply24'
        ? {
            ...layout.modalEdge(supply24.at, zero, 'limitedSupply'),
            volts: supply24.spec.volts,
            amps: supply24.spec.maxA,
          }
        : undefined,
    reference10:
      ten?.spec.kind === 'reference10'
        ? {
            edge: layout.edge(ten.at, first('analogueCommon') ?? zero),
            volts: ten.spec.volts,
            ohm: ten.spec.sourceOhm,
          }
        : undefined,
    inputs: terminals.flatMap((t) =>
      t.spec.kind === 'digitalInput'
        ? [installInput(layout, id, t.terminal, profile, settings, first('inputCommon') ?? zero)]
        : [],
    ),
    enables: terminals.flatMap((t) =>
      t.spec.kind === 'enableInput' ? [installEnable(layout, t.at, t.terminal, t.spec, zero)] : [],
    ),
    analogue: installAnalogue(layout, id, profile, settings, common, used),
    idleAnalogue: terminals.flatMap((t) =>
      t.spec.kind === 'analogueInput' && t.terminal !== used.terminal
        ? [{ edge: layout.edge(t.at, common), ohm: t.spec.voltageOhm }]
        : [],
    ),
    brakeReleaseHz: Number(roleValue(profile, settings, 'brakeReleaseHz') ?? 1.5),
    output: installOutput(
      layout,
      id,
      profile,
      settings,
      control.maxHz,
      first('analogueCommon') ?? zero,
    ),
    relays: installRelays(layout, id, profile, settings),
    mains: {
      landings: mains.map((t) => layout.landing(t.at)),
      edges: mains
        .slice(0, mains.length === 2 ? 1 : 3)
        .map((t, i) => layout.edge(t.at, mains[(i + 1) % mains.length].at)),
      minV: profile.supply.volts[0] * 0.7,
    },
    joined: profile.internalJoins.map(([a, b]) => layout.edge(`${id}:${a}`, `${id}:${b}`)),
    links: sortedEntries(profile.links).map(([link, spec]) => ({
      id: link,
      position: job.adopted?.links[link]?.position ?? spec.factory,
      positions: Object.fromEntries(
        sortedEntries(spec.positions).map(([name, position]) => [
          name,
          {
            edges: position.joins.map(([a, b]) => layout.edge(`${id}:${a}`, `${id}:${b}`)),
            currentMode:
              position.analogueMode?.terminal === used.terminal
                ? position.analogueMode?.mode === 'current'
                : null,
          },
        ]),
      ),
    })),
    polePairs:
      numbers.hz && numbers.rpm
        ? Math.max(1, Math.floor((60 * numbers.hz) / numbers.rpm))
        : undefined,
  };
}

function installInput(
  layout: Layout,
  id: string,
  terminal: string,
  profile: Profile,
  settings: SettingValues,
  common: string,
): InstalledInput {
  const spec = profile.terminals[terminal];
  if (spec.kind !== 'digitalInput') throw new RangeError(`${terminal} is no digital input`);
  const partner = spec.pullUpTo ? `${id}:${spec.pullUpTo}` : common;
  const setting = profile.taskSettings[terminal];
  const known = Object.values(profile.inputTasks).find((t) =>
    spec.fixedTask
      ? t.meaning === spec.fixedTask
      : setting !== undefined && t.code === settings[setting],
  );
  const task = spec.fixedTask ?? known?.meaning ?? 'none';
  const at = `${id}:${terminal}`;
  return {
    terminal,
    edge: layout.edge(at, partner),
    ohm: spec.ohm,
    plus: layout.landing(at),
    minus: layout.landing(partner),
    onUv: Math.round(spec.onV * 1e6),
    offUv: Math.round(spec.offV * 1e6),
    task,
    inverted: known?.asserts === 'open',
  };
}

function installEnable(
  layout: Layout,
  at: string,
  terminal: string,
  spec: Extract<Terminal, { kind: 'enableInput' }>,
  zero: string,
): InstalledEnable {
  return {
    terminal,
    channel: spec.channel,
    edge: layout.edge(at, zero),
    ohm: spec.ohm,
    plus: layout.landing(at),
    minus: layout.landing(zero),
    onUv: Math.round(spec.onV * 1e6),
    offUv: Math.round(spec.offV * 1e6),
  };
}

/** The analogue input that gives the reference under these settings; the first one where none does. */
function usedAnalogue(
  profile: Profile,
  settings: SettingValues,
): { terminal: string | undefined; name: 'ai1' | 'ai2'; used: boolean } {
  const inputs = presentTerminals(profile).filter(
    (t) => profile.terminals[t].kind === 'analogueInput',
  );
  const source = controlOf(profile, settings, 0).referenceSource;
  const name = source === 'ai2' ? 'ai2' : 'ai1';
  return { terminal: inputs[name === 'ai2' ? 1 : 0] ?? inputs[0], name, used: source === name };
}

function installAnalogue(
  layout: Layout,
  id: string,
  profile: Profile,
  settings: SettingValues,
  common: string,
  { terminal, name, used }: ReturnType<typeof usedAnalogue>,
): InstalledDrive['analogue'] {
  const spec = terminal === undefined ? undefined : profile.terminals[terminal];
  if (terminal === undefined || spec?.kind !== 'analogueInput') return undefined;
  const at = `${id}:${terminal}`;
  return {
    terminal,
    edge: layout.edge(at, common),
    plus: layout.landing(at),
    minus: layout.landing(common),
    voltageOhm: spec.voltageOhm,
    currentOhm: spec.currentOhm ?? 250,
    ...analogueScaleOf(profile, settings, name),
    used,
  };
}

function installOutput(
  layout: Layout,
  id: string,
  profile: Profile,
  settings: SettingValues,
  maxHz: number,
  common: string,
): InstalledDrive['output'] {
  const terminal = presentTerminals(profile).find(
    (t) => profile.terminals[t].kind === 'analogueOutput',
  );
  if (terminal === undefined) return undefined;
  const role = profile.roles['ao1.task'];
  const code = typeof role === 'object' && 'setting' in role ? (role.setting as string) : undefined;
  const values =
    typeof role === 'object' && 'values' in role ? (role.values as Record<string, string>) : {};
  const shows = code === undefined ? 'none' : (values[String(settings[code])] ?? 'none');
  return {
    terminal,
    edge: layout.edge(`${id}:${terminal}`, common),
    shows,
    voltsPerHz: 10 / maxHz,
  };
}

function installRelays(
  layout: Layout,
  id: string,
  profile: Profile,
  settings: SettingValues,
): InstalledDrive['relays'] {
  const present = presentTerminals(profile);
  const byRelay = new Map<string, { common?: string; no: string[]; nc: string[] }>();
  for (const terminal of present) {
    const spec = profile.terminals[terminal];
    if (spec.kind !== 'relay') continue;
    const relay = byRelay.get(spec.relay) ?? { no: [], nc: [] };
    if (spec.part === 'common') relay.common = `${id}:${terminal}`;
    else relay[spec.part].push(`${id}:${terminal}`);
    byRelay.set(spec.relay, relay);
  }
  return [...byRelay].map(([relay, { common, no, nc }]) => {
    const role = profile.roles[`relay.${relay}.task`];
    const code =
      typeof role === 'object' && 'setting' in role ? (role.setting as string) : undefined;
    const values =
      typeof role === 'object' && 'values' in role ? (role.values as Record<string, string>) : {};
    const join = (ends: string[]): number[] =>
      common ? ends.map((end) => layout.edge(common, end)) : [];
    return {
      id: relay,
      task: code === undefined ? 'none' : (values[String(settings[code])] ?? 'none'),
      no: join(no),
      nc: join(nc),
    };
  });
}

/** Energy of the link and what the motor draws from it: P = T·ω, divided by the motor's efficiency. */
function linkEnergy(job: Job, profile: Profile, model: Model, lineV: number): Link | undefined {
  if (!profile.link || !model.capacityUF) return undefined;
  const u0 = Math.SQRT2 * lineV;
  const energy = (share: number): number =>
    0.5e-6 * (model.capacityUF ?? 0) * u0 * u0 * (1 - share * share);
  const n = plateNumbers(job.plate, profile);
  const { kind = 'constant', torquePct = 50 } = job.plate.load;
  const wattsAtRated =
    ((n.powerKw ?? model.ratedKw ?? 1) * 1000 * torquePct) / 100 / (n.efficiency ?? 0.85);
  const hz = n.hz ?? 50;
  const load: [number, number, number] = [0, 0, 0];
  load[kind === 'constant' ? 0 : kind === 'linear' ? 1 : 2] =
    wattsAtRated / hz ** (kind === 'constant' ? 1 : kind === 'linear' ? 2 : 3);
  return {
    toThresholdJ: energy(profile.link.thresholdShare as number),
    toDarkJ: energy(profile.link.darkShare as number),
    idleW: profile.link.idleW as number,
    load,
  };
}

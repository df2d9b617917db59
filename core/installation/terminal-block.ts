import {
  firstOfKind,
  presentTerminals,
  relaysOf,
  taskOf,
  type Profile,
  type SettingValues,
  type Terminal,
} from '../catalogue/index.js';
import type { Layout } from '../circuit/index.js';
import { analogueScaleOf } from '../drive/index.js';
import { sortedEntries } from '../job/index.js';
import type { DeviceFacts } from '../motor/index.js';
import type {
  InstalledAnalogue,
  InstalledDevice,
  InstalledEnable,
  InstalledInput,
  InstalledLink,
} from './installation.js';

/** What the terminal block of a device is made from. */
export interface BlockPlan {
  readonly layout: Layout;
  readonly id: string;
  readonly profile: Profile;
  readonly settings: SettingValues;
  readonly links: Readonly<Record<string, string>>;
  readonly facts: DeviceFacts;
}

type Spec<K extends Terminal['kind']> = Extract<Terminal, { kind: K }>;
type TerminalBlock = Omit<
  InstalledDevice,
  'kind' | 'id' | 'tag' | 'spec' | 'facts' | 'shaft' | 'withstand' | 'reference' | 'earth'
>;

const microvolts = (volts: number): number => Math.round(volts * 1e6);

/** Share of the lowest supply voltage from which a phase counts as there. */
const MAINS_THERE = 0.7;
const CURRENT_OHM = 250;

/** Lays the terminals of a device into the circuit, as its profile describes them. */
export function installBlock(plan: BlockPlan): TerminalBlock {
  const { layout, id, profile, links } = plan;
  return {
    supply24: supplyOf(plan),
    reference10: referenceOf(plan),
    inputs: terminalsOfKinds(plan, 'digitalInput', 'acInput').map((t) => inputOf(plan, t)),
    enables: terminalsOfKinds(plan, 'enableInput').map((t) => enableOf(plan, t)),
    analogue: terminalsOfKinds(plan, 'analogueInput').map((t, i) => analogueOf(plan, t, i)),
    output: outputOf(plan),
    relays: relaysOf(profile).map(({ id: relay, common, no, nc, amps }) => {
      const join = (ends: readonly string[]): number[] =>
        common === undefined
          ? []
          : ends.map((end) => layout.edge(`${id}:${common}`, `${id}:${end}`, id, 'contact'));
      const task = taskOf(profile, plan.settings, `relay.${relay}.task`);
      return { id: relay, task, amps, no: join(no), nc: join(nc) };
    }),
    mains: mainsOf(plan),
    controlSupply: controlSupplyOf(plan),
    thermistor: thermistorOf(plan),
    joined: profile.internalJoins.map(([a, b]) =>
      layout.edge(`${id}:${a}`, `${id}:${b}`, id, 'join'),
    ),
    links: sortedEntries(profile.links).map(([link, spec]): InstalledLink => ({
      id: link,
      position: links[link] ?? spec.factory,
      positions: Object.fromEntries(
        sortedEntries(spec.positions).map(([name, position]) => [
          name,
          {
            edges: position.joins.map(([a, b]) =>
              layout.edge(`${id}:${a}`, `${id}:${b}`, link, 'link'),
            ),
            analogue: position.analogueMode && {
              terminal: position.analogueMode.terminal as string,
              current: position.analogueMode.mode === 'current',
            },
          },
        ]),
      ),
    })),
  };
}

function terminalsOfKinds({ profile }: BlockPlan, ...kinds: Terminal['kind'][]): string[] {
  return presentTerminals(profile).filter((t) => kinds.includes(profile.terminals[t].kind));
}

const landingOf = ({ id }: BlockPlan, terminal: string): string => `${id}:${terminal}`;

/** Landing of the device's 0 V; where it has none, one that nothing is wired to. */
const zeroOf = (plan: BlockPlan): string =>
  landingOf(plan, firstOfKind(plan.profile, 'zeroVolt') ?? '0');

const commonOf = (plan: BlockPlan): string => {
  const common = firstOfKind(plan.profile, 'analogueCommon');
  return common === undefined ? zeroOf(plan) : landingOf(plan, common);
};

function supplyOf(plan: BlockPlan): TerminalBlock['supply24'] {
  const terminal = firstOfKind(plan.profile, 'supply24');
  if (terminal === undefined) return undefined;
  const { volts, maxA } = plan.profile.terminals[terminal] as Spec<'supply24'>;
  const at = plan.layout.modalEdge(
    landingOf(plan, terminal),
    zeroOf(plan),
    'limitedSupply',
    plan.id,
  );
  return { ...at, volts, amps: maxA };
}

function referenceOf(plan: BlockPlan): TerminalBlock['reference10'] {
  const terminal = firstOfKind(plan.profile, 'reference10');
  if (terminal === undefined) return undefined;
  const { volts, sourceOhm } = plan.profile.terminals[terminal] as Spec<'reference10'>;
  const edge = plan.layout.edge(landingOf(plan, terminal), commonOf(plan), plan.id, 'track');
  return { edge, volts, ohm: sourceOhm };
}

function inputOf(plan: BlockPlan, terminal: string): InstalledInput {
  const { layout, profile, settings } = plan;
  const spec = profile.terminals[terminal] as Spec<'digitalInput'> | Spec<'acInput'>;
  const common = firstOfKind(profile, 'inputCommon');
  const partner =
    spec.kind === 'acInput'
      ? landingOf(plan, spec.against as string)
      : spec.pullUpTo
        ? landingOf(plan, spec.pullUpTo as string)
        : common === undefined
          ? zeroOf(plan)
          : landingOf(plan, common);
  const setting = profile.taskSettings[terminal];
  const fixed = spec.fixedTask as string | undefined;
  const known = Object.values(profile.inputTasks).find((t) =>
    fixed ? t.meaning === fixed : setting !== undefined && t.code === settings[setting],
  );
  const { a, b, edge } = layout.across(landingOf(plan, terminal), partner, plan.id, 'input');
  return {
    terminal,
    edge,
    ohm: spec.ohm as number,
    plus: a,
    minus: b,
    onUv: microvolts(spec.onV as number),
    offUv: microvolts(spec.offV as number),
    ac: spec.kind === 'acInput',
    task: fixed ?? known?.meaning ?? 'none',
    inverted: known?.asserts === 'open',
  };
}

function enableOf(plan: BlockPlan, terminal: string): InstalledEnable {
  const spec = plan.profile.terminals[terminal] as Spec<'enableInput'>;
  const at = landingOf(plan, terminal);
  const { a, b, edge } = plan.layout.across(at, zeroOf(plan), plan.id, 'input');
  return {
    terminal,
    channel: spec.channel,
    edge,
    ohm: spec.ohm,
    plus: a,
    minus: b,
    onUv: microvolts(spec.onV),
    offUv: microvolts(spec.offV),
    ac: false,
    task: `enable${spec.channel}`,
    inverted: false,
  };
}

function analogueOf(plan: BlockPlan, terminal: string, place: number): InstalledAnalogue {
  const { profile, settings, layout } = plan;
  const spec = profile.terminals[terminal] as Spec<'analogueInput'>;
  const { a, b, edge } = layout.across(landingOf(plan, terminal), commonOf(plan), plan.id, 'input');
  return {
    terminal,
    edge,
    plus: a,
    minus: b,
    voltageOhm: spec.voltageOhm,
    currentOhm: spec.currentOhm ?? CURRENT_OHM,
    fullScale: analogueScaleOf(profile, settings, `ai${place + 1}`).fullScale,
  };
}

function outputOf(plan: BlockPlan): TerminalBlock['output'] {
  const terminal = firstOfKind(plan.profile, 'analogueOutput');
  if (terminal === undefined) return undefined;
  return {
    terminal,
    edge: plan.layout.edge(landingOf(plan, terminal), commonOf(plan), plan.id, 'track'),
    shows: taskOf(plan.profile, plan.settings, 'ao1.task'),
    voltsPerHz: 10 / plan.facts.maxHz,
  };
}

function mainsOf(plan: BlockPlan): TerminalBlock['mains'] {
  const { layout, profile, id } = plan;
  const phases = terminalsOfKinds(plan, 'mains').filter(
    (t) => (profile.terminals[t] as Spec<'mains'>).phase !== 'PE',
  );
  const at = (t: string): string => landingOf(plan, t);
  const rotating = terminalsOfKinds(plan, 'phaseSense');
  const seen = rotating.length === 3 ? rotating : phases.length === 3 ? phases : [];
  return {
    phases: phases.map((t) => (profile.terminals[t] as Spec<'mains'>).phase),
    landings: phases.map((t) => layout.landing(at(t))),
    edges: phases
      .slice(0, phases.length === 2 ? 1 : 3)
      .map((t, i) => layout.edge(at(t), at(phases[(i + 1) % phases.length]), id, 'probe')),
    minV: profile.supply.volts[0] * MAINS_THERE,
    rotation: seen.map((t) => layout.landing(at(t))),
  };
}

function controlSupplyOf(plan: BlockPlan): TerminalBlock['controlSupply'] {
  const poles = terminalsOfKinds(plan, 'controlSupply');
  const zero = firstOfKind(plan.profile, 'zeroVolt');
  const other = poles[1] ?? zero;
  if (poles.length === 0 || other === undefined) return undefined;
  const spec = plan.profile.terminals[poles[0]] as Spec<'controlSupply'>;
  const [a, b] = [landingOf(plan, poles[0]), landingOf(plan, other)];
  return {
    ...plan.layout.across(a, b, plan.id, 'primary'),
    ohm: spec.ohm,
    minV: (spec.volts as readonly number[])[0],
    ac: spec.alternating,
  };
}

function thermistorOf(plan: BlockPlan): TerminalBlock['thermistor'] {
  const ends = terminalsOfKinds(plan, 'thermistor');
  if (ends.length < 2) return undefined;
  const { tripOhm, resetOhm } = plan.profile.terminals[ends[0]] as Spec<'thermistor'>;
  const [a, b] = [landingOf(plan, ends[0]), landingOf(plan, ends[1])];
  return { ...plan.layout.across(a, b, plan.id, 'probe'), tripOhm, resetOhm };
}

import {
  TRIP_HEAT,
  type CircuitQuestion,
  type DeviceLogic,
  type LogicCondition,
  type Reading,
} from '../motor/index.js';
import { steady, stretchValue, pathStretch, type Path, type Stretch } from '../numeric/index.js';
import { askedOf, supplySeen, waitsUntil } from './command.js';
import { asHz, pathOf, runPoint, type FedMachine } from './plan-run.js';
import type { Motion, PlannedRun, StarterState } from './state.js';
import type { Broken } from './broken.js';
import type { StarterCore, StarterInputs } from './core.js';
import { heatAt, heatMarks } from './heat.js';
import { initialStarter, stepStarter, wakeStarter } from './step.js';
import { viewStarter } from './view.js';
import {
  restingStarter,
  starterFaults,
  starterStates,
  type StarterControl,
  type StarterInput,
  type StarterLevels,
} from './vocabulary.js';

/** A soft starter as it is installed: its command logic under the settings keyed, and what it feeds. */
export interface StarterSpec {
  readonly kind: 'starter';
  readonly control: StarterControl;
  readonly machine: FedMachine;
  /** Its control is fed by a supply of its own. */
  readonly separateControl: boolean;
  /** It trips when its thermistor loop is hot or open. */
  readonly watchesThermistor: boolean;
  /** It has keys to start, stop and reset it. */
  readonly hasKeys: boolean;
  /** One of its relays closes the line contactor. */
  readonly worksContactor: boolean;
  /** It measures its poles, and has a fault of its own for one that conducts. */
  readonly seesShort: boolean;
  /** What inside it does not work; absent where everything does. */
  readonly broken?: Broken;
}

const dark: StarterLevels = { ...restingStarter, controlSupply: 0, mains: 0 };

/** A soft starter as logic of a device: the command logic of this module behind the terminals of its profile. */
export function starterLogic(spec: StarterSpec): DeviceLogic<StarterState, StarterInputs> {
  const { control, machine, broken, seesShort } = spec;
  const core: StarterCore = { control, machine, seesShort, ...(broken ? { broken } : {}) };
  const contactor = spec.worksContactor ? 'device' : 'others';
  return {
    mainsOnDemand: spec.worksContactor,
    states: starterStates,
    faults: starterFaults,
    shows: [
      { id: 'amps', unit: 'A' },
      { id: 'torqueNm', unit: 'Nm' },
      { id: 'voltsPct', unit: '%' },
      { id: 'heatPct', unit: '%' },
    ],
    init: () => initialStarter(spec.control, dark),
    sense: (r, before) => inputsOf(spec, r, before),
    step: (s, inputs, t) => stepStarter(core, s, inputs, t),
    wake: (s, t) => Math.min(wakeStarter(core, s, t), heatMarks(core, s, t).toUs),
    view: (s, t) => {
      const { state, fault, blockedBy } = viewStarter(core, s, t, contactor);
      const path = speedPath(core, s);
      const hz = path ? stretchValue(pathStretch(path, t), t) : 0;
      return { state, fault, blockedBy, hz };
    },
    demand: (s, t) => {
      const path = speedPath(core, s);
      return {
        output: path ? { kind: 'voltage', path } : { kind: 'off' },
        supplies: s.control !== 'off',
        get relays() {
          return relaysOf(core, s, t, contactor);
        },
        analogue: {},
      };
    },
    shown: (s, t) => shownOf(core, s, t),
    why: (s, t) => conditions(core, s, t, contactor),
    rested: (s, t) => restedStarter(core, s, t),
  };
}

function inputsOf(spec: StarterSpec, r: Reading, before: StarterState): StarterInputs {
  const levels: Record<StarterInput, 0 | 1> = { ...restingStarter };
  for (const [task, level] of Object.entries(r.tasks))
    if (task in levels) levels[task as StarterInput] = level;
  levels.controlSupply = spec.separateControl ? r.controlSupply : r.mains > 0 ? 1 : 0;
  levels.mains = r.mains > 0 ? 1 : 0;
  levels.phase3 = r.mains === 1 ? 0 : 1;
  levels.thermistor = spec.watchesThermistor ? r.thermistor : 1;
  levels.enable = r.enableA === 1 && r.enableB === 1 ? 1 : 0;
  if (spec.hasKeys) {
    if (r.keys.reset) levels.reset = 1;
    levels.keypadStart = r.keys.start ? 1 : 0;
    levels.keypadStop = r.keys.stop ? 1 : 0;
  }
  let same = true;
  for (const name in levels)
    if (levels[name as StarterInput] !== before.levels[name as StarterInput]) same = false;
  const rotation = r.rotation < 0 ? -1 : 1;
  return {
    levels: same ? before.levels : levels,
    shaftHz: r.shaftHz,
    shaftTurns: r.shaftTurns,
    rotation,
  };
}

const ways = new WeakMap<object, Path>();

/** Way of the shaft while its motor is fed, as Hz in the direction asked; undefined while it is not. */
function speedPath(
  { machine }: StarterCore,
  { motion: m, rotation }: StarterState,
): Path | undefined {
  if (m.kind === 'off' || m.kind === 'coast') return undefined;
  const forward = pathOf(m.run, 'hz', (p) => asHz(machine, p.rad));
  if (m.direction * rotation >= 0) return forward;
  const known = ways.get(forward);
  if (known) return known;
  const turned: Path = {
    ...forward,
    stretches: forward.stretches.map((x) => ({ ...x, y: -x.y, dy: -x.dy, ddy: -x.ddy })),
    ...(forward.rest === undefined ? {} : { rest: -forward.rest }),
  };
  ways.set(forward, turned);
  return turned;
}

const fedBy = (m: Motion): m is Extract<Motion, { kind: 'start' | 'softStop' | 'unasked' }> =>
  m.kind === 'start' || m.kind === 'softStop' || m.kind === 'unasked';

/** Current, torque, voltage and heat as they go on from t. */
function shownOf(core: StarterCore, s: StarterState, t: number): Stretch[] {
  const m = s.motion;
  const heat = heatStretch(core, s, t);
  if (!fedBy(m)) return [steady(0, t), steady(0, t), steady(0, t), heat];
  const share = 100 / TRIP_HEAT;
  const along = t < m.run.settledUs;
  return [
    pathStretch(
      pathOf(m.run, 'amps', (p) => p.amps),
      t,
    ),
    pathStretch(
      pathOf(m.run, 'nm', (p) => p.torqueNm),
      t,
    ),
    pathStretch(
      pathOf(m.run, 'share', (p) => 100 * p.share),
      t,
    ),
    along
      ? pathStretch(
          pathOf(m.run, 'heat', (p) => share * p.heat),
          t,
        )
      : heat,
  ];
}

/** The image between two of its marks: a straight line, which the next mark takes up. */
function heatStretch(core: StarterCore, s: StarterState, t: number): Stretch {
  const { fromUs, toUs } = heatMarks(core, s, t);
  const percent = (at: number): number => (100 * heatAt(core, s, at)) / TRIP_HEAT;
  if (toUs === Infinity) return steady(percent(t), t);
  const y = percent(fromUs);
  return { t0: fromUs, y, dy: ((percent(toUs) - y) / (toUs - fromUs)) * 1e6, ddy: 0 };
}

function relaysOf(
  core: StarterCore,
  s: StarterState,
  t: number,
  contactor: 'device' | 'others',
): Readonly<Record<string, boolean>> {
  if (s.control !== 'on') return {};
  const { control } = core;
  const { state, fault } = viewStarter(core, s, t, contactor);
  const m = s.motion;
  const stops = m.kind === 'softStop' || m.kind === 'brake';
  const asked = s.lineAskedUs !== Infinity;
  const line =
    fault === null &&
    (control.lineRelay === 'always' ||
      asked ||
      m.kind === 'start' ||
      (stops && control.lineRelay === 'runToEndOfStop'));
  const full = m.kind === 'start' && t >= m.run.fullUs;
  return {
    lineContactor: line,
    bypass: state === 'running' && control.bypass !== 'none',
    running: m.kind === 'start' || stops,
    starting: state === 'kick' || state === 'ramping',
    atFullVoltage: full,
    softStopping: state === 'softStopping',
    ready: state === 'ready',
    healthy: fault === null,
    fault: fault !== null,
    inhibit: state === 'inhibit',
    overloadWarning: heatAt(core, s, t) > 0.9 * TRIP_HEAT,
    shuntTrip: fault === 'shortedPole',
  };
}

const task = (...tasks: StarterInput[]): { tasks: readonly string[] } => ({ tasks });

const runTasks: Readonly<Record<StarterControl['startMethod'], readonly StarterInput[]>> = {
  twoWire: ['run'],
  threeWire: ['start'],
  twoEnables: ['forward', 'reverse'],
};

/** The shaft stands under voltage until its torque is enough. */
function humming(run: PlannedRun, t: number): LogicCondition {
  const { rad, torqueNm, loadNm } = runPoint(run, t);
  const met = rad > 0 || run.stalls;
  return { code: 'hums', met, args: { torqueNm, loadNm }, about: 'device' };
}

/** Conditions for running in the order in which they are to be looked at. */
function conditions(
  core: StarterCore,
  s: StarterState,
  t: number,
  contactor: 'device' | 'others',
): (LogicCondition | CircuitQuestion)[] {
  const { control } = core;
  const l = s.levels;
  const { direction } = askedOf(control, s);
  const { blockedBy } = viewStarter(core, s, t, contactor);
  const fed = fedBy(s.motion);
  const device = 'device' as const;
  const waitS = Math.max(0, Math.ceil((waitsUntil(control, s, direction) - t) / 1e6));
  return [
    { code: 'logic', met: s.control === 'on', args: { state: s.control }, about: device },
    { code: 'fault', met: s.fault === null, args: { name: s.fault ?? '' }, about: device },
    {
      code: 'inhibit',
      met: l.externalFault === 0 && l.coastNow === 0,
      args: {},
      about: task('externalFault', 'coastNow'),
      follow: true,
    },
    {
      code: 'place',
      met: control.commandSource !== 'keypad',
      args: { local: false },
      about: device,
    },
    { code: 'stop', met: l.stop === 1, args: {}, about: task('stop'), follow: true },
    {
      code: 'demand',
      met: direction !== 0,
      args: { pulse: control.startMethod === 'threeWire' },
      about: task(...runTasks[control.startMethod]),
      follow: true,
    },
    { code: 'together', met: blockedBy !== 'bothDirections', args: {}, about: device },
    { code: 'fresh', met: !s.needFresh, args: {}, about: device },
    ...(contactor === 'device' && !fed && direction !== 0 && supplySeen(l) === 0
      ? [{ ask: 'mains' } as const]
      : []),
    {
      code: 'waits',
      met: fed || direction === 0 || waitS === 0,
      args: { seconds: waitS },
      about: device,
    },
    ...(s.motion.kind === 'start'
      ? [
          { code: 'stalls', met: !s.motion.run.stalls, args: {}, about: device },
          humming(s.motion.run, t),
        ]
      : []),
  ];
}

/** Stamps that can no longer matter are all the same. */
function restedStarter({ control }: StarterCore, s: StarterState, t: number): StarterState {
  const waits = Math.max(waitsUntil(control, s, 1), waitsUntil(control, s, -1));
  return {
    ...s,
    stopReturnedUs: t > s.stopReturnedUs ? -Infinity : s.stopReturnedUs,
    unfedUs: t >= waits ? -Infinity : s.unfedUs,
    readyUs: s.control === 'on' ? 0 : s.readyUs,
  };
}

import {
  controlFeed,
  monitorShown,
  presentTerminals,
  type Profile,
} from '../../catalogue/index.js';
import type { HookPlace, InstalledInput } from '../../installation/index.js';
import type { DisplaySeen, Job } from '../../job/index.js';
import { contactsOf } from '../../parts/index.js';
import { operationsOn, powerUp, READY_MS, type InputFunction } from '../../scheme/index.js';
import type { Trial } from '../../trials/index.js';
import {
  canTest,
  kindOf,
  landingOf,
  operationOf,
  phrase,
  positionOf,
  range,
  state,
  stepContext,
  tagOf,
  tagsOf,
  type StepContext,
  type Worked,
} from '../context.js';
import { marked } from '../marks.js';
import { LiveTests } from '../sequence/tests.js';
import {
  asksForRun,
  INPUT_MS,
  keepStill,
  openers,
  referenceInput,
  testedInputs,
  voltsBetween,
  workerOf,
} from './inputs.js';

/** Kinds of terminals that an input is switched from, or against. */
const feeds: ReadonlySet<string> = new Set(['supply24', 'zeroVolt', 'inputCommon']);
/** Share of its span at which a signal is given. */
const HALF = 0.5;
/** Signals of currents are given in the middle of 4 … 20 mA. */
const MIDDLE_MA = 12;

/** Places where a jumper may stand in for a control: at the device between a feed and the input, or else at its own contact. */
function placesOf(c: StepContext, input: InstalledInput, worked: Worked): HookPlace[] {
  const own = `${c.device.id}:${input.terminal}`;
  const atDevice = presentTerminals(c.profile)
    .filter((id) => feeds.has(c.profile.terminals[id].kind))
    .map((id): HookPlace => [`${c.device.id}:${id}`, own]);
  const part = kindOf(c, worked);
  const position = positionOf(c, worked);
  const atContact = ((part && contactsOf(part)?.contacts) ?? [])
    .filter(({ closedIn }) => closedIn.includes(position))
    .map(({ a, b }): HookPlace => [`${worked.device}:${a}`, `${worked.device}:${b}`]);
  return [...atDevice, ...atContact];
}

/** Inputs that direct voltage switches, with every place where a jumper might give them. */
function bridgeable(
  c: StepContext,
): { f: InputFunction; input: InstalledInput; at: HookPlace[] }[] {
  return testedInputs(c)
    .filter(({ input }) => !input.ac)
    .map(({ f, input }) => {
      const workers = operationsOn(c.arrangement, f).flatMap((id) => operationOf(c, id) ?? []);
      const at = workers.flatMap((worked) => placesOf(c, input, worked));
      return { f, input, at: distinct(at) };
    });
}

const distinct = (places: readonly HookPlace[]): HookPlace[] => [
  ...new Map(places.map((place) => [place.join(), place])).values(),
];

/**
 * The place where a jumper does what the control does, and no more: with any stop, guard or emergency stop open the input is
 * as it would be with the control itself.
 */
function placeOf(
  { c, s }: LiveTests,
  input: InstalledInput,
  worked: Worked,
  at: readonly HookPlace[],
): HookPlace | undefined {
  const signal = `device.${input.terminal}`;
  const lasts = INPUT_MS + c.arrangement.warningMs;
  const id = worked.id as Parameters<typeof s.give>[0];
  const given = (): number => s.give(id, lasts).at(signal);
  const before = s.at(signal);
  const open = openers(c).filter((opener) => !s.holds.includes(opener));
  const real = open.map((opener) =>
    s.attempt((x) => {
      x.give(opener, INPUT_MS);
      return given();
    }),
  );
  return at.find(([a, b]) => {
    const bridged = (): number => s.hook({ a, b, as: 'short' }, lasts).at(signal);
    return (
      s.attempt(bridged) !== before &&
      open.every(
        (opener, i) =>
          s.attempt((x) => {
            x.give(opener, INPUT_MS);
            return bridged();
          }) === real[i],
      )
    );
  });
}

/** Each input by a jumper in place of its control, with the motor kept from running where this job has a means for it. */
function jumpers(t: LiveTests, inputs: ReturnType<typeof bridgeable>): void {
  const { c, s } = t;
  for (const { f, input, at } of inputs) {
    t.begin(`simulated.${f.id}`, 'simulated');
    const worked = workerOf(c, s, f, input.terminal);
    // What goes off when it is worked is no control that a jumper could stand in for.
    const place =
      worked && s.at(`device.${input.terminal}`) === 0 ? placeOf(t, input, worked, at) : undefined;
    if (!worked || !place) continue;
    const runs = asksForRun(c, worked);
    if (runs) t.asksForRun();
    const [a, b] = place;
    s.hook({ a, b, as: 'short' }, INPUT_MS + c.arrangement.warningMs, runs);
    const args = {
      a: marked(c, a),
      b: marked(c, b),
      device: tagOf(c, worked.device),
      terminal: landingOf(c, input.terminal),
      held: tagsOf(c, s.holds).join(', '),
    };
    t.ask(
      {
        key: `simulated.${f.id}`,
        do: phrase('simulated.jumper', args),
        must: phrase('input.on', args),
        expect: state('on'),
        reads: 'inputs',
        sees: { kind: 'level', signal: `device.${input.terminal}` },
        cautions: ['neverAcrossStop'],
      },
      [f],
    );
    t.end();
  }
}

/** What a monitor of an analogue input shows, in its own unit; undefined where that is no plain share or quantity of it. */
function shownOf(
  unit: string,
  amps: boolean,
  volts: number,
  input: { readonly fullScale: number; readonly currentOhm: number },
): { value: number; span: number } | undefined {
  if (amps)
    return unit === 'mA' ? { value: (1000 * volts) / input.currentOhm, span: 20 } : undefined;
  if (unit === 'V') return { value: volts, span: input.fullScale };
  return unit === '%' ? { value: (100 * volts) / input.fullScale, span: 100 } : undefined;
}

/** The speed signal of a controller by a calibrator at half of its span, read on the display. */
function signal(t: LiveTests): void {
  const { c, s } = t;
  const { speed } = c.job.scheme;
  const input = referenceInput(c);
  const amps = speed === 'current';
  if (!input || !(amps || speed === 'voltage')) return;
  const monitor = `analogue.${input.terminal}`;
  const form = c.profile.display?.monitors[monitor]?.form;
  const own = `${c.device.id}:${input.terminal}`;
  const lifted = Object.entries(c.job.adopted?.wires ?? {}).find(
    ([, w]) => w.from === own || w.to === own,
  );
  if (form?.as !== 'number' || !lifted) return;
  const { landings } = c.installation;
  const [a, b] = [landings[input.plus], landings[input.minus]];
  const value = amps ? MIDDLE_MA / 1000 : HALF * input.fullScale;
  t.begin('simulated.reference', 'simulated');
  s.hook({ a, b, as: amps ? 'amps' : 'volts', value, lifted: lifted[0] }, INPUT_MS);
  const volts = s.volts(input.plus, input.minus)?.dc ?? 0;
  const shown = shownOf(form.unit ?? '', amps, volts, input);
  if (!shown) return;
  const unit = form.unit ?? '';
  const display = displayOf(c, monitor, shown.value);
  t.ask(
    {
      key: 'simulated.reference',
      do: phrase('simulated.signal', {
        a: marked(c, a),
        b: marked(c, b),
        wire: lifted[1].number,
        value: amps ? MIDDLE_MA : value,
        unit: amps ? 'mA' : 'V',
      }),
      must: phrase('simulated.shows', { value: shown.value, unit }),
      // The source and the input each by its own.
      expect: range(shown.value, 2 * shown.span * c.within.analogueShare, unit),
      ...(unit === '%' ? {} : { sees: seen(c, input, amps) }),
      ...(display ? { display } : {}),
    },
    ['dial'],
  );
  t.end();
}

const seen = (
  c: StepContext,
  input: { readonly plus: number; readonly minus: number; readonly currentOhm: number },
  amps: boolean,
) => ({
  ...voltsBetween(c, input.plus, input.minus),
  ...(amps ? { throughOhm: input.currentOhm } : {}),
});

function displayOf({ profile }: StepContext, id: string, value: number): DisplaySeen | undefined {
  const monitor = monitorShown(profile, id, value);
  return (
    monitor && { monitor: monitor.name, keys: [...monitor.keys], shows: monitor.shows, lamps: [] }
  );
}

/** Steps and their acts as trials. */
interface Simulated {
  readonly steps: LiveTests['steps'];
  readonly trials: readonly Trial[];
}

const nothing: Simulated = { steps: [], trials: [] };
const kept = new WeakMap<Job, WeakMap<Profile, Simulated>>();

/**
 * The inputs and the speed signal of a job, each given by a jumper or a calibrator in place of its control: what is usual
 * before the real one is worked. Offered, never required: nothing waits for them. Never across a stop, a guard, a limit or an
 * emergency stop.
 *
 * @returns nothing until a plan is adopted, and for a device that shows no inputs on its display; worked out once for the
 *   very same job and profile
 * @example simulatedOf(job, profile).steps.map((s) => s.key) // ['simulated.run.forward', 'simulated.reference']
 */
export function simulatedOf(job: Job, profile: Profile): Simulated {
  const known = kept.get(job)?.get(profile);
  if (known) return known;
  const made = make(job, profile);
  const byProfile = kept.get(job) ?? new WeakMap<Profile, Simulated>();
  kept.set(job, byProfile.set(profile, made));
  return made;
}

function make(job: Job, profile: Profile): Simulated {
  if (!canTest(job, profile) || profile.display?.monitors['inputs'] === undefined) return nothing;
  const c = stepContext(job, profile);
  const inputs = bridgeable(c);
  const signalled = referenceInput(c);
  const { landings } = c.installation;
  const t = new LiveTests(c, [
    ...distinct(inputs.flatMap(({ at }) => at)),
    ...(signalled ? [[landings[signalled.plus], landings[signalled.minus]] as const] : []),
  ]);
  const s = t.begin('simulated.still', 'simulated');
  s.work(powerUp(c.arrangement, 0), READY_MS);
  if (controlFeed(profile) !== 'own') s.branch(true);
  keepStill(c, s);
  t.end();
  jumpers(t, inputs);
  signal(t);
  return { steps: t.steps, trials: s.trials };
}

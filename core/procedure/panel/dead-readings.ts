import type { Profile } from '../../catalogue/index.js';
import { expectedAt, type Job, type ProcedureStep } from '../../job/index.js';
import { asBuilt, type Panel } from '../../installation/index.js';
import { areaOf, copperOhm } from '../../line/index.js';
import { MAIN_POLES, parts } from '../../parts/index.js';
import { stepContext, type StepContext } from '../context.js';
import { dialAt } from '../dead/dial.js';
import { deadOf } from '../dead/index.js';
import { DeadPanel, loopsOf, type Loop } from '../dead/loops.js';
import { loopKey } from '../dead/singles.js';
import { marked } from '../marks.js';
import { as, judged, type PanelReading, type Read } from './judged.js';

/** Above this a meter in the range for wires shows no way, Ω. */
const WAY_OHM = 100;
/** A main contact that is closed, Ω. */
const CLOSED_OHM = 0.01;
/** Both sides of a dead reading: the job as planned, and the panel as it really is. */
interface Both {
  readonly planned: StepContext;
  readonly panel: Panel;
  readonly loops: readonly Loop[];
  readonly dead: DeadPanel;
}

const found = (ohm: number | null): Read => (ohm !== null && ohm < WAY_OHM ? as(ohm) : 'over');

/** A protective conductor by the copper that is really there, between the ends that are meant. */
function protective({ planned, panel }: Both, wire: string): Read {
  const [meant, there] = [planned.job.adopted?.wires[wire], panel.wires[wire]];
  if (!meant || there?.from !== meant.from || there.to !== meant.to) return 'over';
  if (panel.open.includes(wire)) return 'over';
  return as(copperOhm(meant.lengthM, areaOf(there.size)));
}

/** A wire from end to end: what is really there between the ends that are meant. */
function wireRead({ planned, dead, panel }: Both, id: string): Read {
  const meant = planned.job.adopted?.wires[id];
  if (!meant) return 'over';
  const there = panel.wires[id];
  const own = there?.from === meant.from && there.to === meant.to && !panel.open.includes(id);
  if (own) return as(copperOhm(meant.lengthM, areaOf(there.size)));
  return found(dead.ohms(meant.from, meant.to));
}

/** Main poles that are stuck, by hand on the armature or at rest. */
function polesRead(
  { planned, panel }: Both,
  { key, fields = [''] }: ProcedureStep,
): Read[] | undefined {
  const part = {
    'dead.contactor': planned.arrangement.contactor,
    'dead.isolator': planned.installation.shaft.isolator,
  }[key.split('.').slice(0, 2).join('.')];
  const closed = /\.(?:pressed|on)$/u.test(key);
  if (part === undefined || (!closed && !/\.(?:rest|off)$/u.test(key))) return undefined;
  const stuck = MAIN_POLES.map((pole) => panel.stuck[`${part}:${pole}`]);
  const welded = panel.failed.some((f) => f.device === part && f.what === 'contacts');
  if (closed) return fields.map((_, i) => (stuck[i] === 'open' ? 'over' : as(CLOSED_OHM)));
  return [as(welded || stuck.includes('closed') ? 'through' : 'openLoop')];
}

/** Make contacts of a relay at rest: through where one of them has welded. */
function relayRead({ planned, panel }: Both, { key }: ProcedureStep): Read[] | undefined {
  const id = /^dead\.relay\.(.+)$/u.exec(key)?.[1];
  if (id === undefined) return undefined;
  const makes = parts[planned.trials.panel.devices[id]?.kind ?? '']?.coil?.makes ?? [];
  const welded =
    makes.some(([a]) => panel.stuck[`${id}:${a}`] === 'closed') ||
    panel.failed.some((f) => f.device === id && f.what === 'contacts');
  return [as(welded ? 'through' : 'openLoop')];
}

/** The dial at one of its ends. */
function dialRead({ planned, dead }: Both, { key }: ProcedureStep): Read[] | undefined {
  const share = /^dead\.dial\.(\d+)$/u.exec(key)?.[1];
  const at = share === undefined ? undefined : dialAt(planned);
  if (!at) return undefined;
  const ohm = dead.ohms(at.wiper, at.low, [], Number(share) / 100);
  return [ohm === null ? 'over' : as(ohm)];
}

/** A contact at its own terminals: `dead.contact.<part>.<terminal>.<rest or worked>`. */
function contactRead({ planned, dead, loops }: Both, step: ProcedureStep): Read[] | undefined {
  if (!step.key.startsWith('dead.contact.')) return undefined;
  const { a, b, id } = step.do.args;
  const worked = loops.filter((loop) => loop.id === id).map((loop) => loop.id);
  const landing = (said: unknown): string =>
    planned.installation.landings.find((l) => marked(planned, l) === said) ?? '';
  return [found(dead.ohms(landing(a), landing(b), worked.slice(0, 1)))];
}

/**
 * What a panel shows at a dead step, one read a place; nothing where its own procedure, or a standard, says what is read.
 */
function readsOf(both: Both, step: ProcedureStep): Read[] | undefined {
  const { planned, panel, dead, loops } = both;
  const { key } = step;
  if (key.startsWith('dead.pe.')) return [protective(both, key.slice('dead.pe.'.length))];
  if (key.startsWith('dead.wire.')) return [wireRead(both, key.slice('dead.wire.'.length))];
  if (key === 'dead.links') {
    const [links, there] = [planned.trials.panel.links, panel.links];
    const same = Object.entries(links).every(([id, position]) => there[id] === position);
    return [as(same ? 'asPlanned' : 'otherwise')];
  }
  if (key.startsWith('dead.coil.')) {
    const id = key.slice('dead.coil.'.length);
    const burnt = panel.failed.some((f) => f.device === id && f.what === 'coil');
    return burnt ? ['over'] : undefined;
  }
  const loop = loops.find((l) => loopKey(l) === key);
  if (loop) return [[], [loop.id]].map((worked) => found(dead.ohms(...loop.at, worked)));
  return (
    relayRead(both, step) ??
    contactRead(both, step) ??
    dialRead(both, step) ??
    polesRead(both, step)
  );
}

/** Reads dead steps on a panel that may be built otherwise than planned. */
export class DeadReads {
  private readonly both: Both;

  /** @param loops of the planned job */
  constructor(
    planned: StepContext,
    panel: Panel,
    loops: readonly Loop[] = loopsOf(planned, new DeadPanel(planned)),
  ) {
    this.both = { planned, panel, loops, dead: new DeadPanel(planned, panel) };
  }

  at(step: ProcedureStep): Read[] | undefined {
    return readsOf(this.both, step);
  }
}

/**
 * What a panel shows at the dead checks of a job, with the verdict; what only its live tests or a look would show reads as
 * planned.
 *
 * @param panel the same job with what is really otherwise as its deviations
 * @param wrong keys of loops that have been read wrong
 * @example deadReadings(job, profile, job).every((r) => r.verdict === 'pass') // true
 */
export function deadReadings(
  job: Job,
  profile: Profile,
  panel: Job,
  wrong?: ReadonlySet<string>,
): PanelReading[] {
  const { steps } = deadOf(job, profile, wrong);
  if (steps.length === 0) return [];
  const reads = new DeadReads(stepContext(job, profile), asBuilt(panel, profile));
  return steps.map((step) => judged(step, reads.at(step) ?? nominalReads(step)));
}

/** What a step expects, as if it were read. */
export const nominalReads = (step: ProcedureStep): Read[] =>
  (step.fields ?? ['']).map((_, place) => {
    const expect = expectedAt(step, place);
    if (!expect) return 'over';
    return as(expect.kind === 'state' ? expect.is : expect.nominal);
  });

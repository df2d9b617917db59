import { modelOf, settingsInForce, type Profile, type Value } from '../catalogue/index.js';
import {
  landingParts,
  sortedEntries,
  type AdoptedWire,
  type Fault,
  type Job,
  type Wiring,
} from '../job/index.js';

/** A panel as it really is: what is there, how it is wired, linked and set, and what of it does not work. */
export interface Panel {
  /** Id of the drive or soft starter. */
  readonly device: string;
  readonly devices: Wiring['devices'];
  readonly wires: Readonly<Record<string, AdoptedWire>>;
  /** Wires that are broken or were never landed. */
  readonly open: readonly string[];
  /** Landings joined that should not be. */
  readonly bridges: readonly { readonly a: string; readonly b: string }[];
  readonly links: Readonly<Record<string, string>>;
  readonly settings: Readonly<Record<string, Value>>;
  /** Contacts, by device and first terminal, that do not move. */
  readonly stuck: Readonly<Record<string, 'open' | 'closed'>>;
  /** Contacts of the other kind than planned. */
  readonly wrong: readonly string[];
  readonly failed: readonly Extract<Fault, { kind: 'part' }>[];
}

/** A panel exactly as planned. @throws RangeError when no plan is adopted or the model is unknown */
export function asPlanned(job: Job, profile: Profile): Panel {
  const { adopted } = job;
  if (!adopted) throw new RangeError('the job has no adopted plan');
  const model = modelOf(profile, job.profile.model);
  if (!model) throw new RangeError(`the profile has no model "${job.profile.model}"`);
  return {
    device: adopted.device,
    devices: adopted.devices,
    wires: adopted.wires,
    open: [],
    bridges: [],
    links: Object.fromEntries(
      sortedEntries(profile.links).map(([id, { factory }]) => [
        id,
        adopted.links[id]?.position ?? factory,
      ]),
    ),
    settings: settingsInForce(profile, model, adopted.settings),
    stuck: {},
    wrong: [],
    failed: [],
  };
}

/**
 * The panel as it is built: the plan with what was found otherwise laid over it, in the order in which it was noted.
 *
 * @throws RangeError when no plan is adopted or the model is unknown
 * @example asBuilt(job, profile).open // ids of wires that were found missing
 */
export function asBuilt(job: Job, profile: Profile): Panel {
  const noted = sortedEntries(job.deviations).sort(([, x], [, y]) => x.ord - y.ord);
  return noted.reduce(
    (panel, [, { actual }]) => applyFault(panel, actual),
    asPlanned(job, profile),
  );
}

const otherSignal: Readonly<Record<string, string>> = {
  voltageSource: 'currentSource',
  currentSource: 'voltageSource',
};

/** What a controller that is set otherwise comes to: two of its outputs exchanged, its signal of the other kind. */
function misassigned(panel: Panel, f: Extract<Fault, { kind: 'part' }>): Panel {
  const { devices, wires } = panel;
  if (f.what === 'signalKind') {
    const kind = otherSignal[devices[f.device]?.kind ?? ''];
    if (!kind) return panel;
    return { ...panel, devices: { ...devices, [f.device]: { ...devices[f.device], kind } } };
  }
  if (f.what !== 'map' || f.which === undefined) return panel;
  const exchanged = (at: string): string => {
    const { device, terminal } = landingParts(at);
    if (device === f.device) return `${f.which}:${terminal}`;
    return device === f.which ? `${f.device}:${terminal}` : at;
  };
  const rewired = Object.entries(wires).map(([id, w]) => [
    id,
    { ...w, from: exchanged(w.from), to: exchanged(w.to) },
  ]);
  return { ...panel, wires: Object.fromEntries(rewired) };
}

/**
 * What a terminal that does not hold its conductors comes to: none of them reaches it, and their other ends are joined, since
 * the conductors touch one another.
 *
 * @returns nothing to join where fewer than two of them are whole
 */
export function looseJoint(
  { wires, open }: Pick<Panel, 'wires' | 'open'>,
  at: string,
): { readonly opens: readonly string[]; readonly joins: Panel['bridges'] } {
  const ends = sortedEntries(wires).flatMap(([id, { from, to }]) =>
    open.includes(id) || (from !== at && to !== at) ? [] : [{ id, far: from === at ? to : from }],
  );
  const joins = ends.slice(1).map(({ far }, i) => ({ a: ends[i].far, b: far }));
  return { opens: ends.map(({ id }) => id), joins };
}

/**
 * What a panel is with one more thing otherwise; the given panel stays as it is. A fault of something that is not there
 * changes nothing.
 *
 * @example applyFault(panel, { kind: 'open', wire: 'w12' }).open // ['w12']
 */
export function applyFault(panel: Panel, f: Fault): Panel {
  const { wires } = panel;
  const rewired = (changes: Readonly<Record<string, Partial<AdoptedWire>>>): Panel => ({
    ...panel,
    wires: Object.fromEntries(
      Object.entries(wires).map(([id, wire]) => [id, { ...wire, ...changes[id] }]),
    ),
  });
  switch (f.kind) {
    case 'open':
      return panel.open.includes(f.wire) ? panel : { ...panel, open: [...panel.open, f.wire] };
    case 'short':
      return { ...panel, bridges: [...panel.bridges, { a: f.a, b: f.b }] };
    case 'landed':
      return rewired({ [f.wire]: { [f.end]: f.at } });
    case 'swapped': {
      const [[x, y], [p, q]] = [f.wires, f.ends];
      if (!wires[x] || !wires[y]) return panel;
      return rewired({ [x]: { [p]: wires[y][q] }, [y]: { [q]: wires[x][p] } });
    }
    case 'loose': {
      const { opens, joins } = looseJoint(panel, f.at);
      return { ...panel, open: [...panel.open, ...opens], bridges: [...panel.bridges, ...joins] };
    }
    case 'stuck':
      return { ...panel, stuck: { ...panel.stuck, [`${f.device}:${f.contact}`]: f.is } };
    case 'wrongContact':
      return { ...panel, wrong: [...panel.wrong, `${f.device}:${f.contact}`] };
    case 'part':
      return misassigned({ ...panel, failed: [...panel.failed, f] }, f);
    case 'link':
      return { ...panel, links: { ...panel.links, [f.link]: f.position } };
    case 'setting':
      return { ...panel, settings: { ...panel.settings, [f.code]: f.value } };
    case 'size':
      return rewired({ [f.wire]: { size: f.size } });
  }
}

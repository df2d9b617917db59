import type { Job } from '../../job/index.js';
import { areaOf, copperOhm } from '../../line/index.js';
import { contactsOf, MAIN_POLES, parts } from '../../parts/index.js';
import type { OperationId } from '../../scheme/index.js';
import { between, phrase, state, tagOf, type StepContext } from '../context.js';
import { marked } from '../marks.js';
import { noWay, round, type Draft } from './draft.js';
import { dialAt } from './dial.js';
import type { DeadPanel, Loop } from './loops.js';

/** A closed contact, Ω. */
const CONTACT_OHM = 1;
/** How far a coil for direct voltage may be from its plate. */
const COIL_SHARE = 0.15;
/** Copper of a coil for alternating voltage as a share of its impedance: it lies between these. */
const AC_COPPER = { least: 0.05, most: 0.6 } as const;
/** Another way beside a wire or a coil that would change what is read. */
const BESIDE_SHARE = 0.1;

type Wires = Readonly<Record<string, NonNullable<Job['adopted']>['wires'][string]>>;

/** Wires of the control, which loops are made of. */
const controls: ReadonlySet<string> = new Set(['controlAc', 'controlDc', 'analogue', 'safety']);

const wiresOf = ({ job }: StepContext): Wires => job.adopted?.wires ?? {};

/** A short wire between two terminals of the device: it is looked at, like a link. */
export const isJumper = (
  { device }: StepContext,
  { from, to }: { readonly from: string; readonly to: string },
): boolean => [from, to].every((end) => end.startsWith(`${device.id}:`));

/** One wire from end to end. */
function wireStep(c: StepContext, panel: DeadPanel, id: string): Draft {
  const w = wiresOf(c)[id];
  const ohm = copperOhm(w.lengthM, areaOf(w.size));
  return {
    key: `dead.wire.${id}`,
    // Cable by cable, as they are read: what lies in the panel first.
    act: w.cable ? `dead.single.${w.cable}` : 'dead.single',
    do: phrase('dead.wire', {
      wire: w.number,
      from: marked(c, w.from),
      to: marked(c, w.to),
      lift: panel.beside(id),
    }),
    must: phrase('dead.wire.must', { ohm: round(ohm) }),
    expect: {
      kind: 'range',
      lo: 0,
      hi: round((1 + c.within.wireShare) * ohm + c.within.wireOhm),
      nominal: round(ohm, 3),
      unit: 'Ω',
    },
    instrument: 'ohmmeter',
    from: { kind: 'formula', name: 'copper by length and size' },
  };
}

/** What lies one after the other on the closed way of a loop. */
const onWay = (panel: DeadPanel, { at, id, rest }: Loop): number[] =>
  panel.series(at[0], at[1], rest === null ? [id] : []);

/** What the reading of the dial at its lower end goes through. */
function dialWay(c: StepContext, panel: DeadPanel): number[] {
  const at = dialAt(c);
  // Where another source lies across it the dial is not read, and shows nothing.
  return at && panel.ohms(at.wiper, at.low, [], 0) !== null
    ? panel.series(at.wiper, at.low, [], 0)
    : [];
}

/** Wires that no loop and no reading of the dial would show open: something leads past them, or nothing is read through them. */
function hidden(c: StepContext, panel: DeadPanel, loops: readonly Loop[]): string[] {
  const shown = new Set(
    [...loops.flatMap((loop) => onWay(panel, loop)), ...dialWay(c, panel)].map(
      (e) => panel.edges[e].of,
    ),
  );
  return Object.entries(wiresOf(c))
    .filter(
      ([id, w]) =>
        controls.has(w.class) && !isJumper(c, w) && (w.class === 'safety' || !shown.has(id)),
    )
    .sort(([, x], [, y]) => x.number.localeCompare(y.number, 'en', { numeric: true }))
    .map(([id]) => id);
}

/** Each contact on the way of a loop, at its own terminals: in the state that closes the loop, and in the other. */
function contactSteps(c: StepContext, panel: DeadPanel, loop: Loop): Draft[] {
  const { id, rest } = loop;
  return onWay(panel, loop).flatMap((e): Draft[] => {
    const { of, role, a, b } = panel.edges[e];
    const part = c.job.adopted?.devices[of];
    if (role !== 'contact' || !part) return [];
    const operation = c.arrangement.operations[id];
    const own = operation?.device === of;
    const set = contactsOf(part);
    const stays = set && !set.momentary && !set.latching;
    const position = own ? (operation.position ?? (stays ? otherPosition(set) : '')) : '';
    const step = (worked: readonly OperationId[], name: string): Draft => {
      const ohm = panel.ohms(a, b, worked);
      const closed = ohm !== null && ohm < CONTACT_OHM;
      return {
        key: `dead.contact.${of}.${a.slice(a.indexOf(':') + 1)}.${name}`,
        act: 'dead.single',
        do: phrase('dead.contact', {
          device: tagOf(c, of),
          a: marked(c, a),
          b: marked(c, b),
          id: worked.length > 0 ? id : '',
          worked: worked.length > 0,
          position: worked.length > 0 ? position : '',
        }),
        must: phrase('dead.contact.must', { closed }),
        expect: closed ? between(0, 0, CONTACT_OHM, 'Ω') : noWay,
        instrument: 'ohmmeter',
      };
    };
    return own
      ? [step([], 'rest'), step([id], 'worked')]
      : [step(rest === null ? [id] : [], 'rest')];
  });
}

const otherPosition = (set: { positions: readonly string[]; rest: string }): string =>
  set.positions.find((p) => p !== set.rest) ?? '';

/** Key of the step of a loop. */
export const loopKey = ({ name, id }: Loop): string => `dead.loop.${name}.${id}`;

/**
 * Wires one by one, where no loop shows them or where they are what protects; and every wire and contact on the way of a loop
 * that was read wrong.
 *
 * @param wrong keys of loops of which an answer has ever been wrong
 */
export function singles(
  c: StepContext,
  panel: DeadPanel,
  loops: readonly Loop[],
  wrong: ReadonlySet<string>,
): Draft[] {
  const failed = loops.filter((loop) => wrong.has(loopKey(loop)));
  const ofFailed = failed.flatMap((loop) =>
    onWay(panel, loop).flatMap((e) => (panel.edges[e].role === 'wire' ? [panel.edges[e].of] : [])),
  );
  const cableOf = (id: string): string => wiresOf(c)[id].cable ?? '';
  const wires = [...new Set([...hidden(c, panel, loops), ...ofFailed])]
    .filter((id) => wiresOf(c)[id])
    .sort((x, y) => cableOf(x).localeCompare(cableOf(y), 'en', { numeric: true }));
  const contacts = new Map(
    failed.flatMap((loop) => contactSteps(c, panel, loop)).map((d) => [d.key, d]),
  );
  return [...wires.map((id) => wireStep(c, panel, id)), ...contacts.values()];
}

/** Above this a contact is open to a meter, Ω. */
const OPEN_OHM = 100;

/** Make contacts of a relay or contactor that are wired, without what is read elsewhere: `13` for `13–14`. */
function wiredMakes(c: StepContext, id: string): (readonly [string, string])[] {
  const coil = parts[c.job.adopted?.devices[id]?.kind ?? '']?.coil;
  if (!coil || coil.answers || parts[c.job.adopted?.devices[id]?.kind ?? ''].holds) return [];
  const landed = new Set(Object.values(wiresOf(c)).flatMap((w) => [w.from, w.to]));
  const poles: readonly string[] = id === c.arrangement.contactor ? MAIN_POLES : [];
  return coil.makes.filter(
    ([a, b]) => !poles.includes(a) && landed.has(`${id}:${a}`) && landed.has(`${id}:${b}`),
  );
}

/**
 * Relays and contactors at rest: every make contact that is wired is open. One that has welded gives its command for good, and a
 * second contact in series hides it from every test under power.
 */
export function relaysAtRest(c: StepContext, panel: DeadPanel): Draft[] {
  return c.installation.devices.flatMap((d): Draft[] => {
    if (d.kind !== 'coil') return [];
    const open = wiredMakes(c, d.id).filter(([a, b]) => {
      const ohm = panel.ohms(`${d.id}:${a}`, `${d.id}:${b}`);
      return ohm === null || ohm > OPEN_OHM;
    });
    if (open.length === 0) return [];
    const at = open.map(([a, b]) => `${a}–${b}`).join(', ');
    return [
      {
        key: `dead.relay.${d.id}`,
        act: 'dead.coils',
        do: phrase('dead.relay', { device: d.tag, at }),
        must: phrase('dead.open'),
        expect: state('openLoop'),
        instrument: 'ohmmeter',
        from: { kind: 'standard', name: 'IEC 61810-1, a make contact at rest' },
      },
    ];
  });
}

/** Every coil, by its ohms. */
export function coils(c: StepContext, panel: DeadPanel): Draft[] {
  return c.installation.devices.flatMap((d): Draft[] => {
    if (d.kind !== 'coil' || !c.job.adopted?.devices[d.id]) return [];
    const { landings } = c.installation;
    const [a, b] = [landings[d.coil.a], landings[d.coil.b]];
    const seen = panel.ohms(a, b);
    const beside = seen !== null && Math.abs(seen - d.ohm) > BESIDE_SHARE * d.ohm;
    const [lo, hi] = d.ac
      ? [AC_COPPER.least * d.ohm, AC_COPPER.most * d.ohm]
      : [(1 - COIL_SHARE) * d.ohm, (1 + COIL_SHARE) * d.ohm];
    const args = { lo, hi, ohm: d.ohm, ac: d.ac };
    return [
      {
        key: `dead.coil.${d.id}`,
        act: 'dead.coils',
        do: phrase('dead.coil', {
          device: d.tag,
          a: marked(c, a),
          b: marked(c, b),
          beside,
        }),
        must: phrase('dead.coil.must', args),
        expect: between(lo, d.ac ? Math.sqrt(lo * hi) : d.ohm, hi, 'Ω'),
        instrument: 'ohmmeter',
        from: {
          kind: 'formula',
          name: d.ac ? 'impedance of the coil, and the usual share of copper' : 'plate of the coil',
        },
      },
    ];
  });
}

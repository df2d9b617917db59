import { protectiveTerminals } from '../../catalogue/index.js';
import { netsOf, type Nets } from '../../installation/index.js';
import { landingParts, type Finding } from '../../job/index.js';
import { areaOf } from '../../line/index.js';
import { contactsOf, isExposed, parts, PROTECTIVE, terminalsOf } from '../../parts/index.js';
import { atPart, tagOf, type HazardContext, type HazardRule } from '../rule.js';

/**
 * Smallest protective conductor of the material of its phases, mm² (IEC 60364-5-54 table 54.2): as large up to 16, 16 up to
 * 35, half above.
 *
 * @example leastPeMm2(25) // 16
 */
export const leastPeMm2 = (phaseMm2: number): number =>
  phaseMm2 <= 16 ? phaseMm2 : phaseMm2 <= 35 ? 16 : phaseMm2 / 2;

/** The supply of the panel, where its protective conductor comes from. */
const givesPe = (kind: string): boolean => ['supplySinglePhase', 'supplyThreePhase'].includes(kind);

/** Terminals of the device for protective conductors: joined inside. */
const devicePe = ({ profile, device }: HazardContext): string[] =>
  protectiveTerminals(profile).map((id) => `${device.id}:${id}`);

/** Protective conductors: on no contact, on every exposed part, on no phase, and large enough. */
export const protectiveConductor: HazardRule = {
  finds: {
    'pe.switched': 'protects',
    'pe.open': 'protects',
    'pe.onPhase': 'protects',
    'pe.small': 'protects',
  },
  stage: 'land',
  look(c, find) {
    const { panel } = c.trials;
    const own = devicePe(c);
    const nets = netsOf(
      panel,
      own.slice(1).map((at) => [own[0], at] as const),
    );
    const { devices, wires } = panel;
    const earth = Object.keys(devices).find((id) => givesPe(devices[id].kind)) ?? 'supply';
    const rests = [wires, panel.open];
    const told = { severity: 'stop' as const, rests };
    const switches = (at: string): boolean => {
      const { device, terminal } = landingParts(at);
      const part = devices[device];
      // Its own terminal for it is no contact, whatever else the part has.
      if (part && terminal === PROTECTIVE && isExposed(part)) return false;
      return part && (contactsOf(part) !== undefined || parts[part.kind]?.coil !== undefined);
    };
    const switched = Object.entries(wires).flatMap(([id, wire]): Finding[] => {
      const end = wire.class === 'pe' ? [wire.from, wire.to].find(switches) : undefined;
      if (!end) return [];
      return [
        find('pe.switched', {
          ...told,
          subject: id,
          where: [{ kind: 'wire', id }],
          args: { wire: wire.number, device: tagOf(c, landingParts(end).device) },
          source: 'IEC 60204-1 §8.2.3',
        }),
      ];
    });
    const onPhase = phasesOn(nets, earth, c).map((at) =>
      find('pe.onPhase', {
        ...told,
        subject: at,
        where: [{ kind: 'landing', id: at }],
        args: { landing: said(c, at) },
        source: 'IEC 60204-1 §8.2.1',
      }),
    );
    if (onPhase.length > 0) return onPhase;
    const open = exposedParts(c).flatMap(({ id, landing }): Finding[] =>
      nets.joined(landing, `${earth}:PE`)
        ? []
        : [
            find('pe.open', {
              ...told,
              subject: id,
              where: atPart(id),
              args: { device: tagOf(c, id) },
              source: 'IEC 60204-1 §8.2.1',
            }),
          ],
    );
    return [
      ...switched,
      ...open,
      ...tooSmall(c).map(({ id, args }) =>
        find('pe.small', {
          ...told,
          subject: id,
          where: [{ kind: 'wire', id }],
          args,
          source: 'IEC 60364-5-54 table 54.2',
        }),
      ),
    ];
  },
};

const terminalsAt = ({ trials: { panel } }: HazardContext, id: string): readonly string[] =>
  id === panel.device ? [] : terminalsOf(panel.devices[id]);

const said = (c: HazardContext, at: string): string => {
  const { device, terminal } = landingParts(at);
  return `${tagOf(c, device)}:${terminal}`;
};

/** A landing where a conductor of the supply or the motor meets the protective conductors. */
function phasesOn(nets: Nets, earth: string, c: HazardContext): string[] {
  const pe = [`${earth}:PE`, ...exposedParts(c).map((part) => part.landing)];
  const onPe = (at: string): boolean => pe.some((landing) => nets.joined(at, landing));
  const meets = Object.entries(c.trials.panel.wires).find(
    ([id, w]) =>
      (w.class === 'mains' || w.class === 'motor') &&
      !c.trials.panel.open.includes(id) &&
      onPe(w.from),
  )?.[1];
  if (!meets) return [];
  const isPe = (at: string): boolean => landingParts(at).terminal.startsWith('PE');
  return [isPe(meets.from) ? meets.to : meets.from];
}

/** Parts with a terminal for the protective conductor, but the supply that gives it. */
function exposedParts(c: HazardContext): { id: string; landing: string }[] {
  const { panel } = c.trials;
  const [own] = devicePe(c);
  return Object.keys(panel.devices).flatMap((id) => {
    if (id === panel.device) return own ? [{ id, landing: own }] : [];
    const has = terminalsAt(c, id);
    return has.includes(PROTECTIVE) && !givesPe(panel.devices[id].kind)
      ? [{ id, landing: `${id}:${PROTECTIVE}` }]
      : [];
  });
}

/** Protective conductors smaller than the largest phase conductor at the same part asks for. */
function tooSmall(c: HazardContext): { id: string; args: Finding['args'] }[] {
  const wires = Object.entries(c.trials.panel.wires);
  const phaseMm2 = (device: string): number =>
    Math.max(
      0,
      ...wires.flatMap(([, w]) =>
        (w.class === 'mains' || w.class === 'motor') &&
        [w.from, w.to].some((at) => landingParts(at).device === device)
          ? [areaOf(w.size)]
          : [],
      ),
    );
  return wires.flatMap(([id, w]) => {
    if (w.class !== 'pe') return [];
    const ends = [w.from, w.to].map((at) => landingParts(at).device);
    const least = leastPeMm2(Math.min(...ends.map(phaseMm2)));
    const mm2 = areaOf(w.size);
    return mm2 < least * 0.999
      ? [
          {
            id,
            args: {
              wire: w.number,
              mm2: Math.round(mm2 * 100) / 100,
              leastMm2: Math.round(least * 100) / 100,
            },
          },
        ]
      : [];
  });
}

import type { Profile } from '../catalogue/index.js';
import { sizeText, type Job, type Phrase, type Wiring } from '../job/index.js';
import { parts as kinds } from '../parts/index.js';
import { lineIds } from '../scheme/index.js';
import { formatQuantity, toBase, type Quantity } from '../units/index.js';

/** Something to order or to bring: what it is as a phrase, and how much of it. */
export interface Part {
  readonly what: Phrase;
  readonly tag: string;
  readonly quantity: number;
  readonly unit: string;
}

/** An instrument or tool, and what it is for. */
export interface Tool {
  readonly what: Phrase;
  readonly why: Phrase;
}

const text = (q: Quantity | undefined): string => (q ? formatQuantity(q) : '');
const part = (code: string, args: Phrase['args'], quantity = 1, unit = '', tag = ''): Part => ({
  what: { code: `part.${code}`, args },
  tag,
  quantity,
  unit,
});

/**
 * Everything that has to be there to build the job: device, blocks of the line, cables, station, wire, ferrules, markers.
 *
 * @example partsList(job, profile)[0].what.code // 'part.device'
 */
export function partsList(job: Job, profile: Profile): Part[] {
  return [
    part('device', { title: profile.title, model: job.profile.model }),
    ...lineParts(job),
    ...cableParts(job),
    ...controlParts(job),
    ...stationParts(job),
    ...suppressors(job),
    ...wireParts(job),
  ];
}

function lineParts(job: Job): Part[] {
  const { plate } = job;
  const line = plate.line ?? {};
  const rated: Readonly<Record<string, string>> = {
    isolator: text(line.isolator?.ratedA),
    protection: [
      line.protection?.kind ?? '',
      text(line.protection?.ratedA),
      text(line.protection?.breaking),
    ]
      .filter(Boolean)
      .join(', '),
    transformer: [text(line.transformer?.rating), text(line.transformer?.secondary)]
      .filter(Boolean)
      .join(', '),
    rcd: [line.rcd?.type ? `type ${line.rcd.type}` : '', text(line.rcd?.rated)]
      .filter(Boolean)
      .join(', '),
    contactor: text(line.contactor?.ratedA),
    capacitor: '',
    inputFilter: text(line.inputFilter?.leakage),
    reactor: line.reactor?.pct ? `${line.reactor.pct} %` : '',
    brakingUnit: [text(line.brakingUnit?.switchesAt), text(line.brakingUnit?.mostA)]
      .filter(Boolean)
      .join(', '),
    resistor: [text(line.resistor?.ohm), text(line.resistor?.power)].filter(Boolean).join(', '),
    outputFilter: [line.outputFilter?.kind ?? '', text(line.outputFilter?.ratedA)]
      .filter(Boolean)
      .join(', '),
    motorIsolator: '',
    brake: text(line.brake?.torque),
  };
  return Object.keys(rated)
    .filter((block) => line[block as keyof typeof line])
    .map((block) =>
      part(block, { rated: rated[block] }, 1, '', standingFor(job, block)?.tag ?? ''),
    );
}

/** Part of the wiring that a block of Plate is, by its role. */
const blockRoles: Readonly<Record<string, string>> = {
  isolator: lineIds.isolator,
  protection: lineIds.breaker,
  contactor: 'contactor.line',
  inputFilter: lineIds.filter,
  reactor: lineIds.reactor,
  outputFilter: lineIds.outputFilter,
  motorIsolator: lineIds.motorIsolator,
  brake: 'brake',
  resistor: lineIds.resistor,
  brakingUnit: lineIds.brakingUnit,
};

const standingFor = ({ adopted }: Job, block: string): Wiring['devices'][string] | undefined =>
  adopted?.devices[blockRoles[block] ?? ''];

function cableParts({ plate }: Job): Part[] {
  const { length, size, cores, screened } = plate.cable;
  const feed = plate.line?.protection;
  const metres = (q: Quantity): number => Math.ceil(toBase(q, 'length'));
  return [
    ...(length && size
      ? [
          part(
            'motorCable',
            { size: sizeText(size), cores: cores ?? 4, screened: screened === true },
            metres(length),
            'm',
          ),
        ]
      : []),
    ...(feed?.feedLength && feed.feedSize
      ? [part('feedCable', { size: sizeText(feed.feedSize) }, metres(feed.feedLength), 'm')]
      : []),
  ];
}

function controlParts({ plate }: Job): Part[] {
  const { transformer, supply24, secondary, fuse } = plate.control ?? {};
  return [
    ...(transformer
      ? [
          part('controlTransformer', {
            rated: [text(transformer), text(secondary)].filter(Boolean).join(', '),
          }),
        ]
      : []),
    ...(supply24 ? [part('supply24', { rated: text(supply24) })] : []),
    ...(fuse ? [part('controlFuse', { rated: text(fuse) })] : []),
  ];
}

/** Neither ordered nor built: the supply and the motor are there. */
const unlisted: readonly string[] = Object.values(kinds)
  .filter((k) => k.turns || (k.symbol === 'source' && k.power))
  .map((k) => k.kind);

type Devices = Wiring['devices'];

/** Parts as they are looked up in the panel: by their tags. */
const byTag = (devices: Devices): [string, Devices[string]][] =>
  Object.entries(devices).sort(([x, a], [y, b]) =>
    `${a.tag} ${x}`.localeCompare(`${b.tag} ${y}`, 'en', { numeric: true }),
  );

/** A diode or an RC element across each coil that a contact of the device switches. */
const suppressors = ({ adopted }: Job): Part[] =>
  byTag(adopted?.devices ?? {}).flatMap(([, { params, tag }]) =>
    typeof params['suppressor'] === 'string'
      ? [
          part(
            'suppressor',
            { type: params['suppressor'], volts: params['volts'] ?? 24 },
            1,
            '',
            tag,
          ),
        ]
      : [],
  );

/** What stands in the wiring and is not told with its ratings already. */
function stationParts(job: Job): Part[] {
  const { adopted, plate } = job;
  const told = Object.keys(plate.line ?? {}).map((block) => blockRoles[block]);
  return byTag(adopted?.devices ?? {})
    .filter(
      ([id, { kind }]) => id !== adopted?.device && !unlisted.includes(kind) && !told.includes(id),
    )
    .map(([, d]) => part('station', { kind: d.kind }, 1, '', d.tag));
}

/** Single wires by size and colour; cores of a cable count with their cable. */
function wireParts({ adopted }: Job): Part[] {
  const wires = Object.values(adopted?.wires ?? {}).sort((x, y) =>
    x.number.localeCompare(y.number, 'en', { numeric: true }),
  );
  if (wires.length === 0) return [];
  const metres = new Map<string, { size: string; colour: string; m: number }>();
  const cables = new Map<string, { m: number; cores: number; size: string }>();
  const ferrules = new Map<string, number>();
  const motorCables = new Set(
    wires.flatMap((w) => (w.class === 'motor' && w.cable ? [w.cable] : [])),
  );
  for (const w of wires) {
    const size = sizeText(w.size);
    ferrules.set(size, (ferrules.get(size) ?? 0) + 2);
    if (w.class === 'motor' || (w.cable && motorCables.has(w.cable))) continue;
    if (w.cable) {
      const c = cables.get(w.cable) ?? { m: 0, cores: 0, size };
      cables.set(w.cable, { m: Math.max(c.m, w.lengthM), cores: c.cores + 1, size });
    } else {
      const key = `${size} ${w.colour}`;
      metres.set(key, { size, colour: w.colour, m: (metres.get(key)?.m ?? 0) + w.lengthM });
    }
  }
  return [
    ...[...cables].map(([id, c]) =>
      part('controlCable', { size: c.size, cores: c.cores }, Math.ceil(c.m), 'm', id),
    ),
    ...[...metres.values()].map((w) =>
      part('wire', { size: w.size, colour: w.colour }, Math.ceil(w.m), 'm'),
    ),
    ...[...ferrules].map(([size, n]) => part('ferrules', { size }, n)),
    part('markers', {}, wires.length * 2),
  ];
}

/** What to bring: by the supply, the terminals that are used, and what the tests of this job measure. */
export function toolsList(job: Job, profile: Profile): Tool[] {
  const tool = (code: string, args: Phrase['args'] = {}): Tool => ({
    what: { code: `tool.${code}`, args },
    why: { code: `tool.${code}.why`, args },
  });
  const torques = Object.values(profile.terminals).flatMap((t) =>
    t.torqueNm === undefined ? [] : [t.torqueNm],
  );
  const strips = [
    ...new Set(
      Object.values(profile.terminals).flatMap((t) => (t.stripMm === undefined ? [] : [t.stripMm])),
    ),
  ].sort((x, y) => x - y);
  const { phases, volts } = job.plate.supply;
  return [
    tool('lockout'),
    tool('voltageTester', { volts: volts ? toBase(volts, 'voltage') : 0 }),
    tool('multimeter', { link: volts ? Math.ceil(Math.SQRT2 * toBase(volts, 'voltage')) : 0 }),
    ...(phases === 1 ? [] : [tool('rotation')]),
    tool('clamp'),
    tool('insulation'),
    tool('lowOhm'),
    ...(torques.length
      ? [tool('torque', { from: Math.min(...torques), to: Math.max(...torques) })]
      : []),
    ...(strips.length ? [tool('strip', { lengths: strips.join(', ') })] : []),
    tool('tachometer'),
    ...(job.scheme.speed === 'current' || job.scheme.speed === 'voltage'
      ? [tool('calibrator')]
      : []),
    tool('stopwatch'),
  ];
}

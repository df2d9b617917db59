import * as v from 'valibot';
import { quantity, sizeSchema } from './quantities.js';

const text = v.pipe(v.string(), v.maxLength(200));
const share = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(1000));
const multiple = v.pipe(v.number(), v.finite(), v.gtValue(0), v.maxValue(50));

/** Motor plate as typed. `connection` names the two voltages of a dual plate, `link` the position the plates are in. */
export const motorPlateSchema = v.strictObject({
  power: v.optional(quantity('power')),
  connection: v.optional(v.picklist(['deltaStar', 'seriesParallel', 'single'])),
  lowV: v.optional(quantity('voltage')),
  highV: v.optional(quantity('voltage')),
  lowA: v.optional(quantity('current')),
  highA: v.optional(quantity('current')),
  hz: v.optional(quantity('frequency')),
  rpm: v.optional(quantity('speed')),
  powerFactor: v.optional(v.pipe(v.number(), v.finite())),
  efficiency: v.optional(v.pipe(v.number(), v.finite())),
  serviceFactor: v.optional(multiple),
  link: v.optional(v.picklist(['delta', 'star', 'series', 'parallel', 'none'])),
  lockedCurrentRatio: v.optional(multiple),
  lockedTorqueRatio: v.optional(multiple),
  breakdownRatio: v.optional(multiple),
  inertia: v.optional(quantity('inertia')),
  pullUpRatio: v.optional(multiple),
  /** Curves of the data sheet: torque and current in rated ones, rising in the share of the speed of the field. */
  curve: v.optional(
    v.pipe(
      v.array(
        v.strictObject({
          share: v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(1)),
          torqueRatio: v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(50)),
          currentRatio: multiple,
        }),
      ),
      v.minLength(2),
      v.maxLength(60),
      v.check(
        (rows) => rows.every((row, i) => i === 0 || row.share > rows[i - 1].share),
        'rows that rise in speed',
      ),
    ),
  ),
  cooling: v.optional(v.picklist(['self', 'forced'])),
  insulation: v.optional(v.picklist(['general', 'inverterDuty'])),
  /** The machine was seen to turn the other way: forward needs two leads exchanged. */
  leadsExchanged: v.optional(v.boolean()),
  serial: v.optional(text),
});

export const supplySchema = v.strictObject({
  phases: v.optional(v.picklist([1, 3])),
  volts: v.optional(quantity('voltage')),
  hz: v.optional(quantity('frequency')),
  earthing: v.optional(v.picklist(['TN-S', 'TN-C-S', 'TT', 'IT', 'cornerEarthed'])),
  transformer: v.optional(quantity('apparentPower')),
  impedancePct: v.optional(v.pipe(v.number(), v.gtValue(0), v.maxValue(30))),
  measured: v.optional(
    v.strictObject({
      l12: v.optional(quantity('voltage')),
      l23: v.optional(quantity('voltage')),
      l31: v.optional(quantity('voltage')),
    }),
  ),
});

export const loadSchema = v.strictObject({
  name: v.optional(text),
  kind: v.optional(v.picklist(['constant', 'linear', 'square'])),
  /** Torque at every speed beside the law, % of rated. */
  basePct: v.optional(share),
  torquePct: v.optional(share),
  breakawayPct: v.optional(share),
  gearRatio: v.optional(v.pipe(v.number(), v.gtValue(0), v.maxValue(100_000))),
  gearEfficiency: v.optional(v.pipe(v.number(), v.gtValue(0), v.maxValue(1))),
  inertia: v.optional(quantity('inertia')),
  rpm: v.optional(quantity('speed')),
  forwardMeans: v.optional(text),
  overhauls: v.optional(v.boolean()),
  stopsPerHour: v.optional(share),
});

export const cableSchema = v.strictObject({
  length: v.optional(quantity('length')),
  size: v.optional(sizeSchema),
  cores: v.optional(v.pipe(v.number(), v.integer(), v.minValue(3), v.maxValue(12))),
  screened: v.optional(v.boolean()),
  pe: v.optional(sizeSchema),
  doublePe: v.optional(v.boolean()),
  table: v.optional(v.pipe(v.string(), v.maxLength(40))),
  /** The person's own table instead of the shipped ones: what each size may carry here, all factors in it. */
  ownTable: v.optional(
    v.strictObject({
      title: v.pipe(v.string(), v.trim(), v.minLength(1, 'a name'), v.maxLength(120)),
      source: v.optional(text),
      amps: v.record(
        v.pipe(
          v.string(),
          v.regex(
            /^\d+(\.\d+)? mm²$|^(\d{1,2}|[1-4]\/0) AWG$/u,
            'a size such as "2.5 mm²" or "10 AWG"',
          ),
        ),
        v.pipe(v.number(), v.gtValue(0), v.maxValue(5000)),
      ),
    }),
  ),
  ambient: v.optional(quantity('temperature', { min: -50 })),
  grouped: v.optional(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(20))),
});

/** Blocks that may lie in the line or beside the device; one that is not there is absent. */
export const lineSchema = v.strictObject({
  isolator: v.optional(
    v.strictObject({
      ratedA: v.optional(quantity('current')),
      /** It is a plug that is pulled, made for industry or for a household. */
      plug: v.optional(v.picklist(['industrial', 'household'])),
      /** Fuse in the plug. */
      fuse: v.optional(quantity('current')),
    }),
  ),
  protection: v.optional(
    v.strictObject({
      kind: v.optional(v.picklist(['breaker', 'fuse', 'motorBreaker'])),
      ratedA: v.optional(quantity('current')),
      breaking: v.optional(quantity('current')),
      /** What a short circuit may leave of a starter: by the maker's tested table (IEC 60947-4-2). */
      coordination: v.optional(v.picklist(['type1', 'type2'])),
      /** Fast fuses for the thyristors beside it. */
      fastFuses: v.optional(v.boolean()),
      feedLength: v.optional(quantity('length')),
      feedSize: v.optional(sizeSchema),
      reinforcedPe: v.optional(v.boolean()),
    }),
  ),
  transformer: v.optional(
    v.strictObject({
      rating: v.optional(quantity('apparentPower')),
      secondary: v.optional(quantity('voltage')),
      impedancePct: v.optional(multiple),
    }),
  ),
  rcd: v.optional(
    v.strictObject({
      type: v.optional(v.picklist(['AC', 'A', 'F', 'B'])),
      rated: v.optional(quantity('current')),
    }),
  ),
  contactor: v.optional(
    v.strictObject({
      ratedA: v.optional(quantity('current')),
      perHour: v.optional(share),
      /** Fuses between it and the device, one a pole. */
      fuse: v.optional(quantity('current')),
    }),
  ),
  inputFilter: v.optional(
    v.strictObject({
      leakage: v.optional(quantity('current')),
      sidesChecked: v.optional(v.boolean()),
    }),
  ),
  reactor: v.optional(
    v.strictObject({ pct: v.optional(v.pipe(v.number(), v.gtValue(0), v.maxValue(10))) }),
  ),
  capacitor: v.optional(v.strictObject({ at: v.optional(v.picklist(['supply', 'output'])) })),
  resistor: v.optional(
    v.strictObject({
      ohm: v.optional(quantity('resistance')),
      power: v.optional(quantity('power')),
      thermalContact: v.optional(v.boolean()),
    }),
  ),
  /** A chopper beside a device that has none, at its DC link. */
  brakingUnit: v.optional(
    v.strictObject({
      switchesAt: v.optional(quantity('voltage')),
      mostA: v.optional(quantity('current')),
    }),
  ),
  outputFilter: v.optional(
    v.strictObject({
      kind: v.optional(v.picklist(['choke', 'dvdt', 'sine'])),
      ratedA: v.optional(quantity('current')),
    }),
  ),
  motorIsolator: v.optional(v.strictObject({ earlyBreak: v.optional(v.boolean()) })),
  brake: v.optional(
    v.strictObject({
      torque: v.optional(quantity('torque')),
      supply: v.optional(v.picklist(['separate', 'driveOutput'])),
    }),
  ),
});
export type Line = v.InferOutput<typeof lineSchema>;
export type LineBlock = keyof Line;

/** Where the device stands, and what the person must say about the place. */
export const placeSchema = v.strictObject({
  altitude: v.optional(quantity('length')),
  ambient: v.optional(quantity('temperature', { min: -50 })),
  carrierKHz: v.optional(v.pipe(v.number(), v.gtValue(0), v.maxValue(20))),
  earthLinkOut: v.optional(v.boolean()),
  surface: v.optional(quantity('area')),
  otherLoss: v.optional(quantity('power')),
  inside: v.optional(quantity('temperature', { min: -50 })),
  zone: v.optional(v.picklist(['none', 'dust', 'gas'])),
  certificate: v.optional(text),
});

const ord = v.pipe(v.number(), v.finite());
const itemId = v.pipe(
  v.string(),
  v.regex(/^[A-Za-z0-9][A-Za-z0-9._:-]{0,79}$/u, 'an id of letters, digits, dot, dash or colon'),
);

/** Control supplies and what hangs on them. */
export const controlSuppliesSchema = v.strictObject({
  transformer: v.optional(quantity('apparentPower')),
  secondary: v.optional(quantity('voltage')),
  supply24: v.optional(quantity('current')),
  reservePct: v.optional(v.pipe(v.number(), v.minValue(0), v.maxValue(90))),
  fuse: v.optional(quantity('current')),
  wire: v.optional(sizeSchema),
  loads: v.optional(
    v.record(
      itemId,
      v.strictObject({
        ord,
        name: text,
        on: v.picklist(['transformer', 'supply24']),
        holdingVA: v.optional(quantity('apparentPower')),
        inrushVA: v.optional(quantity('apparentPower')),
        amps: v.optional(quantity('current')),
        inrush: v.optional(quantity('current')),
      }),
    ),
  ),
});

/** What was there on arrival: damage, missing parts, original guards and interlocks. */
export const arrivalSchema = v.record(
  itemId,
  v.strictObject({
    ord,
    kind: v.picklist(['state', 'damage', 'missing', 'guard', 'interlock']),
    text: v.pipe(v.string(), v.trim(), v.minLength(1, 'a few words'), v.maxLength(400)),
  }),
);

export const plateSchema = v.strictObject({
  motor: motorPlateSchema,
  supply: supplySchema,
  load: loadSchema,
  cable: cableSchema,
  line: v.optional(lineSchema),
  place: v.optional(placeSchema),
  control: v.optional(controlSuppliesSchema),
  arrival: v.optional(arrivalSchema),
  deviceSerial: v.optional(text),
});

export type MotorPlate = v.InferOutput<typeof motorPlateSchema>;
export type Supply = v.InferOutput<typeof supplySchema>;
export type Load = v.InferOutput<typeof loadSchema>;
export type Plate = v.InferOutput<typeof plateSchema>;
export type Place = v.InferOutput<typeof placeSchema>;
export type ControlSupplies = v.InferOutput<typeof controlSuppliesSchema>;

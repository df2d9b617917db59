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
  serial: v.optional(text),
});

export const supplySchema = v.strictObject({
  phases: v.optional(v.picklist([1, 3])),
  volts: v.optional(quantity('voltage')),
  hz: v.optional(quantity('frequency')),
  earthing: v.optional(v.picklist(['TN-S', 'TN-C-S', 'TT', 'IT', 'cornerEarthed'])),
  transformer: v.optional(quantity('apparentPower')),
  impedancePct: v.optional(v.pipe(v.number(), v.gtValue(0), v.maxValue(30))),
  breakerA: v.optional(quantity('current')),
});

export const loadSchema = v.strictObject({
  name: v.optional(text),
  kind: v.optional(v.picklist(['constant', 'linear', 'square'])),
  torquePct: v.optional(share),
  breakawayPct: v.optional(share),
  gearRatio: v.optional(v.pipe(v.number(), v.gtValue(0), v.maxValue(100_000))),
  gearEfficiency: v.optional(v.pipe(v.number(), v.gtValue(0), v.maxValue(1))),
  inertia: v.optional(quantity('inertia')),
  rpm: v.optional(quantity('speed')),
  forwardMeans: v.optional(text),
});

export const cableSchema = v.strictObject({
  length: v.optional(quantity('length')),
  size: v.optional(sizeSchema),
  cores: v.optional(v.pipe(v.number(), v.integer(), v.minValue(3), v.maxValue(12))),
  screened: v.optional(v.boolean()),
});

export const plateSchema = v.strictObject({
  motor: motorPlateSchema,
  supply: supplySchema,
  load: loadSchema,
  cable: cableSchema,
  deviceSerial: v.optional(text),
  arrival: v.optional(v.pipe(v.string(), v.maxLength(4000))),
});

export type MotorPlate = v.InferOutput<typeof motorPlateSchema>;
export type Supply = v.InferOutput<typeof supplySchema>;
export type Load = v.InferOutput<typeof loadSchema>;
export type CableRun = v.InferOutput<typeof cableSchema>;
export type Plate = v.InferOutput<typeof plateSchema>;

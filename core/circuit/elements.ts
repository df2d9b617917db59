import * as v from 'valibot';

/** Resistance that stands for "none" in the model, Ω. */
export const NO_OHM = 1e-6;
/** Resistance of a closed contact unless a profile says otherwise, Ω. */
export const CONTACT_OHM = 0.05;

const name = v.pipe(v.string(), v.minLength(1), v.maxLength(120));
const ohm = v.pipe(v.number(), v.finite(), v.minValue(0));
const amps = v.pipe(v.number(), v.finite());
const volts = v.pipe(v.number(), v.finite());
const between = { id: name, a: name, b: name };

/** One element between two landings. Currents count from a to b. */
export const elementSchema = v.variant('kind', [
  v.strictObject({ ...between, kind: v.literal('resistor'), ohm }),
  v.strictObject({
    ...between,
    kind: v.literal('voltageSource'),
    volts,
    ohm: v.optional(ohm),
    limitA: v.optional(v.pipe(amps, v.gtValue(0))),
  }),
  v.strictObject({
    ...between,
    kind: v.literal('currentSource'),
    amps,
    complianceVolts: v.optional(v.pipe(volts, v.gtValue(0))),
  }),
  v.strictObject({
    ...between,
    kind: v.literal('transmitter'),
    amps: v.pipe(amps, v.minValue(0)),
    minVolts: v.pipe(volts, v.minValue(0)),
  }),
  v.strictObject({
    ...between,
    kind: v.literal('contact'),
    closed: v.boolean(),
    ohm: v.optional(ohm),
  }),
  v.strictObject({
    ...between,
    kind: v.literal('diode'),
    forwardVolts: v.optional(v.pipe(volts, v.minValue(0))),
  }),
]);
export type CircuitElement = v.InferOutput<typeof elementSchema>;

/** A network as `tactron solve` reads it. */
export const networkSchema = v.pipe(
  v.strictObject({
    reference: name,
    nodes: v.pipe(v.array(name), v.minLength(1), v.maxLength(5000)),
    elements: v.pipe(v.array(elementSchema), v.maxLength(20000)),
  }),
  v.rawCheck(({ dataset, addIssue }) => {
    if (!dataset.typed) return;
    const { nodes, reference, elements } = dataset.value;
    const at = (key: string, value: unknown, input: object): v.ObjectPathItem => ({
      type: 'object',
      origin: 'value',
      input: input as Record<string, unknown>,
      key,
      value,
    });
    const known = new Set(nodes);
    if (known.size !== nodes.length)
      addIssue({ message: 'a node is named twice', path: [at('nodes', nodes, dataset.value)] });
    if (!known.has(reference))
      addIssue({
        message: `the reference "${reference}" is not among the nodes`,
        path: [at('reference', reference, dataset.value)],
      });
    const ids = new Set<string>();
    elements.forEach((element, index) => {
      const here = [
        at('elements', elements, dataset.value),
        at(String(index), element, elements),
      ] as const;
      if (ids.has(element.id))
        addIssue({
          message: `the element "${element.id}" is named twice`,
          path: [...here, at('id', element.id, element)],
        });
      ids.add(element.id);
      for (const end of ['a', 'b'] as const) {
        if (!known.has(element[end]))
          addIssue({
            message: `there is no node "${element[end]}"`,
            path: [...here, at(end, element[end], element)],
          });
      }
    });
  }),
);
export type Network = v.InferOutput<typeof networkSchema>;

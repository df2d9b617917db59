import * as v from 'valibot';
import type { Profile } from './profile.js';
import type { Value } from './roles.js';

const text = v.pipe(v.string(), v.minLength(1), v.maxLength(400));
const code = v.pipe(v.string(), v.minLength(1), v.maxLength(40));
const open = v.looseObject;

/** A way in which a device measures its motor: with the shaft at rest, or turning it. */
export const identificationWays = ['standing', 'turning'] as const;
export type IdentificationWay = (typeof identificationWays)[number];

/** A run in which the device measures its motor: how it is asked for and begun, what it leaves behind, what undoes it. */
export const identificationSchema = open({
  /** Setting that asks for it; it goes back to its factory value when the run has ended. */
  setting: code,
  ways: v.pipe(
    v.record(
      v.picklist(identificationWays),
      open({
        value: v.union([v.number(), v.string()]),
        seconds: v.pipe(v.number(), v.finite(), v.gtValue(0)),
        /** The motor must be free of its load. */
        uncoupled: v.boolean(),
      }),
    ),
    v.check((ways) => Object.keys(ways).length > 0, 'a way in which it runs'),
  ),
  /** What begins it, once it is asked for. */
  begins: v.literal('startKey'),
  shows: open({ during: text, done: text }),
  /** Settings in which it leaves what it measured; at their factory value nothing was measured. */
  results: v.pipe(v.array(code), v.minLength(1)),
  /** Settings that undo it when they are keyed after it. */
  voids: v.array(code),
  failures: v.pipe(v.array(open({ shown: text, cause: text, cure: text })), v.minLength(1)),
});
export type Identification = v.InferOutput<typeof identificationSchema>;

interface Named {
  readonly settings: Readonly<Record<string, unknown>>;
  readonly identification?: Identification | undefined;
}

/** Settings that an identification run names and the device does not have. */
export function* identificationFaults({
  settings,
  identification,
}: Named): Generator<{ path: string[]; message: string }> {
  if (!identification) return;
  const { setting, results, voids } = identification;
  for (const [key, codes] of Object.entries({ setting: [setting], results, voids }))
    for (const named of codes)
      if (settings[named] === undefined)
        yield { path: ['identification', key], message: `there is no setting "${named}"` };
}

/**
 * Whether the device has measured a motor: every result differs from what it leaves the factory with.
 *
 * @example identified(profile, { 'M/09': 0.61 }, factory) // true
 */
export const identified = (
  { identification }: Profile,
  held: Readonly<Record<string, Value>>,
  factory: Readonly<Record<string, Value>>,
): boolean =>
  identification !== undefined &&
  identification.results.every((of) => held[of] !== undefined && held[of] !== factory[of]);

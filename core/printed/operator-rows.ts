import type { SaidRequirement } from '../said/index.js';

/** What an operator wants to know, with the required functions that say it. */
const groups: readonly (readonly [string, RegExp])[] = [
  ['start', /^(?:direction|start|warning)\./u],
  ['stop', /^stop\.\d+\.(?:stops|released)$/u],
  ['emergency stop', /^estop\.(?:stops|released)$/u],
  ['guards', /^interlock\..*\.(?:stops|released)$/u],
  ['speed', /^(?:speed\.(?:rises|lowest|highest)|preset\.)/u],
  ['jog', /^jog\./u],
  ['place', /^place\./u],
  ['power back', /^power\.(?:return|on)$/u],
  ['brake', /^brake\./u],
  ['lamps and signals', /^(?:lamp|status|tells|meter)\./u],
];

/**
 * How the machine is worked and what its lamps mean, from what it is required to do; what the job as built does otherwise is
 * said so.
 *
 * @example operatorRows(derived.requirements)[0] // ['start', 'S3 turns the machine forward.']
 */
export function operatorRows(requirements: readonly SaidRequirement[]): [string, string][] {
  return groups.flatMap(([name, of]) =>
    requirements
      .filter((r) => of.test(r.id) && !r.stated)
      .map(({ text, state, does }, i): [string, string] => [
        i === 0 ? name : '',
        state === 'met' ? text : `Required, and not so now (${does}): ${text}`,
      ]),
  );
}

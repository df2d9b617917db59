import { landingParts, sortedEntries, type WireSpec } from '../../job/index.js';
import { atPart, tagOf, type HazardContext, type HazardRule } from '../rule.js';

/** Classes of wires that a plug carries. */
function classesOf({ job }: HazardContext, plug: string): ReadonlySet<WireSpec['class']> {
  const on = Object.values(job.adopted?.wires ?? {}).filter((w) =>
    [w.from, w.to].some((end) => landingParts(end).device === plug),
  );
  return new Set(on.map((w) => w.class));
}

/** Plugs of as many poles: put back the other way round, each cable is fed from the wrong half. */
export const plugsAlike: HazardRule = {
  finds: { 'plugs.exchangeable': 'moves' },
  stage: 'land',
  look(c, find) {
    const plugs = sortedEntries(c.job.adopted?.devices ?? {}).filter(
      ([, { kind }]) => kind === 'plugConnector',
    );
    return plugs.flatMap(([one, { params }], i) =>
      plugs
        .slice(i + 1)
        .filter(([, other]) => other.params['count'] === params['count'])
        .map(([other]) => {
          const mains = [one, other].filter((id) => classesOf(c, id).has('controlAc'));
          return find('plugs.exchangeable', {
            subject: `${one}:${other}`,
            severity: mains.length === 1 ? 'stop' : 'warn',
            where: [...atPart(one), ...atPart(other)],
            args: {
              one: tagOf(c, one),
              other: tagOf(c, other),
              poles: Number(params['count']),
              mains: mains.length === 1 ? tagOf(c, mains[0]) : '',
            },
            source: 'IEC 60204-1:2016 §13.4.5: plugs that can be confused are coded or marked',
          });
        }),
    );
  },
};

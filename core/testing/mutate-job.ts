import * as v from 'valibot';
import { jobSchema, type Job } from '../job/index.js';

export { seeded } from '../numeric/index.js';

const odd: readonly unknown[] = [
  0,
  -1,
  1e-9,
  1e9,
  0.5,
  400,
  '',
  'x',
  'true',
  true,
  false,
  null,
  [],
  {},
  undefined,
];

type Node = Record<string, unknown> | unknown[];
const isNode = (x: unknown): x is Node => typeof x === 'object' && x !== null;

/** Every place in a document that holds something, as the node and the key in it. */
function placesOf(root: Node): { node: Node; key: string }[] {
  const found: { node: Node; key: string }[] = [];
  const walk = (node: Node): void => {
    for (const key of Object.keys(node)) {
      found.push({ node, key });
      const at = (node as Record<string, unknown>)[key];
      if (isNode(at)) walk(at);
    }
  };
  walk(root);
  return found;
}

/** Places of the values that settings are planned at. */
const valuesOf = (adopted: Node): { node: Node; key: string }[] =>
  Object.values((adopted as { settings?: Record<string, Node> }).settings ?? {})
    .filter(isNode)
    .map((node) => ({ node, key: 'value' }));

/**
 * A job with its structure changed at random: values made odd, parts left out or taken from elsewhere in it. Only what the
 * import would accept comes back.
 *
 * @param random from `seeded`, so that it is the same every time
 * @returns undefined where no change in a few tries is accepted
 */
export function mutatedJob(job: Job, random: () => number): Job | undefined {
  const pick = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)];
  for (let attempt = 0; attempt < 40; attempt++) {
    const copy = structuredClone(job) as unknown as Record<string, unknown>;
    const times = 1 + Math.floor(random() * 3);
    for (let n = 0; n < times; n++) {
      // What is planned, wished and entered; identity and version are not what a person gets wrong.
      const part = pick([
        'plate',
        'scheme',
        'decisions',
        'adopted',
        'adopted',
        'adopted',
        'deviations',
      ]);
      const root = copy[part];
      if (!isNode(root)) continue;
      const places = placesOf(root);
      if (places.length === 0) continue;
      // Settings are many and small: without help they would hardly ever be hit.
      const settings = part === 'adopted' && random() < 0.3 ? valuesOf(root) : [];
      const { node, key } = settings.length > 0 ? pick(settings) : pick(places);
      const at = node as Record<string, unknown>;
      const way = random();
      if (way < 0.2) delete at[key];
      else if (way < 0.6) {
        const other = pick(places);
        at[key] = structuredClone((other.node as Record<string, unknown>)[other.key]);
      } else {
        const value = pick(odd);
        if (value === undefined) delete at[key];
        else at[key] = value;
      }
    }
    const read = v.safeParse(jobSchema, JSON.parse(JSON.stringify(copy)));
    if (read.success && JSON.stringify(read.output) !== JSON.stringify(job)) return read.output;
  }
  return undefined;
}

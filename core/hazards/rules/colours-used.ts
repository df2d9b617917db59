import type { AdoptedWire, Finding, Job } from '../../job/index.js';
import type { HazardRule } from '../rule.js';

/** Colours kept for one use, in words that people write for them: IEC 60445, NFPA 79 §13.2. */
const protective = /green.*yellow|yellow.*green|gn.?ye|ye.?gn|^green$|^gn$/iu;
const neutral: Readonly<Record<Job['practice'], RegExp>> = {
  IEC: /light.?blue|^blue$|^bu$/iu,
  NFPA: /^white|^gr[ae]y|^wh$|^gy$/iu,
};

/** What is wrong with a colour for a wire; undefined where it may be used. */
function wrong(
  { class: kind }: Pick<AdoptedWire, 'class'>,
  colour: string,
  practice: Job['practice'],
): 'notProtective' | 'notNeutral' | 'keptForEarth' | undefined {
  // Green alone protects in NFPA practice only.
  const earth =
    protective.test(colour) && (practice === 'NFPA' || !/^(?:green|gn)$/iu.test(colour));
  if (kind === 'pe') return earth ? undefined : 'notProtective';
  if (kind === 'neutral') return neutral[practice].test(colour) ? undefined : 'notNeutral';
  // A core of a signal cable may be green; green-yellow and, by NFPA, green are kept for what protects.
  if (kind === 'analogue' && /^(?:green|gn)$/iu.test(colour)) return undefined;
  return earth ? 'keptForEarth' : undefined;
}

/** Colours as they were really used, judged only where a colour is kept for one use. */
export const coloursUsed: HazardRule = {
  finds: { 'conductor.colourUsed': 'protects' },
  stage: 'land',
  look({ job, trials }, find) {
    return Object.entries(job.asUsed ?? {}).flatMap(([id, { colour }]): Finding[] => {
      const wire = trials.panel.wires[id];
      const is = wire && colour ? wrong(wire, colour, job.practice) : undefined;
      if (!wire || !colour || !is) return [];
      return [
        find('conductor.colourUsed', {
          subject: id,
          severity: 'stop',
          where: [{ kind: 'wire', id }],
          args: { wire: wire.number, colour, is, wanted: wire.colour },
          source: job.practice === 'IEC' ? 'IEC 60204-1 §13.2, IEC 60445' : 'NFPA 79 §13.2',
        }),
      ];
    });
  },
};

import { judged, type Judged } from '../../requirements/index.js';
import { atPart, partOf, tagOfOperation, type HazardRule } from '../rule.js';

/** A function that the machine must have by what was wished, and that this job as built does not have. */
export const requiredFunctions: HazardRule = {
  finds: {
    'requirement.notMet': 'protects',
    'requirement.otherMotion': 'moves',
  },
  stage: 'land',
  look(c, find) {
    return judged(c.trials, c.variants)
      .filter((j) => j.state === 'notMet')
      .map(({ requirement, does, proof }: Judged) =>
        find(requirement.rank === 'protects' ? 'requirement.notMet' : 'requirement.otherMotion', {
          subject: requirement.id,
          severity: 'stop',
          where: atPart(partOf(c, requirement.operation)),
          args: {
            requirement: requirement.id,
            device: tagOfOperation(c, requirement.operation),
            start: tagOfOperation(c, c.arrangement.starts.forward),
            does,
          },
          source: 'required by what was wished; rehearsal of the job as built',
          rests: [requirement.must, requirement.wish],
          proof,
        }),
      );
  },
};

import type { Finding } from '../../job/index.js';
import { statedOtherwise } from './required-functions.js';
import { atPart, firstThat, partOf, policyIn, tagOfOperation, type HazardRule } from '../rule.js';

/** The key turned back to remote with the run contact closed starts the motor; the station's stop ignored under the keypad. */
export const placeChange: HazardRule = {
  finds: { 'place.takeoverStarts': 'protects', 'place.stopIgnored': 'protects' },
  stage: 'scheme',
  look(c, find) {
    const { arrangement, exposed } = c;
    const severity = exposed === 'nobody' ? 'warn' : 'stop';
    const findings: Finding[] = [];
    const taken = firstThat(
      c,
      'place.takeover',
      (run) => !run.runs('start') && run.runs('keyRemote'),
    );
    if (taken && !statedOtherwise(c.job, 'place.remote'))
      findings.push(
        find('place.takeoverStarts', {
          severity,
          where: atPart(partOf(c, 'local')),
          args: {
            key: tagOfOperation(c, 'local'),
            run: tagOfOperation(c, arrangement.starts.forward),
          },
          source: 'IEC 60204-1 §9.2.3.3',
          rests: policyIn(c, 'onTakeover'),
          proof: taken.proof('keyRemote'),
        }),
      );
    const ignored = firstThat(c, 'place.stop', (run) => run.runs('keyStart') && run.runs('stop'));
    const [stop] = arrangement.stops;
    if (ignored && stop && !statedOtherwise(c.job, 'place.stop'))
      findings.push(
        find('place.stopIgnored', {
          severity,
          where: atPart(partOf(c, stop)),
          args: { stop: tagOfOperation(c, stop), key: tagOfOperation(c, 'local') },
          source: 'IEC 60204-1 §9.2.3.3: a stop acts from every place',
          rests: policyIn(c, 'terminalStopUnderKeypad'),
          proof: ignored.proof('stop'),
        }),
      );
    return findings;
  },
};

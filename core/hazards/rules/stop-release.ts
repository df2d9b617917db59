import { atPart, firstThat, partOf, policyIn, tagOfOperation, type HazardRule } from '../rule.js';

/** A start that is still held when the stop circuit closes again starts the motor: letting go of a stop is then a start. */
export const stopRelease: HazardRule = {
  finds: { 'stop.releaseStarts': 'protects' },
  stage: 'scheme',
  look(c, find) {
    const { arrangement, exposed } = c;
    const [stop] = arrangement.stops;
    if (arrangement.givenBy !== 'pulse' || !stop) return [];
    const found = firstThat(
      c,
      'stop.held',
      (run) => !run.runs('stopPressed') && run.runs('stopReleased'),
    );
    if (!found) return [];
    return [
      find('stop.releaseStarts', {
        severity: exposed === 'atMachine' ? 'stop' : 'warn',
        where: atPart(partOf(c, stop)),
        args: {
          start: tagOfOperation(c, arrangement.starts.forward),
          stop: tagOfOperation(c, stop),
          chained: arrangement.chained,
          relay: c.job.scheme.startStop === 'sealInRelay',
        },
        source: 'IEC 60204-1 §9.2.3.2; ISO 13850 for an emergency stop',
        rests: [policyIn(c, 'startEdgeWithStopReturn'), policyIn(c, 'onStartHeld')],
        proof: found.proof('stopReleased'),
      }),
    ];
  },
};

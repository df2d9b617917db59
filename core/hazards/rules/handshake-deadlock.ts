import { tagOf, type HazardRule } from '../rule.js';

/** Lamp of the controller's input that is told of a run. */
const TOLD = 'controller.runs';

/**
 * A controller that waits for the run contact before it gives a speed, and a device that tells a run only once there is a speed:
 * each waits for the other for ever.
 */
export const handshakeDeadlock: HazardRule = {
  finds: { 'handshake.deadlock': 'moves' },
  stage: 'scheme',
  look(c, find) {
    const { scheme } = c.job;
    const signalled = scheme.speed === 'voltage' || scheme.speed === 'current';
    if (!scheme.handshake || !signalled) return [];
    const run = c.trials.tried('dial.0');
    const signal = `${TOLD}.lit`;
    if (!run?.trace.signals.some((s) => s.id === signal) || run.at('start', signal) === 1)
      return [];
    return [
      find('handshake.deadlock', {
        severity: 'stop',
        where: [{ kind: 'device', id: TOLD }],
        args: { input: tagOf(c, TOLD), source: tagOf(c, c.arrangement.dial) },
        source: 'rehearsal: the run is given with the signal at its low end',
        rests: [scheme.minHz ?? 0],
        proof: run.proof('start'),
      }),
    ];
  },
};

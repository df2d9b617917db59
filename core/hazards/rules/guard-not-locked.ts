import type { Finding } from '../../job/index.js';
import { phaseOf, type Run } from '../../trials/index.js';
import { atPart, partOf, tagOfOperation, type HazardRule } from '../rule.js';

/** Nobody reaches in behind a guard within this time, s: longer than that it has to be held shut. */
const REACHED_S = 2;
const STANDSTILL_HZ = 0.05;

/** Time from the opening until the shaft stands for good, s; undefined where it is still turning at the end. */
function restsAfter(run: Run): number | undefined {
  const { fromMs } = phaseOf(run.trial, 'opens');
  const i = run.trace.signals.findIndex((s) => s.id === 'shaft.hz');
  const { t } = run.trace.segments[i];
  const end = phaseOf(run.trial, 'opens').lookMs;
  if (Math.abs(run.at('opens', 'shaft.hz')) > STANDSTILL_HZ) return undefined;
  const last = t.findLast((at) => at <= end * 1000 && at >= fromMs * 1000);
  return last === undefined ? 0 : (last / 1000 - fromMs) / 1000;
}

/** Whether how the shaft runs down is known: with inertia or load missing no time can be told. */
const isKnown = (run: Run): boolean => {
  const i = run.trace.signals.findIndex((s) => s.id === 'shaft.state');
  const unknown = run.trace.signals[i].states?.indexOf('runsDownUnknown') ?? -1;
  return !run.trace.segments[i].y.includes(unknown);
};

/** A guard that can be opened under way while the machine turns on for longer than it takes to reach in. */
export const guardNotLocked: HazardRule = {
  finds: { 'guard.turnsOn': 'protects' },
  stage: 'scheme',
  look(c, find) {
    const id = 'interlock.guard';
    const run = c.arrangement.interlocks.includes(id) ? c.trials.tried(id) : undefined;
    // What a lock is for is a requirement of its own.
    if (c.arrangement.lock) return [];
    if (!run?.runs('start') || run.runs('opens') || !isKnown(run)) return [];
    const time = restsAfter(run);
    if (time !== undefined && time <= REACHED_S) return [];
    const shown: Finding['args'] = time === undefined ? {} : { s: Math.round(time * 10) / 10 };
    return [
      find('guard.turnsOn', {
        severity: 'warn',
        where: atPart(partOf(c, id)),
        args: { device: tagOfOperation(c, id), ...shown },
        source:
          'ISO 14119 §6.2: guard locking where the stopping time is longer than the access time',
        proof: run.proof('opens'),
      }),
    ];
  },
};

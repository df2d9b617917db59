import type { Model, Profile } from '../catalogue/index.js';
import { findingKey, hashOf, type Finding, type Job } from '../job/index.js';
import { installAtSpeed, type Installation, type InstalledDrive } from '../installation/index.js';
import { rehearse, signalAt, type Trace } from '../rehearsal/index.js';
import { actsOf, arrange, give, powerUp, READY_MS, startActs, take, type Arrangement } from '../scheme/index.js';

/** What every rule may look at. */
export interface HazardContext {
  readonly job: Job;
  readonly profile: Profile;
  readonly model: Model;
  readonly arrangement: Arrangement;
  readonly installation: Installation;
  readonly drive: InstalledDrive;
}

export type Rule = (c: HazardContext) => Finding[];

/** Builds the context; undefined until a plan is adopted. */
export function hazardContext(job: Job, profile: Profile): HazardContext | undefined {
  const model = profile.models.find((m) => m.name === job.profile.model);
  if (!job.adopted || !model) return undefined;
  const installation = installAtSpeed(job, profile, 1);
  const drive = installation.devices.find((d): d is InstalledDrive => d.kind === 'drive');
  return drive && { job, profile, model, arrangement: arrange(job), installation, drive };
}

function make(
  rule: string,
  subject: string,
  severity: Finding['severity'],
  where: Finding['where'],
  args: Finding['args'],
  source: string,
  more: unknown,
  proof?: Finding['proof'],
): Finding {
  return { key: findingKey(rule, subject), rule, severity, where, args, source, basis: hashOf([rule, subject, severity, args, more]), proof };
}

const tag = (job: Job, device: string): string => job.adopted?.devices[device]?.tag ?? device;
const running = (trace: Trace, ms: number): boolean => Math.abs(signalAt(trace, 'drive.hz', ms * 1000)) > 0;

/** Two-wire control that starts the motor by itself when power comes back. */
export const restartWhenPowerReturns: Rule = ({ job, arrangement, installation, drive }) => {
  const start = arrangement.inputs.find((f) => f.id === arrangement.starts.forward);
  if (!start) return [];
  const acts = actsOf(
    ...powerUp(arrangement, 1),
    ...startActs(arrangement, 'forward', READY_MS),
    { do: 'supplyOff', atMs: 15_000 },
    { do: 'supplyOn', atMs: 40_000 },
  );
  const trace = rehearse(installation, acts, 50_000);
  const stated = job.scheme.powerReturn === 'restart';
  if (!running(trace, 49_000)) {
    const args = { pulse: arrangement.givenBy === 'pulse', device: tag(job, start.device) };
    return stated
      ? [
          make(
            'restart.notPossible',
            '',
            'warn',
            [{ kind: 'device', id: start.device }],
            args,
            'rehearsal of this wiring and these settings',
            drive.control.onPowerReturn,
          ),
        ]
      : [];
  }
  const exposed = job.scheme.exposed ?? 'atMachine';
  const severity = exposed === 'nobody' && stated ? 'advise' : exposed === 'behindGuard' && stated ? 'warn' : 'stop';
  const args = { stated, exposed, device: tag(job, start.device), afterS: drive.control.powerUpDelayMs / 1000 };
  return [
    make('restart.powerReturn', '', severity, [{ kind: 'device', id: start.device }], args, 'IEC 60204-1 §7.5; NFPA 79 §7.5', drive.control.onPowerReturn, {
      script: 'power.return',
      atUs: 41_000_000,
    }),
  ];
};

/** Both directions given together and one released: the motor starts the other way by itself. */
export const bothDirectionsReleased: Rule = ({ job, arrangement, installation, drive }) => {
  const [forward, reverse] = ['forward', 'reverse'].map((task) => arrangement.inputs.find((f) => f.task === task));
  if (!forward || !reverse || forward.device === reverse.device) return [];
  const acts = actsOf(
    ...powerUp(arrangement, 1),
    give(arrangement, forward.id, READY_MS),
    give(arrangement, reverse.id, 12_000),
    take(arrangement, forward.id, 30_000),
  );
  const trace = rehearse(installation, acts, 45_000);
  if (signalAt(trace, 'drive.hz', 44_000_000) >= 0) return [];
  const args = { policy: drive.control.onBothDirections, forward: tag(job, forward.device), reverse: tag(job, reverse.device) };
  return [make('directions.releasedToOne', '', 'warn', [{ kind: 'device', id: forward.device }, { kind: 'device', id: reverse.device }], args, 'IEC 60204-1 §9.2.3.3 interlocking of contradictory functions', [], { script: 'directions.together', atUs: 31_000_000 })]; // prettier-ignore
};

/** A start that is still held when the stop circuit closes again starts the motor: letting go of a stop is then a start. */
export const stopReleaseStarts: Rule = ({ job, arrangement, installation, drive }) => {
  const start = arrangement.starts.forward;
  if (arrangement.givenBy !== 'pulse' || !start || !arrangement.stop) return [];
  const acts = actsOf(...powerUp(arrangement, 1), give(arrangement, start, READY_MS), give(arrangement, arrangement.stop, 15_000), take(arrangement, arrangement.stop, 40_000));
  const trace = rehearse(installation, acts, 55_000);
  if (running(trace, 39_000) || !running(trace, 54_000)) return [];
  const [by, of] = [start, arrangement.stop].map((id) => tag(job, arrangement.inputs.find((f) => f.id === id)?.device ?? ''));
  const chained = arrangement.inputs.some((f) => f.fedThrough);
  const exposed = job.scheme.exposed ?? 'atMachine';
  return [
    make('stop.releaseStarts', '', exposed === 'atMachine' ? 'stop' : 'warn', [{ kind: 'device', id: 'button.stop' }], { start: by, stop: of, chained }, 'IEC 60204-1 §9.2.3.2; ISO 13850 for an emergency stop', [drive.control.startEdgeWithStopReturn, drive.control.onStartHeld], {
      script: 'stop.release',
      atUs: 40_000_000,
    }),
  ];
}; // prettier-ignore

/** A contact that is closed and switches no input: common link missing or wrong, wire missing, voltage uncertain. */
export const inputsSwitch: Rule = ({ arrangement, installation, drive, job, profile }) => {
  const found: Finding[] = [];
  const dead: string[] = [];
  for (const f of arrangement.inputs) {
    const terminal = job.adopted?.assignments[f.id]?.at.split(':')[1];
    if (!terminal) continue;
    const trace = rehearse(installation, actsOf(...powerUp(arrangement, 0), give(arrangement, f.id, READY_MS)), READY_MS + 500);
    const level = (ms: number): number => signalAt(trace, `drive.${terminal}`, ms * 1000);
    if (level(READY_MS + 400) !== level(READY_MS - 100)) continue;
    dead.push(f.id);
    found.push(
      make(
        'input.doesNotSwitch',
        f.id,
        'stop',
        [{ kind: 'landing', id: `drive:${terminal}` }],
        { terminal, device: tag(job, f.device) },
        'rehearsal of this wiring',
        [job.adopted?.wires, job.adopted?.links],
        { script: 'input', atUs: READY_MS * 1000 },
      ),
    );
  }
  const common = Object.entries(profile.terminals).find(([, t]) => t.kind === 'inputCommon')?.[0];
  if (dead.length === 0 || dead.length < arrangement.inputs.length || !common) return found;
  const link = drive.links.find((l) => Object.values(l.positions).some((p) => p.edges.length > 0));
  return [
    make(
      'input.commonMissing',
      '',
      'stop',
      [{ kind: 'landing', id: `drive:${common}` }],
      { common, link: link?.id ?? '', position: link?.position ?? '' },
      'rehearsal of this wiring',
      [job.adopted?.wires, job.adopted?.links],
    ),
  ];
};

/** Only forward is wanted and the device would follow a reverse command. */
export const directionNotLocked: Rule = ({ job, drive }) => {
  if (job.scheme.direction !== 'forwardOnly' || drive.control.noReverse) return [];
  const reverse = drive.inputs.find((i) => ['reverse', 'direction', 'startReverse', 'jogReverse'].includes(i.task));
  const where: Finding['where'] = reverse ? [{ kind: 'landing', id: `drive:${reverse.terminal}` }] : [{ kind: 'device', id: 'drive' }];
  return [
    make(
      'direction.notLocked',
      '',
      'warn',
      where,
      { terminal: reverse?.terminal ?? '', machine: job.machine },
      'keypad or a stray input may ask for reverse',
      [],
    ),
  ];
};

/** A device that behaves in an unknown way where it matters: the worse was simulated. */
export const unknownPolicy: Rule = ({ profile, arrangement }) => {
  const chained = arrangement.inputs.some((f) => f.fedThrough) ? ['startEdgeWithStopReturn'] : [];
  const matters = ['onPowerReturn', 'onBothDirections', 'onFaultReset', 'onTakeover', ...chained];
  return matters
    .filter((name) => profile.policies[name] === 'unknown')
    .map((name) => make('policy.unknown', name, 'warn', [{ kind: 'device', id: 'drive' }], { policy: name, device: profile.title }, 'device profile', []));
};

import type { Finding } from '../../job/index.js';
import type { Installation, InstalledDrive } from '../../installation/index.js';
import { rehearse, signalAt, voltsAt } from '../../rehearsal/index.js';
import {
  actsOf,
  give,
  operationsOn,
  powerUp,
  READY_MS,
  startActs,
  type Arrangement,
} from '../../scheme/index.js';
import { deviceOf, make, tagOf, type Rule } from './context.js';

/** A contact that is closed and switches no input: common link missing or wrong, wire missing, voltage uncertain. */
export const inputsSwitch: Rule = ({ arrangement, installation, drive, job, profile }) => {
  const found: Finding[] = [];
  const dead: string[] = [];
  for (const f of arrangement.inputs) {
    const terminal = job.adopted?.assignments[f.id]?.at.split(':')[1];
    const input = drive.inputs.find((i) => i.terminal === terminal);
    if (!terminal || !input) continue;
    const end = READY_MS + 500 + arrangement.warningMs;
    const switches = operationsOn(arrangement, f).some((operation) => {
      const trace = rehearse(
        installation,
        actsOf(...powerUp(arrangement, 0), give(arrangement, operation, READY_MS)),
        end,
      );
      return (
        signalAt(trace, `drive.${terminal}`, (end - 100) * 1000) !==
        signalAt(trace, `drive.${terminal}`, (READY_MS - 100) * 1000)
      );
    });
    if (switches) {
      found.push(...uncertain({ arrangement, installation, job }, f, terminal, input));
      continue;
    }
    dead.push(f.id);
    const args = { terminal, device: tagOf(job, f.device) };
    found.push(
      make(
        'input.doesNotSwitch',
        f.id,
        'stop',
        [{ kind: 'landing', id: `drive:${terminal}` }],
        args,
        'rehearsal of this wiring',
        [job.adopted?.wires, job.adopted?.links],
        { script: 'input', atUs: READY_MS * 1000 },
      ),
    );
  }
  const common = Object.entries(profile.terminals).find(([, t]) => t.kind === 'inputCommon')?.[0];
  if (
    dead.length === 0 ||
    dead.length < arrangement.inputs.length ||
    !common ||
    isJoined(installation, drive, arrangement, `drive:${common}`)
  )
    return found;
  const link = drive.links.find((l) => Object.values(l.positions).some((p) => p.edges.length > 0));
  const args = { common, link: link?.id ?? '', position: link?.position ?? '' };
  return [
    make(
      'input.commonMissing',
      '',
      'stop',
      [{ kind: 'landing', id: `drive:${common}` }],
      args,
      'rehearsal of this wiring',
      [job.adopted?.wires, job.adopted?.links],
    ),
  ];
};

/** Whether the input common lies on one of the poles of the device's own supply. */
function isJoined(
  installation: Installation,
  drive: InstalledDrive,
  arrangement: Arrangement,
  common: string,
): boolean {
  if (!drive.supply24) return false;
  const trace = rehearse(installation, powerUp(arrangement, 0), READY_MS);
  const at = installation.landings.indexOf(common);
  return [installation.edgeA, installation.edgeB].some((ends) => {
    const v = voltsAt(trace, at, ends[(drive.supply24 as { edge: number }).edge], READY_MS * 1000);
    return v !== null && Math.abs(v.dc) < 0.5;
  });
}

/** A voltage between the thresholds while the contact is open: leakage, or two supplies against each other. */
function uncertain(
  {
    arrangement,
    installation,
    job,
  }: Pick<Parameters<Rule>[0], 'arrangement' | 'installation' | 'job'>,
  f: { id: string; device: string },
  terminal: string,
  input: { plus: number; minus: number; onUv: number; offUv: number },
): Finding[] {
  const trace = rehearse(installation, powerUp(arrangement, 0), READY_MS);
  const volts = Math.abs(voltsAt(trace, input.plus, input.minus, READY_MS * 1000)?.dc ?? 0);
  if (volts * 1e6 <= input.offUv || volts * 1e6 >= input.onUv) return [];
  return [
    make(
      'input.uncertain',
      f.id,
      'warn',
      [{ kind: 'landing', id: `drive:${terminal}` }],
      { terminal, device: tagOf(job, f.device), volts: Math.round(volts * 10) / 10 },
      'IEC 61131-2 type 1',
      [job.adopted?.wires],
    ),
  ];
}

/** Supplies of the device loaded beyond what they give: 24 V for coils and lamps, 10 V for a dial. */
export const suppliesBear: Rule = ({ arrangement, installation, drive, profile, job }) => {
  const findings: Finding[] = [];
  const acts = actsOf(...powerUp(arrangement, 1), ...startActs(arrangement, 'forward', READY_MS));
  const end = READY_MS + 2000;
  const trace = rehearse(installation, acts, end);
  const { supply24 } = drive;
  if (supply24) {
    const [a, b] = [installation.edgeA[supply24.edge], installation.edgeB[supply24.edge]];
    // Also while the start is held: a coil that is too heavy never pulls in, and is off again when it is let go.
    const volts = Math.min(
      ...[READY_MS - 100, READY_MS + 200, end].map(
        (ms) => voltsAt(trace, a, b, ms * 1000)?.dc ?? 0,
      ),
    );
    if (volts < supply24.volts * 0.85)
      findings.push(
        make(
          'supply24.overload',
          '',
          'stop',
          deviceOf('drive'),
          { volts: Math.round(volts * 10) / 10, maxMA: supply24.amps * 1000 },
          'device profile',
          [job.adopted?.devices],
        ),
      );
  }
  const ten = Object.values(profile.terminals).find((t) => t.kind === 'reference10');
  const dial = installation.devices.find((d) => d.kind === 'dial');
  if (ten?.kind === 'reference10' && dial?.kind === 'dial') {
    const leastOhm = ten.volts / ten.maxA;
    if (dial.ohm < leastOhm)
      findings.push(
        make(
          'reference10.overload',
          '',
          'warn',
          deviceOf(dial.id),
          {
            device: dial.tag,
            ohm: dial.ohm,
            leastOhm: Math.ceil(leastOhm),
            maxMA: ten.maxA * 1000,
          },
          'device profile',
        ),
      );
  }
  return findings;
};

/** A relay that switches itself on and off without end, or a circuit that never settles. */
export const circuitSettles: Rule = ({ arrangement, installation, job }) => {
  const trace = rehearse(
    installation,
    actsOf(...powerUp(arrangement, 1), ...startActs(arrangement, 'forward', READY_MS)),
    READY_MS + 3000,
  );
  const unsettled = trace.events.some((e) => e.what === 'unsettled') ? ['wires'] : [];
  const chattering = trace.signals
    .filter((s) => s.id.endsWith('.chatters') && signalAt(trace, s.id, trace.endUs) === 1)
    .map((s) => s.of.id);
  return [...unsettled, ...chattering].map((id) =>
    make(
      'circuit.chatters',
      id,
      'stop',
      deviceOf(id),
      { device: tagOf(job, id) },
      'rehearsal of this wiring',
      [job.adopted?.wires],
    ),
  );
};

/** What a lamp seems to say and does not: the stop is released, not that anything runs. */
export const lampSaysLess: Rule = ({ job }) =>
  (job.scheme.lamps ?? []).includes('stopReleased')
    ? [
        make(
          'lamp.saysLess',
          '',
          'advise',
          deviceOf('lamp.stopReleased'),
          { lamp: tagOf(job, 'lamp.stopReleased') },
          'IEC 60204-1 §10.3',
        ),
      ]
    : [];

/** Power switched on and off at the contactor as the normal way of starting and stopping. */
export const contactorAsStart: Rule = ({ job, profile, arrangement }) => {
  if (job.scheme.startStop !== 'lineContactor') return [];
  const args = {
    contactor: tagOf(job, arrangement.contactor),
    perHour: profile.supplyOperationsPerHour ?? 0,
  };
  return [
    make(
      'contactor.normalStops',
      '',
      'warn',
      deviceOf(arrangement.contactor),
      args,
      'device profile: operations of the supply an hour',
    ),
  ];
};

/** A work light that must stay on, or a fan that must go: as the circuit really does it when the contactor drops. */
export const loadsOnTheirSide: Rule = ({ job, arrangement, installation }) => {
  const { contactor } = arrangement;
  if (!contactor || !arrangement.power) return [];
  const off = READY_MS + 1000;
  const trace = rehearse(
    installation,
    actsOf(...powerUp(arrangement, 0), give(arrangement, arrangement.power.off, off)),
    off + 500,
  );
  return (
    [
      ['workLight', 'light.work'],
      ['panelFan', 'fan.panel'],
    ] as const
  ).flatMap(([wish, id]) => {
    const side = job.scheme[wish];
    if (!side || side === 'none' || !job.adopted?.devices[id]) return [];
    const lit = signalAt(trace, `${id}.lit`, (off + 400) * 1000) === 1;
    return lit === (side === 'stays')
      ? []
      : [
          make(
            'load.wrongSide',
            id,
            'warn',
            deviceOf(id),
            { device: tagOf(job, id), stays: side === 'stays', contactor: tagOf(job, contactor) },
            'rehearsal of this wiring',
            [job.adopted.wires],
          ),
        ];
  });
};

import { changesSpeed, linkTerminals, modelOf, type Profile } from '../../catalogue/index.js';
import { hashOf, type Expectation, type Job, type ProcedureStep } from '../../job/index.js';
import { contactsOf } from '../../parts/index.js';
import { linkLines } from '../../plan/index.js';
import { canTest, phrase, state, stepContext, tagOf, type StepContext } from '../context.js';
import { marked } from '../marks.js';
import { noWay, round, type Draft } from './draft.js';
import { dial } from './dial.js';
import { powerSection } from './power-section.js';
import { otherSources } from './sources.js';
import { DeadPanel, loopsOf, protectiveOf, unseenOf, type Loop } from './loops.js';
import { coils, isJumper, relaysAtRest, singles } from './singles.js';

/** Below this a DC link is discharged, V (IEC 61800-5-1). */
const DISCHARGED_V = 60;
/** Insulation of machine wiring with 500 V: at least 1 MΩ; motors by modern practice at least 5 MΩ. */
const INSULATION = { least: 1, good: 5, most: 100_000 } as const;

const atMost = (ohm: number, hi: number): Expectation => ({
  kind: 'range',
  lo: 0,
  hi: round(hi),
  nominal: round(ohm, 3),
  unit: 'Ω',
});

/** Every source off, locked and proved dead; the link discharged. */
function isolate(c: StepContext): Draft[] {
  const { arrangement: a, job, device } = c;
  const off = a.isolator ?? a.mainBreaker;
  const others = otherSources(c);
  const mains = device.mains.landings.map((i) => marked(c, c.installation.landings[i]));
  const args: Record<string, string | boolean> = {
    off: tagOf(c, off),
    others: others.join(', '),
    at: mains.join(', '),
    ...(job.plate.line?.isolator?.plug ? { plug: true } : {}),
  };
  const [plus, minus] = linkTerminals(c.profile);
  // What changes the speed keeps a charge in its link, whether it can be measured or not.
  const waits = changesSpeed(c.profile);
  const from = {
    kind: 'standard',
    name: job.practice === 'NFPA' ? 'NFPA 70E article 120' : 'EN 50110-1 §6.2, dead working',
  } as const;
  const drafts: Draft[] = [
    {
      key: 'dead.isolate.locked',
      act: 'dead.isolate',
      do: phrase('dead.lock', args),
      must: phrase('dead.lock.must', args),
      expect: state('done'),
    },
    {
      key: 'dead.isolate.proved',
      act: 'dead.isolate',
      do: phrase('dead.prove', args),
      must: phrase('isolator.dead.must', { foreign: '' }),
      expect: state('dead'),
      instrument: 'voltage tester',
      ...(plus && minus ? {} : waits ? {} : { hold: true }),
    },
    ...(!(plus && minus) && waits
      ? [
          {
            key: 'dead.isolate.wait',
            act: 'dead.isolate',
            do: phrase('dead.wait', { device: tagOf(c, device.id), s: c.profile.dischargeS }),
            must: phrase('dead.wait.must'),
            expect: state('done'),
            hold: true,
          } satisfies Draft,
        ]
      : []),
    ...(plus && minus
      ? [
          {
            key: 'dead.isolate.link',
            act: 'dead.isolate',
            do: phrase('dead.link', {
              plus: marked(c, `${device.id}:${plus}`),
              minus: marked(c, `${device.id}:${minus}`),
            }),
            must: phrase('dead.link.must', { volts: DISCHARGED_V }),
            expect: { kind: 'range', lo: 0, hi: DISCHARGED_V, nominal: 0, unit: 'V' },
            instrument: 'voltmeter',
            hold: true,
          } satisfies Draft,
        ]
      : []),
  ];
  return drafts.map((draft) => ({ ...draft, from }));
}

/** Jumpers between two terminals of the device, as they are marked. */
const jumpersOf = (c: StepContext): string[] =>
  Object.values(c.job.adopted?.wires ?? {})
    .filter((w) => isJumper(c, w))
    .map((w) => `${marked(c, w.from)}–${marked(c, w.to)}`)
    .sort();

/** What was delivered, against what was planned: damage, type and voltage of its plate, links and slide switches, jumpers. */
function delivered(c: StepContext): Draft[] {
  const links = linkLines(c.job, c.profile);
  const jumpers = jumpersOf(c);
  const { phases, volts } = c.profile.supply;
  const model = modelOf(c.profile, c.job.profile.model);
  const device = tagOf(c, c.device.id);
  return [
    {
      key: 'dead.links',
      act: 'dead.links',
      do: phrase('dead.links', { device, links: links.length > 0, jumpers: jumpers.length > 0 }),
      must: phrase('dead.links.must', {
        model: c.job.profile.model,
        phases,
        fromV: volts[0],
        toV: volts[1],
        amps: model?.ratedA ?? 0,
        links: links.map((l) => `${l.id} “${l.stands}”`).join(', '),
        jumpers: jumpers.join(', '),
      }),
      expect: state('asPlanned'),
      from: { kind: 'standard', name: 'plan of this job' },
    },
  ];
}

/** Each protective conductor, by the resistance of its copper. */
const protective = (c: StepContext): Draft[] =>
  protectiveOf(c).map(({ wire, number, from, to, ohm }) => ({
    key: `dead.pe.${wire}`,
    act: 'dead.pe',
    do: phrase('dead.pe', { wire: number, from: marked(c, from), to: marked(c, to) }),
    must: phrase('dead.pe.must', { ohm: round(ohm, 3) }),
    expect: atMost(ohm, (1 + c.within.protectiveShare) * ohm + c.within.protectiveOhm),
    instrument: 'low-ohm meter',
    from: { kind: 'standard', name: 'IEC 60204-1 §18.2.2; copper by length and size' },
  }));

/** Where a part is put that stays there; nothing for what is only held, which is pressed. */
function workedTo(
  { job }: StepContext,
  { device, position }: { readonly device: string; readonly position?: string },
): string {
  const part = job.adopted?.devices[device];
  const set = part && contactsOf(part);
  if (position !== undefined || !set || set.momentary || set.latching) return position ?? '';
  return set.positions.find((p) => p !== set.rest) ?? '';
}

/** Both wires and the contact of each loop at once. */
function loops(c: StepContext, found: readonly Loop[]): Draft[] {
  return found.flatMap(({ id, name, at, rest, worked }): Draft[] => {
    const operation = c.arrangement.operations[id];
    const args = {
      a: marked(c, at[0]),
      b: marked(c, at[1]),
      device: tagOf(c, operation?.device ?? ''),
      position: operation ? workedTo(c, operation) : '',
      estop: id === c.arrangement.estop,
    };
    const each = [rest, worked].map((ohm) =>
      ohm === null ? noWay : atMost(ohm, (1 + c.within.wireShare) * ohm + c.within.wireOhm),
    );
    return [
      {
        key: `dead.loop.${name}.${id}`,
        act: `dead.loop.${name}`,
        do: phrase('dead.loop', args),
        must: phrase('dead.loop.must', {
          ohm: round(rest ?? worked ?? 0),
          makes: rest === null,
        }),
        expect: each[0],
        each,
        fields: ['atRest', 'worked'],
        instrument: 'ohmmeter',
      },
    ];
  });
}

/** Nothing of the control lies on earth but what is bonded; the motor's insulation; nothing left inside. */
function close(c: StepContext, panel: DeadPanel): Draft[] {
  const { device, profile } = c;
  const plus = Object.entries(profile.terminals).find(([, t]) => t.kind === 'supply24')?.[0];
  const pe = c.installation.landings.find((l) => l === 'supply:PE');
  const earth = plus && pe ? panel.ohms(`${device.id}:${plus}`, pe) : null;
  const free = plus !== undefined && pe !== undefined && (earth === null || earth > 10_000);
  return [
    ...(free
      ? [
          {
            key: 'dead.earth',
            act: 'dead.close',
            do: phrase('dead.earth', { at: marked(c, `${device.id}:${plus}`) }),
            must: phrase('dead.open'),
            expect: state('openLoop'),
            instrument: 'ohmmeter',
          } satisfies Draft,
        ]
      : []),
    {
      key: 'dead.insulation',
      act: 'dead.close',
      do: phrase('dead.insulation', { motor: tagOf(c, 'motor'), device: tagOf(c, device.id) }),
      must: phrase('dead.insulation.must', { ...INSULATION }),
      expect: {
        kind: 'range',
        lo: INSULATION.least,
        hi: INSULATION.most,
        nominal: INSULATION.good,
        unit: 'MΩ',
      },
      instrument: 'insulation tester',
      cautions: ['insulation'],
      from: { kind: 'standard', name: 'IEC 60204-1 §18.3; IEEE Std 43' },
    },
    {
      key: 'dead.covers',
      act: 'dead.close',
      do: phrase('dead.covers'),
      must: phrase('dead.covers.must'),
      expect: state('done'),
      hold: true,
      from: { kind: 'standard', name: 'torques of the maker' },
    },
  ];
}

/** The dead checks of a job. */
export interface Dead {
  readonly steps: readonly ProcedureStep[];
  /** Landings whose way only a relay closes: seen in the live tests, not here. */
  readonly unseen: readonly string[];
}

const kept = new WeakMap<Job, WeakMap<Profile, Dead>>();
const nothing: Dead = { steps: [], unseen: [] };
const noneWrong: ReadonlySet<string> = new Set();

/**
 * Dead checks of this very job, generated from its own wiring: isolated and proved dead first; protective conductors by their
 * copper; each loop of the control by two leads at the device's own terminals, expected ohms from the circuit; what no loop
 * shows one by one; dial, coils, earth, insulation, covers.
 *
 * @param wrong keys of loops that have been read wrong: their wires and contacts are asked for one by one
 * @returns nothing without an adopted plan, or for a device that cannot be planned
 * @example deadOf(job, profile).steps.filter((s) => s.act === 'dead.pe').length
 */
export function deadOf(job: Job, profile: Profile, wrong: ReadonlySet<string> = noneWrong): Dead {
  if (wrong.size > 0) return makeDead(job, profile, wrong);
  const known = kept.get(job)?.get(profile);
  if (known) return known;
  const made = makeDead(job, profile, wrong);
  const byProfile = kept.get(job) ?? new WeakMap<Profile, Dead>();
  kept.set(job, byProfile.set(profile, made));
  return made;
}

function makeDead(job: Job, profile: Profile, wrong: ReadonlySet<string>): Dead {
  if (!canTest(job, profile)) return nothing;
  const c = stepContext(job, profile);
  const panel = new DeadPanel(c);
  const found = loopsOf(c, panel);
  const first = isolate(c);
  const needs = first.map((s) => s.key);
  const rest = [
    ...delivered(c),
    ...protective(c),
    ...loops(c, found),
    ...dial(c, panel),
    ...singles(c, panel, found, wrong),
    ...coils(c, panel),
    ...relaysAtRest(c, panel),
    ...powerSection(c),
    ...close(c, panel),
  ];
  const steps = [...first, ...rest].map(({ cautions = [], from, ...draft }, i): ProcedureStep => ({
    ...draft,
    part: 'dead',
    cautions: [...(i < first.length ? ['provesDead'] : []), ...cautions],
    needs: i < first.length ? [] : needs,
    // Locking and proving come before it can be declared.
    ...(i < first.length ? {} : { isolation: 'DEAD' }),
    from: from ?? { kind: 'formula', name: 'ohms of this job’s own circuit' },
    basis: hashOf([draft.key, draft.do, draft.must, draft.expect, ...(draft.each ?? [])]),
  }));
  return { steps, unseen: unseenOf(c, found) };
}

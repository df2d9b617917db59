import { acceptanceOf, checkJob, isAcceptable, unmetRequirements } from '../hazards/index.js';
import { shippedProfile, shippedProfiles, type Profile } from '../catalogue/index.js';
import { landingParts, verdictOfStep, type Evidence, type Job, type Scheme } from '../job/index.js';
import { adoption, planJob } from '../plan/index.js';
import { liveSteps } from '../procedure/index.js';
import { bareJob } from '../testing/jobs.js';
import { everyArrangement } from '../testing/matrix.js';
import { trialsOf } from '../trials/index.js';
import { say, sayRequirement } from '../words/index.js';
import { judged } from './index.js';

const cases = everyArrangement();
const byFamily = new Map<string, typeof cases>();
for (const c of cases)
  byFamily.set(c.profile.family, [...(byFamily.get(c.profile.family) ?? []), c]);

/** A job whose part is bridged: what its contacts let through is fed past them. */
function bridged(job: Job, part: string): Job {
  const copy = structuredClone(job);
  const wires = Object.values(copy.adopted?.wires ?? {});
  const at = (end: string): boolean => landingParts(end).device === part;
  const feeds = new Map<string, string>();
  for (const w of wires)
    for (const [mine, other] of [
      [w.from, w.to],
      [w.to, w.from],
    ])
      if (at(mine)) feeds.set(landingParts(mine).terminal, other);
  // A contact's terminals are numbered in pairs: 11 and 12, 21 and 22.
  for (const w of wires) {
    const { device, terminal } = landingParts(w.to);
    if (device !== part || !terminal.endsWith('2')) continue;
    const feed = feeds.get(terminal.replace(/2$/u, '1'));
    if (feed) w.to = feed;
  }
  for (const w of wires) {
    const { device, terminal } = landingParts(w.from);
    if (device !== part || !terminal.endsWith('2')) continue;
    const feed = feeds.get(terminal.replace(/2$/u, '1'));
    if (feed) w.from = feed;
  }
  return copy;
}

/** A scheme planned on every drive family that can carry it. */
function planned(scheme: Scheme): { name: string; job: Job; profile: Profile }[] {
  return Object.keys(shippedProfiles).flatMap((family) => {
    const profile = shippedProfile(family);
    if (profile.kind !== 'drive') return [];
    const model = profile.models.find((m) => m.ratedA >= 5) ?? profile.models[0];
    const job = { ...bareJob({}, profile, model.name), scheme };
    const plan = planJob(job, profile);
    const name = `${family} ${JSON.stringify(scheme)}`;
    return plan.ok ? [{ name, job: { ...job, adopted: adoption(plan) }, profile }] : [];
  });
}

/** What a held start does to a latch beside the device, and an emergency stop in the supply alone to a level run. */
const lacking =
  /^(?:stop\.1\.released|estop\.(?:blocks|released)|interlock\.output\.released|place\.stop)$/u;

const unmetOf = (job: Job, profile: Profile): string[] =>
  judged(trialsOf(job, profile))
    .filter((j) => j.state === 'notMet')
    .map((j) => j.requirement.id);

describe('required functions', () => {
  for (const [family, own] of byFamily)
    it(`of every arrangement on ${family} are met as planned, or a finding that must be fixed says so`, () => {
      for (const { name, job, profile } of own) {
        const all = judged(trialsOf(job, profile));
        const severe = checkJob(job, profile).filter((f) => f.severity === 'stop');
        expect(all.length).withContext(name).toBeGreaterThan(2);
        for (const { requirement, state, proof } of all) {
          const context = `${name}: ${requirement.id}`;
          expect(state).withContext(context).not.toBe('undecided');
          // Shipped arrangements lack only what these schools lack by their nature.
          if (state === 'notMet') expect(requirement.id).withContext(context).toMatch(lacking);
          if (state === 'notMet')
            expect(severe.map((f) => f.proof?.script))
              .withContext(context)
              .toContain(proof?.script);
          expect(sayRequirement(requirement.id, { device: 'S1', start: 'S2' }))
            .withContext(context)
            .toMatch(/\.$/u);
        }
      }
    });

  for (const [family, own] of byFamily)
    it(`of an emergency stop, a guard or a foot stop that is bridged are not met on ${family}`, () => {
      let tried = 0;
      for (const { name, job, profile } of own) {
        const { arrangement } = trialsOf(job, profile);
        const parts = [
          ...(arrangement.estop && !arrangement.contactor ? [['estop', arrangement.estop]] : []),
          ...arrangement.interlocks.map((id) => [id, id]),
        ] as [string, keyof typeof arrangement.operations][];
        for (const [id, operation] of parts) {
          const part = arrangement.operations[operation]?.device;
          if (!part) continue;
          const bad = bridged(job, part);
          if (JSON.stringify(bad.adopted?.wires) === JSON.stringify(job.adopted?.wires)) continue;
          tried++;
          expect(unmetOf(bad, profile))
            .withContext(`${name} ${part}`)
            .toEqual(jasmine.arrayContaining([`${id}.stops`]));
        }
      }
      expect(tried > 1 || own.every((c) => !trialsOf(c.job, c.profile).arrangement.usesEnables))
        .withContext(`${tried} bridged`)
        .toBeTrue();
    });

  it('decide what is expected live: a dead emergency stop is no pass, whichever answer is given, and cannot be accepted', () => {
    const found = cases.find(({ job, profile }) => {
      const { arrangement } = trialsOf(job, profile);
      return arrangement.usesEnables && arrangement.givenBy === 'pulse';
    });
    if (!found) throw new Error('no arrangement takes the enables');
    const { job, profile } = found;
    const step = (of: Job) => liveSteps(of, profile).find((s) => s.key === 'estop.stops');
    const sound = step(job);
    expect([sound?.expect, sound?.requirement]).toEqual([
      { kind: 'state', is: 'stopped' },
      { id: 'estop.stops' },
    ]);
    const bad = bridged(job, 'estop');
    const dead = step(bad);
    expect([dead?.expect, dead?.requirement]).toEqual([
      { kind: 'state', is: 'stopped' },
      { id: 'estop.stops', unmet: 'runsForward' },
    ]);
    if (!sound || !dead) return;
    expect(['stopped', 'forward'].map((is) => verdictOfStep(dead, is))).toEqual(['fail', 'fail']);
    expect(['stopped', 'forward'].map((is) => verdictOfStep(sound, is))).toEqual(['pass', 'fail']);
    expect(unmetRequirements(bad, profile).get('estop.stops')?.does).toBe('runsForward');
    const finding = checkJob(bad, profile).find((f) => f.key === 'requirement.notMet:estop.stops');
    expect([finding?.severity, finding?.rank, finding && isAcceptable(finding)]).toEqual([
      'stop',
      'protects',
      false,
    ]);
    expect(finding && acceptanceOf(finding, [{ kind: 'acceptance' } as Evidence])).toBeUndefined();
  });

  it('are stated otherwise by a person, by name and role, but never an emergency stop that does nothing', () => {
    const stated = (job: Job, id: string): Job => ({
      ...job,
      decisions: {
        ...job.decisions,
        notRequired: { [id]: { why: 'nobody can reach it', by: 'A. B.', role: 'safety officer' } },
      },
    });
    const chained = cases.find((c) => c.name === 'marrowick-f threeWireChained');
    if (!chained) throw new Error('no chained station');
    const { profile } = chained;
    const step = (job: Job) => liveSteps(job, profile).find((s) => s.key === 'stop.released');
    expect(step(chained.job)?.requirement).toEqual({
      id: 'stop.1.released',
      unmet: 'runsForward',
    });
    const job = stated(chained.job, 'stop.1.released');
    const now = step(job);
    expect([now?.expect, now?.requirement, now?.cautions]).toEqual([
      { kind: 'state', is: 'startsByItself' },
      undefined,
      ['turns', 'automaticRestart'],
    ]);
    expect(now && verdictOfStep(now, 'startsByItself')).toBe('pass');
    expect(now && say(now.must)).toContain('A. B., safety officer: “nobody can reach it”');
    expect(unmetRequirements(job, profile).size).toBe(0);

    const found = cases.find((c) => trialsOf(c.job, c.profile).arrangement.usesEnables);
    if (!found) throw new Error('no arrangement takes the enables');
    const dead = stated(bridged(found.job, 'estop'), 'estop.stops');
    expect(unmetRequirements(dead, found.profile).get('estop.stops')).toBeDefined();
    expect(checkJob(dead, found.profile).map((f) => f.key)).toContain(
      'requirement.notMet:estop.stops',
    );
  });

  it('see contacts that do not move together: released with its feed contact last, an emergency stop starts a held run', () => {
    const seen = planned({
      startStop: 'twoWire',
      direction: 'forwardOnly',
      estop: 'safeTorqueOff',
      estopInFeed: true,
      speed: 'dial',
    });
    expect(seen.length).toBeGreaterThan(1);
    for (const { name, job, profile } of seen) {
      const held = judged(trialsOf(job, profile)).find(
        (j) => j.requirement.id === 'estop.released',
      );
      expect([held?.state, held?.proof?.script])
        .withContext(name)
        .toEqual(['notMet', jasmine.stringMatching(/^estop\.order\.\d+$/u) as never]);
      const step = liveSteps(job, profile).find((s) => s.key === 'estop.returns');
      expect(step?.expect).withContext(name).toEqual({ kind: 'state', is: 'staysStopped' });
      expect(step && verdictOfStep(step, 'staysStopped'))
        .withContext(name)
        .toBe('fail');
    }
  });

  it('hold a jog behind guard, foot stop and the stop of a relay that keeps itself in, or say that it must be fixed', () => {
    const stations = [
      { startStop: 'twoWire', interlocks: ['guard'] },
      { startStop: 'sealInRelay', interlocks: ['guard'] },
      { startStop: 'twoWire', footStop: 'stop' },
      { startStop: 'threeWire', stationFeed: 'separate', interlocks: ['guard'] },
    ] as const;
    let met = 0;
    for (const station of stations)
      for (const { name, job, profile } of planned({
        ...station,
        interlocks: [...('interlocks' in station ? station.interlocks : [])],
        direction: 'forwardOnly',
        speed: 'dial',
        jog: 'forward',
        jogHz: 5,
      })) {
        const blocks = judged(trialsOf(job, profile)).filter((j) =>
          j.requirement.id.endsWith('.blocks'),
        );
        const severe = checkJob(job, profile).map((f) => f.key);
        expect(blocks.length).withContext(name).toBe(1);
        for (const { requirement, state } of blocks) {
          if (state === 'met') met++;
          else expect(severe).withContext(name).toContain(`requirement.notMet:${requirement.id}`);
        }
      }
    // Planned behind them wherever the device and the station can carry it.
    expect(met).toBeGreaterThan(20);
  });

  it('see the contacts of a relay that do not move together: each first, on both sides of a filter time', () => {
    const sealed = cases.filter((c) => c.job.scheme.startStop === 'sealInRelay');
    expect(sealed.length).toBeGreaterThan(2);
    for (const { name, job, profile } of sealed) {
      const trials = trialsOf(job, profile);
      const lags = trials.list.filter((t) => t.id.startsWith('stop.held.relay.'));
      const { filterMs } = trials.installation.device.facts;
      expect(new Set(lags.map((t) => t.lag?.lagMs)))
        .withContext(name)
        .toEqual(new Set([1, filterMs + 5]));
      expect(new Set(lags.map((t) => t.lag?.first)).size)
        .withContext(name)
        .toBeGreaterThan(1);
      // With the contact that runs the motor behind, it starts later than with all at once.
      const starts = (id: string): number => {
        const { trace } = trials.run(id);
        const k = trace.signals.findIndex((s) => s.id === 'device.hz');
        return trace.segments[k].t.find((_, i) => trace.segments[k].dy[i] !== 0) ?? Infinity;
      };
      const together = starts('stop.held');
      const apart = lags.map((t) => starts(t.id));
      expect(Math.max(...apart))
        .withContext(name)
        .toBeGreaterThan(together);
      const held = judged(trials).find((j) => j.requirement.id === 'stop.1.dominates');
      expect(held?.requirement.looks.length)
        .withContext(name)
        .toBe(1 + lags.length);
    }
  });

  it('see a supply of the control that starts the motor when it comes back', () => {
    const seen = planned({
      startStop: 'twoWire',
      direction: 'forwardOnly',
      estop: 'contactor',
      speed: 'dial',
      powerReturn: 'stayStopped',
    });
    expect(seen.length).toBeGreaterThan(1);
    for (const { name, job, profile } of seen) {
      const code = roleSettingOf(profile, 'onPowerReturn');
      const { adopted } = job;
      if (!adopted || code === undefined) continue;
      const follows = {
        value: followsLevel(profile),
        origin: 'plan' as const,
        why: { code: 'test', args: {} },
      };
      const stuck: Job = {
        ...job,
        adopted: { ...adopted, settings: { ...adopted.settings, [code]: follows } },
        deviations: {
          d: {
            ord: 1,
            where: { kind: 'device', id: 'button.powerOn' },
            actual: { kind: 'stuck', device: 'button.powerOn', contact: '13', is: 'closed' },
            why: 'found so',
          },
        },
      };
      const lost = 'supply.breaker.control.comesBack';
      const states = (of: Job) =>
        judged(trialsOf(of, profile)).find((j) => j.requirement.id === lost);
      expect(states(job)?.state).withContext(name).toBe('met');
      expect([states(stuck)?.state, states(stuck)?.does])
        .withContext(name)
        .toEqual(['notMet', 'runsForward']);
    }
  });

  it('see a start warning that is too short, or that has no horn', () => {
    const seen = planned({
      startStop: 'twoWire',
      direction: 'forwardOnly',
      startWarningS: 5,
      speed: 'dial',
    });
    expect(seen.length).toBeGreaterThan(1);
    for (const { name, job, profile } of seen) {
      const { adopted } = job;
      const timer = Object.entries(adopted?.devices ?? {}).find(([, d]) => d.kind === 'timerRelay');
      const horn = Object.entries(adopted?.wires ?? {}).find(([, w]) => w.function === 'horn');
      if (!adopted || !timer || !horn) throw new Error('no warning');
      const [id, part] = timer;
      const quick = { ...part, params: { ...part.params, delayOnS: 1 } };
      const short: Job = {
        ...job,
        adopted: { ...adopted, devices: { ...adopted.devices, [id]: quick } },
      };
      const wires = Object.fromEntries(
        Object.entries(adopted.wires).filter(([w]) => w !== horn[0]),
      );
      const mute: Job = { ...job, adopted: { ...adopted, wires } };
      const state = (of: Job) =>
        judged(trialsOf(of, profile)).find((j) => j.requirement.id === 'warning.sounds');
      expect(state(job)?.state).withContext(name).toBe('met');
      for (const bad of [short, mute])
        expect([state(bad)?.state, state(bad)?.does])
          .withContext(name)
          .toEqual(['notMet', 'startsUnwarned']);
    }
  });
});

/** Setting that decides what follows when power returns. */
function roleSettingOf(profile: Profile, policy: string): string | undefined {
  const of = profile.policies[policy];
  return typeof of === 'object' && 'setting' in of ? String(of.setting) : undefined;
}

/** Value of that setting at which the device follows a run that is given. */
function followsLevel(profile: Profile): number | string {
  const of = profile.policies['onPowerReturn'] as { values: Record<string, string> };
  const [key] = Object.entries(of.values).find(([, v]) => v === 'followLevel') ?? ['1'];
  return Number.isNaN(Number(key)) ? key : Number(key);
}

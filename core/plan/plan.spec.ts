import * as v from 'valibot';
import { profileSchema, settingForRole, type Profile } from '../catalogue/index.js';
import { install } from '../installation/index.js';
import { landingParts, type Act, type Scheme } from '../job/index.js';
import { rehearse } from '../rehearsal/index.js';
import { signalAt } from '../trace/index.js';
import { adopted, bareJob, marrowick, planned } from '../testing/jobs.js';
import type { KeyLine } from './key-sheet.js';
import { keyingFaults } from './keying-faults.js';
import { assignInputs } from './assign.js';
import { arrangeFor, planJob } from './plan.js';
import { factorySettings, roleSetting } from '../catalogue/index.js';
import { everyArrangement } from '../testing/matrix.js';

/** A device no plan has ever seen: five inputs pulled up inside, one conductor a terminal, codes of its own. */
function strangeProfile(): Profile {
  const p = JSON.parse(JSON.stringify(marrowick())) as Profile & Record<string, never>;
  const terminals: Record<string, unknown> = {};
  for (const id of ['L1', 'L2', 'L3', 'PE', 'U', 'V', 'W', 'PEM', 'P24', 'P0', 'P10', 'AI'])
    terminals[id] = { ...p.terminals[id], conductors: 1 };
  const taskSettings: Record<string, string> = {};
  const settings: Record<string, unknown> = { ...p.settings };
  for (let i = 1; i <= 5; i++) {
    terminals[`Q${i}`] = {
      kind: 'digitalInput',
      ohm: 3300,
      onV: 15,
      offV: 5,
      tasks: 'any',
      pullUpTo: 'P24',
      row: 'only',
      conductors: 1,
    };
    settings[`t${i}`] = {
      ...p.settings['311'],
      name: `Task of Q${i}`,
      factory: 0,
      terminal: `Q${i}`,
    };
    taskSettings[`Q${i}`] = `t${i}`;
  }
  return v.parse(profileSchema, {
    ...p,
    family: 'strange',
    display: undefined,
    terminals,
    taskSettings,
    settings,
    links: { SA: p.links['SA'] },
    internalJoins: [['PE', 'PEM']],
    rows: [{ id: 'only', name: 'row', terminals: Object.keys(terminals) }],
  });
}

describe('planJob', () => {
  it('gives the same plan for the same input, whatever the order of keys', () => {
    const job = bareJob();
    const shuffled = { ...job, scheme: Object.fromEntries(Object.entries(job.scheme).reverse()) };
    expect(planned(shuffled).hash).toBe(planned(job).hash);
  });

  it('wires a profile never seen before so that the solver switches every input, within one conductor a terminal', () => {
    const profile = strangeProfile();
    const job = adopted(bareJob({ directionBy: 'twoContacts' }, profile), profile);
    expect(planned(bareJob({ directionBy: 'twoContacts' }, profile), profile).findings).toEqual([]);
    const counts = new Map<string, number>();
    for (const w of Object.values(job.adopted?.wires ?? {}))
      for (const end of [w.from, w.to])
        if (end.startsWith('device:')) counts.set(end, (counts.get(end) ?? 0) + 1);
    expect(Math.max(...counts.values())).toBe(1);
    const installation = install(job, profile);
    for (const [fn, { at }] of Object.entries(job.adopted?.assignments ?? {})) {
      const device = fn === 'run.forward' ? 'contact.forward' : 'contact.reverse';
      const t = rehearse(
        installation,
        [
          { do: 'supplyOn', atMs: 0 },
          { do: 'press', atMs: 3000, device },
        ],
        4000,
      );
      const signal = `device.${landingParts(at).terminal}`;
      expect([signalAt(t, signal, 2_900_000), signalAt(t, signal, 3_900_000)])
        .withContext(fn)
        .toEqual([0, 1]);
    }
  });

  it('names the wishes that do not fit together', () => {
    const profile = strangeProfile();
    for (let i = 2; i <= 5; i++) profile.taskSettings[`Q${i}`] = '';
    const plan = planJob(bareJob({}, profile), {
      ...profile,
      taskSettings: { Q1: 't1' },
      terminals: Object.fromEntries(
        Object.entries(profile.terminals).filter(([id]) => !/^Q[2-5]$/u.test(id)),
      ),
      rows: [
        {
          ...profile.rows[0],
          terminals: profile.rows[0].terminals.filter((id) => !/^Q[2-5]$/u.test(id)),
        },
      ],
    } as Profile);
    expect(plan.ok).toBeFalse();
    expect(!plan.ok && [plan.why, plan.wishes]).toEqual(['conflict', ['startStop']]);
  });

  it('names the smallest set of wishes that ask for more inputs than there are', () => {
    const scheme: Partial<Scheme> = {
      startStop: 'threeWire',
      stationFeed: 'separate',
      jog: 'bothWays',
      presetsHz: [10, 20, 30],
      secondRamp: true,
      localRemote: true,
    };
    const plan = planJob(bareJob(scheme), marrowick());
    expect(plan).toEqual(jasmine.objectContaining({ ok: false, why: 'conflict', code: 'inputs' }));
    const wishes = plan.ok ? [] : (plan.wishes ?? []);
    const { inputs } = arrangeFor(bareJob(scheme), marrowick());
    const fits = (kept: readonly string[]): boolean =>
      assignInputs(
        marrowick(),
        inputs.filter((f) => kept.includes(f.wish)),
        {},
        {},
        {},
      ).ok;
    expect(fits(wishes)).toBeFalse();
    for (const wish of wishes)
      expect(fits(wishes.filter((w) => w !== wish)))
        .withContext(wish)
        .toBeTrue();
  });

  it('keeps a pin through every re-plan and moves the task with the wire', () => {
    const job = {
      ...bareJob(),
      decisions: {
        ...bareJob().decisions,
        pins: { 'run.forward': { at: 'device:IN5', why: 'core already there' } },
      },
    };
    const plan = planned(job);
    expect(plan.wiring.assignments['run.forward']).toEqual({
      at: 'device:IN5',
      task: 'forward',
      origin: 'person',
    });
    expect(plan.wiring.settings['315'].value).toBe(1);
    const again = planned({ ...adopted(job), scheme: { ...job.scheme, accelS: 9 } });
    expect(again.wiring.assignments['run.forward'].at).toBe('device:IN5');
  });

  it('reports a decision it can no longer meet and never drops it', () => {
    const job = {
      ...bareJob(),
      decisions: {
        ...bareJob().decisions,
        pins: { 'run.forward': { at: 'device:IN9', why: 'x' } },
      },
    };
    expect(planned(job).findings.map((f) => f.key)).toEqual(['decision.unmet:pin.run.forward']);
  });

  it('keeps wire ids and numbers over a re-plan, and never gives a number twice', () => {
    const job = adopted(bareJob());
    const before = job.adopted?.wires ?? {};
    const plan = planned({ ...job, scheme: { ...job.scheme, directionBy: 'twoContacts' } });
    for (const [id, wire] of Object.entries(plan.wiring.wires))
      if (before[id]) expect(wire.number).toBe(before[id].number);
    const gone = Object.keys(before).filter((id) => !plan.wiring.wires[id]);
    expect(gone.length).toBeGreaterThan(0);
    for (const id of gone) expect(plan.wiring.retired[id].number).toBe(before[id].number);
    const numbers = [
      ...Object.values(plan.wiring.wires),
      ...Object.values(plan.wiring.retired),
    ].map((w) => w.number);
    expect(new Set(numbers).size).toBe(numbers.length);
  });

  it('switches 0 V when that is wished, with the link in the other position', () => {
    const plan = planned(bareJob({ contactsSwitch: 'zeroVolt' }));
    expect(plan.wiring.links['IL'].position).toBe('toP24');
    const job = adopted(bareJob({ contactsSwitch: 'zeroVolt' }));
    const t = rehearse(
      install(job, marrowick()),
      [
        { do: 'supplyOn', atMs: 0 },
        { do: 'turn', atMs: 3000, device: 'select.direction', position: 'forward' },
      ],
      4000,
    );
    expect(signalAt(t, 'device.IN1', 3_900_000)).toBe(1);
  });
});

describe('keying', () => {
  const profile = marrowick();
  const model = profile.models[1];
  const factory = factorySettings(profile, model);
  const swapped = { ...factory, '311': 2, '312': 1 };
  const lines = (found = factory): readonly KeyLine[] => {
    const plan = planJob(adopted(bareJob()), profile, found);
    if (!plan.ok) throw new Error(plan.what);
    return plan.keying;
  };

  it('leaves the motor at 0 Hz line by line with the run contact closed, until command is handed over', () => {
    const job = adopted(bareJob({ powerReturn: 'restart' }));
    const found = { ...factory, '710': 1 };
    const plan = planJob(job, profile, found);
    if (!plan.ok) throw new Error(plan.what);
    const held: Act[] = [
      { do: 'supplyOn', atMs: 0 },
      { do: 'dial', atMs: 100, device: 'dial.speed', to: 1 },
      { do: 'turn', atMs: 3000, device: 'select.direction', position: 'forward' },
    ];
    const now: Record<string, number | string | boolean> = { ...found };
    let handedOver = false;
    for (const line of plan.keying.filter((l) => l.code)) {
      now[line.code as string] = line.to as number;
      handedOver = line.part === 'handOver';
      const t = rehearse(
        install(job, profile, { from: 'snapshot', id: 'x', values: now }),
        held,
        12_000,
      );
      if (!handedOver)
        expect(signalAt(t, 'device.hz', 11_900_000))
          .withContext(line.key)
          .toBe(0);
      else expect(signalAt(t, 'device.hz', 11_900_000)).toBeGreaterThan(40);
    }
    expect(handedOver).toBeTrue();
  });

  it('frees a task before it is given to another input, also in a ring', () => {
    const plan = lines(swapped);
    expect(keyingFaults(profile, swapped, plan)).toEqual([]);
    const tasks = plan
      .filter((l) => l.code === '311' || l.code === '312')
      .map((l) => [l.code, l.to]);
    expect(tasks.length).toBe(3);
    expect(tasks.at(-1)?.[1]).not.toBe(0);
  });

  it('ends with the planned value in every setting', () => {
    const now: Record<string, unknown> = { ...swapped };
    for (const line of lines(swapped)) if (line.code) now[line.code] = line.to;
    for (const [code, { value }] of Object.entries(planned(bareJob()).wiring.settings))
      expect(now[code]).withContext(code).toBe(value);
  });

  /** Ten orders that could move the motor or lose a setting; each is caught by name. */
  const command = settingForRole(profile, 'commandSource', 'terminals')?.code as string;
  const moved = (from: (l: KeyLine) => boolean, to: number) => {
    const list = [...lines(swapped)];
    const [line] = list.splice(list.findIndex(from), 1);
    list.splice(to < 0 ? list.length + to + 1 : to, 0, line);
    return list;
  };
  const macro = (): Profile => {
    const p = JSON.parse(JSON.stringify(profile)) as Profile;
    p.settings['217'] = { ...p.settings['217'], wipes: ['112', '115'] };
    return p;
  };
  const errors: readonly [string, string, () => { rule: string }[]][] = [
    [
      'hand-over first',
      'keying.order',
      () =>
        keyingFaults(
          profile,
          swapped,
          moved((l) => l.part === 'handOver' && l.code === command, 0),
        ),
    ],
    [
      'hand-over before the input tasks',
      'keying.handOverEarly',
      () =>
        keyingFaults(
          profile,
          swapped,
          moved((l) => l.part === 'handOver' && l.code === command, 8),
        ),
    ],
    [
      'keypad never takes command',
      'keying.terminalsCommand',
      () =>
        keyingFaults(
          profile,
          swapped,
          lines(swapped).filter((l) => l.key !== `${command}.makeSafe`),
        ),
    ],
    [
      'keypad takes command late',
      'keying.terminalsCommand',
      () =>
        keyingFaults(
          profile,
          swapped,
          moved(
            (l) => l.key === `${command}.makeSafe`,
            lines(swapped).findIndex((l) => l.part === 'inputs') + 1,
          ),
        ),
    ],
    [
      'run contacts not opened',
      'keying.contactsNotOpen',
      () => keyingFaults(profile, swapped, lines(swapped).slice(1)),
    ],
    [
      'run contacts opened last',
      'keying.contactsNotOpen',
      () =>
        keyingFaults(
          profile,
          swapped,
          moved((l) => l.hold === 'openRunContacts', -1),
        ),
    ],
    [
      'task given while another input holds it',
      'keying.taskStillHeld',
      () =>
        keyingFaults(
          profile,
          swapped,
          lines(swapped).filter((l) => !l.key.endsWith('.free')),
        ),
    ],
    [
      'motor plate after the input tasks',
      'keying.order',
      () =>
        keyingFaults(
          profile,
          swapped,
          moved((l) => l.part === 'motor', 12),
        ),
    ],
    [
      'restart behaviour before the plate',
      'keying.order',
      () =>
        keyingFaults(
          profile,
          swapped,
          moved((l) => l.part === 'protection', 3),
        ),
    ],
    [
      'a macro after the motor data it wipes',
      'keying.macroAfterMotor',
      () => {
        const list = [...lines(swapped)];
        const at = list.findIndex((l) => l.part === 'limits');
        list.splice(at, 0, {
          key: '217',
          part: 'limits',
          code: '217',
          from: 0,
          to: 1,
          presses: [],
          why: { code: 'wish', args: {} },
        });
        return keyingFaults(macro(), swapped, list);
      },
    ],
  ];
  for (const [name, rule, faults] of errors)
    it(`catches: ${name}`, () => expect(faults().map((f) => f.rule)).toContain(rule));

  it('keys no value that ends short as if it had been wanted, and says where the device ends', () => {
    let told = 0;
    for (const { name, job, profile } of everyArrangement().filter((_, i) => i % 6 === 0)) {
      const code = roleSetting(profile, 'motorHz');
      if (!code) continue;
      const fast = structuredClone(job);
      fast.plate.motor.hz = { v: 4000, u: 'Hz' };
      const plan = planned(fast, profile);
      const { max = Infinity } = profile.settings[code];
      const ends = plan.findings.filter((f) => f.rule === 'plan.settingEnds');
      expect(Number(plan.wiring.settings[code].value)).withContext(name).toBeLessThanOrEqual(max);
      expect(ends.some((f) => f.key === `plan.settingEnds:${code}` && f.severity === 'stop'))
        .withContext(name)
        .toBe(max < 4000);
      told += ends.length;
    }
    expect(told).toBeGreaterThan(5);
  });

  it('takes the highest frequency from the plate where nobody answered it, and says so', () => {
    const profile = marrowick();
    const code = roleSetting(profile, 'maxHz') as string;
    const at = (hz: number) => {
      const job = bareJob();
      job.plate.motor.hz = { v: hz, u: 'Hz' };
      job.plate.motor.rpm = { v: hz * 29, u: 'rpm' };
      delete job.scheme.maxHz;
      return planned(job).wiring.settings[code];
    };
    expect([60, 50].map((hz) => [at(hz).value, at(hz).why.code])).toEqual([
      [60, 'plate'],
      [50, 'plate'],
    ]);
  });
});

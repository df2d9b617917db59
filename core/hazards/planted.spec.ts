import { landingParts, type AdoptedWire, type Job } from '../job/index.js';
import { everyArrangement, type BuiltCase } from '../testing/matrix.js';
import { sayFinding } from '../words/index.js';
import { checkJob, isAcceptable } from './index.js';

const cases = new Map(everyArrangement().map((c) => [c.name, c]));
const built = (name: string): BuiltCase => {
  const found = cases.get(name);
  if (!found) throw new Error(`no case "${name}"`);
  return found;
};

/** What can be done wrong at a panel, as changes of its wires and links. */
class Hands {
  readonly job: Job;
  constructor(job: Job) {
    this.job = structuredClone(job);
  }
  private get plan() {
    const { adopted } = this.job;
    if (!adopted) throw new Error('nothing adopted');
    return adopted;
  }
  /** The device's own landing by its terminal. */
  at(terminal: string): string {
    return `${this.plan.device}:${terminal}`;
  }
  wireAt(landing: string): AdoptedWire {
    const wire = Object.values(this.plan.wires).find((w) => w.from === landing || w.to === landing);
    if (!wire) throw new Error(`no wire at ${landing}`);
    return wire;
  }
  /** Everything at one landing goes to another. */
  move(from: string, to: string): void {
    for (const w of Object.values(this.plan.wires)) {
      if (w.from === from) w.from = to;
      else if (w.to === from) w.to = to;
    }
  }
  exchange(a: string, b: string): void {
    this.move(a, 'x:x');
    this.move(b, a);
    this.move('x:x', b);
  }
  /** One wire, found at a landing, ends elsewhere. */
  land(landing: string, to: string): void {
    const w = this.wireAt(landing);
    if (w.from === landing) w.from = to;
    else w.to = to;
  }
  add(from: string, to: string): void {
    const like = Object.values(this.plan.wires)[0];
    this.plan.wires['planted'] = {
      ...like,
      from,
      to,
      number: '99',
      class: 'controlDc',
      potential: 'x',
    };
  }
  lift(landing: string): void {
    const entry = Object.entries(this.plan.wires).find(
      ([, w]) => w.from === landing || w.to === landing,
    );
    if (entry) delete this.plan.wires[entry[0]];
  }
  link(id: string, position: string): void {
    this.plan.links[id] = { ...this.plan.links[id], position };
  }
  /** A part of a kind is fitted for another voltage; its coil draws what it drew at its own. */
  rate(kind: string, volts: number): void {
    const part = this.plan.devices[this.part(kind)];
    const ohm = Number(part.params['ohm']) * (volts / Number(part.params['volts'])) ** 2;
    part.params = { ...part.params, volts, ohm };
  }
  part(kind: string): string {
    const found = Object.entries(this.plan.devices).find(([, d]) => d.kind === kind);
    if (!found) throw new Error(`no ${kind}`);
    return found[0];
  }
}

type Plant = (h: Hands) => void;
/** Each error of wiring, planted in two jobs, and the rule that must name it. */
const planted: readonly {
  readonly what: string;
  readonly rule: string;
  readonly in: readonly (readonly [name: string, plant: Plant])[];
}[] = [
  {
    what: 'motor leads on the supply side and the other way round',
    rule: 'damage.mainsAtOutput',
    in: (['ondulet-n estopTorqueOff', 'marrowick-f brakeRelease'] as const).map(
      (name) =>
        [
          name,
          (h: Hands) => {
            for (const [l, u] of [
              ['L1', 'U'],
              ['L2', 'V'],
              ['L3', 'W'],
            ])
              h.exchange(h.at(l), h.at(u));
          },
        ] as const,
    ),
  },
  {
    what: 'L1 exchanged with U',
    rule: 'damage.mainsAtOutput',
    in: [
      ['ondulet-n estopTorqueOff', (h) => h.exchange(h.at('L1'), h.at('U'))],
      ['ondulet-micro estopContactor', (h) => h.exchange(h.at('L'), h.at('U'))],
    ],
  },
  {
    what: 'a coil for 120 V on 230 V',
    rule: 'load.overVoltage',
    in: [
      ['marrowick-f lineContactor', (h) => h.rate('contactor', 120)],
      ['ondulet-n lineContactor', (h) => h.rate('contactor', 120)],
    ],
  },
  {
    what: 'a coil for 400 V on 230 V',
    rule: 'load.underVoltage',
    in: [
      ['quernstone-t estopContactor', (h) => h.rate('contactor', 400)],
      ['wendle-s lineContactor', (h) => h.rate('contactor', 400)],
    ],
  },
  {
    what: 'an output joined to an input of another potential',
    rule: 'supply24.overload',
    in: [
      ['ondulet-n estopTorqueOff', (h) => h.add(h.at('Q1'), h.at('24E'))],
      ['quernstone-t threeWireSeparate', (h) => h.add(h.at('AOUT'), h.at('+24'))],
    ],
  },
  {
    what: 'a phase on a PE terminal',
    rule: 'pe.onPhase',
    in: [
      ['ondulet-n estopTorqueOff', (h) => h.land(h.at('L1'), h.at('PE'))],
      ['marrowick-f brakeRelease', (h) => h.land(h.at('W'), 'motor:PE')],
    ],
  },
  {
    what: 'the protective conductor on a phase',
    rule: 'pe.onPhase',
    in: [
      ['ondulet-n estopTorqueOff', (h) => h.land('motor:PE', 'motor:W')],
      ['quernstone-t twoWire', (h) => h.land('motor:PE', 'motor:U')],
    ],
  },
  {
    what: 'the protective conductor lifted',
    rule: 'pe.open',
    in: [
      ['ondulet-n estopTorqueOff', (h) => h.lift('motor:PE')],
      ['marrowick-f brakeRelease', (h) => h.lift('motor:PE')],
    ],
  },
  {
    what: 'the protective conductor switched',
    rule: 'pe.switched',
    in: [
      ['ondulet-n estopTorqueOff', (h) => h.land('motor:PE', 'estop:11')],
      ['marrowick-f brakeRelease', (h) => h.land('motor:PE', 'contactor.brake:13')],
    ],
  },
  {
    what: 'the protective conductor undersized',
    rule: 'pe.small',
    in: (['ondulet-n estopTorqueOff', 'marrowick-f brakeRelease'] as const).map(
      (name) => [name, (h: Hands) => void (h.wireAt('motor:PE').size = { mm2: 0.5 })] as const,
    ),
  },
  {
    what: 'the reference joined to 24 V',
    rule: 'damage.overvoltage',
    in: [
      ['ondulet-n estopTorqueOff', (h) => h.add(h.at('24E'), h.at('10E'))],
      ['quernstone-t threeWireSeparate', (h) => h.add(h.at('+24'), h.at('+10'))],
    ],
  },
  {
    what: 'the wiper of a dial on 24 V',
    rule: 'damage.overvoltage',
    in: [
      ['ondulet-n estopTorqueOff', (h) => h.land(h.at('A1'), h.at('24E'))],
      ['quernstone-t threeWireSeparate', (h) => h.land('dial.speed:3', h.at('+24'))],
    ],
  },
  {
    what: 'a slide switch against its signal',
    rule: 'signal.switchAgainst',
    in: [
      ['ondulet-n controllerCurrent', (h) => h.link('S1', 'U')],
      ['ondulet-n controllerVoltage', (h) => h.link('S1', 'I')],
    ],
  },
  {
    what: 'the ends of a dial exchanged',
    rule: 'dial.endsExchanged',
    in: [
      ['ondulet-n estopTorqueOff', (h) => h.exchange('dial.speed:1', 'dial.speed:3')],
      ['marrowick-f brakeRelease', (h) => h.exchange('dial.speed:1', 'dial.speed:3')],
    ],
  },
  {
    what: 'the low end of a dial open',
    rule: 'dial.endOpen',
    in: [
      ['ondulet-n estopTorqueOff', (h) => h.lift('dial.speed:1')],
      ['marrowick-f brakeRelease', (h) => h.lift('dial.speed:1')],
    ],
  },
  {
    what: 'one torque-off channel bypassed',
    rule: 'estop.channelStays',
    in: [
      ['ondulet-n estopTorqueOff', (h) => h.land('estop:12', 'estop:11')],
      ['quernstone-t estopTorqueOff', (h) => h.land('estop:22', 'estop:21')],
    ],
  },
  {
    what: 'the emergency stop bypassed',
    rule: 'requirement.notMet',
    in: (['ondulet-n estopTorqueOff', 'quernstone-t estopTorqueOff'] as const).map(
      (name) =>
        [
          name,
          (h: Hands) => {
            h.land('estop:12', 'estop:11');
            h.land('estop:22', 'estop:21');
          },
        ] as const,
    ),
  },
  {
    what: 'the stop bypassed',
    rule: 'requirement.notMet',
    in: [
      ['ondulet-n estopTorqueOff', (h) => h.land('button.stop:12', 'button.stop:11')],
      ['marrowick-f threeWireSeparate', (h) => h.land('button.stop:12', 'button.stop:11')],
    ],
  },
  {
    what: 'mains on a 24 V terminal',
    rule: 'damage.mainsAtControl',
    in: [
      ['marrowick-f brakeRelease', (h) => h.land('button.start:14', 'supply:L1')],
      ['ondulet-n estopTorqueOff', (h) => h.land('estop:12', 'supply:L2')],
    ],
  },
  {
    what: 'two supplies in parallel',
    rule: 'supplies.parallel',
    in: [
      ['ondulet-n sealInOwn24', (h) => h.add(h.at('24E'), `${h.part('supply24')}:+`)],
      ['marrowick-f sealInOwn24', (h) => h.add(h.at('P24'), `${h.part('supply24')}:+`)],
    ],
  },
  {
    what: 'neutral and phase exchanged at a coil',
    rule: 'coil.neutralSwitched',
    in: [
      ['marrowick-f brakeRelease', (h) => h.exchange('contactor.brake:A1', 'contactor.brake:A2')],
      ['marrowick-f estopContactor', (h) => h.exchange('contactor.line:A1', 'contactor.line:A2')],
    ],
  },
  {
    what: 'two motor leads exchanged',
    rule: 'motor.leadsExchanged',
    in: [
      ['ondulet-n estopTorqueOff', (h) => h.exchange('motor:U', 'motor:W')],
      ['ondulet-micro estopContactor', (h) => h.exchange('motor:V', 'motor:W')],
    ],
  },
  {
    what: 'a motor lead missing',
    rule: 'motor.leadMissing',
    in: [
      ['ondulet-n estopTorqueOff', (h) => h.lift('motor:V')],
      ['marrowick-f twoWire', (h) => h.lift('motor:U')],
    ],
  },
];

const grave = (job: Job, { profile }: BuiltCase) =>
  checkJob(job, profile).filter((f) => f.severity === 'stop');

describe('an error of wiring', () => {
  for (const { what, rule, in: places } of planted)
    for (const [name, plant] of places)
      it(`is found: ${what}, on ${name}, by one finding that names the cause`, () => {
        const c = built(name);
        const before = new Set(grave(c.job, c).map((f) => f.key));
        const hands = new Hands(c.job);
        plant(hands);
        const found = grave(hands.job, c).filter((f) => !before.has(f.key));
        expect(found.map((f) => f.rule)).toContain(rule);
        expect(new Set(found.map((f) => f.rule)).size)
          .withContext(found.map((f) => `${f.key}: ${sayFinding(f).what}`).join('\n'))
          .toBe(1);
        for (const f of found) {
          const { what: said, why, remedy } = sayFinding(f);
          for (const text of [said, why, remedy]) {
            expect(text.length).toBeGreaterThan(10);
            expect(text).not.toMatch(/undefined|NaN|\bsafe\b/u);
          }
          if (rule.startsWith('damage.')) expect(isAcceptable(f)).toBeFalse();
        }
      });

  it('is found in no sound job', () => {
    const rules = new Set(planted.map((p) => p.rule).filter((r) => r !== 'requirement.notMet'));
    for (const c of cases.values())
      expect(
        checkJob(c.job, c.profile)
          .filter((f) => rules.has(f.rule))
          .map((f) => `${f.key} ${sayFinding(f).what}`),
      )
        .withContext(c.name)
        .toEqual([]);
  });

  it('is planted where it says: nothing of the job but wires and links changes', () => {
    expect(planted.every((p) => p.in.length === 2)).toBeTrue();
    expect(landingParts('motor:PE').terminal).toBe('PE');
  });
});

import {
  presentTerminals,
  linkTerminals,
  resistorTerminals,
  sensorLink,
  type Terminal,
} from '../../catalogue/index.js';
import { expectedWindings, WINDING_SHARE } from '../../line/index.js';
import { EARLY_BREAK, MAIN_POLES, UNIT_LINK, UNIT_RESISTOR } from '../../parts/index.js';
import { lineIds } from '../../scheme/index.js';
import { toBase } from '../../units/index.js';
import { between, phrase, state, tagOf, type StepContext } from '../context.js';
import { marked } from '../marks.js';
import { round, type Draft } from './draft.js';

/** A pole of thyristors that blocks shows more than this, Ω (makers give 10 kΩ and more). */
const BLOCKS_OHM = 10_000;
/** What a closed main contact may show, Ω. */
const CLOSED_OHM = 0.1;
/** A link with its two terminals, Ω. */
const LINK_OHM = 0.5;
/** Three sensors in series while cold, Ω (IEC 60947-8, mark A: 20 to 250 Ω each). */
const SENSORS_OHM = { least: 60, most: 750, usual: 200 } as const;
/** How far windings may lie from each other, %. */
const UNBALANCE_PCT = 3;

const terminals = ({ profile }: StepContext, kind: Terminal['kind']): string[] =>
  presentTerminals(profile).filter((id) => profile.terminals[id].kind === kind);

/** Every pole of a device that only lowers the voltage blocks while nothing fires it. */
function poles(c: StepContext): Draft[] {
  const [lines, motor] = [terminals(c, 'mains'), terminals(c, 'motor')];
  const pairs = motor.map((id, i) => `${lines[i]}–${id}`);
  return [
    {
      key: 'dead.poles',
      act: 'dead.power',
      do: phrase('dead.poles', { device: tagOf(c, c.device.id), at: pairs.join(', ') }),
      must: phrase('dead.poles.must', { ohm: BLOCKS_OHM }),
      expect: state('openLoop'),
      instrument: 'ohmmeter',
      from: { kind: 'standard', name: 'thyristors that block; bypass open' },
    },
  ];
}

/** The windings with their cable, pair by pair, at the terminals of the device. */
function windings(c: StepContext): Draft[] {
  const expected = expectedWindings(c.job, c.profile);
  if (!expected) return [];
  const { pairOhm, cableOhm: cable } = expected;
  const motor = terminals(c, 'motor').map((id) => `${c.device.id}:${id}`);
  const six = c.arrangement.insideDelta === true;
  // Between two corners of a delta one winding lies beside the two others: two thirds of it.
  const ohm = (six ? 1.5 * pairOhm : pairOhm) + cable;
  const lines = terminals(c, 'mains');
  const fields = motor.map((end, i) => {
    const next = six ? `:${lines[(i + 1) % 3]}` : motor[(i + 1) % motor.length];
    return [end, next].map((x) => x.slice(x.indexOf(':') + 1)).join('–');
  });
  return [
    {
      key: 'dead.windings',
      act: 'dead.power',
      do: phrase('dead.windings', {
        at: fields.join(', '),
        device: tagOf(c, c.device.id),
        motor: tagOf(c, c.installation.shaft.id),
        fourWire: ohm < 1,
        six,
      }),
      must: phrase('dead.windings.must', { ohm: round(ohm, 3), cable: round(cable, 3) }),
      expect: between(ohm * (1 - WINDING_SHARE), ohm, ohm * (1 + WINDING_SHARE), 'Ω'),
      instrument: 'low-ohm meter',
      fields,
      unbalancePct: UNBALANCE_PCT,
      from: { kind: 'formula', name: 'stator share of the losses of the plate, and two cores' },
    },
  ];
}

/** A contactor in the supply of the device: open without its coil, through when it is pressed in by hand. */
function contactor(c: StepContext): Draft[] {
  const id = c.arrangement.contactor;
  if (!id || !c.job.adopted?.devices[id]) return [];
  const at = MAIN_POLES.map((pole) => `${pole}–${Number(pole) + 1}`);
  const args = { device: tagOf(c, id), at: at.join(', ') };
  const common = { act: 'dead.power', instrument: 'ohmmeter' } as const;
  return [
    {
      ...common,
      key: 'dead.contactor.rest',
      do: phrase('dead.contactor.rest', args),
      must: phrase('dead.open'),
      expect: state('openLoop'),
    },
    {
      ...common,
      key: 'dead.contactor.pressed',
      do: phrase('dead.contactor.pressed', args),
      must: phrase('dead.contactor.must', { ohm: CLOSED_OHM }),
      expect: between(0, CLOSED_OHM, CLOSED_OHM, 'Ω'),
      fields: at,
    },
  ];
}

/** An isolator between device and motor: each pole in both positions, and its contact before the poles. */
function motorIsolator(c: StepContext): Draft[] {
  const { isolator: id } = c.installation.shaft;
  if (!id) return [];
  const at = MAIN_POLES.map((pole) => `${pole}–${Number(pole) + 1}`);
  const args = {
    device: tagOf(c, id),
    at: at.join(', '),
    early: EARLY_BREAK.join('–'),
    pole: at[0],
  };
  const common = { act: 'dead.power', instrument: 'ohmmeter' } as const;
  const wired = c.arrangement.operations['interlock.isolator'] !== undefined;
  return [
    {
      ...common,
      key: 'dead.isolator.off',
      do: phrase('dead.isolator.off', args),
      must: phrase('dead.open'),
      expect: state('openLoop'),
    },
    {
      ...common,
      key: 'dead.isolator.on',
      do: phrase('dead.isolator.on', args),
      must: phrase('dead.contactor.must', { ohm: CLOSED_OHM }),
      expect: between(0, CLOSED_OHM, CLOSED_OHM, 'Ω'),
      fields: at,
    },
    ...(wired
      ? [
          {
            ...common,
            key: 'dead.isolator.early',
            do: phrase('dead.isolator.early', args),
            must: phrase('dead.isolator.early.must', args),
            expect: state('opensFirst'),
            from: { kind: 'standard', name: 'IEC 60947-3, early-break contact' } as const,
          },
        ]
      : []),
  ];
}

/** How far a braking resistor may lie from its plate. */
const RESISTOR_SHARE = 0.1;

/** The braking resistor, read at the terminals of the device. */
function brakingResistor(c: StepContext): Draft[] {
  const unit = c.job.adopted?.devices[lineIds.brakingUnit] !== undefined;
  const own = resistorTerminals(c.profile)?.map((t) => `${c.device.id}:${t}`);
  const at = unit ? UNIT_RESISTOR.map((t) => `${lineIds.brakingUnit}:${t}`) : own;
  const { resistor } = c.job.plate.line ?? {};
  if (!at || !resistor?.ohm || !c.job.adopted?.devices[lineIds.resistor]) return [];
  const ohm = toBase(resistor.ohm, 'resistance');
  return [
    {
      key: 'dead.resistor',
      act: 'dead.power',
      do: phrase('dead.resistor', {
        device: tagOf(c, lineIds.resistor),
        a: marked(c, at[0]),
        b: marked(c, at[1]),
      }),
      must: phrase('dead.resistor.must', { ohm: round(ohm, 1) }),
      expect: between(ohm * (1 - RESISTOR_SHARE), ohm, ohm * (1 + RESISTOR_SHARE), 'Ω'),
      instrument: 'ohmmeter',
      from: { kind: 'formula', name: 'the plate of the resistor, ten percent' },
    },
  ];
}

/** A separate braking unit: plus on plus, minus on minus, read before it has ever had voltage. */
function brakingUnit(c: StepContext): Draft[] {
  const link = linkTerminals(c.profile);
  const id = lineIds.brakingUnit;
  if (link.length === 0 || !c.job.adopted?.devices[id]) return [];
  const seen = ['plus', 'minus'] as const;
  return seen.map((pole, i): Draft => ({
    key: `dead.brakingUnit.${pole}`,
    act: 'dead.power',
    do: phrase('dead.brakingUnit', {
      a: marked(c, `${c.device.id}:${link[i]}`),
      b: marked(c, `${id}:${UNIT_LINK[i]}`),
      other: marked(c, `${id}:${UNIT_LINK[1 - i]}`),
    }),
    must: phrase('dead.brakingUnit.must', { ohm: LINK_OHM }),
    expect: between(0, 0, LINK_OHM, 'Ω'),
    instrument: 'ohmmeter',
    from: { kind: 'formula', name: 'one short wire and two terminals' },
  }));
}

/** The loop of the sensors in the windings: its link, or sensors that are cold. */
function sensors(c: StepContext): Draft[] {
  const [a, b] = terminals(c, 'thermistor').map((id) => marked(c, `${c.device.id}:${id}`));
  const link = sensorLink(c.profile);
  if (!a || !b) return [];
  const linked = link !== undefined && c.trials.panel.links[link.link] === link.joined;
  const args = { a, b };
  const { least, most, usual } = SENSORS_OHM;
  return [
    {
      key: 'dead.sensors',
      act: 'dead.power',
      do: phrase(linked ? 'dead.link.sensors' : 'dead.sensors', args),
      must: phrase(linked ? 'dead.link.sensors.must' : 'dead.sensors.must', {
        ohm: LINK_OHM,
        least,
        most,
      }),
      expect: linked ? between(0, LINK_OHM, LINK_OHM, 'Ω') : between(least, usual, most, 'Ω'),
      instrument: 'ohmmeter',
      from: { kind: 'standard', name: linked ? 'a link and two terminals' : 'IEC 60947-8, mark A' },
    },
  ];
}

/** Dead readings of the power section: contactor, isolator at the motor, braking unit and resistor; poles, windings and sensors of a device that feeds its motor with the supply. */
export const powerSection = (c: StepContext): Draft[] => [
  ...contactor(c),
  ...motorIsolator(c),
  ...brakingUnit(c),
  ...brakingResistor(c),
  ...(c.device.facts.startHeatPct > 0 ? [...poles(c), ...windings(c), ...sensors(c)] : []),
];

import { firstOfKind, presentTerminals, showsWords } from '../../catalogue/index.js';
import { marked } from '../marks.js';
import { operationOf, phrase, range, state, tagOf } from '../context.js';
import { DARK_MS, READY_AGAIN_MS, type Sequence } from '../sequence/sequence.js';
import type { LiveTests } from '../sequence/tests.js';
import { tolerances } from '../tolerances.js';
import { behindStart, BUMP_SHARE, startArgs } from './bump.js';

/** Alternating supplies are measured without their load, which lifts an unloaded transformer. */
const UNLOADED_SHARE = 0.15;
/** Voltage of the control supply at the device itself, within the window its maker gives. */
export function controlVolts(t: LiveTests): void {
  const { c, s } = t;
  const from = firstOfKind(c.profile, 'controlSupply');
  const supply = c.device.controlSupply;
  if (from === undefined || !supply) return;
  const { landings } = c.installation;
  const [plus, minus] = [landings[supply.a], landings[supply.b]];
  const seen = s.volts(supply.a, supply.b);
  const volts = supply.ac ? seen?.ac : seen?.dc;
  if (!volts) return;
  const spread = range(volts, volts * tolerances.controlShare, 'V');
  if (spread.kind !== 'range') return;
  t.ask(
    {
      key: 'control.volts',
      do: phrase('control.volts', { plus: marked(c, plus), minus: marked(c, minus) }),
      must: phrase('control.volts.must', { volts, least: supply.minV, ac: supply.ac }),
      instrument: 'voltmeter',
      cautions: ['liveWork', 'category'],
      expect: {
        ...spread,
        lo: Math.max(spread.lo, supply.minV),
        hi: supply.ac ? Math.round(volts * (1 + UNLOADED_SHARE) * 10) / 10 : spread.hi,
      },
      sees: { kind: 'volts', plus, minus, ac: supply.ac },
    },
    ['supply'],
  );
}

/** With the contactor open and the mains ahead of it on, nothing of them reaches the motor. */
export function motorSideTest(t: LiveTests): void {
  const { c } = t;
  const { contactor, power } = c.arrangement;
  if (!contactor || !t.s.has('amps')) return;
  const s = t.begin('motor.dead', 'contacts');
  if (power) s.give(power.off, 1500);
  if (s.at(`${contactor}.on`) === 0) {
    const motor = presentTerminals(c.profile).filter(
      (id) => c.profile.terminals[id].kind === 'motor',
    );
    t.ask(
      {
        key: 'motor.dead',
        do: phrase('motor.dead', {
          contactor: tagOf(c, contactor),
          press: power ? tagOf(c, operationOf(c, power.off)?.device ?? '') : '',
          at: motor.map((id) => marked(c, `${c.device.id}:${id}`)).join(', '),
        }),
        must: phrase('motor.dead.must', { contactor: tagOf(c, contactor) }),
        instrument: 'voltmeter',
        cautions: ['liveWork', 'category', 'notIsolated'],
        expect: state('dead'),
      },
      ['motor'],
    );
  }
  t.end();
}

/** Position of the link in place of a thermistor in which nothing joins the two terminals. */
function openedLink({ c }: LiveTests): { link: string; name: string; open: string } | undefined {
  const ends = presentTerminals(c.profile).filter(
    (id) => c.profile.terminals[id].kind === 'thermistor',
  );
  for (const [link, { name, positions }] of Object.entries(c.profile.links)) {
    const stands = c.trials.panel.links[link];
    const joined = positions[stands]?.joins.some((pair) => ends.every((end) => pair.includes(end)));
    const open = Object.keys(positions).find((p) => positions[p].joins.length === 0);
    if (joined && open !== undefined) return { link, name, open };
  }
  return undefined;
}

/** The link of the thermistor taken out with everything dead: the device trips, and nothing else does. */
export function thermistorTest(t: LiveTests): void {
  const { c } = t;
  const found = openedLink(t);
  if (!found || !t.s.has('amps')) return;
  const s = t.begin('thermistor', 'contacts');
  const { link, name, open } = found;
  const stands = c.trials.panel.links[link];
  const put = (position: string): Sequence =>
    s
      .supply(false, DARK_MS)
      .work([{ do: 'link', atMs: 0, link, position }], 500)
      .supply(true, READY_AGAIN_MS)
      .powerOn();
  const trips = s.attempt(() => {
    put(open);
    return s.fault === 'thermistor';
  });
  if (trips) {
    put(open);
    const args = { device: tagOf(c, c.device.id), name };
    const words = showsWords(c.profile) ? '' : '.lights';
    t.ask(
      {
        key: 'thermistor.trips',
        do: phrase('thermistor.opens', args),
        must: phrase(`state${words}`, { state: 'faulted' }),
        expect: state('faulted'),
        reads: 'state',
        sees: { kind: 'state' },
        cautions: ['proveDead'],
      },
      ['supply'],
    );
    put(stands);
    t.ask(
      {
        key: 'thermistor.back',
        do: phrase('thermistor.closes', args),
        must: phrase(`state${words}`, { state: s.state }),
        expect: state(s.state),
        reads: 'state',
        sees: { kind: 'state' },
        cautions: ['proveDead'],
      },
      ['supply'],
    );
  }
  t.end();
}

/** The power section switched off under load, a start without it, and the power back while the start is still given. */
export function powerSectionTests(t: LiveTests): void {
  const { c } = t;
  const { power, givenBy, starts } = c.arrangement;
  const off = operationOf(c, power?.off);
  const on = operationOf(c, power?.on);
  if (!power || !off || !on || !t.s.has('amps') || !starts.forward) return;
  const s = t.begin('power.cut', 'stops', BUMP_SHARE);
  s.start();
  const args = {
    ...startArgs(c),
    off: tagOf(c, off.device),
    on: tagOf(c, on.device),
    ...s.speed.args,
  };
  const restsOn = [off, on, ...behindStart(c)];
  s.give(power.off, s.travelMs + 1000).settle();
  t.ask(
    {
      key: 'power.cut.stops',
      do: phrase('power.cut', args),
      must: phrase('turns.stopped', { machine: '' }),
      expect: state('stopped'),
      requirement: 'power.off',
      seen: s.shaft.turns === 'rest' ? 'stopped' : s.shaft.turns,
      sees: { kind: 'turns' },
    },
    restsOn,
  );
  s.take(power.off, 500);
  if (givenBy === 'level') s.take(starts.forward, 1000).give(starts.forward, s.travelMs);
  else s.pulse(starts.forward);
  const seen = (): string => (Math.abs(s.hz) > 0 ? 'startsByItself' : 'staysStopped');
  t.ask(
    {
      key: 'power.cut.refuses',
      do: phrase('power.refuses', args),
      must: phrase('condition.blocks.must'),
      expect: state(seen()),
      sees: { kind: 'starts' },
      reads: 'state',
    },
    restsOn,
  );
  s.powerOn().wait(s.travelMs);
  const comes = seen();
  t.ask(
    {
      key: 'power.cut.returns',
      do: phrase('power.comes', args),
      must: phrase(`condition.${comes}`, args),
      expect: state(comes),
      cautions: comes === 'startsByItself' ? ['automaticRestart'] : [],
      sees: { kind: 'starts' },
    },
    restsOn,
  );
  t.end();
}

/** The supply taken away while the voltage is lowered to stop: the machine coasts, and what the device says of it. */
export function cutWhileStoppingTest(t: LiveTests): void {
  const { c } = t;
  const { estop, power } = c.arrangement;
  const cut = power?.off ?? estop;
  const worked = operationOf(c, cut);
  if (!worked || !c.arrangement.contactor || !t.s.has('amps')) return;
  const s = t.begin('stop.cut', 'motions', 1);
  s.start();
  s.stop('forward', 500);
  if (s.state === 'softStopping') {
    s.give(worked.id as never, s.travelMs).settle();
    t.ask(
      {
        key: 'stop.cut',
        do: phrase('stop.cut', {
          ...startArgs(c),
          device: tagOf(c, worked.device),
          ...s.speed.args,
        }),
        must: phrase(s.fault === null ? 'stop.cut.must' : 'stop.cut.fault', {
          code: s.fault === null ? '' : (c.profile.faults[s.fault]?.code ?? s.fault),
        }),
        expect: state(s.shaft.turns === 'rest' ? 'stopped' : s.shaft.turns),
        reads: 'state',
        sees: { kind: 'turns' },
      },
      [worked, ...behindStart(c)],
    );
  }
  t.end();
}

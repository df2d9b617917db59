import { firstOfKind, presentTerminals, sensorLink, showsWords } from '../../catalogue/index.js';
import type { Act } from '../../job/index.js';
import { marked } from '../marks.js';
import { between, operationOf, phrase, range, state, tagOf } from '../context.js';
import { DARK_MS, READY_AGAIN_MS, type Sequence } from '../sequence/sequence.js';
import type { LiveTests } from '../sequence/tests.js';
import { behindStart, BUMP_SHARE, startArgs } from './bump.js';

/** Alternating supplies are measured without their load, which lifts an unloaded transformer. */
const UNLOADED_SHARE = 0.15;
/** What a timer may be late by, as a share, and what a hand at the stopwatch may miss, s. */
const TIMER_SHARE = 0.05;
const TIMER_S = 0.5;

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
  const spread = range(volts, volts * c.within.controlShare, 'V');
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
  const opens = power?.off ?? c.arrangement.estop;
  if (power && opens) s.give(opens, 1500);
  if (s.isOn(contactor) === false) {
    const motor = presentTerminals(c.profile).filter(
      (id) => c.profile.terminals[id].kind === 'motor',
    );
    t.ask(
      {
        key: 'motor.dead',
        do: phrase('motor.dead', {
          contactor: tagOf(c, contactor),
          press: power ? tagOf(c, operationOf(c, opens)?.device ?? '') : '',
          at: motor.map((id) => marked(c, `${c.device.id}:${id}`)).join(', '),
        }),
        must: phrase('motor.dead.must', { contactor: tagOf(c, contactor) }),
        instrument: 'voltmeter',
        cautions: ['liveWork', 'category', 'notIsolated'],
        expect: state('dead'),
        from: { kind: 'standard', name: 'IEC 60947-4-1, a contactor that is open' },
      },
      ['motor'],
    );
  }
  t.end();
}

/** What is lifted to open the loop of the windings' sensors, and landed again. */
interface Opened {
  readonly args: Readonly<Record<string, string>>;
  readonly opens: Act;
  readonly closes: Act;
}

/** The wire of the sensors, or the link that stands in their place. */
function loopOf({ c }: LiveTests): Opened | undefined {
  const { device } = c;
  const at = `${device.id}:${firstOfKind(c.profile, 'thermistor') ?? ''}`;
  const wires = Object.entries(c.job.adopted?.wires ?? {});
  const found = wires.find(([, w]) => w.from === at || w.to === at);
  if (found) {
    const [wire, { number }] = found;
    return {
      args: { wire: number, landing: marked(c, at) },
      opens: { do: 'breakWire', atMs: 0, wire },
      closes: { do: 'mendWire', atMs: 0, wire },
    };
  }
  const link = sensorLink(c.profile);
  if (!link || c.trials.panel.links[link.link] !== link.joined) return undefined;
  const put = (position: string): Act => ({ do: 'link', atMs: 0, link: link.link, position });
  return {
    args: { name: c.profile.links[link.link].name },
    opens: put(link.open),
    closes: put(link.joined),
  };
}

/** The loop of the sensors opened with everything dead: the device trips, refuses a start, and nothing else does. */
export function thermistorTest(t: LiveTests, section: 'contacts' | 'stops'): void {
  const { c } = t;
  const loop = loopOf(t);
  if (!loop || !t.s.has('amps')) return;
  const s = t.begin('thermistor', section, BUMP_SHARE);
  const put = (act: Act): Sequence =>
    s.supply(false, DARK_MS).work([act], 500).supply(true, READY_AGAIN_MS).powerOn();
  const trips = s.attempt(() => {
    put(loop.opens);
    return s.fault === 'thermistor';
  });
  if (trips) {
    const args = { device: tagOf(c, c.device.id), ...startArgs(c), ...loop.args };
    const words = showsWords(c.profile) ? '' : '.lights';
    const seen = (key: string, code: string): void =>
      t.ask(
        {
          key: `thermistor.${key}`,
          do: phrase(`thermistor.${code}`, args),
          must: phrase(`state${words}`, { state: s.state }),
          expect: state(s.state),
          reads: 'state',
          sees: { kind: 'state' },
          cautions: ['proveDead'],
        },
        ['supply', 'motor'],
      );
    put(loop.opens);
    seen('trips', 'opens');
    if (c.required.has('thermistor.blocks')) {
      s.start();
      t.ask(
        {
          key: 'thermistor.blocks',
          do: phrase('thermistor.blocks', args),
          must: phrase('condition.blocks.must'),
          expect: state('staysStopped'),
          requirement: 'thermistor.blocks',
          seen: Math.abs(s.hz) > 0 ? 'startsByItself' : 'staysStopped',
          sees: { kind: 'starts' },
        },
        ['motor', ...behindStart(c)],
      );
      s.stop();
    }
    put(loop.closes);
    seen('back', 'closes');
  }
  t.end();
}

/** Stopped from full speed: how long the guard stays locked, with the shaft at rest before it lets go. */
export function guardLockTest(t: LiveTests): void {
  const { c } = t;
  const { lock } = c.arrangement;
  const guard = operationOf(c, 'interlock.guard');
  if (!lock || !guard || !t.s.directions.includes('forward')) return;
  if (t.s.isOn(lock.device) === undefined) return;
  const s = t.begin('guard.lock', 'speed', 1);
  s.start();
  const args = {
    ...startArgs(c),
    guard: tagOf(c, guard.device),
    lock: tagOf(c, lock.device),
    s: lock.ms / 1000,
    ...s.speed.args,
  };
  const restsOn = [guard, ...behindStart(c)];
  const on = (): boolean => s.isOn(lock.device) === true;
  t.ask(
    {
      key: 'guard.locked',
      do: phrase('guard.locked', args),
      must: phrase('guard.locked.must', args),
      expect: state('locked'),
      requirement: 'guard.locked',
      seen: on() ? 'opens' : 'locked',
    },
    restsOn,
  );
  const fromMs = s.nowMs;
  s.stop('forward', lock.ms + 2000);
  const freed = s.after(`${lock.device}.on`, 1, fromMs);
  t.ask(
    {
      key: 'guard.frees',
      do: phrase('guard.frees', args),
      must: phrase('guard.frees.must', { ...args, rest: s.shaft.turns === 'rest' }),
      instrument: 'stopwatch',
      expect: between(
        freed === undefined ? 0 : (freed - fromMs) / 1000 - TIMER_S,
        freed === undefined ? 0 : (freed - fromMs) / 1000,
        freed === undefined ? 0 : ((freed - fromMs) / 1000) * (1 + TIMER_SHARE) + TIMER_S,
        's',
      ),
      ...(freed === undefined ? {} : { requirement: 'guard.frees' }),
    },
    restsOn,
  );
  t.end();
}

/** The power section switched off under load, a start without it, and the power back while the start is still given. */
export function powerSectionTests(t: LiveTests): void {
  const { c } = t;
  const { power, givenBy, starts } = c.arrangement;
  const off = operationOf(c, power?.off);
  const on = operationOf(c, power?.on);
  if (!power?.off || !off || !on || !t.s.has('amps') || !starts.forward) return;
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

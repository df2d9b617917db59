import { hasKeys } from '../../catalogue/index.js';
import { sortedEntries } from '../../job/index.js';
import type { OperationId } from '../../scheme/index.js';
import { operationOf, phrase, range, state, tagOf, type Worked } from '../context.js';
import type { LiveTests } from '../sequence/tests.js';
import { behindStart, BUMP_SHARE, hzRange, startArgs } from './bump.js';
import { voltsBetween } from './inputs.js';
import { lookAtRelays, statusRelays } from './relays.js';

/** What shows something, by the kind of part: the signal of its trace, and what sort of thing it is. */
const kinds = {
  lamp: ['lit', 'lamp'],
  controllerInput: ['lit', 'controller'],
  brake: ['on', 'brake'],
} as const;

function showing(t: LiveTests): { id: string; signal: string; what: string }[] {
  const signals = new Set(t.s.trace.signals.map(({ id }) => id));
  return sortedEntries(t.c.job.adopted?.devices ?? {}).flatMap(([id, { kind }]) => {
    if (!(kind in kinds)) return [];
    const [suffix, what] = kinds[kind as keyof typeof kinds];
    const signal = `${id}.${suffix}`;
    return signals.has(signal) ? [{ id, signal, what }] : [];
  });
}

/** What is required of something that shows, at rest or running; undefined where nothing is. */
function requiredOf(
  c: LiveTests['c'],
  id: string,
  when: 'rest' | 'running',
): { id: string; on: 'on' | 'off' } | undefined {
  const name =
    id === 'brake' ? (when === 'rest' ? 'brake.closes' : 'brake.opens') : `${id}.${when}`;
  const must = c.requirements.find((r) => r.id === name)?.must;
  return must?.kind === 'shows' ? { id: name, on: must.on ? 'on' : 'off' } : undefined;
}

/** Each lamp, relay, signal to a controller and brake in both its states, at rest and running. */
function lamps(t: LiveTests): void {
  const { c } = t;
  const all = showing(t);
  const relays = statusRelays(t);
  if (all.length + relays.length === 0 || !t.s.directions.includes('forward')) return;
  const s = t.begin('tells', 'tells', 0.2);
  const look = (when: 'rest' | 'running'): void => {
    for (const [i, { id, signal, what }] of all.entries()) {
      const is = s.at(signal) === 1 ? 'on' : 'off';
      const required = requiredOf(c, id, when);
      t.ask(
        {
          key: `tells.${id}.${when}`,
          do: phrase(`tells.${when}`, {
            ...startArgs(c),
            device: tagOf(c, id),
            what,
            first: i === 0,
            ...s.speed.args,
          }),
          must: phrase(`tells.${what}.${required?.on ?? is}`, { device: tagOf(c, id) }),
          expect: state(required?.on ?? is),
          sees: { kind: 'level', signal },
          ...(required ? { requirement: required.id, seen: is } : {}),
        },
        [{ id, device: id }, ...(when === 'running' ? behindStart(c) : [])],
      );
    }
    lookAtRelays(t, relays, when, all.length === 0);
  };
  look('rest');
  s.start();
  look('running');
  t.end();
}

/** The meter of the machine at three speeds: the volts that the device gives it. */
function meter(t: LiveTests): void {
  const { c } = t;
  const { output } = c.device;
  const meterId = Object.keys(c.job.adopted?.devices ?? {}).find((id) => id.startsWith('meter.'));
  const [plus, minus] = ['X1', 'X2'].map((x) =>
    c.installation.landings.indexOf(`${meterId ?? ''}:${x}`),
  );
  if (!output || !meterId || plus < 0 || minus < 0 || !t.s.directions.includes('forward')) return;
  const s = t.begin('meter', 'tells', 0.2);
  s.start();
  for (const pct of c.arrangement.dial ? [20, 50, 100] : [20]) {
    if (pct !== 20) s.speed.set(pct / 100).s.wait(s.travelMs);
    const volts = Math.abs(s.volts(plus, minus)?.dc ?? 0);
    const args = {
      ...startArgs(c),
      device: tagOf(c, meterId),
      ...s.speed.args,
      first: pct === 20,
      volts,
    };
    t.ask(
      {
        key: `meter.${pct}`,
        do: phrase('meter.volts', args),
        must: phrase('volts', { volts }),
        instrument: 'voltmeter',
        expect: range(volts, 10 * 2 * c.within.analogueShare, 'V'),
        sees: voltsBetween(c, plus, minus),
      },
      [{ id: meterId, device: meterId }],
    );
  }
  t.end();
}

/** A live-zero signal that is lost under way: what was chosen for it. */
function signalLoss(t: LiveTests): void {
  const { c } = t;
  const { dial } = c.arrangement;
  const [wire] =
    Object.entries(c.job.adopted?.wires ?? {}).find(([, w]) => w.function === 'signal.plus') ?? [];
  if (c.job.scheme.speed !== 'current' || !dial || !wire) return;
  if (!t.s.directions.includes('forward')) return;
  const s = t.begin('signal.loss', 'tells', 0.5);
  s.start();
  s.work([{ do: 'breakWire', atMs: 0, wire }], s.travelMs);
  const hz = Math.abs(s.hz);
  const args = {
    ...startArgs(c),
    device: tagOf(c, dial),
    wire: c.job.adopted?.wires[wire].number ?? '',
    code: c.profile.faults[s.fault ?? '']?.code ?? '',
    fault: s.fault ?? '',
    hz,
    ...s.speed.args,
  };
  t.ask(
    {
      key: 'signal.loss',
      do: phrase('signal.loss', args),
      must: phrase('signal.loss.must', args),
      expect: hzRange(c, hz),
      reads: s.fault === null ? 'hz' : 'state',
      sees: { kind: 'hz' },
    },
    ['dial', ...behindStart(c)],
  );
  s.work([{ do: 'mendWire', atMs: 0, wire }], 1000);
  t.end();
}

/** The keys of the device while the terminals command, and the change of place where there is one. */
function places(t: LiveTests): void {
  const { c } = t;
  const { arrangement: a } = c;
  if (c.startsByKey || !hasKeys(c.profile) || !t.s.directions.includes('forward')) return;
  const s = t.begin('place.keypad', 'tells', 0.2);
  s.key('start', s.travelMs);
  const is = s.shaft.turns === 'rest' ? 'staysStopped' : 'startsByItself';
  t.ask(
    {
      key: 'place.keypad',
      do: phrase('place.keypad', { ...s.speed.args }),
      must: phrase(`place.keypad.${is}`),
      expect: state(is),
      sees: { kind: 'starts' },
    },
    [],
  );
  t.end();
  const local = operationOf(c, 'local');
  if (!local) return;
  t.begin('place.takeover', 'tells', 0.2);
  s.give('local', 1000);
  s.start('forward', 1000);
  const before = s.shaft.turns === 'rest' ? 'staysStopped' : 'startsByItself';
  const args = { ...startArgs(c), key: tagOf(c, local.device), ...s.speed.args };
  t.ask(
    {
      key: 'place.local',
      do: phrase('place.local', args),
      must: phrase(`place.local.${before}`, args),
      expect: state(before),
      sees: { kind: 'starts' },
    },
    [local, ...behindStart(c)],
  );
  s.take('local', s.travelMs + 2000);
  const after = s.shaft.turns === 'rest' ? 'staysStopped' : 'startsByItself';
  t.ask(
    {
      key: 'place.remote',
      do: phrase('place.remote', args),
      must: phrase('condition.staysStopped', args),
      expect: state('staysStopped'),
      sees: { kind: 'starts' },
      requirement: 'place.remote',
      seen: after,
      cautions: after === 'startsByItself' ? ['automaticRestart'] : [],
    },
    [local, ...behindStart(c)],
  );
  if (a.givenBy === 'pulse') s.stop();
  t.end();
  if (a.stops[0]) stopAtLocal(t, local, a.stops[0]);
}

/** The station's stop while the keypad commands: it acts from every place. */
function stopAtLocal(t: LiveTests, local: Worked, id: OperationId): void {
  const { c } = t;
  const stop = operationOf(c, id);
  if (!stop) return;
  const s = t.begin('place.stop', 'tells', BUMP_SHARE);
  s.give('local', 1000);
  s.key('start', 1000);
  s.speed.keys(BUMP_SHARE);
  s.wait(s.travelMs);
  s.give(id, s.travelMs).settle();
  t.ask(
    {
      key: 'place.stop',
      do: phrase('place.stop', {
        key: tagOf(c, local.device),
        stop: tagOf(c, stop.device),
        atHz: BUMP_SHARE * c.maxHz,
      }),
      must: phrase('turns.stopped', { machine: '' }),
      expect: state('stopped'),
      requirement: 'place.stop',
      seen: s.shaft.turns === 'rest' ? 'stopped' : s.shaft.turns,
      sees: { kind: 'turns' },
    },
    [local, stop],
  );
  s.key('stop', s.travelMs);
  s.speed.keys(0);
  t.end();
}

/** What tells, and the places of command. */
export function tellTests(t: LiveTests): void {
  lamps(t);
  meter(t);
  signalLoss(t);
  places(t);
}

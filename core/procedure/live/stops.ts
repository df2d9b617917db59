import { hasKeys } from '../../catalogue/index.js';
import type { Must } from '../../requirements/index.js';
import type { OperationId } from '../../scheme/index.js';
import {
  operationOf,
  phrase,
  starterOf,
  state,
  tagOf,
  tagsOf,
  turnedBetween,
  type Worked,
} from '../context.js';
import type { LiveTests, RestsOn } from '../sequence/tests.js';
import { resetHeld } from './motions.js';
import { endTests } from './starts.js';
import { channelTests } from './channels.js';
import { powerSectionTests, thermistorTest } from './power-section.js';
import { behindStart, BUMP_SHARE, startArgs, turning } from './bump.js';

/** Whether the motor was started by what was just done. */
const starts = (t: LiveTests): string => (Math.abs(t.s.hz) > 0 ? 'startsByItself' : 'staysStopped');

/** One answer of a stop: what was done, what is required, what the machine does. */
function askStop(
  t: LiveTests,
  key: string,
  code: string,
  must: Must['kind'] & ('stopped' | 'staysStopped'),
  requirement: string,
  args: Readonly<Record<string, string | number | boolean>>,
  restsOn: RestsOn,
): void {
  if (must === 'stopped') t.s.settle();
  t.ask(
    {
      key,
      do: phrase(code, args),
      must:
        must === 'stopped'
          ? phrase('turns.stopped', { machine: '' })
          : phrase(code === 'stop.released' ? 'stop.staysStopped' : `${code}.must`, args),
      expect: state(must),
      requirement,
      seen: must === 'stopped' ? turning(t) : starts(t),
      reads: 'state',
      sees: { kind: must === 'stopped' ? 'turns' : 'starts' },
    },
    restsOn,
  );
}

/** A stop must win over a start that is held, and letting go of it must not start the motor. */
function heldStart(t: LiveTests): void {
  const { c } = t;
  const { arrangement: a } = c;
  const [start, stop] = [starterOf(c), operationOf(c, a.stops[0])];
  if (!start || !stop) return;
  const s = t.begin('stop.held', 'stops', BUMP_SHARE);
  s.give(a.starts.forward, s.travelMs);
  s.speed.raised();
  const args = {
    ...startArgs(c),
    start: tagOf(c, start.device),
    stop: tagOf(c, stop.device),
    ...s.speed.args,
  };
  s.give(a.stops[0], s.travelMs);
  askStop(t, 'stop.wins', 'stop.wins', 'stopped', 'stop.1.dominates', args, [start, stop]);
  s.take(a.stops[0], s.travelMs);
  askStop(t, 'stop.released', 'stop.released', 'staysStopped', 'stop.1.released', args, [
    start,
    stop,
  ]);
  t.end();
}

/** The stop and start of every further station. */
function stations(t: LiveTests): void {
  const { c } = t;
  const { arrangement: a } = c;
  a.stops.slice(1).forEach((id, i) => {
    const n = i + 2;
    const [stop, start] = [operationOf(c, id), operationOf(c, `start.${n}` as OperationId)];
    if (!stop || !start) return;
    const s = t.begin(`station.${n}`, 'stops', BUMP_SHARE);
    s.pulse(start.id as OperationId);
    const ran = s.shaft.turns === 'forward';
    const args = { start: tagOf(c, start.device), stop: tagOf(c, stop.device), ...s.speed.args };
    s.stop('forward', s.travelMs, i + 1);
    t.ask(
      {
        key: `station.${n}`,
        do: phrase('station.works', args),
        must: phrase('station.worked', args),
        expect: state('worked'),
        requirement: `stop.${n}.stops`,
        seen: ran && s.shaft.turns === 'rest' ? 'worked' : 'didNotWork',
      },
      [stop, start],
    );
    t.end();
  });
}

/**
 * Something that takes the run away: opened under way; every start tried while it is open; closed again with the run still
 * given.
 */
function openedUnderWay(t: LiveTests, id: OperationId): void {
  const { c } = t;
  const { arrangement: a } = c;
  const worked = operationOf(c, id);
  if (!worked) return;
  const estop = id === a.estop;
  const [name, words] = estop ? ['estop', 'estop'] : [id as string, 'condition'];
  const s = t.begin(name, 'stops', BUMP_SHARE);
  s.start();
  const args = {
    ...startArgs(c),
    device: tagOf(c, worked.device),
    ...(id === 'interlock.guard' && a.lock ? { lock: tagOf(c, a.lock.device) } : {}),
    ...turnedBetween(c, worked),
    power: estop && a.power ? tagsOf(c, [a.power.on]).join('') : '',
    ...s.speed.args,
  };
  const restsOn: Worked[] = [worked, ...behindStart(c)];
  s.give(id, s.travelMs + 3000);
  askStop(t, `${name}.stops`, `${words}.stops`, 'stopped', `${name}.stops`, args, restsOn);
  tryStart(t);
  askStop(t, `${name}.blocks`, `${words}.blocks`, 'staysStopped', `${name}.blocks`, args, restsOn);
  s.take(id, s.travelMs + 1000);
  if (estop) s.powerOn().wait(a.contactor ? s.travelMs : 0);
  const released = mayComeBack(t, id) ? undefined : `${name}.released`;
  const seen = starts(t);
  const must = released === undefined ? seen : 'staysStopped';
  t.ask(
    {
      key: `${name}.returns`,
      do: phrase(`${words}.returns`, args),
      must: phrase(`condition.${must}`, args),
      expect: state(must),
      ...(released === undefined ? {} : { requirement: released, seen }),
      cautions: must === 'startsByItself' ? ['automaticRestart'] : [],
      sees: { kind: 'starts' },
    },
    restsOn,
  );
  if (s.fault !== null && hasKeys(c.profile)) {
    const given = a.givenBy === 'level' && a.starts.forward ? [a.starts.forward] : [];
    resetHeld(t, name, tagsOf(c, given), restsOn);
  }
  t.end();
}

/** A run that comes back by itself is wished, where nothing requires that it stays away. */
const mayComeBack = ({ c }: LiveTests, id: OperationId): boolean =>
  id !== c.arrangement.estop && !c.required.has(`${id}.released`);

/** While it is open: what stays is let go and given again, a button is pressed for a moment. */
function tryStart(t: LiveTests): void {
  const { c, s } = t;
  const { arrangement: a } = c;
  const { forward } = a.starts;
  if (a.givenBy === 'level' && forward) s.take(forward, 1000).give(forward, s.travelMs);
  else s.pulse(forward);
}

/** Every stop, guard and emergency stop from a low speed: hold point before anything runs faster. */
export function stopTests(t: LiveTests): void {
  const { c } = t;
  const before = t.steps.length;
  heldStart(t);
  stations(t);
  endTests(t);
  for (const id of c.arrangement.interlocks) openedUnderWay(t, id);
  if (c.arrangement.estop) openedUnderWay(t, c.arrangement.estop);
  channelTests(t);
  powerSectionTests(t);
  if (c.required.has('thermistor.blocks')) thermistorTest(t, 'stops');
  const last = t.steps.at(-1);
  if (last && t.steps.length > before) last.hold = true;
}

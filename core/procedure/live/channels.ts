import { showsWords } from '../../catalogue/index.js';
import { landingParts } from '../../job/index.js';
import { contactsOf } from '../../parts/index.js';
import { operationOf, phrase, state, tagOf, type Worked } from '../context.js';
import { DARK_MS, READY_AGAIN_MS } from '../sequence/sequence.js';
import type { LiveTests } from '../sequence/tests.js';
import { behindStart, BUMP_SHARE, startArgs } from './bump.js';

/** Time in which a device is ready when its supply is back, ms. */

/** A wire and the landing at which it is lifted. */
interface Lifted {
  readonly wire: string;
  readonly landing: string;
}

/** Wires at the terminals of a contact: those behind it first, what else hangs on its feed last. */
function wiresAt(t: LiveTests, part: string, ends: readonly string[]): Lifted[] {
  const wires = Object.entries(t.c.job.adopted?.wires ?? {}).sort(([, x], [, y]) =>
    x.number.localeCompare(y.number, 'en', { numeric: true }),
  );
  return [...ends].reverse().flatMap((end) => {
    const landing = `${part}:${end}`;
    return wires
      .filter(([, w]) => w.from === landing || w.to === landing)
      .map(([wire]) => ({ wire, landing }));
  });
}

/** Levels at the device and of the contactors, in order. */
function levels({ c, s }: LiveTests): number[] {
  return s.trace.signals
    .map(({ id }) => id)
    .filter(
      (id) =>
        [...c.device.enables, ...c.device.inputs].some((i) => id === `device.${i.terminal}`) ||
        /^contactor\.[\w.]+\.on$/u.test(id),
    )
    .map((id) => s.at(id));
}

/** The one wire whose lifting opens this channel and as little else as can be. */
function wireOf(t: LiveTests, candidates: readonly Lifted[]): Lifted | undefined {
  const { s } = t;
  const before = levels(t);
  const effects = candidates.map((lifted) => {
    const after = s.attempt(() => {
      s.work([{ do: 'breakWire', atMs: 0, wire: lifted.wire }], 1500);
      return levels(t);
    });
    return { lifted, changed: after.filter((on, i) => on !== before[i]).length };
  });
  const opening = effects.filter((e) => e.changed > 0).sort((x, y) => x.changed - y.changed);
  return (opening[0] ?? effects[0])?.lifted;
}

/**
 * Each channel of the emergency stop by itself: one of its conductors is lifted with everything dead, the supplies come back,
 * and a start must be refused; then it is landed again. A head that is pressed never shows that one channel alone is enough.
 */
export function channelTests(t: LiveTests): void {
  const { c } = t;
  const worked = operationOf(c, c.arrangement.estop);
  if (!worked || !t.s.directions.includes('forward')) return;
  const channels = c.trials.pace.channels(worked.device);
  if (channels.length < 2) return;
  channels.forEach((first, i) => oneChannel(t, worked, first, i + 1));
}

function oneChannel(t: LiveTests, worked: Worked, first: string, n: number): void {
  const { c } = t;
  const { job } = c;
  const part = job.adopted?.devices[worked.device];
  const contact = part && contactsOf(part)?.contacts.find(({ a }) => a === first);
  if (!contact) return;
  const s = t.begin(`estop.channel.${n}`, 'stops', BUMP_SHARE);
  const lifted = wireOf(t, wiresAt(t, worked.device, [contact.a, contact.b]));
  if (!lifted) {
    t.end();
    return;
  }
  const off = (): unknown => s.supply(false, DARK_MS);
  const on = (): unknown => s.supply(true, READY_AGAIN_MS).powerOn();
  off();
  s.work([{ do: 'breakWire', atMs: 0, wire: lifted.wire }], 1000);
  on();
  s.start();
  const args = {
    ...startArgs(c),
    device: tagOf(c, worked.device),
    wire: job.adopted?.wires[lifted.wire].number ?? '',
    landing: `${tagOf(c, worked.device)}:${landingParts(lifted.landing).terminal}`,
    ...s.speed.args,
  };
  const restsOn = [worked, ...behindStart(c)];
  t.ask(
    {
      key: `estop.channel.${n}.blocks`,
      do: phrase('channel.blocks', args),
      must: phrase('estop.blocks.must', args),
      expect: state('staysStopped'),
      requirement: `estop.channel.${n}.blocks`,
      seen: Math.abs(s.hz) > 0 ? 'startsByItself' : 'staysStopped',
      sees: { kind: 'starts' },
      reads: 'state',
      cautions: ['proveDead'],
    },
    restsOn,
  );
  s.stop();
  off();
  s.work([{ do: 'mendWire', atMs: 0, wire: lifted.wire }], 1000);
  on();
  const after = s.state;
  t.ask(
    {
      key: `estop.channel.${n}.landed`,
      do: phrase('channel.landed', args),
      must: phrase(showsWords(c.profile) ? 'state' : 'state.lights', { state: after }),
      expect: state(after),
      reads: 'state',
      sees: { kind: 'state' },
      cautions: ['proveDead'],
    },
    restsOn,
  );
  t.end();
}

import { landingParts } from '../../job/index.js';
import { landingOf, phrase, positionOf, starterOf, state, tagOf } from '../context.js';
import { DARK_MS } from '../sequence/sequence.js';
import type { LiveTests } from '../sequence/tests.js';
import { behindStart, BUMP_SHARE, startArgs } from './bump.js';

/** A supply of the control lost under way and back again, with the run still given. */
function controlSupply(t: LiveTests, device: string): void {
  const { c } = t;
  const requirement = `supply.${device}.comesBack`;
  const s = t.begin(`supply.${device}`, 'return', BUMP_SHARE);
  s.start();
  const turn = (position: string, lastsMs: number) =>
    s.work([{ do: 'turn', atMs: 0, device, position }], lastsMs);
  turn('off', s.travelMs + 3000);
  const kept = s.fed;
  if (!kept) s.settle();
  turn('on', 5000 + s.travelMs);
  const is = kept ? 'runsOn' : Math.abs(s.hz) > 0 ? 'startsByItself' : 'staysStopped';
  const must = c.required.has(requirement) && is === 'startsByItself' ? 'staysStopped' : is;
  t.ask(
    {
      key: `supply.${device}.returns`,
      do: phrase('supply.returns', {
        ...startArgs(c),
        device: tagOf(c, device),
        kept,
        power: '',
        ...s.speed.args,
      }),
      must: phrase(`supply.${must}`),
      expect: state(must),
      ...(c.required.has(requirement) ? { requirement, seen: is } : {}),
      cautions: must === 'startsByItself' ? ['automaticRestart'] : [],
    },
    behindStart(c),
  );
  t.end();
}

/** The supply disconnecting device opened last: everything behind it is dead, and stays so while hands are in the panel. */
function disconnected(t: LiveTests): void {
  const { c } = t;
  const { isolator, ownBreakers, devices } = c.arrangement;
  const must = c.requirements.find((r) => r.id === 'isolator.dead')?.must;
  if (!isolator || must?.kind !== 'dead') return;
  const s = t.begin('isolator.off', 'return', 0);
  s.work([{ do: 'turn', atMs: 0, device: isolator, position: 'off' }], DARK_MS);
  const unmet = c.unmet.has('isolator.dead');
  const outputs = ownBreakers.flatMap((id) => [`${tagOf(c, id)}:2`, `${tagOf(c, id)}:4`]);
  const mains = c.device.mains.landings.map((i) =>
    landingOf(c, landingParts(c.installation.landings[i]).terminal),
  );
  const own = devices.filter(({ id }) => must.but.includes(id) && id.includes('supply'));
  const args = {
    isolator: tagOf(c, isolator),
    ...(c.job.plate.line?.isolator?.plug ? { plug: true } : {}),
    at: [...mains, ...outputs].join(', '),
    foreign: own.map(({ tag }) => tag).join(', '),
  };
  t.ask(
    {
      key: 'isolator.dead',
      do: phrase('isolator.dead', args),
      must: phrase('isolator.dead.must', args),
      expect: state('dead'),
      requirement: 'isolator.dead',
      seen: unmet ? 'staysLive' : 'dead',
      cautions: ['category'],
    },
    ['supply'],
  );
  t.end();
}

/** Power, and each supply of the control, removed and returned with the run still given. */
export function powerReturnTests(t: LiveTests): void {
  mainSupply(t);
  controlSupplies(t);
  disconnected(t);
}

function controlSupplies(t: LiveTests): void {
  // With the supply of a brake gone the motor would be driven against it.
  if (t.c.job.scheme.brakeRelease || !t.s.directions.includes('forward')) return;
  for (const device of t.c.arrangement.lossBreakers) controlSupply(t, device);
}

/** What takes the whole supply away: the disconnecting device, else the main breaker and all that is tapped ahead of it. */
const wholeSupply = (c: LiveTests['c']): string => {
  const { isolator, mainBreaker, ownBreakers, lossBreakers } = c.arrangement;
  if (lossBreakers.length === ownBreakers.length) return tagOf(c, mainBreaker);
  const all = isolator ? [isolator] : [mainBreaker, ...ownBreakers];
  return all.map((id) => tagOf(c, id)).join(' and ');
};

/** Power removed and returned with the run still given. */
function mainSupply(t: LiveTests): void {
  const { c } = t;
  const { arrangement: a } = c;
  const forward = starterOf(c);
  if (!forward) return;
  const wished = c.job.scheme.powerReturn === 'restart';
  const s = t.begin('power.return', 'return', BUMP_SHARE);
  s.start();
  s.supply(false, DARK_MS).supply(true, 5000 + s.travelMs);
  const is = wished ? 'startsByItself' : 'staysStopped';
  const pulse = a.givenBy === 'pulse' ? 'Pulse' : '';
  const args = {
    ...startArgs(c),
    device: tagOf(c, forward.device),
    breaker: wholeSupply(c),
    position: positionOf(c, forward),
    ...s.speed.args,
  };
  t.ask(
    {
      key: 'power.return',
      do: phrase(`power.return${pulse}`, args),
      must: phrase(`power.${is}${pulse}`, args),
      expect: state(is),
      sees: { kind: 'starts' },
      requirement: 'power.return',
      seen: Math.abs(s.hz) > 0 ? 'startsByItself' : 'staysStopped',
      cautions: wished ? ['automaticRestart'] : [],
    },
    behindStart(c),
  );
  t.end();
}

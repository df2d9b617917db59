import { install } from '../installation/index.js';
import type { Act, Job, Scheme } from '../job/index.js';
import { actsOf, give, powerUp, READY_MS, startActs } from '../scheme/index.js';
import { arrangeFor } from '../plan/index.js';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
import { sayCondition, sayOpenPlace } from '../words/index.js';
import {
  Engine,
  ohmsBetween,
  timedActs,
  whyNotRunning,
  type Condition,
  type Why,
} from './index.js';

const profile = marrowick();
const jobOf = (scheme: Partial<Scheme>): Job =>
  adopted(
    bareJob({ accelS: 2, decelS: 2, direction: 'forwardOnly', directionBy: undefined, ...scheme }),
  );
const threeWire = jobOf({ startStop: 'threeWire', stationFeed: 'separate', startBy: undefined });
const wire = (job: Job, name: string): string =>
  Object.entries(job.adopted?.wires ?? {}).find(([, w]) => w.function === name)?.[0] ?? '';

/** The question asked some seconds after the last act. */
function why(job: Job, acts: readonly (Act | undefined)[], atMs = READY_MS + 5000): Why {
  const installation = install(job, profile);
  const engine = new Engine(installation);
  engine.runTo(
    atMs * 1000,
    timedActs(actsOf(...acts)).filter((a) => a.t <= atMs * 1000),
  );
  return whyNotRunning(installation, engine, atMs * 1000);
}
const first = (w: Why): Condition | undefined => w.conditions.find((c) => !c.met);
const says = (c: Condition | undefined): string =>
  c
    ? sayCondition(c.code, c.met, {
        ...c.args,
        open: c.open.map((p) => sayOpenPlace(p.code, p.args)).join('; '),
      })
    : '';

describe('why is it not running', () => {
  const a = arrangeFor(threeWire, profile);
  const running = [...powerUp(a, 1), ...startActs(a, 'forward', READY_MS)];

  it('says that it runs when it runs, with nothing unmet', () => {
    const w = why(threeWire, running);
    expect([w.running, first(w)]).toEqual([true, undefined]);
  });

  const cases: [string, Job, (Act | undefined)[], string, RegExp][] = [
    ['the supply is off', threeWire, [], 'supply', /supply is off/u],
    [
      'one phase is missing',
      threeWire,
      [...powerUp(a, 1), { do: 'supplyOff', atMs: 500, phase: 'L2' }],
      'supply',
      /L2/u,
    ],
    [
      'the breaker is open',
      threeWire,
      [...powerUp(a, 1), { do: 'turn', atMs: 500, device: 'breaker', position: 'off' }],
      'mains',
      /Q1 is open/u,
    ],
    [
      'the stop wire is broken',
      threeWire,
      [
        ...powerUp(a, 1),
        { do: 'breakWire', atMs: 500, wire: wire(threeWire, 'stop') },
        ...startActs(a, 'forward', READY_MS),
      ],
      'stop',
      /wire \d+ is broken/u,
    ],
    [
      'the stop is pressed',
      threeWire,
      [...running, give(a, 'stop', READY_MS + 2000)],
      'stop',
      /S1 is open between 11 and 12/u,
    ],
    ['nobody pressed start', threeWire, powerUp(a, 1), 'demand', /press S2/u],
    [
      'the input link is out',
      threeWire,
      [{ do: 'link', atMs: 0, link: 'IL', position: 'out' }, ...running],
      'common',
      /IL stands at “out”/u,
    ],
    [
      'the dial is at zero',
      threeWire,
      [...powerUp(a, 0), ...startActs(a, 'forward', READY_MS)],
      'reference',
      /R1 stands at 0 %/u,
    ],
  ];
  for (const [name, job, acts, code, text] of cases)
    it(`names first: ${name}`, () => {
      const unmet = first(why(job, acts));
      expect(unmet?.code).toBe(code);
      expect(says(unmet)).toMatch(text);
    });

  it('follows an open relay contact to what keeps the relay out', () => {
    const job = jobOf({ startStop: 'sealInRelay', latchSupply: 'drive24', startBy: undefined });
    const b = arrangeFor(job, profile);
    const unmet = first(
      why(job, [
        ...powerUp(b, 1),
        { do: 'breakWire', atMs: 100, wire: wire(job, 'latch.coil') },
        ...startActs(b, 'forward', READY_MS),
      ]),
    );
    expect(unmet?.code).toBe('demand');
    expect(unmet?.open.map((p) => p.code)).toEqual(['contact', 'contact', 'wire']);
    expect(unmet?.open[0].where.id).toBe('relay.sealIn');
    const contactor = jobOf({ startStop: 'twoWire', startBy: 'selector', estop: 'contactor' });
    const c = arrangeFor(contactor, profile);
    const dark = first(why(contactor, [...powerUp(c, 1), give(c, 'estop', 5000)], 9000));
    expect([dark?.code, says(dark)]).toEqual([
      'mains',
      jasmine.stringMatching(/Q2 is open.*S1 is open between 11 and 12/u),
    ]);
  });

  it('says that a new start is needed after a stop that took a held run away', () => {
    const job = jobOf({ startStop: 'twoWire', startBy: 'selector' });
    const b = arrangeFor(job, profile);
    const unmet = first(
      why(
        job,
        [
          ...powerUp(b, 1),
          ...startActs(b, 'forward', READY_MS),
          { do: 'supplyOff', atMs: 9000 },
          { do: 'supplyOn', atMs: 40_000 },
        ],
        50_000,
      ),
    );
    expect([unmet?.code, says(unmet)]).toEqual([
      'fresh',
      jasmine.stringMatching(/let go, then start again/u),
    ]);
  });
});

describe('resistance', () => {
  const installation = install(threeWire, profile);
  const at = (name: string): number => installation.landings.indexOf(name);
  const read = (acts: Act[], a: string, b: string) => {
    const engine = new Engine(installation);
    engine.runTo(120_000_000, timedActs(acts));
    return ohmsBetween(installation, engine, at(a), at(b));
  };

  it('is refused while anything is live', () => {
    expect(read([{ do: 'supplyOn', atMs: 0 }], 'button.stop:11', 'button.stop:12')).toEqual({
      ok: false,
      why: 'live',
    });
  });

  it('reads contacts, wires and a dial as they are', () => {
    const closed = read([], 'button.stop:11', 'button.stop:12');
    expect(closed.ok && closed.ohm).toBeCloseTo(0.05, 3);
    const open = read(
      [{ do: 'press', atMs: 0, device: 'button.stop' }],
      'button.stop:11',
      'button.stop:12',
    );
    // The way round through the inputs: two of 4.7 kΩ from stop and start to their common, if nothing else joins them.
    expect(open.ok && (open.ohm === null || open.ohm > 4000)).toBeTrue();
    const track = read(
      [{ do: 'dial', atMs: 0, device: 'dial.speed', to: 0.25 }],
      'dial.speed:1',
      'dial.speed:2',
    );
    expect(track.ok && track.ohm).toBeCloseTo((1250 * 30_000) / 31_250, -2);
  });
});

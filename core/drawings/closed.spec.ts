import fc from 'fast-check';
import { asBuilt, install, type Installation } from '../installation/index.js';
import type { Act, Job } from '../job/index.js';
import type { Profile } from '../catalogue/index.js';
import { Session } from '../rehearsal/index.js';
import { signalAt, voltsAt } from '../trace/index.js';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
import { everyArrangement } from '../testing/matrix.js';
import { layouter } from '../testing/layouter.js';
import {
  circuitDiagram,
  circuitSvg,
  closedWhen,
  connectionDrawing,
  connectionSvg,
  worksWhen,
  type ClosedWhen,
} from './index.js';

/** A closed contact carries less than this across it, V. */
const ACROSS_V = 0.2;

const isSo = (session: Session, when: ClosedWhen, t: number): boolean =>
  'always' in when
    ? when.always
    : when.values.includes(Math.round(signalAt(session.trace, when.signal, t)));

/** Volts between two landings; null where nothing joins them. */
function across(session: Session, { landings }: Installation, way: string, t: number) {
  const [a, b] = way.split('|').map((at) => landings.indexOf(at));
  return voltsAt(session.trace, a, b, t);
}

const total = (v: { dc: number; ac: number }): number => Math.abs(v.dc) + v.ac;

/** Everything of a station that a hand can move, in some order. */
const handActs = (job: Job): fc.Arbitrary<Act[]> => {
  const devices = Object.keys(job.adopted?.devices ?? {}).filter((id) =>
    /^(?:button|select|estop|interlock|contact|key)/u.test(id),
  );
  const act = fc.record({
    do: fc.constantFrom('press' as const, 'release' as const),
    device: fc.constantFrom(...(devices.length ? devices : ['estop'])),
  });
  return fc
    .array(act, { minLength: 3, maxLength: 8 })
    .map((acts) => [
      { do: 'supplyOn', atMs: 100 } as Act,
      ...acts.map((a, i): Act => ({ ...a, atMs: 1500 + 400 * i })),
    ]);
};

function played(job: Job, profile: Profile, acts: readonly Act[]) {
  const installation = install(job, profile, { from: 'planned' }, { panel: asBuilt(job, profile) });
  const session = new Session(
    installation,
    acts.map((act) => ({ t: act.atMs * 1000, act })),
  );
  session.reach(6_000_000);
  return { session, installation };
}

describe('a circuit that is live', () => {
  it('shows no contact closed that has a voltage across it', () => {
    const cases = everyArrangement();
    fc.assert(
      fc.property(
        fc
          .integer({ min: 0, max: cases.length - 1 })
          .chain((i) => handActs(cases[i].job).map((acts) => ({ ...cases[i], acts }))),
        ({ job, profile, acts }) => {
          const { session, installation } = played(job, profile, acts);
          for (const [way, when] of Object.entries(closedWhen(installation)))
            for (const t of [50_000, 1_400_000, 2_800_000, 5_900_000]) {
              const v = across(session, installation, way, t);
              if (isSo(session, when, t)) expect(v && total(v)).toBeLessThan(ACROSS_V);
            }
        },
      ),
      { numRuns: 40 },
    );
  });

  it('shows a contact open where it keeps a voltage off, and tells what works by what it has', () => {
    const job = adopted(bareJob());
    const { session, installation } = played(job, marrowick(), [{ do: 'supplyOn', atMs: 100 }]);
    const closed = closedWhen(installation);
    const open = Object.keys(closed).filter(
      (way) => total(across(session, installation, way, 5_000_000) ?? { dc: 0, ac: 0 }) > 10,
    );
    expect(open.length).toBeGreaterThan(0);
    for (const way of open)
      expect(isSo(session, closed[way], 5_000_000))
        .withContext(way)
        .toBeFalse();
    for (const [element, when] of Object.entries(worksWhen(installation))) {
      const v = across(session, installation, element, 5_000_000);
      if (isSo(session, when, 5_000_000))
        expect(v && total(v))
          .withContext(element)
          .toBeGreaterThan(5);
    }
  });

  it('tells welded contacts as they are, whatever their hand does', () => {
    const job = adopted(bareJob());
    const [id, part] = Object.entries(job.adopted?.devices ?? {}).find(
      ([d]) => d.startsWith('button.') || d.startsWith('select'),
    ) as [string, { kind: string }];
    const built: Job = {
      ...job,
      deviations: {
        x: {
          ord: 0,
          actual: { kind: 'stuck', device: id, contact: '13', is: 'closed' },
          why: 'found so',
        },
      } as unknown as Job['deviations'],
    };
    const profile = marrowick();
    const panel = asBuilt(built, profile);
    expect(panel.stuck)
      .withContext(part.kind)
      .toEqual({ [`${id}:13`]: 'closed' });
    const installation = install(built, profile, { from: 'planned' }, { panel });
    expect(closedWhen(installation)[`${id}:13|${id}:14`]).toEqual({ always: true });
  });

  it('marks a wire that was found open in both drawings as built, and no other', async () => {
    const job = adopted(bareJob());
    const [wire] = Object.entries(job.adopted?.wires ?? {}).find(
      ([, w]) => w.class === 'controlDc',
    ) ?? [''];
    const built: Job = {
      ...job,
      deviations: {
        x: {
          ord: 0,
          where: { kind: 'wire', id: wire },
          actual: { kind: 'open', wire },
          why: 'found so',
        },
      },
    };
    const panel = asBuilt(built, marrowick());
    const drawn = await connectionDrawing(panel, marrowick(), 'control', layouter());
    expect(drawn.lines.filter((l) => l.open).map((l) => l.id)).toEqual([wire]);
    const options = { words: {}, width: 900 };
    const diagram = await circuitDiagram(built, marrowick(), panel, options, layouter());
    const open = diagram.lines.filter((l) => l.open);
    expect(open.length).toBeGreaterThan(0);
    for (const line of open) expect(line.wires).toContain(wire);
    for (const svg of [connectionSvg([drawn], 'x'), circuitSvg(diagram, 'x')])
      expect(svg).toContain('data-open');
  });

  it('has a state for every contact that is drawn', async () => {
    const layout = layouter();
    const seen = new Set<string>();
    for (const { name, job, profile } of everyArrangement()) {
      const key = Object.values(job.adopted?.devices ?? {})
        .map((d) => d.kind)
        .sort()
        .join();
      if (seen.has(key)) continue;
      seen.add(key);
      const panel = asBuilt(job, profile);
      const diagram = await circuitDiagram(job, profile, panel, { words: {}, width: 900 }, layout);
      const closed = closedWhen(install(job, profile, { from: 'planned' }, { panel }));
      const without = diagram.elements.flatMap((e) =>
        e.ways
          .filter((w) => w.open !== w.closed && !closed[`${w.a}|${w.b}`])
          .map((w) => `${w.a}|${w.b}`),
      );
      expect(without).withContext(name).toEqual([]);
    }
  }, 240_000);
});

import type { Opened } from '../../compute/rehearse.worker';
import { installedOf, install } from '../../../../core/installation';
import { contactsOf } from '../../../../core/parts';
import { Session } from '../../../../core/rehearsal';
import { adopted, bareJob, marrowick } from '../../../../core/testing/jobs';
import { laneSpecs } from './lane-specs';

describe('the lanes of a rehearsal', () => {
  const job = adopted(bareJob());
  const installation = install(job, marrowick());
  const { trace } = new Session(installation);
  const opened = {
    tops: {},
    names: {},
    trace,
    devices: installedOf(installation, 'contacts').map(({ id, tag, positions }) => ({
      id,
      tag,
      name: tag,
      kind: 'contacts',
      positions,
      workedBy: contactsOf(job.adopted!.devices[id])?.workedBy ?? 'hand',
    })),
  } as unknown as Opened;
  const lanes = laneSpecs(opened, job);

  it('begin with output, state and shaft, and keep together what belongs together', () => {
    expect(lanes.slice(0, 3).map((l) => l.name)).toEqual(['Output', 'State', 'Shaft']);
    const groups = lanes.map((l) => l.group).filter((g, i, all) => g !== all[i - 1]);
    expect(groups.length).toBe(new Set(groups).size);
  });

  it('show the DC link with its chopper and its trip only where stops lift it', () => {
    expect(lanes.some((l) => l.name === 'DC link')).toBeFalse();
    const link = { tripV: 800, chopper: { volts: 740, watts: 2000 } };
    const more = laneSpecs({ ...opened, link } as unknown as Opened, job);
    const limits = more.find((l) => l.name === 'DC link')?.limits;
    expect(limits).toEqual([
      { at: 740, text: 'chopper' },
      { at: 800, text: 'trips' },
    ]);
  });

  it('have every control of the station and every input with a task, each a signal of the trace', () => {
    const ids = new Set(trace.signals.map((s) => s.id));
    expect(lanes.filter((l) => !ids.has(l.id))).toEqual([]);
    const hands = opened.devices
      .filter((d) => d.workedBy === 'hand')
      .map((d) => `${d.id}.position`);
    expect(hands.length).toBeGreaterThan(0);
    expect(lanes.map((l) => l.id)).toEqual(jasmine.arrayContaining(hands));
    for (const { at } of Object.values(job.adopted?.assignments ?? {})) {
      const signal = `device.${at.split(':')[1]}`;
      if (ids.has(signal))
        expect(lanes.some((l) => l.id === signal))
          .withContext(at)
          .toBeTrue();
    }
  });
});

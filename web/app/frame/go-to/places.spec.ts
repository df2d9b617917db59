import type { Derived } from '@tactron/core/said';
import { adopted, bareJob } from '../../../../core/testing/jobs';
import { found, placesOf } from './places';

describe('places to go to', () => {
  const job = adopted(bareJob());
  const derived = {
    rows: [{ code: 'A1-02', name: 'Acceleration' }],
    findings: [
      {
        what: 'If power returns, the motor starts.',
        mark: 'must fix',
        finding: { stage: 'scheme' },
      },
    ],
    names: {},
  } as unknown as Derived;
  const places = placesOf('j', job, derived);
  const first = (typed: string) => found(places, typed)[0];

  it('finds every wire, terminal and part of the plan by its name', () => {
    const { wires = {}, devices = {} } = job.adopted ?? {};
    for (const [id, w] of Object.entries(wires)) {
      expect(first(`wire ${w.number}`).query)
        .withContext(w.number)
        .toEqual({ wire: id });
      for (const end of [w.from, w.to]) {
        const [device, terminal] = end.split(':');
        const title = `${devices[device].tag}:${terminal}`;
        expect(first(title).title).toBe(title);
      }
    }
    for (const { tag } of Object.values(devices)) expect(first(tag).title).toBe(tag);
  });

  it('finds settings and findings by their words, where they are put right', () => {
    expect(first('acceleration').path).toEqual(['/jobs', 'j', 'key']);
    expect(first('motor power returns').path).toEqual(['/jobs', 'j', 'scheme']);
    expect(found(places, 'no such thing')).toEqual([]);
  });

  it('offers stages and pages before anything is typed, and pages alone without a job', () => {
    expect(found(places, '').map((p) => p.title)).toContain('Rehearse');
    expect(placesOf('j', null, null).map((p) => p.title)).toEqual([
      'Jobs',
      'Library',
      'Sums',
      'Settings',
    ]);
  });
});

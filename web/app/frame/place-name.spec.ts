import { emptyJob, type Job } from '@tactron/core/job';
import { isBookkeeping, placeName } from './place-name';

describe('the name of a place in the job', () => {
  const job = {
    ...emptyJob({
      id: 'x',
      siteId: 'y',
      tag: 'T',
      machine: '',
      practice: 'IEC',
      profile: { family: 'f', model: 'm', version: '1', sha256: 's' },
    }),
    adopted: {
      wires: { w1: { number: '14' } },
      retired: { w2: { number: '9' } },
      devices: { 'stop.1': { tag: 'S1' } },
    },
  } as unknown as Job;

  it('is said in the words of the stages, with the numbers and tags on wires and devices', () => {
    expect(placeName('/plate/motor/rpm/v', job)).toBe('Plate › motor › speed');
    expect(placeName('/plate/load/gearRatio', job)).toBe('Plate › load › gear ratio');
    expect(placeName('/adopted/wires/w1/lengthM', job)).toBe('plan › wire › 14 › length');
    expect(placeName('/adopted/retired/w2', job)).toBe('plan › retired wire › 9');
    expect(placeName('/adopted/devices/stop.1/params/a~1b', job)).toBe(
      'plan › device › S1 › params › a/b',
    );
    expect(placeName('/adopted/settings/114/value', job)).toBe('plan › setting › 114');
    expect(placeName('', job)).toBe('whole job');
  });

  it('leaves a name that it does not know as it is', () => {
    expect(placeName('/adopted/wires/gone/number', null)).toBe('plan › wire › gone › number');
  });

  it('knows what only the program reads', () => {
    expect(
      ['/adopted/planHash', '/adopted/coreVersion', '/adopted/wires/w1'].map(isBookkeeping),
    ).toEqual([true, true, false]);
  });
});

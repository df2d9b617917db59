import { shippedProfile, type Profile } from '../catalogue/index.js';
import type { Scheme } from '../job/index.js';
import { bareJob, marrowick } from '../testing/jobs.js';
import { sayReason, saySchool } from '../words/index.js';
import {
  compareSchools,
  questionsFor,
  withSchool,
  type Card,
  type Comparison,
  type Strip,
} from './index.js';

const threeWire: Scheme = {
  startStop: 'threeWire',
  stationFeed: 'separate',
  direction: 'forwardOnly',
  speed: 'dial',
  exposed: 'atMachine',
  powerReturn: 'stayStopped',
};

function compared(
  question: string,
  scheme: Partial<Scheme>,
  profile: Profile = marrowick(),
  model = 'F02',
): Comparison {
  const job = bareJob(
    { startBy: undefined, directionBy: undefined, accelS: 2, decelS: 2, ...scheme },
    profile,
    model,
  );
  const clean = { ...job, scheme: withSchool(job.scheme, {}) };
  const found = questionsFor(clean.scheme).find((q) => q.id === question);
  if (!found) throw new Error(`no question ${question}`);
  return compareSchools(clean, profile, found);
}
const card = (c: Comparison, id: string): Extract<Card, { ok: true }> => {
  const found = c.cards.find((x) => x.id === id);
  if (!found?.ok) throw new Error(`no card ${id}`);
  return found;
};
/** Output frequency of a strip just before a moment. */
function hzBefore(strip: Strip, ms: number): number {
  const points = strip.lines.find((l) => l.kind === 'output')?.points ?? [];
  return points.findLast(([t]) => t <= ms - 50)?.[1] ?? 0;
}
const markAfter = (strip: Strip, what: string): number =>
  strip.marks.find((_, i) => strip.marks[i - 1]?.what === what)?.atMs ?? strip.endMs;

describe('behaviour cards', () => {
  it('chained and separately fed stations differ when stop is let go with start held, and flip with the device’s policy', () => {
    const outcome = (policy: 'accepted' | 'lost'): boolean[] => {
      const known = marrowick();
      const profile = {
        ...known,
        policies: { ...known.policies, startEdgeWithStopReturn: { fixed: policy } },
      } as Profile;
      const c = compared('stationFeed', threeWire, profile);
      return ['separate', 'chained'].map(
        (id) => hzBefore(card(c, id).strip, markAfter(card(c, id).strip, 'stopReleased')) > 0,
      );
    };
    expect(outcome('accepted')).toEqual([false, true]);
    expect(outcome('lost')).toEqual([false, false]);
  });

  it('two-wire that restarts shows it after the power cut; three-wire and the relay do not', () => {
    const c = compared('startStop', { ...threeWire, powerReturn: 'restart' });
    const after = (id: string): boolean => hzBefore(card(c, id).strip, card(c, id).strip.endMs) > 0;
    expect(['threeWire', 'sealInRelay', 'twoWire'].map(after)).toEqual([false, false, true]);
    expect(['threeWire', 'sealInRelay', 'twoWire'].map((id) => card(c, id).restarts)).toEqual([
      false,
      false,
      true,
    ]);
  });

  it('recommends by who can be there and by what the scheme states', () => {
    expect(compared('startStop', threeWire).recommended).toBe('threeWire');
    expect(
      compared('startStop', {
        ...threeWire,
        startStop: 'twoWire',
        powerReturn: 'restart',
        exposed: 'nobody',
      }).recommended,
    ).toBe('twoWire');
    const people = compared('powerReturn', {
      ...threeWire,
      startStop: 'twoWire',
      startBy: 'selector',
    });
    expect([people.recommended, people.chosen]).toEqual(['stayStopped', 'stayStopped']);
    expect(people.reasons).toContain('noRestartPeople');
  });

  it('on a device without safe torque off the e-stop is a contactor with inhibit; where it has it, safe torque off', () => {
    const none = compared('estop', { ...threeWire, estop: 'contactor' });
    expect(none.recommended).toBe('contactorInhibit');
    expect(none.cards.filter((c) => !c.ok).map((c) => c.id)).toEqual([
      'safeTorqueOff',
      'safeTorqueOffOneContact',
    ]);
    expect(
      compared('estop', { ...threeWire, estop: 'contactor' }, shippedProfile('ondulet-n'), 'N0220')
        .recommended,
    ).toBe('safeTorqueOff');
  });

  it('names the school that is chosen and has words for all of them', () => {
    const schemes: Partial<Scheme>[] = [
      threeWire,
      { ...threeWire, direction: 'forwardReverse', startStop: 'twoWire' },
      { ...threeWire, startStop: 'sealInRelay', latchSupply: 'own24', estop: 'contactor' },
    ];
    for (const scheme of schemes)
      for (const q of questionsFor({ ...scheme } as Scheme)) {
        expect(saySchool(q.id)).not.toBe(q.id);
        for (const school of q.schools)
          expect(saySchool(q.id, school.id))
            .withContext(`${q.id} ${school.id}`)
            .not.toBe(school.id);
        const c = compared(q.id, scheme);
        for (const reason of c.reasons) expect(sayReason(reason)).not.toBe(reason);
      }
    expect(
      compared('latchSupply', { ...threeWire, startStop: 'sealInRelay', latchSupply: 'own24' })
        .chosen,
    ).toBe('own24');
  });

  it('turns the motor also before anybody said where the speed comes from', () => {
    const c = compared('startStop', { ...threeWire, speed: undefined });
    for (const id of ['threeWire', 'sealInRelay', 'twoWire'])
      expect(hzBefore(card(c, id).strip, markAfter(card(c, id).strip, 'start')))
        .withContext(id)
        .toBeGreaterThan(10);
  });

  it('is the same every time', () => {
    expect(compared('startStop', threeWire)).toEqual(compared('startStop', threeWire));
  });
});

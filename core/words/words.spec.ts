import { shippedProfile, shippedProfiles } from '../catalogue/index.js';
import { schemeSchema } from '../job/scheme.js';
import { contactsOf, parts, terminalsOf } from '../parts/index.js';
import { offersFor, planJob } from '../plan/index.js';
import { arrange, shippedArrangements } from '../scheme/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { bareJob } from '../testing/jobs.js';
import {
  deviceKinds,
  policyNames,
  sayCondition,
  sayConflict,
  sayMark,
  sayName,
  sayNoPlan,
  sayPolicy,
  sayReason,
  saySchool,
  sayWire,
  sayWireOf,
  terminalKindNames,
  wishNames,
} from './index.js';

/** A text that is still a code: camel case or dots without a space. */
const raw = (text: string): boolean => /^[a-z]+([A-Z][a-z]+)+$|^\w+\.[\w.]+$/u.test(text);

describe('words', () => {
  const built = shippedArrangements.map(({ id, scheme }) => ({
    id,
    scheme,
    a: arrange({ scheme, practice: 'IEC', plate: bareJob().plate }),
  }));

  it('name every device an arrangement can call for, and its terminals are known', () => {
    for (const { id, a } of built)
      for (const device of a.devices) {
        expect(deviceKinds[device.kind]).withContext(`${id} ${device.kind}`).toBeDefined();
        expect(terminalsOf(device).length).withContext(device.kind).toBeGreaterThan(1);
      }
  });

  it('tell every terminal and every behaviour of every shipped family', () => {
    for (const family of Object.keys(shippedProfiles)) {
      const { terminals, policies } = shippedProfile(family);
      for (const { kind } of Object.values(terminals))
        expect(terminalKindNames[kind]).withContext(`${family} ${kind}`).toBeDefined();
      for (const [name, policy] of Object.entries(policies)) {
        expect(policyNames[name]).withContext(`${family} ${name}`).toBeDefined();
        const said = sayPolicy(policy);
        expect(/[a-z][A-Z]/u.test(said.replace(/setting \S+/u, '')))
          .withContext(`${family} ${name}: ${said}`)
          .toBeFalse();
      }
    }
  });

  it('say what every wire of every arrangement is for, on every family', () => {
    for (const { name, job } of everyArrangement()) {
      const { adopted } = job;
      if (!adopted) continue;
      for (const w of Object.values(adopted.wires))
        for (const said of [sayWire(w.function), sayWireOf(adopted, w)])
          expect(raw(said)).withContext(`${name}: ${w.function}`).toBeFalse();
    }
  });

  it('name every position of every part with contacts by a plain word', () => {
    for (const kind of Object.keys(parts)) {
      const set = contactsOf({ kind, params: {} });
      if (!set) continue;
      const { positions, rest } = set;
      const terminals = terminalsOf({ kind, params: {} });
      expect(positions).withContext(kind).toContain(rest);
      expect(new Set(terminals).size).withContext(kind).toBe(terminals.length);
      for (const p of positions)
        expect(p)
          .withContext(kind)
          .toMatch(/^[a-z]+$|^1$/u);
    }
  });

  it('put wishes that exclude each other in the person’s words', () => {
    expect(sayConflict('inputs', ['startStop', 'jog'], '7/6')).toBe(
      'How it starts and stops + jog: Together they need more inputs of their kind than this device has (7 functions, 6 inputs). Drop one of them.',
    );
    expect(sayConflict('noSetting', ['startStop'], 'pulseStartStopDirection')).toContain(
      '(start and stop pulses)',
    );
  });

  it('say why there is no plan, whatever stands against it', () => {
    const starter = shippedProfile('pendrift-s');
    const plan = planJob(bareJob({}, starter, 'S75'), starter);
    expect(plan.ok ? '' : sayNoPlan(plan)).toContain('a drive is needed');
    expect(
      plan.ok ? '' : sayNoPlan(plan, offersFor(bareJob({}, starter, 'S75'), starter)),
    ).toContain('These can do all that is wished here: ');
    const model = planJob(
      { ...bareJob(), profile: { ...bareJob().profile, model: 'F99' } },
      shippedProfile('marrowick-f'),
    );
    expect(model.ok ? '' : sayNoPlan(model)).toContain('“F99”');
  });

  it('turn a condition round when it is not met', () => {
    expect(sayCondition('enable', true, { terminal: 'SA' })).toBe('Enable SA is closed.');
    expect(sayCondition('enable', false, { terminal: 'SA' })).toBe('Enable SA is open.');
    expect(sayCondition('supply', false, { phase: 'L2' })).toBe(
      'Phase L2 of the supply is missing.',
    );
  });

  it('leave a name that has no words as it is', () => {
    expect([sayName('zz'), saySchool('zz'), sayReason('zz'), sayMark('zz'), sayWire('zz')]).toEqual(
      ['zz', 'zz', 'zz', 'zz', 'zz'],
    );
  });

  it('names every wish', () => {
    const unnamed = Object.keys(schemeSchema.entries).filter((wish) => !wishNames[wish]);
    expect(unnamed).toEqual([]);
  });
});

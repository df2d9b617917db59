import * as v from 'valibot';
import { stateNames } from '../drive/index.js';
import { pathIssues } from '../job/index.js';
import { shippedProfile, shippedProfiles } from './families.js';
import { planningGaps } from './gaps.js';
import { profileSchema, type Profile } from './profile.js';
import { policyValue, settingForRole } from './roles.js';

const copy = (family: string): Record<string, never> =>
  JSON.parse(JSON.stringify(shippedProfiles[family])) as Record<string, never>;
const issues = (data: unknown): string[] =>
  pathIssues(v.safeParse(profileSchema, data).issues ?? []).map((i) => i.path);

describe('device profiles', () => {
  const has: Record<string, (p: Profile) => boolean> = {
    'marrowick-f': (p) =>
      planningGaps(p).length === 0 &&
      Object.keys(p.settings).length >= 25 &&
      p.rows.some((r) => r.option === 'card') &&
      p.policies['onBothDirections'] !== 'unknown',
    'ondulet-n': (p) =>
      Object.values(p.links).filter((l) => l.kind === 'slide').length === 2 &&
      Object.values(p.terminals).filter((t) => t.kind === 'enableInput').length === 2 &&
      Object.values(p.macros).every((m) => m.wipes.includes('M/01')),
    'ondulet-micro': (p) =>
      Object.values(p.terminals).some((t) => t.kind === 'digitalInput' && t.pullUpTo === '12') &&
      p.supply.phases === 1 &&
      p.settings['FD'].type === 'dial',
    'quernstone-t': (p) =>
      p.keypad.style === 'textMenu' &&
      Object.values(p.inputTasks).every((t) => typeof t.code === 'string') &&
      p.incompletePair === 'warned',
    'pendrift-s': (p) =>
      p.kind === 'starter' && Object.values(p.terminals).some((t) => t.kind === 'thermistor'),
    'pendrift-c': (p) =>
      Object.values(p.settings).filter((s) => s.type === 'dial').length === 5 &&
      Object.values(p.settings).filter((s) => s.type === 'switch').length === 6,
  };
  for (const [family, peculiar] of Object.entries(has)) {
    it(`load: ${family}, with what is peculiar to it`, () =>
      expect(peculiar(shippedProfile(family))).toBeTrue());
  }

  it('are refused with the path of every reference that leads nowhere', () => {
    const p = copy('marrowick-f') as unknown as Profile;
    p.rows[1].terminals.push('IN99');
    p.links['IL'].factory = 'nowhere';
    (p.taskSettings as Record<string, string>)['IN1'] = '999';
    expect(issues(p)).toEqual(
      jasmine.arrayWithExactContents(['rows.1.terminals', 'links.IL.factory', 'taskSettings.IN1']),
    );
  });

  it('of a drive show a text in every state, a code for every fault, and every digital input in one monitor', () => {
    for (const family of Object.keys(shippedProfiles)) {
      const profile = shippedProfile(family);
      const { display, kind, terminals } = profile;
      if (kind !== 'drive') continue;
      for (const state of stateNames)
        expect(display?.states[state]).withContext(`${profile.family} ${state}`).toBeDefined();
      const texts = Object.values(display?.states ?? {}).map((s) => JSON.stringify(s));
      expect(new Set(texts).size)
        .withContext(`${profile.family}: states that look alike`)
        .toBeGreaterThan(8);
      const form = display?.monitors['inputs'].form;
      const shown = form?.as === 'number' ? [] : (form?.terminals ?? []);
      const inputs = Object.keys(terminals).filter((t) =>
        ['digitalInput', 'enableInput'].includes(terminals[t].kind),
      );
      expect(shown).withContext(profile.family).toEqual(inputs);
    }
  });

  it('are refused where the display names a terminal or a lamp that is not there', () => {
    const p = copy('ondulet-n') as unknown as Profile;
    const { display } = p;
    (display as unknown as { states: Record<string, unknown> }).states['ready'] = {
      text: 'X',
      lamps: { moon: 'lit' },
    };
    (display?.monitors['inputs'].form as { terminals: string[] }).terminals.push('D99');
    expect(issues(p)).toEqual(['display.monitors.inputs', 'display.states.ready']);
  });

  it('of a drive must say how it behaves wherever a motor may move by itself', () => {
    const p = copy('marrowick-f') as unknown as Profile;
    delete (p.policies as Record<string, unknown>)['onPowerReturn'];
    expect(issues(p)).toEqual(['policies.onPowerReturn']);
  });

  it('keep fields this release does not know', () => {
    const p = { ...copy('marrowick-f'), colourOfLid: 'grey' };
    expect((v.parse(profileSchema, p) as Record<string, unknown>)['colourOfLid']).toBe('grey');
  });

  it('take the worse behaviour where they do not know', () => {
    const known = shippedProfile('ondulet-n');
    const p = {
      ...known,
      policies: {
        ...known.policies,
        onTakeover: 'unknown' as const,
        terminalStopUnderKeypad: 'unknown' as const,
      },
    };
    expect(policyValue(known, {}, 'onTakeover')).toBe('needFreshEdge');
    expect(policyValue(p, {}, 'onTakeover')).toBe('followLevel');
    expect(policyValue(p, {}, 'terminalStopUnderKeypad')).toBe('ignored');
  });

  it('find the setting and value that bring a behaviour about', () => {
    const p = shippedProfile('marrowick-f');
    expect(settingForRole(p, 'onPowerReturn', 'needFreshEdge')).toEqual({ code: '610', value: 0 });
    expect(settingForRole(p, 'reverseDeadMs', 500)).toEqual({ code: '218', value: 0.5 });
    expect(settingForRole(p, 'onBothDirections', 'fault')).toBeUndefined();
  });

  it('does not plan a soft starter that is built otherwise than it is simulated', () => {
    const sound = shippedProfile('pendrift-s');
    expect(planningGaps(sound)).toEqual([]);
    for (const policy of [{ fixed: 2 }, 'unknown'] as const)
      expect(
        planningGaps({ ...sound, policies: { ...sound.policies, controlledPoles: policy } }),
      ).toEqual(['policies.controlledPoles = 3']);
  });
});

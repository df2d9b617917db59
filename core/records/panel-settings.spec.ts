import { factorySettings, modelOf, shippedProfile } from '../catalogue/index.js';
import type { Evidence, Job } from '../job/index.js';
import { panelSettingNames } from '../words/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { adopted, bareJob } from '../testing/jobs.js';
import { panelSettings, panelSettingKinds, standsAsPlanned } from './panel-settings.js';
import { settingRows } from './three-sets.js';

const controller = (more: Partial<Job['scheme']> = {}): Job =>
  adopted(
    bareJob(
      {
        startStop: 'controller',
        controllerOutput: 'relay',
        startBy: undefined,
        directionBy: undefined,
        direction: 'forwardReverse',
        speed: 'current',
        ...more,
      },
      shippedProfile('ondulet-n'),
      'N0220',
    ),
    shippedProfile('ondulet-n'),
  );

describe('what is set elsewhere in the panel', () => {
  it('is told of every part that has something to set, under a name of its own, and never of a code of the device', () => {
    const seen = new Set<string>();
    for (const { name, job, profile } of everyArrangement()) {
      const all = panelSettings(job, profile);
      const codes = all.map((s) => s.code);
      expect(new Set(codes).size).withContext(name).toBe(codes.length);
      for (const { what, code, device } of all) {
        seen.add(what);
        expect(profile.settings[code]).withContext(name).toBeUndefined();
        expect(code.startsWith(`${job.adopted?.devices[device].tag ?? ''} `))
          .withContext(`${name} ${code}`)
          .toBeTrue();
      }
      const timers = Object.values(job.adopted?.devices ?? {}).filter(
        (d) => d.kind === 'timerRelay',
      );
      expect(all.filter((s) => s.what === 'delayOn').length)
        .withContext(name)
        .toBe(timers.length);
    }
    for (const what of ['delayOn', 'outVolts', 'switchesAt', 'function', 'signalKind'])
      expect(seen).toContain(what);
    expect(panelSettingKinds.filter((what) => !panelSettingNames[what])).toEqual([]);
  });

  it('of a controller: what each output does, the kind of its signal, and what it calls full', () => {
    const job = controller({ fullScale: { value: 60, unit: 'm/min' } });
    const at = (what: string) =>
      panelSettings(job, shippedProfile('ondulet-n'))
        .filter((s) => s.what === what)
        .map((s) => [s.planned, s.unit]);
    expect(at('function')).toEqual([
      ['run forward, enabled', ''],
      ['run reverse, enabled', ''],
    ]);
    expect(at('signalKind')).toEqual([['4-20 mA', '']]);
    expect(at('fullScale')).toEqual([[60, 'm/min']]);
    // Trimmers stand where the calibration leaves them.
    expect(at('zeroTrim')).toEqual([[undefined, '%']]);
    expect(
      panelSettings(controller(), shippedProfile('ondulet-n')).find((s) => s.what === 'fullScale')
        ?.planned,
    )
      .withContext('nobody has told it')
      .toBeUndefined();
  });

  it('of a motor breaker: the current of the motor behind a soft starter, what the feed is sized for before a drive', () => {
    const line = {
      protection: { kind: 'motorBreaker' as const, ratedA: { v: 16, u: 'A' as const } },
    };
    const dial = (family: string): unknown => {
      const built = everyArrangement().find(({ profile }) => profile.family === family);
      if (!built) throw new Error(family);
      const job = { ...built.job, plate: { ...built.job.plate, line } };
      return panelSettings(job, built.profile, 4.5).find((s) => s.what === 'overloadDial')?.planned;
    };
    expect([dial('ondulet-n'), dial('pendrift-s')]).toEqual([16, 4.5]);
  });

  it('stands as planned within what it may be off, is to be read, and is only noted where the process decides it', () => {
    const timer = {
      code: 'K3 delay on',
      device: 'k',
      what: 'delayOn',
      unit: 's',
      planned: 5,
      within: 0.5,
    } as const;
    expect([4.5, 5.5, 5.6, 4.4].map((x) => standsAsPlanned(timer, x))).toEqual([
      true,
      true,
      false,
      false,
    ]);
    const profile = shippedProfile('ondulet-n');
    const job = controller({ fullScale: { value: 60, unit: 'm/min' }, interlocks: ['thermostat'] });
    const model = modelOf(profile, 'N0220');
    if (!model) throw new Error('no model');
    const rows = (values: Record<string, unknown>) =>
      settingRows(job, profile, factorySettings(profile, model), [
        {
          kind: 'snapshot',
          subject: 'asLeft',
          body: { which: 'asLeft', source: 'typed', values },
          atClient: '2026-01-01T00:00:00.000Z',
          id: 'a',
        } as unknown as Evidence,
      ]).filter((r) => r.panel);
    const scale = (r: ReturnType<typeof rows>) => r.find((x) => x.panel?.what === 'fullScale');
    const code = scale(rows({}))?.code ?? '';
    expect([scale(rows({}))?.state, scale(rows({}))?.relied]).toEqual(['toKey', true]);
    expect(scale(rows({ [code]: 60 }))?.state).toBe('asPlanned');
    expect(scale(rows({ [code]: 1500 }))?.state).toBe('differs');
    const heat = rows({}).find((x) => x.panel?.what === 'switchesAt');
    expect([heat?.state, heat?.relied, heat?.planned]).toEqual(['same', false, '']);
  });
});

import { factorySettings } from '../catalogue/index.js';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
import { install } from './install.js';
import { analogueScaleOf, controlOf } from '../drive/index.js';
import { installedOf, type InstalledDevice } from './installation.js';

const profile = marrowick();
const factory = factorySettings(profile, profile.models[1]);
const control = (settings: Record<string, number>) =>
  controlOf(profile, { ...factory, ...settings }, 0);
const device = (d: ReturnType<typeof install>): InstalledDevice => d.device;

describe('settings become behaviour', () => {
  it('by the profile alone, each in the words of the control semantics', () => {
    const table: readonly [string, number, string, unknown][] = [
      ['310', 0, 'startMethod', 'levelForwardReverse'],
      ['310', 2, 'startMethod', 'pulseStartStopDirection'],
      ['610', 0, 'onPowerReturn', 'needFreshEdge'],
      ['610', 1, 'onPowerReturn', 'followLevel'],
      ['318', 1, 'noReverse', true],
      ['217', 1, 'stopMode', 'coast'],
      ['710', 0, 'commandSource', 'keypad'],
      ['410', 1, 'referenceSource', 'ai1'],
      ['612', 2, 'onReferenceLoss', 'stop'],
      ['212', 7.5, 'accelS', 7.5],
      ['218', 0.5, 'reverseDeadMs', 500],
      ['320', 12, 'filterMs', 12],
    ];
    for (const [code, value, key, wanted] of table)
      expect((control({ [code]: value }) as unknown as Record<string, unknown>)[key])
        .withContext(`${code} = ${value}`)
        .toEqual(wanted);
    expect(control({ '416': 11, '417': 22, '418': 33 }).presetsHz).toEqual([11, 22, 33]);
    expect(control({}).startEdgeWithStopReturn)
      .withContext('not known: the worse')
      .toBe('accepted');
  });

  it('scales the analogue input by its range and ends', () => {
    const scale = (settings: Record<string, number>) =>
      analogueScaleOf(profile, { ...factory, ...settings }, 'ai1');
    expect(scale({}).scale).toEqual({ xLow: 0, xHigh: 10, hzAtLow: 0, hzAtHigh: 50 });
    expect(scale({ '411': 2, '412': 0, '413': 50, '415': 40 }).scale).toEqual({
      xLow: 4,
      xHigh: 12,
      hzAtLow: 0,
      hzAtHigh: 40,
    });
    expect([scale({ '411': 2 }).liveZero, scale({ '411': 1 }).liveZero]).toEqual([true, false]);
  });
});

describe('install', () => {
  const job = adopted(bareJob());

  it('gives the tasks of the settings in force: planned, factory or a snapshot', () => {
    const tasks = (from: Parameters<typeof install>[2]) =>
      device(install(job, profile, from)).inputs.map((i) => i.task);
    expect(tasks({ from: 'planned' })).toEqual([
      'forward',
      'reverse',
      'none',
      'none',
      'none',
      'none',
    ]);
    expect(tasks({ from: 'factory' })).toEqual([
      'forward',
      'reverse',
      'reset',
      'presetBit0',
      'presetBit1',
      'jogForward',
    ]);
    expect(tasks({ from: 'snapshot', id: 's', values: { '311': 3 } })[0]).toBe('run');
  });

  it('has one landing a terminal and one edge a wire, and is another with any of them otherwise', () => {
    const installation = install(job, profile);
    expect(new Set(installation.landings).size).toBe(installation.landings.length);
    expect(installedOf(installation, 'wires')[0].wires.length).toBe(
      Object.keys(job.adopted?.wires ?? {}).length,
    );
    const longer = {
      ...job,
      adopted: { ...job.adopted, wires: { ...job.adopted?.wires } },
    } as typeof job;
    const [id, wire] = Object.entries(longer.adopted?.wires ?? {})[0];
    (longer.adopted as NonNullable<typeof job.adopted>).wires[id] = {
      ...wire,
      lengthM: wire.lengthM + 1,
    };
    expect(install(longer, profile)).not.toEqual(installation);
    expect(install(job, profile)).toEqual(installation);
  });

  it('takes the resistance of a wire from its size and length: copper of IEC 60228', () => {
    const installation = install(job, profile);
    const dial = Object.entries(job.adopted?.wires ?? {}).find(
      ([, w]) => w.function === 'dial.wiper',
    );
    const ohm = installedOf(installation, 'wires')[0].wires.find((w) => w.id === dial?.[0])?.ohm;
    expect(ohm).toBeCloseTo((0.017241 * 10) / 0.5, 2);
  });

  it('refuses a job without a plan or with a model that is not there', () => {
    expect(() => install(bareJob(), profile)).toThrowError(/no adopted plan/u);
    expect(() =>
      install({ ...job, profile: { ...job.profile, model: 'F99' } }, profile),
    ).toThrowError(/F99/u);
  });
});

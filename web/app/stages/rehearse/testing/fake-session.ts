import {
  computed,
  provideZonelessChangeDetection,
  signal,
  type EnvironmentProviders,
  type Provider,
} from '@angular/core';
import type { Act, Job } from '@tactron/core/job';
import type { Trace } from '@tactron/core/trace';
import type { Opened, SaidCondition, ShownDevice } from '../../../compute/rehearse.worker';
import { OpenJob } from '../../../job-state/open-job';
import { Leads } from '../leads';
import { RehearsalSession, type SessionAct } from '../session';

const device = (id: string, tag: string, more: Partial<ShownDevice>): ShownDevice => ({
  id,
  tag,
  name: tag,
  kind: 'contacts',
  positions: ['out', 'in'],
  rest: 'out',
  momentary: false,
  workedBy: 'hand',
  ...more,
});

/** A bench of a few devices: what a page of it shows, and the acts it would send. */
export const devices: readonly ShownDevice[] = [
  device('button.start', 'S3', { momentary: true, name: 'Push button' }),
  device('estop', 'S1', { name: 'Emergency stop' }),
  device('select.direction', 'S2', { positions: ['forward', 'reverse'], rest: 'forward' }),
  device('interlock.guard', 'B1', {
    positions: ['shut', 'open'],
    rest: 'shut',
    workedBy: 'process',
  }),
  device('breaker', 'Q1', { positions: ['off', 'on'], rest: 'on', workedBy: 'supply' }),
  device('dial.speed', 'R1', { kind: 'dial', positions: [] }),
  device('lamp.running', 'H1', { kind: 'load', positions: [] }),
  device('relay.sealIn', 'K1', { kind: 'coil', positions: [] }),
];

const level = (id: string, y: number, states?: readonly string[]) => ({
  spec: { id, of: { kind: 'device', id } as const, unit: '', kind: 'level' as const, states },
  y,
});
const signals = [
  level('supply.on', 1),
  level('breaker.position', 1),
  level('estop.position', 0, ['out', 'in']),
  level('select.direction.position', 1, ['forward', 'reverse']),
  level('interlock.guard.position', 0),
  level('button.start.position', 0),
  level('dial.speed.dial', 40),
  level('lamp.running.lit', 1),
  level('relay.sealIn.on', 0),
  level('device.hz', 20),
  level('device.fault', 0, ['none', 'undervoltage']),
  level('device.keypadHz', 20),
  level('shaft.hz', 20),
];

const trace: Trace = {
  endUs: 1e9,
  signals: signals.map((s) => s.spec),
  segments: signals.map((s) => ({ t: [0], y: [s.y], dy: [0], ddy: [0] })),
  instants: { t: [0], solution: [0] },
  solutions: [
    {
      volts: Float64Array.of(24, 0, 23.5, 5),
      slope: new Float64Array(4),
      acRe: new Float64Array(4),
      acIm: new Float64Array(4),
      island: Int32Array.of(1, 1, 1, 3),
    },
  ],
  events: [],
};

export const landings = ['device:24E', 'device:0E', 'button.start:13', 'relay.sealIn:14'];

const opened = {
  seq: 0,
  trace,
  log: [],
  landings,
  reference: 1,
  names: {},
  devices,
  panelDial: false,
  face: undefined,
  keypadSpeed: false,
  keys: true,
  tops: {},
  device: 'device',
  rpmPerHz: 30,
  slipRpm: 0,
  trial: [],
  wires: [{ id: 'w1', number: '12', from: 0, to: 2, ohm: 50 }],
  links: [
    {
      id: 'CL',
      name: 'Input common link',
      position: 'zero',
      positions: [
        { value: 'zero', name: 'COM to 0E' },
        { value: 'none', name: 'out' },
      ],
    },
  ],
} as unknown as Opened;

/** A session that plays nothing and remembers what it was asked. */
export class FakeSession {
  readonly opened = signal<Opened | null>(opened);
  readonly devices = computed(() => this.opened()?.devices ?? []);
  readonly trace = signal<Trace | null>(trace);
  readonly nowUs = signal(5_000_000);
  readonly stretch = signal('0 0');
  readonly shownUs = this.nowUs;
  readonly playing = signal(false);
  readonly rate = signal(1);
  readonly log = signal<{ t: number; act: Act }[]>([]);
  readonly acts: SessionAct[] = [];
  readonly hooks: unknown[] = [];
  answer: { running: boolean; conditions: readonly SaidCondition[] } = {
    running: false,
    conditions: [],
  };
  resistance: unknown = { ok: true, ohm: 4700 };
  sought: number | null = null;

  act(...acts: SessionAct[]): Promise<void> {
    this.acts.push(...acts);
    this.log.update((log) => [
      ...log,
      ...acts.map((act) => ({
        t: this.nowUs(),
        act: { ...act, atMs: this.nowUs() / 1000 } as Act,
      })),
    ]);
    return Promise.resolve();
  }
  hook(...asked: unknown[]): Promise<void> {
    this.hooks.push(asked);
    const [a, b, as, value] = asked as [string, string, 'short', number];
    return this.act({ do: 'hook', a, b, as, value });
  }
  why(): Promise<FakeSession['answer']> {
    return Promise.resolve(this.answer);
  }
  ohms(): Promise<unknown> {
    return Promise.resolve(this.resistance);
  }
  seek(us: number): void {
    this.sought = us;
  }
  restart(): void {
    this.log.set([]);
  }
}

/** What a component of the bench is given in a test. */
export function benchProviders(
  session: FakeSession,
  job: Partial<Job> = {},
): (Provider | EnvironmentProviders)[] {
  const tags = Object.fromEntries([
    ...devices.map((d) => [d.id, { tag: d.tag }]),
    ['device', { tag: 'T1' }],
  ]);
  const shown = {
    id: 'j',
    tag: 'T-1',
    adopted: { devices: tags, wires: {}, assignments: {} },
    scripts: {},
    ...job,
  } as unknown as Job;
  const open = {
    job: signal(shown),
    profile: signal(null),
    edits: [] as Job[],
    edit(_label: string, recipe: (draft: Job) => void) {
      const draft = structuredClone(this.job());
      recipe(draft);
      this.edits.push(draft);
      this.job.set(draft);
    },
  };
  return [
    provideZonelessChangeDetection(),
    { provide: RehearsalSession, useValue: session },
    { provide: OpenJob, useValue: open },
    Leads,
  ];
}

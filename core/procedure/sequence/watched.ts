import { logicOf } from '../../installation/index.js';
import type { ShaftSeen } from '../../job/index.js';
import type { DeviceView } from '../../motor/index.js';
import type { Engine } from '../../rehearsal/index.js';
import { signalAt, stateAt, voltsAt, type Trace } from '../../trace/index.js';
import { stateTimes, type StepContext } from '../context.js';

/** Below this nothing turns that a person could see, Hz. */
export const STANDSTILL_HZ = 0.05;

/** States of a device that feeds its motor with the voltage of the supply while it starts and runs. */
export const fedStates: readonly string[] = ['kick', 'ramping', 'running'];

/** A simulated machine as a person at the panel sees it at the present moment, and what was seen since an earlier one. */
export class Watched {
  /** Present moment, ms from the beginning. */
  nowMs = 0;

  constructor(
    protected readonly c: StepContext,
    protected readonly engine: Engine,
  ) {}

  get trace(): Trace {
    return this.engine.trace;
  }

  at(signal: string): number {
    return signalAt(this.trace, signal, this.nowMs * 1000);
  }

  private records(signal: string): boolean {
    return this.trace.signals.some(({ id }) => id === signal);
  }

  /** Whether a coil is there and has pulled in; undefined where the part has none. */
  isOn(id: string): boolean | undefined {
    return this.records(`${id}.on`) ? this.at(`${id}.on`) === 1 : undefined;
  }

  /** Whether a lamp, horn or fan is there and works now. */
  isLit(id: string): boolean {
    return this.records(`${id}.lit`) && this.at(`${id}.lit`) === 1;
  }

  /** Whether a terminal of the device is there to be looked at. */
  has(terminal: string): boolean {
    return this.records(`device.${terminal}`);
  }

  /** Frequency set at the keypad of the device, Hz. */
  get keypadHz(): number {
    return this.view.keypadHz ?? 0;
  }

  /** Fault that the device shows, where it shows one. */
  get fault(): string | null {
    return this.view.fault;
  }

  private get view(): DeviceView {
    const { device } = this.c.installation;
    const { logic } = this.engine.stateOf(device.id) as { readonly logic: unknown };
    return logicOf(device.spec).view(logic, this.nowMs * 1000);
  }

  get state(): string {
    return stateAt(this.trace, 'device.state', this.nowMs * 1000);
  }

  /** Output frequency, negative in reverse. */
  get hz(): number {
    return this.at('device.hz');
  }

  /** The motor is fed: also while it does not turn. */
  get fed(): boolean {
    return Math.abs(this.hz) > STANDSTILL_HZ || (this.has('amps') && this.at('device.amps') > 0);
  }

  /** Which way the shaft turns now, and how fast. */
  get shaft(): ShaftSeen {
    const hz = this.at('shaft.hz');
    const turns = Math.abs(hz) <= STANDSTILL_HZ ? 'rest' : hz > 0 ? 'forward' : 'reverse';
    return { turns, hz: turns === 'rest' ? 0 : Math.round(hz * 100) / 100 };
  }

  /** Whether a state signal had this state at any moment since then, ms. */
  saw(id: string, state: string, fromMs: number): boolean {
    const i = this.trace.signals.findIndex((s) => s.id === id);
    const value = this.trace.signals[i].states?.indexOf(state);
    const { t, y } = this.trace.segments[i];
    return t.some((at, k) => at >= fromMs * 1000 && y[k] === value);
  }

  /** Moment since then at which the shaft came to rest for good, ms; undefined where it turns. */
  restSince(fromMs: number): number | undefined {
    if (this.shaft.turns !== 'rest') return undefined;
    const i = this.trace.signals.findIndex((s) => s.id === 'shaft.hz');
    const { t } = this.trace.segments[i];
    const last = t.findLast((at) => at >= fromMs * 1000);
    return last === undefined ? undefined : last / 1000;
  }

  volts(plus: number, minus: number): { dc: number; ac: number } | null {
    return voltsAt(this.trace, plus, minus, this.nowMs * 1000);
  }

  /** How often the motor was fed from the supply since then, ms: what its image and its device count as starts. */
  feedings(fromMs: number): number {
    if (!this.has('amps')) return 0;
    const states = stateTimes(this.trace, fromMs);
    const fed = (at: number): boolean => fedStates.includes(states[at]?.state ?? '');
    return states.filter((_, i) => fed(i) && !fed(i - 1)).length;
  }

  /** First moment since then, ms, at which a signal stands at a level; undefined where it never does. */
  after(signal: string, level: number, fromMs: number): number | undefined {
    const i = this.trace.signals.findIndex((s) => s.id === signal);
    const { t, y } = this.trace.segments[i];
    const at = t.find((us, k) => us >= fromMs * 1000 && y[k] === level);
    return at === undefined ? undefined : at / 1000;
  }

  /** Whether the shaft or the output moved at any moment since then, ms. */
  movedSince(fromMs: number): boolean {
    return ['shaft.hz', 'device.hz'].some((id) => this.most(id, fromMs) > STANDSTILL_HZ);
  }

  /** Largest size of a signal since then: at its ends and at every bend. */
  most(id: string, fromMs: number): number {
    const i = this.trace.signals.findIndex((s) => s.id === id);
    const bends = this.trace.segments[i].t.filter((t) => t > fromMs * 1000);
    const moments = [fromMs * 1000, ...bends, ...bends.map((t) => t - 1), this.nowMs * 1000];
    return Math.max(...moments.map((t) => Math.abs(signalAt(this.trace, id, t))));
  }
}

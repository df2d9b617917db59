import { TestBed } from '@angular/core/testing';
import type { Trace } from '@tactron/core/trace';
import type { ShownMotor } from '../../compute/rehearse.worker';
import { MotorPhases } from './motor-phases';
import { benchProviders, FakeSession } from './testing/fake-session';

/** The trace of the bench with a state of the device and another frequency. */
function withState(t: Trace, state: string, hz: number): Trace {
  const still = (y: number) => ({ t: [0], y: [y], dy: [0], ddy: [0] });
  const spec = { id: 'device.state', of: { kind: 'device', id: 'device' }, unit: '' } as const;
  return {
    ...t,
    signals: [...t.signals, { ...spec, kind: 'state', states: [state] }],
    segments: [
      ...t.signals.map((s, i) => (s.id === 'device.hz' ? still(hz) : t.segments[i])),
      still(0),
    ],
  };
}

describe('the leads of the motor', () => {
  async function shown(motor: ShownMotor, state?: string, hz = 20): Promise<string> {
    const session = new FakeSession();
    if (state) session.trace.update((t) => t && withState(t, state, hz));
    session.opened.update((o) => o && { ...o, motor });
    TestBed.configureTestingModule({ providers: benchProviders(session) });
    const fixture = TestBed.createComponent(MotorPhases);
    await fixture.whenStable();
    const text = (fixture.nativeElement as HTMLElement).textContent ?? '';
    return text.replace(/\s+/gu, ' ').trim();
  }
  const leads = ['U', 'V', 'W'];
  const whole: ShownMotor = { leads, missing: [], isolator: undefined, perHz: 8, mostV: 400 };

  it('say the voltage that belongs to the frequency, never more than the motor is rated for', async () => {
    // The bench gives 20 Hz.
    expect(await shown(whole)).toBe('U V W 160 V between two');
    TestBed.resetTestingModule();
    expect(await shown({ ...whole, mostV: 120 })).toBe('U V W 120 V between two');
  });

  it('name a lead that no output reaches, and an isolator that is open', async () => {
    expect(await shown({ ...whole, missing: ['V'] })).toBe('U V openW 160 V between two');
    TestBed.resetTestingModule();
    const isolator = { id: 'breaker', tag: 'Q5', positions: ['on', 'off'] };
    expect(await shown({ ...whole, isolator })).toBe('U V W Q5 is open');
  });

  it('say that direct current brakes while there is no frequency and the shaft is slowed down', async () => {
    expect(await shown(whole, 'decelerating', 0)).toBe('U V W direct current, it brakes');
    TestBed.resetTestingModule();
    expect(await shown(whole, 'decelerating', 5)).toBe('U V W 40 V between two');
    TestBed.resetTestingModule();
    expect(await shown(whole, 'ready', 0)).toBe('U V W 0 V between two');
  });

  it('say nothing of volts where the plate does not', async () => {
    expect(await shown({ leads, missing: [], isolator: undefined })).toBe('U V W');
  });
});

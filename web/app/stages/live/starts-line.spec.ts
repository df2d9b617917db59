import { TestBed } from '@angular/core/testing';
import type { SaidStep } from '@tactron/core/said';
import { lastStartMs, StartsLine, startsOf } from './starts-line';

const step = (
  key: string,
  act: string,
  more: { starts?: number; coolMin?: number; readMs?: number } = {},
): SaidStep =>
  ({
    step: {
      key,
      act,
      do: { code: key, args: more.coolMin === undefined ? {} : { coolMin: more.coolMin } },
      ...(more.starts === undefined ? {} : { starts: more.starts }),
    },
    ...(more.readMs === undefined
      ? {}
      : { reading: { atClient: new Date(more.readMs).toISOString() } }),
  }) as unknown as SaidStep;

describe('starts taken by the live tests', () => {
  let now = 0;
  let steps: SaidStep[] = [];
  beforeEach(() => {
    now = Date.now();
    steps = [
      step('volts', 'supply', { readMs: now - 1000 }),
      step('bump', 'bump', { starts: 1, readMs: now - 120_000 }),
      step('bump.stop', 'bump', { readMs: now - 90_000 }),
      step('peak', 'start', { starts: 2, coolMin: 3 }),
      step('time', 'start', { coolMin: 3 }),
    ];
  });

  it('are counted by act, and the last one is when its last answer was given', () => {
    expect(startsOf(steps)).toBe(3);
    expect(lastStartMs(steps[3], steps)).toBe(now - 90_000);
    expect(lastStartMs(steps[1], steps)).toBeUndefined();
  });

  it('are told with the time that the motor still cools', () => {
    const fixture = TestBed.createComponent(StartsLine);
    fixture.componentRef.setInput('steps', steps);
    fixture.componentRef.setInput('step', steps[3]);
    fixture.detectChanges();
    const text = (fixture.nativeElement as HTMLElement).textContent ?? '';
    expect(text).toContain('Takes 2 starts; 1 of 3 taken so far.');
    expect(text).toMatch(/cools for 1:(?:30|29)/u);
    fixture.componentRef.setInput('step', steps[0]);
    fixture.detectChanges();
    expect((fixture.nativeElement as HTMLElement).textContent?.trim()).toBe('');
  });
});

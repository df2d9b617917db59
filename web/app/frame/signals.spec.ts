import { Component, provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Preferences } from './preferences';
import { keepAwake, Signals } from './signals';

describe('signals of a verdict', () => {
  let preferences: Preferences;
  let signals: Signals;
  let felt: jasmine.Spy;
  let heard: jasmine.Spy;

  beforeEach(() => {
    localStorage.removeItem('tactron.preferences');
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    preferences = TestBed.inject(Preferences);
    signals = TestBed.inject(Signals);
    felt = spyOn(navigator, 'vibrate').and.returnValue(true);
    heard = spyOn(AudioContext.prototype, 'createOscillator').and.callThrough();
  });

  it('are heard and felt, a fail otherwise than a pass', () => {
    signals.tell('pass');
    const [pass, tones] = [felt.calls.mostRecent().args[0], heard.calls.count()];
    signals.tell('fail');
    expect(felt.calls.mostRecent().args[0]).not.toEqual(pass);
    expect([tones, heard.calls.count()]).toEqual([1, 3]);
  });

  it('are each switched off for themselves', () => {
    preferences.sound.set(false);
    signals.tell('fail');
    expect([felt.calls.count(), heard.calls.count()]).toEqual([1, 0]);
    preferences.vibration.set(false);
    preferences.sound.set(true);
    signals.tell('pass');
    expect([felt.calls.count(), heard.calls.count()]).toEqual([1, 1]);
  });
});

describe('a screen that stays awake', () => {
  @Component({ selector: 'tac-awake-stage', template: '' })
  class Stage {
    constructor() {
      keepAwake();
    }
  }

  it('is asked for while the stage is there, again when it is seen again, and let go with it', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    let held = 0;
    const lock = { release: () => Promise.resolve(void held--) } as WakeLockSentinel;
    const request = spyOn(navigator.wakeLock, 'request').and.callFake(() => {
      held++;
      return Promise.resolve(lock);
    });
    const fixture = TestBed.createComponent(Stage);
    await fixture.whenStable();
    expect([request.calls.count(), held]).toEqual([1, 1]);
    held = 0;
    document.dispatchEvent(new Event('visibilitychange'));
    await fixture.whenStable();
    expect([request.calls.count(), held]).toEqual([2, 1]);
    fixture.destroy();
    expect(held).toBe(0);
    document.dispatchEvent(new Event('visibilitychange'));
    expect(request.calls.count()).toBe(2);
  });
});

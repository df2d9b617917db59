import { DestroyRef, Injectable, inject } from '@angular/core';
import { Preferences } from './preferences';

/** A tone of a verdict: pitch, Hz, and length, ms. */
interface Tone {
  readonly hz: number;
  readonly ms: number;
}

const tones: Readonly<Record<'pass' | 'fail', readonly Tone[]>> = {
  pass: [{ hz: 990, ms: 90 }],
  fail: [
    { hz: 260, ms: 160 },
    { hz: 260, ms: 160 },
  ],
};
/** Vibration of a verdict: on, off, on, ms. */
const shakes: Readonly<Record<'pass' | 'fail', number[]>> = {
  pass: [40],
  fail: [140, 80, 140],
};
const GAP_MS = 90;
const LOUDNESS = 0.12;

/** A verdict heard and felt, for eyes that are on the panel; each can be switched off. */
@Injectable({ providedIn: 'root' })
export class Signals {
  private readonly preferences = inject(Preferences);
  private audio: AudioContext | undefined;

  /** Tells a verdict. It is called from a touch, which is what unlocks sound. */
  tell(verdict: 'pass' | 'fail'): void {
    if (this.preferences.vibration()) navigator.vibrate?.(shakes[verdict]);
    if (this.preferences.sound()) this.play(tones[verdict]);
  }

  private play(list: readonly Tone[]): void {
    if (typeof AudioContext === 'undefined') return;
    const audio = (this.audio ??= new AudioContext());
    void audio.resume();
    let at = audio.currentTime;
    for (const { hz, ms } of list) {
      const [tone, loud] = [audio.createOscillator(), audio.createGain()];
      tone.frequency.value = hz;
      loud.gain.setValueAtTime(LOUDNESS, at);
      loud.gain.exponentialRampToValueAtTime(1e-3, at + ms / 1000);
      tone.connect(loud).connect(audio.destination);
      tone.start(at);
      tone.stop(at + ms / 1000);
      at += (ms + GAP_MS) / 1000;
    }
  }
}

/**
 * Keeps the screen awake as long as the component lives in whose constructor it is called; asked for again when the page is
 * seen again. Where the browser cannot, nothing happens.
 */
export function keepAwake(): void {
  let lock: WakeLockSentinel | undefined;
  let over = false;
  const ask = (): void => {
    if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return;
    navigator.wakeLock.request('screen').then(
      (held) => {
        if (over) void held.release();
        else lock = held;
      },
      // A low battery or a policy refuses it: the screen goes dark as it always does.
      () => undefined,
    );
  };
  ask();
  document.addEventListener('visibilitychange', ask);
  inject(DestroyRef).onDestroy(() => {
    over = true;
    document.removeEventListener('visibilitychange', ask);
    void lock?.release();
  });
}

import { changesSpeed } from '../../catalogue/index.js';
import type { Act, Phrase } from '../../job/index.js';
import type { OperationId } from '../../scheme/index.js';
import { isAtRest, tagOf, type StepContext } from '../context.js';
import type { Sequence } from './sequence.js';

/** Time between two looks at a frequency that a key moves, ms. */
const KEY_LOOK_MS = 20;
/** A frequency that has not moved for so long is at its end, ms. */
const KEY_END_MS = 1500;
/** How long the button that lowers the speed is held, ms. */
const LOWERED_MS = 60_000;

/**
 * How the speed of a job is set by hand: a dial or signal turned, the keys of the device held, a preset chosen, or a
 * button held until the frequency is there.
 */
export class Speed {
  /** Share of the highest frequency at which it stands, 0 … 1. */
  share = 0;
  /** A button has raised it, and nothing has taken it down since. */
  private isRaised = false;
  private readonly presets: readonly { readonly id: OperationId; readonly hz: number }[];

  constructor(
    private readonly c: StepContext,
    readonly s: Sequence,
  ) {
    const { arrangement, job } = c;
    this.presets = arrangement.presets
      .map((id, i) => ({ id, hz: job.scheme.presetsHz?.[i] ?? 0 }))
      .sort((x, y) => x.hz - y.hz);
  }

  /** Sets the speed with nothing running. */
  set(share: number): this {
    const { s, c } = this;
    const { dial } = c.arrangement;
    if (dial) {
      const turn: Act = { do: 'dial', atMs: 0, device: dial, to: share };
      s.work([turn], 1000);
    } else if (c.keypadCode) this.keys(share);
    else if (this.presets.length > 0) this.byPreset(share);
    this.share = share;
    return this;
  }

  /** Where buttons raise the speed, one is held until it is there. */
  raised(): Sequence {
    const { s, c } = this;
    if (!c.arrangement.operations.up || c.arrangement.dial) return s;
    const wanted = this.share * c.maxHz;
    const least = s.nowMs;
    if (Math.abs(s.hz) >= wanted - 0.2) return s;
    this.isRaised = true;
    s.give('up', 0);
    while (Math.abs(s.hz) < wanted - 0.2 && s.nowMs - least < s.travelMs + 60_000) s.wait(500);
    return s.take('up', 500);
  }

  /** Where buttons moved the speed, it is taken down to nothing again; whether that had to be done. */
  lower(): boolean {
    const { s, c } = this;
    if (!this.isRaised || !c.arrangement.operations.down) return false;
    s.give('down', LOWERED_MS);
    s.take('down', 500);
    this.isRaised = false;
    return true;
  }

  /** Holds a key of the device until its own frequency is at a share of the highest. */
  keys(share: number): void {
    const { s, c } = this;
    const wanted = share * c.maxHz;
    const key = wanted > s.keypadHz ? 'up' : 'down';
    const short = (): boolean =>
      key === 'up' ? s.keypadHz < wanted - 0.01 : s.keypadHz > wanted + 0.01;
    if (!short()) return;
    s.work([{ do: 'key', atMs: 0, key, down: true }], 0);
    let [hz, movedMs] = [s.keypadHz, s.nowMs];
    while (short() && s.nowMs - movedMs < KEY_END_MS) {
      s.wait(KEY_LOOK_MS);
      if (s.keypadHz !== hz) [hz, movedMs] = [s.keypadHz, s.nowMs];
    }
    s.work([{ do: 'key', atMs: 0, key, down: false }], 500);
  }

  /** Chooses a preset: its selector turned, or its switch closed and those of the others open. */
  choose(id: OperationId, waitMs: number): void {
    const { operations, presets } = this.c.arrangement;
    const own = operations[id]?.device;
    const others = presets.filter((other) => other !== id && this.s.isGiven(other));
    for (const other of others) if (operations[other]?.device !== own) this.s.take(other, 0);
    if (!isAtRest(this.c, id) || others.length > 0) this.s.give(id, waitMs);
  }

  private byPreset(share: number): void {
    const at = share <= 0.3 ? 0 : share >= 0.9 ? this.presets.length - 1 : 1;
    this.choose(this.presets[Math.min(at, this.presets.length - 1)].id, 500);
  }

  /** How a sentence says the speed is set. */
  get args(): Phrase['args'] {
    const { c, s, share } = this;
    const pct = Math.round(share * 100);
    if (c.keypadCode) return { keypadHz: share * c.maxHz, pct };
    if (!changesSpeed(c.profile))
      return {
        giver: 'none',
        pct,
        ...(s.branchOff ? { off: tagOf(c, c.arrangement.mainBreaker) } : {}),
        ...(s.cooledMs > 0 ? { coolMin: Math.ceil(s.cooledMs / 60_000) } : {}),
      };
    const giver = c.job.scheme.speed ?? 'keypad';
    const { up } = c.arrangement.operations;
    return giver === 'upDown' && up
      ? { giver, pct, up: tagOf(c, up.device), upHz: share * c.maxHz }
      : { giver, pct };
  }
}

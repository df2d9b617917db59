import type { ControlFeed } from '../catalogue/index.js';
import type { Job } from '../job/index.js';
import { lineIds, type PointRef } from './arrangement.js';
import type { Sketch } from './sketch.js';

/** Potentials of the alternating control supply behind its protection. */
export const alternatingPotentials = { line: 'control.L', neutral: 'control.N' } as const;

/** What a relay or horn is for the supply it hangs on. */
export const coilOn = (
  { volts, ac }: { volts: number; ac: boolean },
  ohm24 = 1200,
): Record<string, number | boolean> =>
  ac ? { volts, ac, ohm: (volts * volts) / 1.5 } : { volts, ohm: ohm24 };

/** Supplies that exist beside the drive's own, each laid when the first device asks for it. */
export class Supplies {
  constructor(
    private readonly sketch: Sketch,
    private readonly practice: Job['practice'],
    private readonly singlePhase: boolean,
    private readonly isolated: boolean,
    private readonly feed: ControlFeed = 'own',
  ) {}

  /**
   * The supply of the device's control, where it has one apart from its mains: the contacts of the station are fed from it.
   *
   * @param behindHead the station is fed through a contact of the emergency stop
   */
  stationFeed(behindHead: boolean): void {
    if (this.feed === 'own') return;
    const { sketch } = this;
    const { plus, minus } = this.device();
    if (this.feed === 'alternating') sketch.controlClass = 'controlAc';
    sketch.join(plus, '@controlA', 'control.supply');
    sketch.join(minus, this.feed === 'alternating' ? '@controlB' : '@zero', 'control.return');
    sketch.alias(behindHead ? 'source' : 'feed', plus);
    sketch.alias('return', minus);
    sketch.without('@feed', '@return', '@supply24');
    if (this.feed === 'alternating') sketch.without('@zero');
  }

  /** Coil and lamp voltage of the alternating control supply: 120 V by NFPA practice, else 230 V. */
  get alternatingV(): number {
    return this.practice === 'NFPA' ? 120 : 230;
  }

  /**
   * Two-pole breaker of the control supplies: after the supply disconnecting device and ahead of the main breaker, so that
   * opening the breaker leaves them on. Where no disconnecting device is entered they stay live with everything here open.
   */
  private tap(id: string, wish: string): void {
    const { sketch } = this;
    const { supply, isolator } = lineIds;
    sketch.device(id, 'breakerTwoPole', 'panel');
    const other = this.singlePhase ? 'N' : 'L2';
    const poles = [
      ['1', 'L1', '2'],
      ['3', other, '4'],
    ] as const;
    for (const [pole, phase, behind] of poles) {
      const from: PointRef = this.isolated ? `${isolator}:${behind}` : `${supply}:${phase}`;
      sketch.join(`${id}.${pole}`, from, `${wish}.${phase}`, 'controlAc');
      sketch.join(`${id}.${pole}`, `${id}:${pole}`, `${wish}.${phase}`, 'controlAc');
    }
  }

  /** Alternating control supply: a transformer with one side earthed, or the single phase itself. @returns its two potentials */
  alternating(): { line: string; neutral: string } {
    const { sketch } = this;
    const potentials = alternatingPotentials;
    if (sketch.has(potentials.line)) return potentials;
    this.tap('breaker.control', 'control');
    if (this.singlePhase) {
      sketch.join(potentials.line, 'breaker.control:2', 'control.line', 'controlAc');
      sketch.join(potentials.neutral, 'breaker.control:4', 'control.neutral', 'controlAc');
      return potentials;
    }
    sketch.device('transformer.control', 'controlTransformer', 'panel', {
      volts: this.alternatingV,
    });
    sketch.device('fuse.control', 'fuse', 'panel', { amps: 2 });
    sketch.join('control.P1', 'breaker.control:2', 'control.primary.1', 'controlAc');
    sketch.join('control.P1', 'transformer.control:P1', 'control.primary.1', 'controlAc');
    sketch.join('control.P2', 'breaker.control:4', 'control.primary.2', 'controlAc');
    sketch.join('control.P2', 'transformer.control:P2', 'control.primary.2', 'controlAc');
    sketch.join('control.S1', 'transformer.control:S1', 'control.secondary', 'controlAc');
    sketch.join('control.S1', 'fuse.control:1', 'control.secondary', 'controlAc');
    sketch.join(potentials.line, 'fuse.control:2', 'control.line', 'controlAc');
    sketch.join(potentials.neutral, 'transformer.control:S2', 'control.neutral', 'controlAc');
    return potentials;
  }

  /** A 24 V supply of its own, ahead of the main breaker: what it feeds outlives the drive's power. */
  own24(): { plus: string; minus: string } {
    const { sketch } = this;
    const potentials = { plus: 'own24.plus', minus: 'own24.minus' };
    if (sketch.has(potentials.plus)) return potentials;
    this.tap('breaker.supply24', 'supply24');
    sketch.device('supply24', 'supply24', 'panel', { volts: 24, amps: 2.5 });
    sketch.join('supply24.L', 'breaker.supply24:2', 'supply24.line', 'controlAc');
    sketch.join('supply24.L', 'supply24:L', 'supply24.line', 'controlAc');
    sketch.join('supply24.N', 'breaker.supply24:4', 'supply24.neutral', 'controlAc');
    sketch.join('supply24.N', 'supply24:N', 'supply24.neutral', 'controlAc');
    sketch.join(potentials.plus, 'supply24:+', 'supply24.plus');
    sketch.join(potentials.minus, 'supply24:-', 'supply24.minus');
    return potentials;
  }

  /**
   * What coils and lamps beside the device's inputs hang on: its own 24 V, or the supply of its control.
   */
  device(): { plus: string; minus: string; volts: number; ac: boolean } {
    const on24 = { volts: 24, ac: false };
    if (this.feed === 'alternating') {
      const { line, neutral } = this.alternating();
      return { plus: line, minus: neutral, volts: this.alternatingV, ac: true };
    }
    if (this.feed === 'direct24') return { ...this.own24(), ...on24 };
    const { sketch } = this;
    if (!sketch.has('drive.plus')) {
      sketch.join('drive.plus', '@supply24', 'drive.plus');
      sketch.join('drive.minus', '@zero', 'drive.minus');
    }
    return { plus: 'drive.plus', minus: 'drive.minus', ...on24 };
  }

  /** The controller's own 24 V, its minus joined to the drive's so that its outputs have a return. */
  controller(): { plus: string; minus: string } {
    const { sketch } = this;
    if (!sketch.has('controller.plus')) {
      sketch.device('controller.supply', 'loopSupply', 'machine', { volts: 24, amps: 1 });
      sketch.join('controller.plus', 'controller.supply:+', 'controller.plus');
      if (this.feed === 'alternating') sketch.alias('drive.minus', 'controller.minus');
      else if (this.feed === 'direct24') sketch.alias('drive.minus', this.own24().minus);
      sketch.join('drive.minus', '@zero', 'drive.minus');
      sketch.join('drive.minus', 'controller.supply:-', 'controller.minus');
    }
    return { plus: 'controller.plus', minus: 'drive.minus' };
  }
}

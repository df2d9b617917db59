/** How the voltage comes on. Shares of full voltage, times in s, currents in the line of the motor. */
export interface StartWay {
  readonly kind:
    'direct' | 'fixedVoltage' | 'voltageRamp' | 'currentLimit' | 'rampAndLimit' | 'torqueRamp';
  /** Voltage at first, or for good with a fixed one. */
  readonly fraction?: number;
  /** Time to full voltage; of a torque ramp from 0 to 100 % of rated torque. */
  readonly rampS?: number;
  readonly limitA?: number;
  /** A boost before the ramp begins: its voltage and how long it lasts. */
  readonly kickFraction?: number;
  readonly kickS?: number;
  /** The boost is held below the current limit as well; it is unless said otherwise. */
  readonly kickUnderLimit?: boolean;
  /** Torque ramp: at first and at most, % of rated torque. */
  readonly initialTorquePct?: number;
  readonly torqueLimitPct?: number;
  /** The voltage goes to full when the torque ramp has come to its end. */
  readonly fullAfterTorque?: boolean;
}

/** Torque and current of the motor at full voltage and some speed. */
export interface AtFull {
  readonly torqueNm: number;
  readonly amps: number;
}

/** When the boost is over, s. */
export const kickEnd = ({ kickS = 0, kickFraction }: StartWay): number =>
  kickFraction === undefined ? 0 : kickS;

/**
 * Moment from which the voltage no longer changes by time alone, s: the end of the ramp. Only the motor's speed moves it then.
 */
export function rampEnd(way: StartWay): number {
  const from = kickEnd(way);
  switch (way.kind) {
    case 'voltageRamp':
    case 'rampAndLimit':
      return from + (way.rampS ?? 0);
    case 'torqueRamp':
      return (
        from +
        ((way.rampS ?? 0) *
          Math.max(0, (way.torqueLimitPct ?? 400) - (way.initialTorquePct ?? 0))) /
          100
      );
    default:
      return from;
  }
}

/**
 * Share of full voltage at a time: the circuit is linear, so the current follows it and the torque its square.
 *
 * @param t since the voltage came on, s
 * @param ratedNm rated torque, which a torque ramp counts in
 */
export function voltageShare(way: StartWay, t: number, full: AtFull, ratedNm: number): number {
  const limited = way.limitA === undefined ? 1 : way.limitA / full.amps;
  const kick = kickEnd(way);
  if (t < kick) {
    const boost = way.kickFraction ?? 1;
    return Math.min(1, boost, way.kickUnderLimit === false ? 1 : limited);
  }
  const tau = t - kick;
  const ramp = (): number => {
    const from = way.fraction ?? 0;
    return way.rampS ? from + (1 - from) * Math.min(1, tau / way.rampS) : 1;
  };
  switch (way.kind) {
    case 'direct':
      return 1;
    case 'fixedVoltage':
      return way.fraction ?? 1;
    case 'voltageRamp':
      return ramp();
    case 'currentLimit':
      return Math.min(1, limited);
    case 'rampAndLimit':
      return Math.min(ramp(), limited);
    case 'torqueRamp': {
      const most = way.torqueLimitPct ?? Infinity;
      const asked = (way.initialTorquePct ?? 0) + (way.rampS ? (100 * tau) / way.rampS : Infinity);
      if (way.fullAfterTorque && asked >= most) return Math.min(1, limited);
      const nm = (Math.min(asked, most) / 100) * ratedNm;
      return Math.min(1, limited, full.torqueNm > 0 ? Math.sqrt(nm / full.torqueNm) : 1);
    }
  }
}

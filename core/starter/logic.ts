import type { DeviceFacts, DeviceLogic, LogicCondition, Reading } from '../motor/index.js';
import { hasControlSupply, type Profile } from '../catalogue/index.js';
import { steady } from '../numeric/index.js';

/** A soft starter as it is installed. */
export interface StarterSpec {
  readonly kind: 'starter';
  readonly powerUpDelayMs: number;
  /** Its control is fed by a supply of its own. */
  readonly separateControl: boolean;
}

/** Time a run-up is given while it is not simulated, ms. */
const UNKNOWN_TRAVEL_MS = 10_000;

/** What the starter knows so far: whether its control is fed, and since when it is up. */
export interface StarterState {
  readonly fed: boolean;
  readonly up: boolean;
  readonly readyUs: number;
  readonly mains: Reading['mains'];
}

export const starterStates = ['off', 'startingUp', 'notSimulated'] as const;

const dark: StarterState = { fed: false, up: false, readyUs: Infinity, mains: 0 };

/**
 * A soft starter behind its terminals: its control supply, inputs and mains are there with every voltage. What it does with
 * its motor is not simulated yet; its state says so, and its output stays off.
 */
export function starterLogic(spec: StarterSpec): DeviceLogic<StarterState, Reading> {
  return {
    states: starterStates,
    faults: [],
    init: () => dark,
    sense: (reading) => reading,
    step: (s, { controlSupply, mains }, t) => {
      const fed = spec.separateControl ? controlSupply === 1 : mains > 0;
      const readyUs = fed ? (s.fed ? s.readyUs : t + spec.powerUpDelayMs * 1000) : Infinity;
      const up = fed && t >= readyUs;
      const same = fed === s.fed && up === s.up && readyUs === s.readyUs && mains === s.mains;
      return same ? s : { fed, up, readyUs, mains };
    },
    wake: (s, t) => (s.fed && s.readyUs > t ? s.readyUs : Infinity),
    view: (s) => ({
      state: s.up ? 'notSimulated' : s.fed ? 'startingUp' : 'off',
      hz: 0,
      fault: null,
      blockedBy: null,
    }),
    demand: (s, t) => ({
      output: { kind: 'off' },
      relays: {},
      supplies: s.fed,
      analogue: { frequency: steady(0, t) },
    }),
    why: (s): LogicCondition[] => [
      { code: 'notSimulated', met: false, args: { up: s.up }, about: 'device' },
    ],
    rested: (s, t) => (s.up && s.readyUs <= t && s.readyUs !== 0 ? { ...s, readyUs: 0 } : s),
  };
}

/** A soft starter as its profile makes it. */
export function starterSpecOf(profile: Profile): { spec: StarterSpec; facts: DeviceFacts } {
  const separateControl = hasControlSupply(profile);
  return {
    spec: { kind: 'starter', powerUpDelayMs: profile.powerUpDelayMs, separateControl },
    facts: {
      travelMs: UNKNOWN_TRAVEL_MS,
      maxHz: profile.supply.hz[0],
      referenceInput: undefined,
      panelDial: false,
      keypadHasSpeed: false,
      filterMs: 0,
      discrepancyMs: 0,
    },
  };
}

import * as v from 'valibot';
import { quantity } from './quantities.js';

const hertz = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(400));
const seconds = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(3600));

/** The operator's wishes. A wish that was not asked yet is absent, never guessed. */
export const schemeSchema = v.strictObject({
  startStop: v.optional(v.picklist(['twoWire', 'threeWire', 'threeWireTwoStarts', 'sealInRelay', 'keypad', 'controller'])),
  /** What gives the two-wire command. */
  startBy: v.optional(v.picklist(['selector', 'levelContact', 'pressureContact', 'maintainedButton'])),
  direction: v.optional(v.picklist(['forwardOnly', 'forwardReverse'])),
  /** Forward and reverse from one three-position selector or from two contacts that can be closed together. */
  directionBy: v.optional(v.picklist(['selector', 'twoContacts', 'runAndDirection'])),
  speed: v.optional(v.picklist(['dial', 'keypad', 'panelDial', 'voltage', 'current', 'presets', 'upDown'])),
  dialOhm: v.optional(quantity('resistance', { min: 1 })),
  minHz: v.optional(hertz),
  maxHz: v.optional(hertz),
  accelS: v.optional(seconds),
  decelS: v.optional(seconds),
  stopMode: v.optional(v.picklist(['ramp', 'coast'])),
  /** What must happen when power returns with the start contact still closed. */
  powerReturn: v.optional(v.picklist(['stayStopped', 'restart'])),
  /** Who can be at the machine. */
  /** Whether the start contacts are fed through the stop contact, or each on its own. */
  stationFeed: v.optional(v.picklist(['separate', 'chained'])),
  exposed: v.optional(v.picklist(['nobody', 'behindGuard', 'atMachine'])),
  contactsSwitch: v.optional(v.picklist(['plus24', 'zeroVolt'])),
  stationLength: v.optional(quantity('length')),
  estop: v.optional(v.picklist(['none', 'safeTorqueOff', 'contactor', 'outputInhibit'])),
  jog: v.optional(v.picklist(['none', 'forward', 'bothWays'])),
  presetsHz: v.optional(v.pipe(v.array(hertz), v.maxLength(15))),
  secondRamp: v.optional(v.boolean()),
  localRemote: v.optional(v.boolean()),
  status: v.optional(v.array(v.picklist(['running', 'healthy', 'atSpeed', 'meter']))),
});
export type Scheme = v.InferOutput<typeof schemeSchema>;

/** The first wish that is understood but cannot be planned yet, with its path. */
export function notYetInScheme(s: Scheme): { path: string; what: string } | undefined {
  const built: { [K in keyof Scheme]?: readonly unknown[] } = {
    startStop: ['twoWire', 'threeWire', 'threeWireTwoStarts'],
    directionBy: ['selector', 'twoContacts', 'runAndDirection'],
    speed: ['dial', 'keypad'],
    estop: ['none'],
    jog: ['none'],
    secondRamp: [false],
    localRemote: [false],
  };
  for (const [wish, done] of Object.entries(built)) {
    const value = s[wish as keyof Scheme];
    if (value !== undefined && !done.includes(value)) return { path: `scheme.${wish}`, what: `"${String(value)}"` };
  }
  if (s.presetsHz?.length) return { path: 'scheme.presetsHz', what: 'preset speeds' };
  const status = s.status?.find((wish) => wish !== 'running' && wish !== 'healthy');
  return status ? { path: 'scheme.status', what: `"${status}"` } : undefined;
}

import type { Device } from '../../circuit/index.js';
import type { InstalledPart } from '../installed.js';
import { coilBehaviour, fuseBehaviour, loadBehaviour } from './coil.js';
import { contactsBehaviour, dialBehaviour, switchesBehaviour, wiresBehaviour } from './contacts.js';
import {
  hookBehaviour,
  powerBehaviour,
  sourceBehaviour,
  supplyBehaviour,
  transistorBehaviour,
} from './sources.js';

type Behaviours = {
  readonly [K in InstalledPart['kind']]: (
    d: Extract<InstalledPart, { kind: K }>,
  ) => Device<never> | Device<unknown>;
};

const behaviours = {
  contacts: contactsBehaviour,
  dial: dialBehaviour,
  supply: supplyBehaviour,
  coil: coilBehaviour,
  load: loadBehaviour,
  power: powerBehaviour,
  source: sourceBehaviour,
  transistor: transistorBehaviour,
  fuse: fuseBehaviour,
  hook: hookBehaviour,
  wires: wiresBehaviour,
  switches: switchesBehaviour,
} as unknown as Behaviours;

/** Behaviour of an installed part. */
export const behaviourOf = (d: InstalledPart): Device<unknown> =>
  (behaviours[d.kind] as (d: InstalledPart) => Device<unknown>)(d);

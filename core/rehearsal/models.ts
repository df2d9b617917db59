import type { Device } from '../circuit/index.js';
import { logicOf, type Installation, type Installed } from '../installation/index.js';
import { shaftBehaviour, type InstalledShaft } from '../motor/index.js';
import { behaviourOf, type CoilState, type ContactsState } from '../parts/index.js';
import { deviceModel, type DeviceState } from './device-model.js';

/** The shaft of an installation, told by the device's logic what drives it, by brake and isolator whether that reaches it. */
function shaftModel(d: InstalledShaft, { device }: Installation): Device<unknown> {
  const logic = logicOf(device.spec);
  return shaftBehaviour(d, {
    demand: (state, t) => logic.demand((state as DeviceState).logic, t).output,
    brakeOpen: (brake) => !(brake as CoilState).breaksClosed,
    isolatorClosed: (isolator) => (isolator as ContactsState).position === 'on',
  }) as Device<unknown>;
}

const kept = new WeakMap<Installation, readonly Device<unknown>[]>();

/** Behaviour of everything installed, in the order of the installation; made once: it holds no state. */
export function modelsOf(installation: Installation): readonly Device<unknown>[] {
  const known = kept.get(installation);
  if (known) return known;
  const made = madeOf(installation);
  kept.set(installation, made);
  return made;
}

function madeOf(installation: Installation): Device<unknown>[] {
  return installation.devices.map((d: Installed) =>
    d.kind === 'device'
      ? (deviceModel(d) as Device<unknown>)
      : d.kind === 'shaft'
        ? shaftModel(d, installation)
        : behaviourOf(d),
  );
}

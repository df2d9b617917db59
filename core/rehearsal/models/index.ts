import type { Installation } from '../../installation/index.js';
import type { Device } from '../device.js';
import { coilModel, fuseModel, loadModel } from './coil.js';
import { driveModel } from './drive.js';
import { contactsModel, dialModel } from './passive.js';
import { hookModel, powerModel, sourceModel, supplyModel, transistorModel } from './sources.js';

/** Behaviour of an installed device. */
export function modelOf(d: Installation['devices'][number]): Device<never> {
  switch (d.kind) {
    case 'contacts':
      return contactsModel(d) as Device<never>;
    case 'dial':
      return dialModel(d) as Device<never>;
    case 'supply':
      return supplyModel(d) as Device<never>;
    case 'drive':
      return driveModel(d) as Device<never>;
    case 'coil':
      return coilModel(d) as Device<never>;
    case 'load':
      return loadModel(d) as Device<never>;
    case 'power':
      return powerModel(d) as Device<never>;
    case 'source':
      return sourceModel(d) as Device<never>;
    case 'transistor':
      return transistorModel(d) as Device<never>;
    case 'fuse':
      return fuseModel(d) as Device<never>;
    case 'hook':
      return hookModel(d) as Device<never>;
  }
}

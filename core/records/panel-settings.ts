import { changesSpeed, type Profile, type Value } from '../catalogue/index.js';
import type { Job, Wiring } from '../job/index.js';
import { onlyShows } from '../parts/index.js';
import { toBase } from '../units/index.js';

/** What is set at a part of the panel or at the controller, beside the device's own settings. */
export const panelSettingKinds = [
  'delayOn',
  'delayOff',
  'outVolts',
  'tap',
  'overloadDial',
  'switchesAt',
  'function',
  'signalKind',
  'fullScale',
  'zeroTrim',
  'spanTrim',
] as const;
export type PanelSettingKind = (typeof panelSettingKinds)[number];

/** A setting of the panel: where, what, and what it has to stand at, as far as anybody can say. */
export interface PanelSetting {
  /** Tag of the part, and what is set there: unique in the job, and no code of the device. */
  readonly code: string;
  readonly device: string;
  readonly what: PanelSettingKind;
  readonly unit: string;
  /** Absent where the process decides it: then it is noted as it was found and left. */
  readonly planned?: Value;
  /** How far from it a number may stand and still be as planned. */
  readonly within: number;
}

type Devices = Wiring['devices'];

/** Share by which a timer may be off its time, and what an adjustable 24 V may be off, V. */
const TIMER_SHARE = 0.1;
const OUT_WITHIN_V = 0.5;
/** Share by which the dial of an overload may be off the current of the motor. */
const OVERLOAD_SHARE = 0.05;
/** Voltage of a control supply, V. */
const CONTROL_V = 24;

const whatOf = (kind: PanelSettingKind): string =>
  kind.replace(/[A-Z]/gu, (letter) => ` ${letter.toLowerCase()}`);

function settingAt(
  devices: Devices,
  device: string,
  what: PanelSettingKind,
  unit: string,
  planned?: Value,
  within = 0,
): PanelSetting {
  const code = `${devices[device].tag} ${whatOf(what)}`;
  return { code, device, what, unit, within, ...(planned === undefined ? {} : { planned }) };
}

/** What one part asks for by its kind. */
function settingsOfPart({ plate }: Job, devices: Devices, id: string): PanelSetting[] {
  const { kind, params } = devices[id];
  const at = (what: PanelSettingKind, unit: string, planned?: Value, within?: number) =>
    settingAt(devices, id, what, unit, planned, within);
  switch (kind) {
    case 'timerRelay':
      return (
        [
          ['delayOnS', 'delayOn'],
          ['delayOffS', 'delayOff'],
        ] as const
      ).flatMap(([param, what]) => {
        const s = params[param];
        return typeof s === 'number' && s > 0 ? [at(what, 's', s, TIMER_SHARE * s)] : [];
      });
    case 'supply24':
      return [at('outVolts', 'V', CONTROL_V, OUT_WITHIN_V)];
    case 'controlTransformer':
      return plate.supply.volts ? [at('tap', 'V', toBase(plate.supply.volts, 'voltage'))] : [];
    case 'thermostat':
      return [at('switchesAt', '°C')];
    case 'levelInterlock':
    case 'levelContact':
    case 'pressureInterlock':
    case 'pressureContact':
      return [at('switchesAt', '')];
    default:
      return [];
  }
}

/** The dial of a motor breaker: the motor's current behind a soft starter, what the feed is sized for before a drive. */
function overloadDial({ plate, adopted }: Job, profile: Profile, amps?: number): PanelSetting[] {
  const { kind, ratedA } = plate.line?.protection ?? {};
  if (kind !== 'motorBreaker' || !adopted?.devices['breaker']) return [];
  const planned = changesSpeed(profile) ? ratedA && toBase(ratedA, 'current') : amps;
  const within = OVERLOAD_SHARE * (planned ?? 0);
  return [settingAt(adopted.devices, 'breaker', 'overloadDial', 'A', planned, within)];
}

/** What each output of the controller has to do, and what its speed signal means. */
function controllerSettings({ scheme }: Job, devices: Devices): PanelSetting[] {
  const outputs = (['controller.run', 'controller.reverse'] as const).flatMap((id) => {
    const way = id === 'controller.run' ? 'forward' : 'reverse';
    return devices[id] ? [settingAt(devices, id, 'function', '', `run ${way}, enabled`)] : [];
  });
  const source = 'controller.speed';
  if (!devices[source]) return outputs;
  const { fullScale } = scheme;
  const kind = scheme.speed === 'voltage' ? '0-10 V' : '4-20 mA';
  const at = (what: PanelSettingKind, unit: string, planned?: Value) =>
    settingAt(devices, source, what, unit, planned);
  return [
    ...outputs,
    at('signalKind', '', kind),
    at('fullScale', fullScale?.unit ?? '', fullScale?.value),
    at('zeroTrim', '%'),
    at('spanTrim', '%'),
  ];
}

/**
 * Everything that is set in the panel and at the controller beside the device: times, taps, the dial of a motor breaker,
 * switching points, the functions of a controller's outputs and the scale of its signal.
 *
 * @param motorA current of the motor as it is linked
 * @returns in the order of the tags; nothing without an adopted plan
 * @example panelSettings(job, profile).map((p) => `${p.code}: ${p.planned} ${p.unit}`) // ['K3 delay on: 5 s']
 */
export function panelSettings(job: Job, profile: Profile, motorA?: number): PanelSetting[] {
  const devices = job.adopted?.devices;
  if (!devices) return [];
  const parts = Object.keys(devices).filter((id) => !onlyShows(devices[id].kind));
  return [
    ...parts.flatMap((id) => settingsOfPart(job, devices, id)),
    ...overloadDial(job, profile, motorA),
    ...controllerSettings(job, devices),
  ].sort((x, y) => x.code.localeCompare(y.code, 'en', { numeric: true }));
}

/** Whether a value stands where it has to: a number within what it may be off, anything else to the letter. */
export const standsAsPlanned = ({ planned, within }: PanelSetting, value: Value): boolean =>
  typeof planned === 'number' && typeof value === 'number'
    ? Math.abs(value - planned) <= within + 1e-9
    : value === planned;

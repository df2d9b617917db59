import { schemeSchema, type Job } from '../job/index.js';
import { wishOptions } from './wish-options.js';

type Scheme = Job['scheme'];

/** Which list of answers a wish has. */
const lists: Partial<Record<keyof Scheme, keyof typeof wishOptions>> = {
  startStop: 'starts',
  startBy: 'startBys',
  controllerOutput: 'controllerOutputs',
  direction: 'directions',
  directionBy: 'directionBys',
  stationFeed: 'feeds',
  relayBase: 'relayBases',
  latchSupply: 'latchSupplies',
  speed: 'speeds',
  stopMode: 'stops',
  lineContactor: 'contactors',
  contactorLatch: 'contactorLatches',
  presetsBy: 'presetsBys',
  analogueInput: 'analogueInputs',
  starterConnection: 'starterConnections',
  startKind: 'startKinds',
  tripClass: 'classes',
  powerReturn: 'powers',
  exposed: 'exposures',
  contactsSwitch: 'logics',
  fieldWires: 'fieldWires',
  estop: 'estops',
  footStop: 'footStops',
  interlocks: 'interlocks',
  thermistor: 'windingSensors',
  jog: 'jogs',
  permission: 'permissions',
  status: 'status',
  lamps: 'lamps',
  workLight: 'sides',
  panelFan: 'sides',
};

/** Units of wishes that are numbers. */
const units: Partial<Record<keyof Scheme, string>> = {
  minHz: 'Hz',
  maxHz: 'Hz',
  jogHz: 'Hz',
  presetsHz: 'Hz',
  accelS: 's',
  decelS: 's',
  accel2S: 's',
  decel2S: 's',
  inhibitS: 's',
  reversePauseS: 's',
  restWithinS: 's',
  guardLockS: 's',
  startWarningS: 's',
  permissionS: 's',
  beginPct: '%',
  limitPct: '%',
  endTorquePct: '%',
};

/**
 * The wishes of a job with their answers, as they were asked; those that were not answered are left out.
 *
 * @param names words of the core, by `wish.` and the wish
 * @example wishRows({ startStop: 'threeWire' }, names) // [['how it starts and stops', 'start and stop button (three-wire)']]
 */
export function wishRows(
  scheme: Scheme,
  names: Readonly<Record<string, string>>,
): [string, string][] {
  return (Object.keys(schemeSchema.entries) as (keyof Scheme)[]).flatMap(
    (wish): [string, string][] => {
      const value = scheme[wish];
      if (value === undefined) return [];
      const options: readonly { value: string; name: string }[] =
        wishOptions[lists[wish] as keyof typeof wishOptions] ?? [];
      const one = (x: unknown): string => {
        if (x === true) return 'yes';
        if (x === false) return 'no';
        if (typeof x === 'object' && x !== null && 'v' in x && 'u' in x)
          return `${String(x.v)} ${String(x.u)}`;
        if (typeof x === 'object' && x !== null && 'value' in x && 'unit' in x)
          return `${String(x.value)} ${String(x.unit)}`;
        const name = options.find((o) => o.value === x)?.name ?? String(x);
        return units[wish] ? `${name} ${units[wish]}` : name;
      };
      const told = Array.isArray(value) ? value.map(one).join(', ') || 'none' : one(value);
      return [[names[`wish.${wish}`] ?? wish, told]];
    },
  );
}

import type { Installation, Installed, InstalledDevice } from '../installation/index.js';
import { Layout } from '../circuit/index.js';
import * as v from 'valibot';
import { fullVoltageFromCurve, type InstalledShaft } from '../motor/index.js';
import { starterControlSchema, type StarterSpec } from '../starter/index.js';
import { parts, type InstalledPart, type PlacedPart } from '../parts/index.js';

/** A soft starter that nothing asks to run. */
const idle: StarterSpec = {
  kind: 'starter',
  seesShort: true,
  control: v.parse(starterControlSchema, { startMethod: 'twoWire', start: { kind: 'direct' } }),
  machine: {
    motor: fullVoltageFromCurve([{ share: 0, torqueRatio: 2, currentRatio: 7 }], 157, {
      rad: 150,
      torqueNm: 10,
      amps: 3,
    }),
    inertiaKgm2: 0.01,
    load: { kind: 'constant', torqueNm: 1 },
    polePairs: 2,
    motorA: 3,
    deviceA: 3,
  },
  separateControl: true,
  watchesThermistor: false,
  hasKeys: false,
  worksContactor: false,
};

/** A device without a single terminal, for circuits that need none. */
const noDevice: InstalledDevice = {
  kind: 'device',
  id: 'device',
  tag: 'T1',
  spec: idle,
  facts: {
    travelMs: 0,
    maxHz: 50,
    referenceInput: undefined,
    panelDial: false,
    keypadHasSpeed: false,
    filterMs: 0,
    discrepancyMs: 0,
    startHeatPct: 0,
    waitS: 0,
    cutNeedsReset: false,
    assumed: [],
  },
  shaft: 'motor',
  inputs: [],
  enables: [],
  analogue: [],
  output: undefined,
  relays: [],
  supply24: undefined,
  reference10: undefined,
  controlSupply: undefined,
  thermistor: undefined,
  mains: { phases: [], landings: [], edges: [], minV: 1, rotation: [] },
  joined: [],
  links: [],
  withstand: [],
  reference: 0,
  earth: undefined,
};

const noShaft: InstalledShaft = {
  kind: 'shaft',
  id: 'motor',
  tag: 'M1',
  drivenBy: 'device',
  brake: undefined,
  isolator: undefined,
  turns: 1,
  polePairs: undefined,
  slipRpm: 0,
  runDown: undefined,
  assumedS: 1,
  maxHz: 50,
};

/**
 * A circuit of parts alone, wired by hand.
 *
 * @param wires pairs of landings `id:terminal`
 * @param change what is otherwise about an installed part
 */
export function circuitOf(
  placed: readonly PlacedPart[],
  wires: readonly (readonly [string, string])[],
  change: (part: InstalledPart) => InstalledPart = (part) => part,
): Installation {
  const layout = new Layout();
  const laid = placed.map((part) => {
    const made = parts[part.kind].install?.(layout, part, { lineV: 400 });
    if (!made) throw new Error(`a ${part.kind} has no behaviour of its own`);
    return change(made);
  });
  const devices: Installed[] = [
    {
      kind: 'wires',
      id: 'wires',
      tag: '',
      open: [],
      wires: wires.map(([a, b], i) => ({
        id: `w${i + 1}`,
        number: String(i + 1),
        potential: '',
        edge: layout.edge(a, b, `w${i + 1}`, 'wire'),
        ohm: 0.01,
      })),
    },
    ...laid,
    noDevice,
    noShaft,
    { kind: 'switches', id: 'faults', tag: '', switches: [], thrown: [] },
  ];
  return {
    settingsFrom: 'planned',
    landings: layout.landings,
    reference: 1,
    edgeA: layout.edgeA,
    edgeB: layout.edgeB,
    edges: layout.edges,
    modal: layout.modal,
    devices,
    device: noDevice,
    shaft: noShaft,
  };
}

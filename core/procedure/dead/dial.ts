import { tagOf, phrase, type StepContext } from '../context.js';
import { marked } from '../marks.js';
import type { Draft } from './draft.js';
import type { DeadPanel } from './loops.js';

/** How far the track of a dial may be from its plate, as a share of it. */
const SHARE = 0.2;

/** A dial of the station, with the landings of its wiper and of its lower end at the device. */
interface DialAt {
  readonly id: string;
  readonly wiper: string;
  readonly low: string;
}

/** Where the dial is read; undefined where the job has none at its station. */
export function dialAt({ arrangement, profile, device, job }: StepContext): DialAt | undefined {
  const id = arrangement.dial;
  if (!id || job.adopted?.devices[id]?.kind !== 'potentiometer') return undefined;
  const terminal = (kind: string): string | undefined => {
    const found = Object.entries(profile.terminals).find(([, t]) => t.kind === kind)?.[0];
    return found === undefined ? undefined : `${device.id}:${found}`;
  };
  const input = device.analogue.find((i) => i.terminal === device.facts.referenceInput);
  const low = terminal('analogueCommon') ?? terminal('zeroVolt');
  return input && low ? { id, wiper: `${device.id}:${input.terminal}`, low } : undefined;
}

/** The dial's track, and its wiper at both ends: a dial landed the other way round shows here. */
export function dial(c: StepContext, panel: DeadPanel): Draft[] {
  const at = dialAt(c);
  if (!at) return [];
  const { id, wiper, low } = at;
  return [0, 1].flatMap((share): Draft[] => {
    const ohm = panel.ohms(wiper, low, [], share);
    if (ohm === null) return [];
    const args = { a: marked(c, wiper), b: marked(c, low), device: tagOf(c, id), pct: share * 100 };
    const tolerance = Math.max(SHARE * ohm, 50);
    return [
      {
        key: `dead.dial.${share * 100}`,
        act: 'dead.dial',
        do: phrase('dead.dial', args),
        must: phrase('dead.dial.must', { ohm: Math.round(ohm) }),
        expect: {
          kind: 'range',
          lo: Math.max(0, Math.round(ohm - tolerance)),
          hi: Math.round(ohm + tolerance),
          nominal: Math.round(ohm),
          unit: 'Ω',
        },
        instrument: 'ohmmeter',
      },
    ];
  });
}

import { expose } from 'comlink';
import {
  contactSort,
  dialLeads,
  motorCores,
  type CoreReads,
  type FindOutDoubt,
  type PairRead,
} from '@tactron/core/procedure';
import { sayFindOutDoubt } from '@tactron/core/words';

/** What was found out, in words, and which lead is which where it is to be landed. */
export interface SaidFindOut {
  readonly ok: boolean;
  readonly text: string;
  /** Terminal of the part by lead; empty where nothing is landed by it. */
  readonly at: Readonly<Record<string, string>>;
}

const said = (why: FindOutDoubt, leads: readonly string[]): SaidFindOut => ({
  ok: false,
  text: sayFindOutDoubt(why, leads),
  at: {},
});

const ohms = (ohm: number): string =>
  ohm >= 1000 ? `${(ohm / 1000).toFixed(2)} kΩ` : `${ohm.toFixed(ohm < 10 ? 2 : 0)} Ω`;

const worker = {
  dial(
    leads: readonly [string, string, string],
    back: readonly PairRead[],
    full: readonly PairRead[],
  ): SaidFindOut {
    const found = dialLeads(leads, back, full);
    if (!found.ok) return said(found.why, found.leads);
    const { low, wiper, high, ohm } = found;
    return {
      ok: true,
      text: `${wiper} is the wiper, ${low} the lower end, ${high} the upper end; the track has ${ohms(ohm)}.`,
      at: { [low]: '1', [wiper]: '2', [high]: '3' },
    };
  },

  contact(rest: number | 'over', worked: number | 'over'): SaidFindOut {
    const found = contactSort(rest, worked);
    if (!found.ok) return said(found.why, found.leads);
    return {
      ok: true,
      text: found.makes ? 'It is a make contact.' : 'It is a break contact.',
      at: { '': found.makes ? 'make' : 'break' },
    };
  },

  motor(leads: readonly string[], reads: CoreReads): SaidFindOut {
    const found = motorCores(leads, reads);
    if (!found.ok) return said(found.why, found.leads);
    const { protective, windings, ohm, others } = found;
    const rest = others.map((g) =>
      g.length > 1 ? `${g.join(' and ')} belong together` : `${g[0]} is alone`,
    );
    return {
      ok: true,
      text: [
        `${protective} protects; ${windings.join(', ')} are the windings, ${ohms(ohm)} in pairs.`,
        ...rest.map((t) => `${t}: sensors, a brake, or spare.`),
        'Which winding is which the first turn shows.',
      ].join(' '),
      at: Object.fromEntries([
        [protective, 'PE'],
        ...windings.map((lead, i) => [lead, 'UVW'.charAt(i)]),
      ]),
    };
  },
};

export type FindOutWorker = typeof worker;
expose(worker);

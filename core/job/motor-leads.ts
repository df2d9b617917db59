import { landingParts, type Job } from './job.js';

/** Ends of wires that change when two leads of the motor are exchanged, by the wire's id; and what the plate then says. */
export interface LeadExchange {
  readonly wires: Readonly<Record<string, { readonly from?: string; readonly to?: string }>>;
  readonly leadsExchanged: boolean;
  /** The two terminals of the motor. */
  readonly at: readonly [string, string];
}

/** Leads that are exchanged to turn a motor the other way. */
const exchanged = ['V', 'W'] as const;

/**
 * What puts a motor right that was seen to turn the wrong way: two of its leads exchanged, in the wiring and in what the plate
 * says of the machine, so that the rehearsal turns it the right way too.
 *
 * @param motor id of the motor
 * @returns undefined where the leads do not land straight on the motor
 * @example exchangeLeads(job, 'motor')?.at // ['V', 'W']
 */
export function exchangeLeads(job: Job, motor: string): LeadExchange | undefined {
  const wires = Object.entries(job.adopted?.wires ?? {});
  const landed = exchanged.map((phase) => {
    const at = `${motor}:${phase}`;
    const found = wires.find(([, w]) => w.class === 'motor' && (w.from === at || w.to === at));
    return (
      found && { id: found[0], end: found[1].from === at ? ('from' as const) : ('to' as const), at }
    );
  });
  const [one, other] = landed;
  if (!one || !other) return undefined;
  return {
    wires: { [one.id]: { [one.end]: other.at }, [other.id]: { [other.end]: one.at } },
    leadsExchanged: job.plate.motor.leadsExchanged !== true,
    at: [landingParts(one.at).terminal, landingParts(other.at).terminal],
  };
}

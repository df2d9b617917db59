import { landingParts, type Job } from './job.js';

/** Ends of wires that change when two leads of the motor are exchanged, by the wire's id; and what the plate then says. */
export interface LeadExchange {
  readonly wires: Readonly<Record<string, { readonly from?: string; readonly to?: string }>>;
  readonly leadsExchanged: boolean;
  /** The two terminals of the motor. */
  readonly at: readonly [string, string];
}

/** Why leads are landed otherwise after a motor was seen to turn the wrong way. */
export const TURNED_WHY = 'it turned the other way at the first turn';

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
  if (job.adopted?.devices[motor]?.params['leads'] === 6) return exchangeFeed(job);
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

/**
 * A motor whose windings lie in series with the poles is turned round ahead of all poles: two leads of one side exchanged would
 * misconnect its delta.
 */
function exchangeFeed(job: Job): LeadExchange | undefined {
  const wires = Object.entries(job.adopted?.wires ?? {});
  const [one, other] = ['feed.L2', 'feed.L3'].map((name) =>
    wires.find(([, w]) => w.function === name),
  );
  if (!one || !other) return undefined;
  return {
    wires: { [one[0]]: { to: other[1].to }, [other[0]]: { to: one[1].to } },
    leadsExchanged: job.plate.motor.leadsExchanged !== true,
    at: [landingParts(one[1].to).terminal, landingParts(other[1].to).terminal],
  };
}

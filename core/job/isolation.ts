import { supersededBy, type Evidence, type EvidenceOf } from './evidence.js';

/** States of isolation in rising danger; declared by name and time, never inferred. */
export const isolationStates = ['DEAD', 'CONTROL LIVE', 'MAIN LIVE'] as const;
export type IsolationState = (typeof isolationStates)[number];

/** What stands declared now. */
export interface Isolation {
  readonly state: IsolationState;
  readonly by: string;
  /** When it was declared. */
  readonly at: string;
  /** Moment from which it has to be declared anew; undefined where none was given. */
  readonly until: string | undefined;
  readonly expired: boolean;
  /** Somebody declared otherwise without knowing of it. */
  readonly contradicted: boolean;
  readonly declared: EvidenceOf<'isolation'>;
}

/**
 * The declaration of isolation that stands. One that was made without knowing of another contradicts it: of these the more
 * live one shows until somebody who knows both declares anew.
 *
 * @param nowMs present moment, ms since 1970
 * @returns undefined where nothing was ever declared
 * @example isolationNow(evidence, Date.now())?.state // 'DEAD'
 */
export function isolationNow(evidence: readonly Evidence[], nowMs: number): Isolation | undefined {
  const own = evidence
    .filter((e) => e.kind === 'isolation')
    .sort((x, y) => x.atClient.localeCompare(y.atClient) || x.id.localeCompare(y.id));
  // The first release told of none that it stood for: it stood for all before it.
  const first = own.findLastIndex((e) => e.body.version === undefined);
  const gone = new Set(own.flatMap((e) => supersededBy(e)));
  const stand = own.slice(Math.max(0, first)).filter((e) => !gone.has(e.id));
  const worst = Math.max(...stand.map((e) => isolationStates.indexOf(e.body.state)));
  const declared = stand.findLast((e) => e.body.state === isolationStates[worst]);
  if (!declared) return undefined;
  const { state, until } = declared.body;
  return {
    state,
    by: declared.body.holder ?? declared.author.name,
    at: declared.atClient,
    until,
    expired: until !== undefined && Date.parse(until) <= nowMs,
    contradicted: new Set(stand.map((e) => e.body.state)).size > 1,
    declared,
  };
}

/** Declarations that a new one stands for: all that this device knows of. */
export const standingIsolations = (evidence: readonly Evidence[]): string[] => {
  const own = evidence.filter((e) => e.kind === 'isolation');
  const gone = new Set(own.flatMap((e) => supersededBy(e)));
  return own.filter((e) => !gone.has(e.id)).map((e) => e.id);
};

/** Hours at which a shift ends, by the usual three shifts. */
const SHIFT_ENDS = [6, 14, 22] as const;

/**
 * End of the shift that goes on, by the clock of this device.
 *
 * @example shiftEnd(new Date(2026, 0, 5, 9, 30)).getHours() // 14
 */
export function shiftEnd(now: Date): Date {
  const end = new Date(now);
  const hour = SHIFT_ENDS.find((h) => h > now.getHours());
  end.setHours(hour ?? SHIFT_ENDS[0] + 24, 0, 0, 0);
  return end;
}

import type { Evidence, EvidenceBody, EvidenceOf } from './evidence.js';

/** By when an open point has to be closed, the soonest first. */
export const punchCategories = ['beforePower', 'beforeProduction', 'later'] as const;
export type PunchCategory = (typeof punchCategories)[number];

/** An open point: what, by when, whose; and who closed it. */
export interface PunchPoint {
  readonly subject: string;
  readonly text: string;
  readonly category: PunchCategory;
  readonly owner: string;
  readonly due: string;
  readonly opened: EvidenceOf<'punch'>;
  readonly closed: EvidenceOf<'punch'> | undefined;
}

/** How grave a point is that no category was given for. */
const byRank = { mustFix: 'beforePower', lookAt: 'beforeProduction', advice: 'later' } as const;
const ranks = { beforePower: 'mustFix', beforeProduction: 'lookAt', later: 'advice' } as const;

/**
 * All open points, the soonest first, in each category as they were noted. What was closed stays closed, in whatever order
 * the evidence arrives.
 *
 * @example punchList(evidence).filter((p) => !p.closed).length
 */
export function punchList(evidence: readonly Evidence[]): PunchPoint[] {
  const own = evidence
    .filter((e): e is EvidenceOf<'punch'> => e.kind === 'punch')
    .sort((x, y) => x.atClient.localeCompare(y.atClient) || x.id.localeCompare(y.id));
  return [...new Set(own.map((e) => e.subject))]
    .map((subject): PunchPoint => {
      const of = own.filter((e) => e.subject === subject);
      const opened = of.find((e) => !e.body.closed) ?? of[0];
      const { text, rank, category = byRank[rank], owner = '', due = '' } = opened.body;
      const closed = of.find((e) => e.body.closed);
      return { subject, text, category, owner, due, opened, closed };
    })
    .sort((x, y) => punchCategories.indexOf(x.category) - punchCategories.indexOf(y.category));
}

/** The body that opens a point. */
export const punchOf = (
  text: string,
  category: PunchCategory,
  more: { readonly owner?: string; readonly due?: string } = {},
): EvidenceBody<'punch'> => ({ version: 1, text, category, rank: ranks[category], ...more });

/** The body that closes a point. */
export const punchClosed = ({ opened }: PunchPoint): EvidenceBody<'punch'> => ({
  ...opened.body,
  closed: true,
});

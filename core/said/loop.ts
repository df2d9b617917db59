import type { Profile } from '../catalogue/index.js';
import type { Evidence, EvidenceOf, Job } from '../job/index.js';
import {
  LOOP_PCT,
  loopHz,
  loopPlan,
  loopResult,
  loopSignal,
  type LoopPlan,
} from '../procedure/index.js';
import { say } from '../words/index.js';
import type { SaidLoop } from './types.js';

type Sheet = EvidenceOf<'calibration'>;

/** A sheet that was kept, with what it says of the loop as it is planned now. */
function saidSheet(plan: LoopPlan, sheet: Sheet): SaidLoop['sheets'][number] {
  const { body, author, atClient } = sheet;
  const told = { id: sheet.id, author: author.name, at: atClient, points: body.points };
  try {
    const { errorPct, hysteresisPct, sourcePct, verdict, remedies } = loopResult(plan, body.points);
    return {
      ...told,
      verdict,
      errorPct,
      hysteresisPct,
      ...(sourcePct === undefined ? {} : { sourcePct }),
      remedies: remedies.map(({ do: code, ...args }) =>
        say({ code: `loop.${code}`, args: { ...args, unit: plan.unit, source: plan.source } }),
      ),
    };
  } catch (error) {
    return {
      ...told,
      verdict: 'fail',
      remedies: [error instanceof Error ? error.message : String(error)],
    };
  }
}

/** The analogue reference of a job with every loop sheet that was read of it, the oldest first; null where it has none. */
export function saidLoop(
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[],
): SaidLoop | null {
  const plan = loopPlan(job, profile);
  if (!plan) return null;
  const sheets = evidence
    .filter((e): e is Sheet => e.kind === 'calibration' && e.body.input === plan.input)
    .sort((x, y) => x.atClient.localeCompare(y.atClient));
  return {
    input: plan.input,
    at: plan.at,
    unit: plan.unit,
    source: plan.source,
    controller: plan.controller,
    rows: LOOP_PCT.map((pct, i) => {
      const signal = loopSignal(plan, pct);
      return { pct, up: i <= LOOP_PCT.indexOf(100), signal, hz: loopHz(plan, signal) };
    }),
    sheets: sheets.map((sheet) => saidSheet(plan, sheet)),
  };
}

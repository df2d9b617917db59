import type { Evidence, Finding, Job } from '../job/index.js';
import type { SettingRow } from './three-sets.js';
import type { StepRecord } from './verdict.js';

/** Something that stands against handing over, and the stage where it is put right. */
export interface Block {
  readonly key: string;
  readonly stage: 'plate' | 'scheme' | 'land' | 'key' | 'live' | 'handover';
  readonly code: string;
  readonly args: Readonly<Record<string, number | string | boolean>>;
}

/**
 * What blocks hand-over: no plan, open stop findings, tests open, failed or stale, settings that differ or were not read back.
 *
 * @param open findings that are not accepted
 */
export function handOverBlocks(
  job: Job,
  open: readonly Finding[],
  steps: readonly StepRecord[],
  rows: readonly SettingRow[],
  evidence: readonly Evidence[],
): Block[] {
  const blocks: Block[] = [];
  if (!job.adopted) blocks.push({ key: 'plan', stage: 'land', code: 'block.noPlan', args: {} });
  for (const f of open.filter((finding) => finding.severity === 'stop'))
    blocks.push({ key: f.key, stage: 'scheme', code: 'block.finding', args: { rule: f.rule } });
  for (const state of ['fail', 'stale', 'open'] as const) {
    const these = steps.filter((s) => s.state === state);
    if (these.length)
      blocks.push({
        key: `steps.${state}`,
        stage: 'live',
        code: `block.steps.${state}`,
        args: { count: these.length, first: these[0].step.key },
      });
  }
  const differs = rows.filter((row) => row.state === 'differs');
  if (differs.length)
    blocks.push({
      key: 'settings.differ',
      stage: 'key',
      code: 'block.settingsDiffer',
      args: { count: differs.length, first: differs[0].code },
    });
  if (!evidence.some((e) => e.kind === 'snapshot' && e.body.which === 'asLeft'))
    blocks.push({ key: 'settings.left', stage: 'key', code: 'block.noAsLeft', args: {} });
  return blocks;
}

import { temporaryRegister, type Evidence, type Finding, type Job } from '../job/index.js';
import { handList } from './hand-list.js';
import type { SettingRow } from './three-sets.js';
import type { StepRecord } from './verdict.js';

/** Something that stands against handing over, and the stage where it is put right. */
export interface Obstacle {
  readonly key: string;
  readonly stage: 'plate' | 'scheme' | 'land' | 'key' | 'dead' | 'live' | 'handover';
  readonly code: string;
  readonly args: Readonly<Record<string, number | string | boolean>>;
}

/**
 * What stands against hand-over: no plan, something still in for a test, open stop findings, tests open, failed or stale, settings that differ or were not
 * read back.
 *
 * @param open findings that are not accepted
 * @param dead dead checks: where none was begun nothing is said, a list that was begun is to be finished
 */
export function handOverObstacles(
  job: Job,
  open: readonly Finding[],
  steps: readonly StepRecord[],
  rows: readonly SettingRow[],
  evidence: readonly Evidence[],
  dead: readonly StepRecord[] = [],
): Obstacle[] {
  const found: Obstacle[] = [];
  if (!job.adopted) found.push({ key: 'plan', stage: 'land', code: 'obstacle.noPlan', args: {} });
  for (const f of open.filter((finding) => finding.severity === 'stop'))
    found.push({ key: f.key, stage: f.stage, code: 'obstacle.finding', args: { rule: f.rule } });
  const begun = dead.some((s) => s.state !== 'open');
  for (const [stage, part, name] of [
    ['dead', begun ? dead : [], 'dead'],
    ['live', steps, 'steps'],
  ] as const)
    for (const state of ['fail', 'stale', 'open'] as const) {
      const these = part.filter((s) => s.state === state);
      if (these.length)
        found.push({
          key: `${name}.${state}`,
          stage,
          code: `obstacle.${name}.${state}`,
          args: { count: these.length, first: these[0].step.key },
        });
    }
  const inside = temporaryRegister(evidence).filter((t) => !t.removed);
  if (inside.length > 0)
    found.push({
      key: 'temporary.in',
      stage: 'live',
      code: 'obstacle.temporary',
      args: { count: inside.length, first: inside[0].where || inside[0].what },
    });
  const lines = handList(job, evidence);
  const toLand = lines.filter((l) => !l.landed).length;
  // Where nobody ticks, nothing is said; a list that was begun is to be finished.
  if (toLand > 0 && toLand < lines.length)
    found.push({
      key: 'hand.open',
      stage: 'land',
      code: 'obstacle.notLanded',
      args: { count: toLand, of: lines.length },
    });
  const differs = rows.filter((row) => row.state === 'differs');
  if (differs.length)
    found.push({
      key: 'settings.differ',
      stage: 'key',
      code: 'obstacle.settingsDiffer',
      args: { count: differs.length, first: differs[0].code },
    });
  if (!evidence.some((e) => e.kind === 'snapshot' && e.body.which === 'asLeft'))
    found.push({ key: 'settings.left', stage: 'key', code: 'obstacle.noAsLeft', args: {} });
  else {
    const unread = rows.filter((row) => row.relied && row.left === undefined);
    if (unread.length)
      found.push({
        key: 'settings.unread',
        stage: 'key',
        code: 'obstacle.settingsUnread',
        args: { count: unread.length, first: unread[0].code },
      });
  }
  return found;
}

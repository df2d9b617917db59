import {
  punchList,
  temporaryRegister,
  type Evidence,
  type Finding,
  type Job,
} from '../job/index.js';
import { handList } from './hand-list.js';
import type { SettingRow } from './three-sets.js';
import type { StepRecord } from './verdict.js';

/** Something that stands against handing over, and the stage where it is put right. */
export interface Obstacle {
  readonly key: string;
  readonly stage: 'plate' | 'scheme' | 'land' | 'key' | 'dead' | 'live' | 'handover';
  readonly code: string;
  readonly args: Readonly<Record<string, number | string | boolean>>;
  /** It may stay open when the record is signed, named with a reason. What protects never may. */
  readonly mayStay: boolean;
}

/** Steps of a part that are not done, failed, stale, or read twice apart. */
function stepObstacles(
  stage: 'dead' | 'live',
  steps: readonly StepRecord[],
  protects: (requirement: string) => boolean,
): Obstacle[] {
  const name = stage === 'dead' ? 'dead' : 'steps';
  const of = (state: string, these: readonly StepRecord[], mayStay: boolean): Obstacle[] =>
    these.length === 0
      ? []
      : [
          {
            key: `${name}.${state}`,
            stage,
            code: `obstacle.${name}.${state}`,
            args: { count: these.length, first: these[0].step.key },
            mayStay,
          },
        ];
  const failed = steps.filter((s) => s.state === 'fail');
  const harmless = failed.every(
    ({ step: { requirement, hold } }) => !hold && !(requirement && protects(requirement.id)),
  );
  const at = (state: StepRecord['state']): StepRecord[] => steps.filter((s) => s.state === state);
  return [
    ...of('fail', failed, harmless),
    ...of('stale', at('stale'), true),
    ...of('open', at('open'), true),
    ...of(
      'twice',
      steps.filter((s) => s.beside.length > 0),
      true,
    ),
  ];
}

/** What the hand list and the registers still ask for. */
function registerObstacles(job: Job, evidence: readonly Evidence[]): Obstacle[] {
  const found: Obstacle[] = [];
  const inside = temporaryRegister(evidence).filter((t) => !t.removed);
  if (inside.length > 0)
    found.push({
      key: 'temporary.in',
      stage: 'live',
      code: 'obstacle.temporary',
      args: { count: inside.length, first: inside[0].where || inside[0].what },
      mayStay: false,
    });
  const points = punchList(evidence).filter((p) => !p.closed && p.category !== 'later');
  if (points.length > 0)
    found.push({
      key: 'punch.open',
      stage: 'handover',
      code: 'obstacle.punch',
      args: { count: points.length, first: points[0].text },
      mayStay: points.every((p) => p.category !== 'beforePower'),
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
      mayStay: true,
    });
  return found;
}

/** Settings that differ as left, or of which nobody has said how they were left. */
function settingObstacles(rows: readonly SettingRow[], evidence: readonly Evidence[]): Obstacle[] {
  const of = (key: string, code: string, these: readonly SettingRow[]): Obstacle[] =>
    these.length === 0
      ? []
      : [
          {
            key,
            stage: 'key',
            code,
            args: { count: these.length, first: these[0].code },
            mayStay: true,
          },
        ];
  const left = evidence.some((e) => e.kind === 'snapshot' && e.body.which === 'asLeft');
  return [
    ...of(
      'settings.differ',
      'obstacle.settingsDiffer',
      rows.filter((row) => row.state === 'differs'),
    ),
    ...(left
      ? of(
          'settings.unread',
          'obstacle.settingsUnread',
          rows.filter((row) => row.relied && row.left === undefined),
        )
      : [
          {
            key: 'settings.left',
            stage: 'key',
            code: 'obstacle.noAsLeft',
            args: {},
            mayStay: true,
          } as const,
        ]),
  ];
}

/**
 * What stands against hand-over: no plan, something still in for a test, open stop findings, checks and tests open, failed,
 * stale or read twice apart, settings that differ or were not read back.
 *
 * @param open findings that are not accepted
 * @param protects whether a required function protects somebody: what fails it never stays open
 */
export function handOverObstacles(
  job: Job,
  open: readonly Finding[],
  steps: readonly StepRecord[],
  rows: readonly SettingRow[],
  evidence: readonly Evidence[],
  dead: readonly StepRecord[] = [],
  protects: (requirement: string) => boolean = () => true,
): Obstacle[] {
  return [
    ...(job.adopted
      ? []
      : [
          {
            key: 'plan',
            stage: 'land',
            code: 'obstacle.noPlan',
            args: {},
            mayStay: false,
          } as const,
        ]),
    ...open
      .filter((finding) => finding.severity === 'stop')
      .map((f): Obstacle => ({
        key: f.key,
        stage: f.stage,
        code: 'obstacle.finding',
        args: { rule: f.rule },
        // Accepted by name under the findings, or mended.
        mayStay: false,
      })),
    ...stepObstacles('dead', dead, protects),
    ...stepObstacles('live', steps, protects),
    ...registerObstacles(job, evidence),
    ...settingObstacles(rows, evidence),
  ];
}

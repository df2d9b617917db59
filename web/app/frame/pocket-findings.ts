import type { SaidFinding } from '@tactron/core/said';

/** Stages where something is put right; on the others what is found belongs to the whole. */
const ofTheirOwn: readonly string[] = ['plate', 'scheme', 'land', 'key'];
/** Stages at the machine: what protects somebody is said there too. */
const atMachine: readonly string[] = ['key', 'dead', 'live'];

/** Whether a finding is told at a stage: what must be fixed always, the rest where it is put right or where it can hurt. */
export function belongs({ finding, accepted }: SaidFinding, stage: string): boolean {
  if (finding.severity === 'stop' && !accepted) return true;
  if (atMachine.includes(stage) && finding.rank === 'protects') return true;
  return finding.stage === stage || !(ofTheirOwn.includes(stage) || atMachine.includes(stage));
}

/** Whether the pocket has something to say at a stage: a finding of it, or on Plate the working of a number. */
export const speaksAt = (stage: string, findings: readonly SaidFinding[]): boolean =>
  stage === 'plate' || findings.some((f) => belongs(f, stage));

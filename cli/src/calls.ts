import * as v from 'valibot';
import { CalculationError, runCalculation } from '@tactron/core/calculation';
import { networkSchema, solveNetwork, UnsettledNetworkError } from '@tactron/core/circuit';
import { driveCaseSchema, notYetInControl, runDriveCase } from '@tactron/core/drive';
import { csv, recordFiles } from '@tactron/core/formats';
import { checkJob, requirementsHeld } from '@tactron/core/hazards';
import { pathIssues, type Phrase } from '@tactron/core/job';
import { seeded } from '@tactron/core/numeric';
import { planJob } from '@tactron/core/plan';
import {
  labelTable,
  operatorPage,
  recordPage,
  recordSections,
  recordTables,
} from '@tactron/core/printed';
import { deadOf, liveSteps, readingsOf, simulatedOf } from '@tactron/core/procedure';
import { recordInputOf, saidDrawings } from '@tactron/core/said';
import { runStarterCase, starterCaseSchema } from '@tactron/core/starter';
import { calculations } from '@tactron/core/sums';
import { handWords, say, sayFinding, sayNoPlan, sayRequirement } from '@tactron/core/words';
import { BadInput, type Outcome } from './bad-input.js';
import { jobInput, plannedJob } from './job-input.js';
import { layouter } from './layouter.js';

export function parse<S extends v.GenericSchema>(schema: S, data: unknown): v.InferOutput<S> {
  const result = v.safeParse(schema, data);
  if (result.success) return result.output;
  const issue = pathIssues(result.issues)[0];
  throw new BadInput(issue.path, issue.message);
}

export function check(data: unknown): Outcome {
  const input = jobInput(data);
  const findings = checkJob(plannedJob(input), input.profile).map((f) => ({
    ...f,
    says: sayFinding(f),
  }));
  return { output: findings, stop: findings.some((f) => f.severity === 'stop') };
}

export function plan(data: unknown): Outcome {
  const { job, profile } = jobInput(data);
  const result = planJob(job, profile);
  if (!result.ok) throw new BadInput(result.path, `no plan: ${sayNoPlan(result)}`);
  return { output: result, stop: result.findings.some((f) => f.severity === 'stop') };
}

/**
 * What a panel that is not as planned shows at every step of the procedure, with the verdict.
 *
 * @param panel a job file of the same job with what is really otherwise as its deviations
 * @param seed readings lie a little off, the same each time for a seed
 */
export function readings(data: unknown, panel: unknown, seed?: number): Outcome {
  const input = jobInput(data);
  const job = plannedJob(input);
  const other = jobInput(panel);
  if (other.job.id !== job.id)
    throw new BadInput('id', 'the panel is of another job: its file must be one of the same job');
  const real = { ...plannedJob(other), adopted: job.adopted };
  const random = seed === undefined ? undefined : seeded(seed);
  const rows = readingsOf(job, input.profile, real, random).map(({ step, values, verdict }) => ({
    key: step.key,
    part: step.part,
    says: { do: say(step.do), must: say(step.must) },
    values,
    verdict,
  }));
  return { output: rows };
}

/** Steps of the procedure by its three parts, each with its words. */
export function procedure(data: unknown): Outcome {
  const input = jobInput(data);
  const job = plannedJob(input);
  const said = <S extends { readonly do: Phrase; readonly must: Phrase }>(of: readonly S[]) =>
    of.map((s) => ({ ...s, says: { do: say(s.do), must: say(s.must) } }));
  const steps = said([...deadOf(job, input.profile).steps, ...liveSteps(job, input.profile)]);
  const part = (name: (typeof steps)[number]['part']) => steps.filter((s) => s.part === name);
  return {
    output: {
      requirements: requirementsHeld(job, input.profile).map((r) => ({
        id: r.requirement.id,
        rank: r.requirement.rank,
        state: r.state,
        does: r.does,
        says: sayRequirement(r.requirement.id, r.args),
        ...(r.proof ? { proof: r.proof } : {}),
      })),
      dead: part('dead'),
      energise: part('energise'),
      live: part('live'),
      // Inputs simulated before the real ones: offered, never asked.
      offered: said(simulatedOf(job, input.profile).steps),
    },
  };
}

/** All open-format files of a job's record, the drawings among them. */
export async function exportFiles(data: unknown): Promise<Record<string, string>> {
  const read = jobInput(data);
  const job = plannedJob(read);
  const { profile, evidence, site } = read;
  const drawings = await saidDrawings(job, profile, layouter);
  const input = recordInputOf(job, profile, evidence, { site, decimal: '.' });
  const name = (id: string): string => input.derived.names[`device.${id}`] ?? '';
  const tables = Object.entries({
    ...recordTables(recordSections(input)),
    'tables/labels.csv': labelTable(job, name),
  });
  const beside = {
    ...drawings,
    'record.html': recordPage(input),
    'operator.html': operatorPage(input),
    ...Object.fromEntries(tables.map(([file, table]) => [file, csv(table)])),
  };
  return recordFiles(job, profile, evidence, { beside, words: handWords(job, profile) });
}

export function solve(data: unknown): Outcome {
  const network = parse(networkSchema, data);
  try {
    return { output: solveNetwork(network) };
  } catch (error) {
    if (error instanceof UnsettledNetworkError) throw new BadInput('elements', error.message);
    throw error;
  }
}

export function drive(data: unknown): Outcome {
  const input = parse(driveCaseSchema, data);
  const notYet = notYetInControl(input.control);
  if (notYet) throw new BadInput(notYet.path, `not yet: ${notYet.what}`);
  return { output: runDriveCase(input) };
}

export function starter(data: unknown): Outcome {
  return { output: runStarterCase(parse(starterCaseSchema, data)) };
}

export function calc(name: string, data: unknown): Outcome {
  const calculation = calculations[name];
  if (!calculation) throw new BadInput('name', `there is no calculation "${name}"`);
  try {
    const { result, working } = runCalculation(
      calculation,
      parse(v.record(v.string(), v.unknown()), data),
    );
    return { output: { ...result, working } };
  } catch (error) {
    if (error instanceof CalculationError) throw new BadInput(error.argument, error.message);
    if (error instanceof RangeError) throw new BadInput(name, error.message);
    throw error;
  }
}

export function calcList(): Outcome {
  return {
    output: Object.values(calculations).map(({ name, title, args, results, formula, source }) => ({
      name,
      title,
      args,
      results,
      formula,
      source,
    })),
  };
}

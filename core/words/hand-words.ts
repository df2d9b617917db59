import type { AdoptedWire, Job, Phrase } from '../job/index.js';
import { say } from './say.js';
import { sayWireOf } from './wires-english.js';

/**
 * Words for the hand list of a job: what is done, and what each wire is for. A wire that ends on an input of the device is
 * named by the input's task.
 *
 * @param profile its tasks by code, for their names
 * @example handWords(job, profile).wire(job.adopted.wires.w12) // 'start'
 */
export function handWords(
  { adopted }: Pick<Job, 'adopted'>,
  profile: {
    readonly inputTasks: Readonly<
      Record<string, { readonly meaning: string; readonly name: string }>
    >;
  },
): { does: (phrase: Phrase) => string; wire: (wire: AdoptedWire) => string } {
  const named = new Map(Object.values(profile.inputTasks).map((t) => [t.meaning, t.name]));
  const assigned = new Map(Object.values(adopted?.assignments ?? {}).map((a) => [a.at, a.task]));
  return {
    does: say,
    wire: (wire) => {
      const task = assigned.get(wire.from) ?? assigned.get(wire.to);
      if (task !== undefined) return named.get(task) ?? task;
      return adopted ? sayWireOf(adopted, wire) : '';
    },
  };
}

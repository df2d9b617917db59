import type { SaidStep } from '@tactron/core/said';

/** An act of the live tests with its answers. */
export interface ShownAct {
  readonly key: string;
  readonly title: string;
  readonly section: string;
  readonly steps: readonly SaidStep[];
  /** The worst of its answers; open while one is missing. */
  readonly state: SaidStep['state'];
  /** Answer that is to be given next, or its first. */
  readonly go: string;
  /** How many of its answers are there. */
  readonly told: string;
}

/** A part of the live tests with its acts. */
export interface ShownSection {
  readonly name: string;
  /** The part as the procedure names it; empty for dead checks. */
  readonly key: string;
  /** What comes after waits for its last answer. */
  readonly hold: boolean;
  readonly acts: readonly ShownAct[];
}

const grave: readonly SaidStep['state'][] = ['fail', 'stale', 'open', 'past', 'pass'];

/**
 * Answers put together by the act they belong to, in the order in which they come.
 *
 * @example actsOf(steps).map((act) => act.told) // ['1 of 2', …]
 */
export function actsOf(steps: readonly SaidStep[]): ShownAct[] {
  const by = new Map<string, SaidStep[]>();
  for (const s of steps) {
    const key = s.step.act ?? s.step.key;
    by.set(key, [...(by.get(key) ?? []), s]);
  }
  return [...by].map(([key, own]) => {
    const given = own.filter((s) => s.state === 'pass' || s.state === 'fail').length;
    return {
      key,
      title: own[0].title || own[0].do,
      section: own[0].section,
      steps: own,
      state: grave.find((state) => own.some((s) => s.state === state)) ?? 'open',
      go: (own.find((s) => s.state !== 'pass') ?? own[0]).step.key,
      told: own.length > 1 ? `${given} of ${own.length}` : '',
    };
  });
}

/** Acts put together by the part of the tests they belong to. */
export function sectionsOf(acts: readonly ShownAct[]): ShownSection[] {
  return [...new Set(acts.map((act) => act.section))].map((name) => {
    const own = acts.filter((act) => act.section === name);
    return {
      name,
      key: own[0].steps[0].step.section ?? '',
      hold: own.some((act) => act.steps.some((s) => s.step.hold)),
      acts: own,
    };
  });
}

/**
 * Steps with those that are offered before the inputs are worked; nothing is offered where no input is tested.
 *
 * @example withOffered(steps, offered).map((s) => s.step.section)
 */
export function withOffered(
  steps: readonly SaidStep[],
  offered: readonly SaidStep[],
): readonly SaidStep[] {
  const at = steps.findIndex((s) => s.step.section === 'inputs');
  return at < 0 ? steps : [...steps.slice(0, at), ...offered, ...steps.slice(at)];
}

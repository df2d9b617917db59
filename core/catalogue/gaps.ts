import type { Profile } from './profile.js';
import { firstOfKind, isInput } from './questions.js';

/**
 * What a profile lacks before a job can be planned on it. A sketch of a family loads and can be read, but is not
 * planned until its settings for command, reference and tasks are complete.
 */
export function planningGaps(profile: Profile): string[] {
  const gaps: string[] = [];
  if (profile.kind === 'starter') return starterGaps(profile);
  const kinds = new Set(Object.values(profile.terminals).map((t) => t.kind));
  for (const kind of ['supply24', 'zeroVolt', 'digitalInput'])
    if (!kinds.has(kind as never)) gaps.push(`terminals.${kind}`);
  for (const role of ['commandSource', 'referenceSource', 'maxHz', 'accelS', 'decelS'])
    if (!profile.roles[role]) gaps.push(`roles.${role}`);
  if (kinds.has('analogueInput') && !profile.roles['ai1.hzAtHigh']) gaps.push('roles.ai1.hzAtHigh');
  for (const [id, t] of Object.entries(profile.terminals)) {
    if (t.kind === 'digitalInput' && !t.fixedTask && !profile.taskSettings[id])
      gaps.push(`taskSettings.${id}`);
  }
  return gaps;
}

/** What the simulation takes a soft starter to be, by policy; one that is otherwise is not planned, for it would be told untruly. */
const simulatedAs: Readonly<Record<string, readonly (string | number | boolean)[]>> = {
  controlledPoles: [3],
  contactorFeedback: ['none'],
  bypassSensed: [true],
  bypass: ['internal', 'none'],
};

/** What a soft starter must have to be planned: a control supply, inputs, and the roles a start is made of. */
function starterGaps(profile: Profile): string[] {
  const gaps: string[] = [];
  if (firstOfKind(profile, 'controlSupply') === undefined) gaps.push('terminals.controlSupply');
  const inputs = Object.keys(profile.terminals).filter((t) => isInput(profile, t));
  if (inputs.length === 0) gaps.push('terminals.input');
  for (const role of ['motorA', 'rampS', 'beginPct', 'stopKind', 'tripClass'])
    if (!profile.roles[role]) gaps.push(`roles.${role}`);
  for (const [name, values] of Object.entries(simulatedAs)) {
    const policy = profile.policies[name];
    const known = typeof policy === 'object' && 'fixed' in policy ? policy.fixed : undefined;
    if (policy !== undefined && !values.some((value) => value === known))
      gaps.push(`policies.${name} = ${values.join(' or ')}`);
  }
  for (const id of inputs) {
    const t = profile.terminals[id] as { fixedTask?: string };
    if (!t.fixedTask && !profile.taskSettings[id]) gaps.push(`taskSettings.${id}`);
  }
  return gaps;
}

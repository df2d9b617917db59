/** The page of every finding and every trial, from the code itself. */
export function findingsPage({ hazardRules, findingRules, sayFinding, trialGrammar }) {
  const ranks = new Map(
    hazardRules.flatMap((rule) =>
      Object.entries(rule.finds).map(([id, rank]) => [id, { rank, stage: rule.stage }]),
    ),
  );
  const cell = (text) => (/undefined|NaN|null/u.test(text) ? '' : text.replaceAll('|', '\\|'));
  const row = (id) => {
    const { rank = 'plate', stage = 'plate' } = ranks.get(id) ?? {};
    const { why } = sayFinding({ rule: id, args: {} });
    return `| \`${id}\` | ${ranks.has(id) ? rank : '–'} | ${ranks.has(id) ? stage : '–'} | ${cell(why)} |`;
  };
  return `# Findings and trials

Made by \`npm run formats\` from the code.

A finding has a rule, what it is about, a severity (_must fix_, _look at_, _advice_) and, where a rule of the circuit made it, a rank: \`protects\` somebody relies on it not to be hurt, \`moves\` the motor moves otherwise than meant, \`tells\` something is told wrongly. Its key is the rule, and behind a colon what it is about: the same from run to run. Findings of the circuit name the trial that shows them.

## Rules

| rule | rank | stage | why |
| --- | --- | --- | --- |
${[...findingRules].sort().map(row).join('\n')}

## Trials

A trial is a named experiment on the station and machine of a job: acts at their times, phases, and the moment at which each phase is looked at. Its id is \`<function>.<part>[.<variant>]\`; \`npx tactron trials JOB.json\` lists those of a job, \`npx tactron trial JOB.json ID\` runs one.

| id | what is done |
| --- | --- |
${trialGrammar.map(({ id, does }) => `| \`${id}\` | ${does} |`).join('\n')}
`;
}

const range = (spec) =>
  [
    spec.above !== undefined ? `above ${spec.above}` : '',
    spec.min !== undefined ? `from ${spec.min}` : '',
    spec.max !== undefined ? `to ${spec.max}` : '',
    spec.choices ? spec.choices.map((c) => `\`${c}\``).join(', ') : '',
  ]
    .filter(Boolean)
    .join(' ');

/** One line for each argument; the parts of a record stand below it. */
const argument = ([name, spec], depth = 0) => {
  const left =
    spec.fallback !== undefined
      ? ` Left out: ${spec.fallback}.`
      : spec.optional
        ? ' May be left out.'
        : '';
  const kind =
    {
      list: 'a list; ',
      records: 'a list of records; ',
      record: 'a record; ',
      flag: 'true or false; ',
    }[spec.kind] ?? '';
  const own =
    `${'  '.repeat(depth)}- \`${name}\`: ${spec.title}${spec.unit ? `, ${spec.unit}` : ''} (${kind}${range(spec)}).${left}`
      .replace('; )', ')')
      .replace(' ()', '');
  return [own, ...Object.entries(spec.fields ?? {}).flatMap((field) => argument(field, depth + 1))];
};

/** The page of all calculations, made from their descriptors. */
export function calculationsPage(groups) {
  const one = (c) => [
    `### ${c.name}`,
    '',
    `${c.title}. ${c.formula.replaceAll('|', '\\|')}`,
    '',
    'Arguments:',
    '',
    ...Object.entries(c.args).flatMap((entry) => argument(entry)),
    '',
    `Results: ${Object.entries(c.results)
      .map(([name, r]) => `\`${name}\` (${r.title}${r.unit ? `, ${r.unit}` : ''})`)
      .join(', ')}.`,
    '',
    `Source: ${c.source}.${c.confirm ? ` To confirm: ${c.confirm}` : ''}`,
    '',
  ];
  return [
    '# Calculations',
    '',
    'Made from the code by `npm run formats`. Each is on the Sums page, on the command line as `npx tactron calc NAME ARGS.json`, and behind the numbers of the Plate stage.',
    '',
    ...groups.flatMap((g) => [`## ${g.title}`, '', ...g.calculations.flatMap(one)]),
  ].join('\n');
}

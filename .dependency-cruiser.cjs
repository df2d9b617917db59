/** Floors of the core from the ground up; a module imports only from lower floors, and only through index.ts. */
const floors = [
  ['numeric', 'units', 'calculation'],
  ['job', 'catalogue'],
  ['circuit'],
  ['trace'],
  ['parts', 'motor'],
  ['drive', 'starter', 'line', 'scheme'],
  ['sums', 'plan'],
  ['installation'],
  ['faults', 'drawings'],
  ['rehearsal'],
  ['trials'],
  ['requirements'],
  ['hazards'],
  ['compare', 'procedure', 'records'],
  ['formats'],
  ['said'],
  ['printed'],
];
/** Order within a floor where one module serves the next. */
const within = { catalogue: ['job'], line: ['drive'], said: ['words'] };

const rules = floors.flatMap((modules, at) =>
  modules.map((name) => {
    const allowed = [name, ...floors.slice(0, at).flat(), ...(within[name] ?? [])];
    return {
      name: `core-floor-${name}`,
      comment: `${name} may import only from lower floors`,
      severity: 'error',
      from: { path: `^core/${name}/`, pathNot: '\\.spec\\.ts$' },
      to: { path: '^core/', pathNot: [`^core/(${allowed.join('|')})/`] },
    };
  }),
);

module.exports = {
  forbidden: [
    ...rules,
    {
      name: 'words-beside',
      comment: 'words serves the outside; the core makes no sentences',
      severity: 'error',
      from: { path: '^core/', pathNot: ['^core/(words|said)/', '\\.spec\\.ts$'] },
      to: { path: '^core/words/' },
    },
    {
      name: 'words-low',
      severity: 'error',
      from: { path: '^core/words/', pathNot: '\\.spec\\.ts$' },
      to: { path: '^core/', pathNot: '^core/(words|job|units)/' },
    },
    {
      name: 'through-index',
      comment: 'other modules are entered by their index.ts',
      severity: 'error',
      from: { path: '^core/([^/]+)/', pathNot: '\\.spec\\.ts$' },
      to: { path: '^core/([^/]+)/', pathNot: ['^core/$1/', '/index\\.ts$'] },
    },
    {
      name: 'core-alone',
      comment: 'the core knows no server, web, cli and no Node',
      severity: 'error',
      from: { path: '^core/' },
      to: { path: '^(server|web|cli|e2e|bench)/' },
    },
    {
      name: 'core-no-node',
      severity: 'error',
      from: { path: '^core/' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'outside-apart',
      severity: 'error',
      from: { path: '^(server|web|cli)/' },
      to: { path: '^(server|web|cli)/', pathNot: '^$1/' },
    },
    {
      name: 'printed-light',
      comment:
        'the record is printed in the page too: values only from core/units and core/job, types from anywhere',
      severity: 'error',
      from: { path: '^core/printed/', pathNot: '\\.spec\\.ts$' },
      to: {
        path: '^core/',
        pathNot: '^core/(printed|units|job)/',
        dependencyTypesNot: ['type-only'],
      },
    },
    {
      name: 'web-values',
      comment:
        'outside workers the web takes values only from core/units, core/job, core/trace and core/printed; types from anywhere',
      severity: 'error',
      from: { path: '^web/app/', pathNot: '(\\.worker|\\.spec)\\.ts$' },
      to: {
        path: '^core/',
        pathNot: '^core/(units|job|trace|printed)/',
        dependencyTypesNot: ['type-only'],
      },
    },
    {
      name: 'no-circular',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|node_modules)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.cruise.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['source', 'import', 'require', 'node', 'default'],
      extensions: ['.ts', '.js', '.mjs', '.json'],
    },
  },
};

/** The house: imports point one way. core knows nobody; server, client and ui know core; app and demo know all. */
const outside = 'node_modules/(react|react-dom|next|mysql2|idb|@radix-ui|lucide-react|react-hook-form|@node-rs|serwist|@serwist)(/|$)';
const order = ['units', 'faults', 'records', 'visit', 'figures', 'tariff', 'power', 'evidence', 'compare', 'trials'];
/** Inside core a folder may use itself and those before it. */
const later = order.flatMap((from, i) => {
  const forbidden = order.slice(i + 1);
  return forbidden.length === 0
    ? []
    : [
        {
          name: `core-order-${from}`,
          severity: 'error',
          from: { path: `^core/${from}/`, pathNot: '\\.test\\.ts$' },
          to: { path: `^core/(${forbidden.join('|')})/` },
        },
      ];
});

/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    { name: 'core-knows-nobody', severity: 'error', from: { path: '^core/' }, to: { path: `^(ui|server|app|client|demo)/|${outside}` } },
    { name: 'core-has-no-node', severity: 'error', from: { path: '^core/' }, to: { dependencyTypes: ['core'] } },
    { name: 'simulator-is-used-by-none', severity: 'error', from: { path: '^core/(?!simulator)' }, to: { path: '^core/simulator/' } },
    { name: 'ui-has-no-data', severity: 'error', from: { path: '^ui/' }, to: { path: '^(server|client|app)/' } },
    { name: 'client-is-browser-only', severity: 'error', from: { path: '^client/' }, to: { path: '^(server|app|ui)/' } },
    { name: 'server-knows-core', severity: 'error', from: { path: '^server/' }, to: { path: '^(client|app|ui|demo)/' } },
    { name: 'app-leaves-the-demo-alone', severity: 'error', from: { path: '^app/' }, to: { path: '^demo/' } },
    // What is fetched later may use what was there before it: a circle that is closed by an import() is none at loading.
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only', 'dynamic-import'] } },
    },
    ...later,
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      mainFields: ['module', 'main', 'types'],
    },
  },
};

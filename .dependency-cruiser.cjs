/** Rooms of a package in their order: each may use those before it, types included, and none of those after it. */
const inOrder = (source, rooms) =>
  rooms.slice(0, -1).map((room, i) => ({
    name: `${source.split('/')[1]}-${room}-uses-what-stands-before-it`,
    severity: 'error',
    from: { path: `^${source}/${room}/`, pathNot: '[.]test[.]ts$' },
    to: { path: `^${source}/(${rooms.slice(i + 1).join('|')})/` },
  }));

const CORE = [
  'language',
  'space',
  'quantity',
  'curves',
  'gestures',
  'recipes',
  'profiles',
  'document',
  'questions',
  'refusals',
  'patterns',
  'history',
  'sections',
  'snapping',
  'docks',
  'racks',
  'selecting',
  'formats',
  'sheets',
  'fit',
  'making',
  'statement',
  'verbs',
  'starter',
];
const WEB = ['api', 'common', 'session', 'viewport', 'workshop', 'screens'];
const KERNEL = [
  'content',
  'occt',
  'naming',
  'facts',
  'booleans',
  'build',
  'verify',
  'combine',
  'answers',
  'exchange',
];

/** The arrows of the house: core knows nobody; kernel knows core; cli, server and web know both; nobody knows them. */
const only = (name, from, to) => ({
  name,
  severity: 'error',
  from: { path: from },
  to: { path: '^(packages|apps|checks|e2e)/', pathNot: [to, TESTING] },
});
const TESTING = '^packages/testing/';

module.exports = {
  forbidden: [
    only('core-knows-nobody', '^packages/core/', '^packages/core/'),
    only('kernel-knows-core', '^packages/kernel/', '^packages/(core|kernel)/'),
    only('cli-knows-core-and-kernel', '^packages/cli/', '^packages/'),
    only('testing-knows-core-and-kernel', TESTING, '^packages/(core|kernel)/'),
    {
      name: 'only-tests-use-testing',
      severity: 'error',
      from: { path: '^(packages|apps)/', pathNot: ['[.]test[.]ts$', TESTING] },
      to: { path: TESTING },
    },
    only('server-knows-core-and-kernel', '^apps/server/', '^(packages/(core|kernel)|apps/server)/'),
    only('web-knows-core-and-kernel', '^apps/web/', '^(packages/(core|kernel)|apps/web)/'),
    {
      name: 'occt-only-in-the-kernel',
      severity: 'error',
      from: { pathNot: '^packages/kernel/' },
      to: { path: 'replicad-opencascadejs' },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^packages/core/', pathNot: '[.]test[.]ts$' },
      to: {
        dependencyTypes: ['core', 'npm', 'npm-dev'],
        pathNot:
          'node_modules/(zod|immer|svgpath|earcut|fast-xml-parser|dxf-parser|opentype[.]js|@types/opentype[.]js)/',
      },
    },
    ...inOrder('packages/core/src', CORE),
    ...inOrder('packages/kernel/src', KERNEL),
    ...inOrder('apps/web/src', WEB),
    {
      name: 'no-circles',
      comment: 'types included',
      severity: 'error',
      from: { path: '^packages/' },
      to: { circular: true },
    },
    {
      name: 'no-circles-in-applications',
      severity: 'error',
      from: { path: '^apps/' },
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'no-orphans-unresolved',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: '[?]url$' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|node_modules/[.])' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'node', 'default'],
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.json', '.css'],
    },
  },
};

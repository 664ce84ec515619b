/** The arrows of the house: core knows nobody; kernel knows core; cli, server and web know both; nobody knows them. */
const only = (name, from, to) => ({
  name,
  severity: 'error',
  from: { path: from },
  to: { path: '^(packages|apps|checks|e2e)/', pathNot: to },
});

module.exports = {
  forbidden: [
    only('core-knows-nobody', '^packages/core/', '^packages/core/'),
    only('kernel-knows-core', '^packages/kernel/', '^packages/(core|kernel)/'),
    only('cli-knows-core-and-kernel', '^packages/cli/', '^packages/'),
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
    {
      name: 'core-rooms-below',
      comment: 'numbers and space know nothing of documents',
      severity: 'error',
      from: { path: '^packages/core/src/(quantity|space)/', pathNot: '[.]test[.]ts$' },
      to: { path: '^packages/core/src/(document|history|verbs|snapping|selecting)/' },
    },
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
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

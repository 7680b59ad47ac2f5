// The one way that dependencies point: places → ui → state → storage, workers → core.
const forbid = (name, from, to, comment) => ({ name, severity: 'error', comment, from, to });

module.exports = {
  forbidden: [
    forbid(
      'core-stays-pure',
      { path: '^core/', pathNot: '\\.spec\\.ts$|^core/testing/' },
      { path: '^(app|server|bench|e2e)/|node_modules/(@angular|@ngrx|rxjs|dexie|@codemirror|express|comlink)' },
      'core knows neither interface nor storage nor network',
    ),
    forbid(
      'places-apart',
      { path: '^app/places/([^/]+)/' },
      { path: '^app/places/([^/]+)/', pathNot: '^app/places/$1/' },
      'places do not import each other',
    ),
    forbid('ui-below-places', { path: '^app/ui/' }, { path: '^app/(places|shell|start)/' }, 'what several places use knows no place'),
    forbid('state-below-ui', { path: '^app/state/' }, { path: '^app/(places|shell|start|ui)/' }, 'state knows no interface'),
    forbid(
      'storage-and-workers-at-the-bottom',
      { path: '^app/(storage|workers)/' },
      { path: '^app/(places|shell|start|ui|state)/' },
      'storage and workers know only core',
    ),
    forbid('server-apart', { path: '^server/' }, { path: '^app/' }, 'the server serves files; it does not know what is in them'),
    forbid(
      'no-circles',
      {},
      { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
      'modules that need each other are one module',
    ),
  ],
  options: {
    tsConfig: { fileName: 'tsconfig.app.json' },
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.scss$' },
  },
};

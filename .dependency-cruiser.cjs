// The one way that dependencies point: views → ui → state → storage, workers → core.
const forbid = (name, from, to, comment) => ({ name, severity: 'error', comment, from, to });

const SPECS = '\\.spec\\.ts$';
/** A room of core that may use these others and nothing else of core. */
const coreRoom = (room, others) =>
  forbid(
    `core-${room}`,
    { path: `^core/${room}/`, pathNot: SPECS },
    { path: '^core/', pathNot: `^core/(${[room, ...others].join('|')})/` },
    `${room} knows ${others.length > 0 ? `only ${others.join(' and ')}` : 'nothing else'}`,
  );

module.exports = {
  forbidden: [
    forbid(
      'core-stays-pure',
      { path: '^core/', pathNot: '\\.spec\\.ts$|^core/testing/' },
      { path: '^(app|server|bench|e2e)/|node_modules/(@angular|@ngrx|rxjs|dexie|@codemirror|express|comlink)' },
      'core knows neither interface nor storage nor network',
    ),
    // core's own rooms: model ← text ← passages ← change ← what knows a part of a study ← commands ← what uses all of it
    coreRoom('model', []),
    coreRoom('conditions', ['model']),
    coreRoom('requests', []),
    coreRoom('text', ['model']),
    coreRoom('passages', ['model', 'text']),
    coreRoom('change', ['model', 'text', 'passages']),
    ...['attributes', 'sets', 'codebook', 'memos', 'questions', 'queries', 'patterns', 'glosses', 'log', 'conditions'].map((room) =>
      forbid(
        `core-${room}-below-commands`,
        { path: `^core/${room}/`, pathNot: SPECS },
        { path: '^core/(commands|integrity|material|sample)/' },
        'what knows a part of a study knows no command',
      ),
    ),
    forbid(
      'core-commands-below-their-users',
      { path: '^core/commands/', pathNot: SPECS },
      { path: '^core/(integrity|material|formats|sample|filing|analysis)/' },
      'commands know neither files nor checks',
    ),
    forbid(
      'views-apart',
      { path: '^app/views/([^/]+)/' },
      { path: '^app/views/([^/]+)/', pathNot: '^app/views/$1/' },
      'views do not import each other',
    ),
    forbid('ui-below-views', { path: '^app/ui/' }, { path: '^app/(views|shell|start)/' }, 'what several views use knows no place'),
    forbid('state-below-ui', { path: '^app/state/' }, { path: '^app/(views|shell|start|ui)/' }, 'state knows no interface'),
    forbid(
      'storage-and-workers-at-the-bottom',
      { path: '^app/(storage|workers)/' },
      { path: '^app/(views|shell|start|ui|state)/' },
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

import type { Routes } from '@angular/router';

/** Every view loads when it is first gone to, or ahead of that. */
export const routes: Routes = [
  { path: '', pathMatch: 'full', title: 'Filum', loadComponent: () => import('./start/start').then((module) => module.Start) },
  {
    path: 'study/:studyId',
    data: { ahead: true },
    canDeactivate: [(shell: { mayLeave?: () => Promise<boolean> } | null) => shell?.mayLeave?.() ?? true],
    loadComponent: () => import('./shell/study-shell').then((module) => module.StudyShell),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'overview' },
      {
        path: 'overview',
        data: { ahead: true },
        loadComponent: () => import('./views/overview/overview').then((module) => module.Overview),
      },
      { path: 'material', loadComponent: () => import('./views/material/material').then((module) => module.Material) },
      {
        path: 'material/import',
        // what was set there is work: it is found again on coming back
        data: { kept: 'import' },
        loadComponent: () => import('./views/material/import/import').then((module) => module.Import),
      },
      { path: 'material/replace', loadComponent: () => import('./views/material/replace/replace').then((module) => module.Replace) },
      { path: 'reading', loadComponent: () => import('./views/reading/reading').then((module) => module.Reading) },
      {
        path: 'reading/question',
        loadComponent: () => import('./views/reading/by-question/question-reader').then((module) => module.QuestionReader),
      },
      {
        path: 'reading/question/:questionId',
        loadComponent: () => import('./views/reading/by-question/question-reader').then((module) => module.QuestionReader),
      },
      {
        path: 'reading/:documentId',
        data: { kept: 'reading' },
        loadComponent: () => import('./views/reading/reading').then((module) => module.Reading),
      },
      {
        path: 'codebook',
        data: { kept: 'codebook' },
        loadComponent: () => import('./views/codebook/codebook').then((module) => module.Codebook),
      },
      { path: 'memos', loadComponent: () => import('./views/memos/memos').then((module) => module.Memos) },
      { path: 'log', loadComponent: () => import('./views/memos/log').then((module) => module.Log) },
      { path: 'queries', loadComponent: () => import('./views/queries/queries').then((module) => module.Queries) },
      { path: 'patterns', loadComponent: () => import('./views/patterns/patterns').then((module) => module.Patterns) },
      { path: 'write-up', loadComponent: () => import('./views/write-up/write-up').then((module) => module.WriteUp) },
    ],
  },
  { path: '**', redirectTo: '' },
];

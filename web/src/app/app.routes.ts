import type { Routes } from '@angular/router';

export const routes: Routes = [
  {
    path: '',
    pathMatch: 'full',
    loadComponent: () => import('./record/studies-page').then((m) => m.StudiesPage),
    title: 'Studies · Each Bolt',
  },
  {
    path: 'studies/:studyId',
    loadComponent: () => import('./shell/shell-page').then((m) => m.ShellPage),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'bench' },
      { path: 'bench', loadComponent: () => import('./bench/bench-page').then((m) => m.BenchPage), title: 'Bench · Each Bolt' },
      { path: 'cost', loadComponent: () => import('./cost/cost-page').then((m) => m.CostPage), title: 'Cost · Each Bolt' },
      { path: 'compare', loadComponent: () => import('./compare/compare-page').then((m) => m.ComparePage), title: 'Compare · Each Bolt' },
    ],
  },
  { path: '**', loadComponent: () => import('./shell/nowhere-page').then((m) => m.NowherePage), title: 'Nothing here · Each Bolt' },
];

import type { Routes } from '@angular/router';
import { signedIn } from './people/guards';
import { asksForUnsaved } from './record/unsaved';

export const routes: Routes = [
  {
    path: 'sign-in',
    loadComponent: () => import('./people/sign-in-page').then((m) => m.SignInPage),
    title: 'Sign in · Each Bolt',
  },
  {
    path: '',
    pathMatch: 'full',
    canActivate: [signedIn],
    canDeactivate: [asksForUnsaved],
    loadComponent: () => import('./record/studies-page').then((m) => m.StudiesPage),
    title: 'Studies · Each Bolt',
  },
  {
    path: 'people',
    canActivate: [signedIn],
    loadComponent: () => import('./people/accounts-page').then((m) => m.AccountsPage),
    title: 'Accounts · Each Bolt',
  },
  {
    path: 'studies/:studyId',
    canActivate: [signedIn],
    canDeactivate: [asksForUnsaved],
    // what is chosen stands in the address: going to another part is asked for too
    runGuardsAndResolvers: 'pathParamsOrQueryParamsChange',
    loadComponent: () => import('./shell/shell-page').then((m) => m.ShellPage),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'bench' },
      {
        path: 'plan',
        loadComponent: () => import('./plan/plan-page').then((m) => m.PlanPage),
        children: [
          { path: '', pathMatch: 'full', redirectTo: 'schedule' },
          {
            path: 'choice',
            loadComponent: () => import('./plan/choice-view').then((m) => m.ChoiceView),
            title: 'Choice of vehicle · Each Bolt',
          },
          { path: 'samples', loadComponent: () => import('./plan/samples-view').then((m) => m.SamplesView), title: 'Samples · Each Bolt' },
          { path: 'scope', loadComponent: () => import('./plan/scope-view').then((m) => m.ScopeView), title: 'Scope · Each Bolt' },
          {
            path: 'packages',
            loadComponent: () => import('./plan/packages-view').then((m) => m.PackagesView),
            title: 'Work packages · Each Bolt',
          },
          {
            path: 'people',
            loadComponent: () => import('./plan/people-view').then((m) => m.PeopleView),
            title: 'People and places · Each Bolt',
          },
          {
            path: 'schedule',
            loadComponent: () => import('./plan/schedule-view').then((m) => m.ScheduleView),
            title: 'Schedule · Each Bolt',
          },
          {
            path: 'precautions',
            loadComponent: () => import('./plan/precautions-view').then((m) => m.PrecautionsView),
            title: 'Precautions · Each Bolt',
          },
          { path: 'rigs', loadComponent: () => import('./plan/rigs-view').then((m) => m.RigsView), title: 'Rigs · Each Bolt' },
        ],
      },
      {
        path: 'bench',
        loadComponent: () => import('./bench/bench-frame').then((m) => m.BenchFrame),
        children: [
          { path: '', pathMatch: 'full', redirectTo: 'record' },
          { path: 'record', loadComponent: () => import('./bench/bench-page').then((m) => m.BenchPage), title: 'Bench · Each Bolt' },
          {
            path: 'removals',
            loadComponent: () => import('./bench/removals-view').then((m) => m.RemovalsView),
            title: 'Removals · Each Bolt',
          },
          {
            path: 'closed',
            loadComponent: () => import('./bench/closed-view').then((m) => m.ClosedView),
            title: 'Closed and damaged · Each Bolt',
          },
          { path: 'tags', loadComponent: () => import('./bench/tags-view').then((m) => m.TagsView), title: 'Tags · Each Bolt' },
          {
            path: 'recount',
            loadComponent: () => import('./bench/recount-view').then((m) => m.RecountView),
            title: 'Blind recount · Each Bolt',
          },
          {
            path: 'instruments',
            loadComponent: () => import('./bench/instruments-view').then((m) => m.InstrumentsView),
            title: 'Instruments · Each Bolt',
          },
          { path: 'wall', loadComponent: () => import('./bench/wall-view').then((m) => m.WallView), title: 'Large display · Each Bolt' },
        ],
      },
      {
        path: 'measure',
        loadComponent: () => import('./measure/measure-frame').then((m) => m.MeasureFrame),
        children: [
          { path: '', pathMatch: 'full', redirectTo: 'scans' },
          { path: 'scans', loadComponent: () => import('./measure/scans-view').then((m) => m.ScansView), title: 'Scans · Each Bolt' },
          {
            path: 'material',
            loadComponent: () => import('./measure/material-view').then((m) => m.MaterialView),
            title: 'Material and process · Each Bolt',
          },
          {
            path: 'sections',
            loadComponent: () => import('./measure/sections-view').then((m) => m.SectionsView),
            title: 'Sections · Each Bolt',
          },
          { path: 'holes', loadComponent: () => import('./measure/holes-view').then((m) => m.HolesView), title: 'Holes · Each Bolt' },
          { path: 'hand', loadComponent: () => import('./measure/hand-view').then((m) => m.HandView), title: 'By hand · Each Bolt' },
          { path: 'gauge', redirectTo: 'gauge-studies' },
          {
            path: 'gauge-studies',
            loadComponent: () => import('./measure/gauge-view').then((m) => m.GaugeView),
            title: 'Gauge R&R studies · Each Bolt',
          },
          { path: 'runs', loadComponent: () => import('./measure/runs-view').then((m) => m.RunsView), title: 'Runs · Each Bolt' },
          { path: 'packs', loadComponent: () => import('./measure/packs-view').then((m) => m.PacksView), title: 'Packs · Each Bolt' },
          { path: 'boards', loadComponent: () => import('./measure/boards-view').then((m) => m.BoardsView), title: 'Boards · Each Bolt' },
          { path: 'supply', loadComponent: () => import('./measure/supply-view').then((m) => m.SupplyView), title: 'Supply · Each Bolt' },
          {
            path: 'heating',
            loadComponent: () => import('./measure/heating-view').then((m) => m.HeatingView),
            title: 'Cab heating · Each Bolt',
          },
        ],
      },
      {
        path: 'reconcile',
        loadComponent: () => import('./reconcile/reconcile-frame').then((m) => m.ReconcileFrame),
        children: [
          { path: '', pathMatch: 'full', redirectTo: 'open' },
          {
            path: 'open',
            loadComponent: () => import('./reconcile/open-view').then((m) => m.ReconcileOpen),
            title: 'Reconcile · Each Bolt',
          },
          {
            path: 'explained',
            loadComponent: () => import('./reconcile/explained-view').then((m) => m.ReconcileExplained),
            title: 'Explained · Each Bolt',
          },
          {
            path: 'recounts',
            loadComponent: () => import('./reconcile/recounts-view').then((m) => m.ReconcileRecounts),
            title: 'Blind recounts · Each Bolt',
          },
          {
            path: 'readings',
            loadComponent: () => import('./reconcile/readings-view').then((m) => m.ReconcileReadings),
            title: 'Readings · Each Bolt',
          },
          {
            path: 'sign-off',
            loadComponent: () => import('./reconcile/sign-off-view').then((m) => m.ReconcileSignOff),
            title: 'Sign-off · Each Bolt',
          },
          {
            path: 'checks',
            loadComponent: () => import('./reconcile/checks-view').then((m) => m.ReconcileChecks),
            title: 'Checks · Each Bolt',
          },
        ],
      },
      { path: 'cost', loadComponent: () => import('./cost/cost-page').then((m) => m.CostPage), title: 'Cost · Each Bolt' },
      { path: 'compare', loadComponent: () => import('./compare/compare-page').then((m) => m.ComparePage), title: 'Compare · Each Bolt' },
      { path: 'history', loadComponent: () => import('./record/history-page').then((m) => m.HistoryPage), title: 'History · Each Bolt' },
      {
        path: 'questions',
        loadComponent: () => import('./record/questions-page').then((m) => m.QuestionsPage),
        title: 'Questions and promises · Each Bolt',
      },
      { path: 'people', loadComponent: () => import('./people/members-page').then((m) => m.MembersPage), title: 'People · Each Bolt' },
    ],
  },
  { path: '**', loadComponent: () => import('./shell/nowhere-page').then((m) => m.NowherePage), title: 'Nothing here · Each Bolt' },
];

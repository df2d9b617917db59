import { Routes } from '@angular/router';

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'jobs' },
  {
    path: 'jobs',
    title: 'Jobs · Tactron',
    loadComponent: () => import('./jobs/jobs-board').then((m) => m.JobsBoard),
  },
  {
    path: 'library',
    title: 'Library · Tactron',
    loadComponent: () => import('./library/library').then((m) => m.Library),
  },
  {
    path: 'sums',
    title: 'Sums · Tactron',
    loadComponent: () => import('./sums/sums-page').then((m) => m.SumsPage),
  },
  {
    path: 'sums/:name',
    title: 'Sums · Tactron',
    loadComponent: () => import('./sums/sums-page').then((m) => m.SumsPage),
  },
  {
    path: 'settings',
    title: 'Settings · Tactron',
    loadComponent: () => import('./settings/settings-page').then((m) => m.SettingsPage),
  },
  {
    path: 'sites/:siteId',
    title: 'Site · Tactron',
    loadComponent: () => import('./site/site-page').then((m) => m.SitePage),
  },
  {
    path: 'invitation/:token',
    title: 'Invitation · Tactron',
    loadComponent: () => import('./settings/invitation-page').then((m) => m.InvitationPage),
  },
  {
    path: 'jobs/:jobId',
    loadComponent: () => import('./frame/job-frame').then((m) => m.JobFrame),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'plate' },
      {
        path: 'plate',
        loadComponent: () => import('./stages/plate/plate-stage').then((m) => m.PlateStage),
      },
      {
        path: 'parts',
        loadComponent: () => import('./stages/plate/parts-sheet').then((m) => m.PartsSheet),
      },
      {
        path: 'devices',
        loadComponent: () => import('./stages/plate/device-choice').then((m) => m.DeviceChoice),
      },
      {
        path: 'isolation',
        loadComponent: () =>
          import('./frame/isolation/isolation-card').then((m) => m.IsolationCard),
      },
      { path: 'history', loadComponent: () => import('./frame/history').then((m) => m.History) },
      {
        path: 'scheme',
        loadComponent: () => import('./stages/scheme/scheme-stage').then((m) => m.SchemeStage),
      },
      {
        path: 'land',
        loadComponent: () => import('./stages/land/land-stage').then((m) => m.LandStage),
      },
      {
        path: 'card',
        loadComponent: () => import('./stages/land/panel-card').then((m) => m.PanelCard),
      },
      {
        path: 'key',
        loadComponent: () => import('./stages/key/key-stage').then((m) => m.KeyStage),
      },
      {
        path: 'rehearse',
        loadComponent: () =>
          import('./stages/rehearse/rehearse-stage').then((m) => m.RehearseStage),
      },
      {
        path: 'dead',
        data: { part: 'dead' },
        loadComponent: () => import('./stages/live/live-stage').then((m) => m.LiveStage),
      },
      {
        path: 'live',
        loadComponent: () => import('./stages/live/live-stage').then((m) => m.LiveStage),
      },
      {
        path: 'operator',
        loadComponent: () =>
          import('./stages/handover/sheets/operator-sheet').then((m) => m.OperatorSheet),
      },
      {
        path: 'labels',
        loadComponent: () =>
          import('./stages/handover/sheets/label-sheet').then((m) => m.LabelSheet),
      },
      {
        path: 'handover',
        loadComponent: () =>
          import('./stages/handover/handover-stage').then((m) => m.HandoverStage),
      },
    ],
  },
  { path: '**', loadComponent: () => import('./frame/lost').then((m) => m.Lost) },
];

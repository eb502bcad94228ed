import type { Routes } from '@angular/router';

/** Every workplace is a part of its own, loaded when it is first used. */
export const routes: Routes = [
  {
    path: '',
    pathMatch: 'full',
    title: 'Rulesets · Eager Ember',
    loadComponent: () => import('./rulesets/rulesets').then((m) => m.Rulesets),
  },
  {
    path: 'sessions',
    title: 'Sessions · Eager Ember',
    loadComponent: () => import('./sessions/sessions').then((m) => m.Sessions),
  },
  { path: 'join/:token', title: 'A seat · Eager Ember', loadComponent: () => import('./join/join').then((m) => m.Join) },
  {
    path: 'r/:id',
    loadComponent: () => import('./shell/workbench').then((m) => m.Workbench),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'rulebook/attributes' },
      { path: 'rulebook', pathMatch: 'full', redirectTo: 'rulebook/attributes' },
      {
        path: 'rulebook/source',
        title: 'Whole source · Eager Ember',
        loadComponent: () => import('./rulebook/whole-source').then((m) => m.WholeSource),
      },
      {
        path: 'rulebook/wiring',
        title: 'Wiring · Eager Ember',
        loadComponent: () => import('./rulebook/wiring/wiring').then((m) => m.Wiring),
      },
      {
        path: 'rulebook/arena',
        title: 'Arena · Eager Ember',
        loadComponent: () => import('./rulebook/arena/arena-page').then((m) => m.ArenaPage),
      },
      {
        path: 'rulebook/players',
        title: 'Players · Eager Ember',
        loadComponent: () => import('./rulebook/players/players-page').then((m) => m.PlayersPage),
      },
      {
        path: 'rulebook/players/:player',
        title: 'Players · Eager Ember',
        loadComponent: () => import('./rulebook/players/players-page').then((m) => m.PlayersPage),
      },
      { path: 'rulebook/hunts/:entry', redirectTo: 'checks/hunts/:entry' },
      { path: 'rulebook/hunts', redirectTo: 'checks' },
      {
        path: 'checks/hunts/:entry',
        title: 'Checks · Eager Ember',
        data: { chapter: 'hunts' },
        loadComponent: () => import('./rulebook/rulebook').then((m) => m.Rulebook),
      },
      { path: 'rulebook/checks/:entry', redirectTo: 'checks/:entry' },
      { path: 'rulebook/checks', redirectTo: 'checks' },
      {
        path: 'checks',
        title: 'Checks · Eager Ember',
        data: { chapter: 'checks' },
        loadComponent: () => import('./rulebook/rulebook').then((m) => m.Rulebook),
      },
      {
        path: 'checks/:entry',
        title: 'Checks · Eager Ember',
        data: { chapter: 'checks' },
        loadComponent: () => import('./rulebook/rulebook').then((m) => m.Rulebook),
      },
      {
        path: 'rulebook/:chapter',
        title: 'Rulebook · Eager Ember',
        loadComponent: () => import('./rulebook/rulebook').then((m) => m.Rulebook),
      },
      {
        path: 'rulebook/:chapter/:entry',
        title: 'Rulebook · Eager Ember',
        loadComponent: () => import('./rulebook/rulebook').then((m) => m.Rulebook),
      },
      { path: 'trail', title: 'Trail · Eager Ember', loadComponent: () => import('./trail/trail-page').then((m) => m.TrailPage) },
      { path: 'playtest', title: 'Playtest · Eager Ember', loadComponent: () => import('./playtest/lobby').then((m) => m.Lobby) },
      {
        path: 'playtest/:room',
        title: 'Playtest · Eager Ember',
        loadComponent: () => import('./playtest/playtest').then((m) => m.Playtest),
      },
    ],
  },
  { path: '**', redirectTo: '' },
];

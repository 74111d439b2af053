import { createRouter, createWebHistory } from 'vue-router'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    {
      path: '/',
      component: () => import('@/features/door/FrontDoor.vue'),
      children: [
        { path: '', name: 'jobs', component: () => import('@/features/door/PlanDoor.vue') },
        { path: 'connect', name: 'connect', component: () => import('@/features/door/ConnectDoor.vue') },
        { path: 'tools', name: 'tools', component: () => import('@/features/tools/ToolsPage.vue') },
        { path: 'tools/cable', name: 'cable', component: () => import('@/features/tools/CablePage.vue') },
        {
          path: '',
          component: () => import('@/features/door/LooseFiles.vue'),
          children: [
            {
              path: 'tools/attenuators',
              name: 'attenuators',
              component: () => import('@/features/pads/PadPage.vue'),
            },
            { path: 'check', name: 'check', component: () => import('@/features/lineup/CheckPage.vue') },
            {
              path: 'sync-files',
              name: 'sync-files',
              component: () => import('@/features/sync/SyncPage.vue'),
            },
          ],
        },
      ],
    },
    {
      path: '/equipment',
      name: 'equipment',
      component: () => import('@/features/equipment/EquipmentPage.vue'),
    },
    {
      path: '/equipment/:id',
      name: 'equipment-class',
      component: () => import('@/features/equipment/ClassPage.vue'),
      props: true,
    },
    {
      path: '/trunk',
      name: 'stock',
      component: () => import('@/features/trunk/StockPage.vue'),
    },
    {
      path: '/drill/:drill?',
      name: 'drills',
      component: () => import('@/features/drill/DrillPage.vue'),
      props: true,
    },
    {
      path: '/ear/:session?',
      name: 'ear',
      component: () => import('@/features/drill/EarPage.vue'),
      props: true,
    },
    {
      path: '/telephones',
      name: 'telephones',
      component: () => import('@/features/telephones/TelephonesPage.vue'),
    },
    { path: '/backups', name: 'backups', component: () => import('@/features/copies/CopiesPage.vue') },
    {
      path: '/jobs/:job',
      component: () => import('@/features/shell/JobShell.vue'),
      props: true,
      children: [
        { path: '', redirect: (to) => ({ name: 'runs', params: to.params }) },
        { path: 'job', name: 'job', component: () => import('@/features/job/JobPage.vue') },
        {
          path: 'gear-tests/:device?',
          name: 'gear-tests',
          component: () => import('@/features/geartests/GearTestsPage.vue'),
          props: true,
        },
        { path: 'runs', name: 'runs', component: () => import('@/features/runs/RunsPage.vue') },
        { path: 'wrong', name: 'wrong', component: () => import('@/features/wrong/WrongPage.vue') },
        { path: 'leads', name: 'leads', component: () => import('@/features/leads/LeadsPage.vue') },
        { path: 'pads', name: 'pads', component: () => import('@/features/pads/PadPage.vue') },
        { path: 'gain', name: 'gain', component: () => import('@/features/gain/GainPage.vue') },
        {
          path: 'line-up/:track?',
          name: 'line-up',
          component: () => import('@/features/lineup/LineUpPage.vue'),
          props: true,
        },
        { path: 'clock', name: 'clock', component: () => import('@/features/clock/ClockPage.vue') },
        { path: 'sync', name: 'sync', component: () => import('@/features/sync/SyncPage.vue') },
        { path: 'trunk', name: 'trunk', component: () => import('@/features/trunk/TrunkPage.vue') },
        {
          path: 'drill/:drill?',
          name: 'drill',
          component: () => import('@/features/drill/DrillPage.vue'),
          props: true,
        },
        { path: 'day', name: 'day', component: () => import('@/features/day/DayPage.vue') },
        { path: 'log', name: 'log', component: () => import('@/features/log/LogPage.vue') },
        { path: 'files', name: 'files', component: () => import('@/features/files/FilesPage.vue') },
        { path: 'walk', name: 'walk', component: () => import('@/features/walk/WalkPage.vue') },
        {
          path: 'simulation/:track?',
          name: 'simulation',
          component: () => import('@/features/simulation/SimulationPage.vue'),
          props: true,
        },
        {
          path: 'levels/:track?',
          name: 'levels',
          component: () => import('@/features/levels/LevelsPage.vue'),
          props: true,
        },
      ],
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})

// A window that stayed open over an update asks for a part of the program that is gone: it is loaded anew, once.
const TRIED = 'tidy-loaded-anew'
router.onError((error: unknown, to) => {
  if (!/import|preload|fetch/i.test(String(error)) || sessionStorage.getItem(TRIED) === to.fullPath)
    throw error
  sessionStorage.setItem(TRIED, to.fullPath)
  window.location.assign(to.fullPath)
})
router.afterEach(() => sessionStorage.removeItem(TRIED))

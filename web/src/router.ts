import { createRouter, createWebHistory } from 'vue-router'
import { noteFocus } from './shared/focusBefore'
import { SERVICE_PATH } from './shared/servicePath'

export const router = createRouter({
  history: createWebHistory(SERVICE_PATH),
  routes: [
    { path: '/', name: 'desk', component: () => import('./desk/Desk.vue') },
    { path: '/workups', name: 'workups', component: () => import('./workup/Workups.vue') },
    {
      path: '/workups/:id(\\d+)',
      component: () => import('./workup/Workup.vue'),
      props: (to) => ({ id: Number(to.params.id) }),
      children: [
        { path: '', redirect: (to) => ({ name: 'comps', params: to.params }) },
        { path: 'home', name: 'home', component: () => import('./workup/home/HomeRoom.vue') },
        { path: 'comps', name: 'comps', component: () => import('./workup/comps/CompsRoom.vue') },
        { path: 'worth', name: 'worth', component: () => import('./workup/worth/WorthRoom.vue') },
        { path: 'paper', name: 'paper', component: () => import('./workup/paper/PaperRoom.vue') },
      ],
    },
    { path: '/point', name: 'point', component: () => import('./look/PointAtHome.vue') },
    { path: '/around', name: 'around', component: () => import('./look/LookRoom.vue') },
    { path: '/market', name: 'market', component: () => import('./market/Market.vue') },
    {
      path: '/records',
      component: () => import('./records/Records.vue'),
      children: [
        { path: '', name: 'records', component: () => import('./records/Sources.vue') },
        { path: 'imports', name: 'imports', component: () => import('./records/Imports.vue') },
        { path: 'conclusions', name: 'conclusions', component: () => import('./records/Conclusions.vue') },
        { path: 'health', name: 'health', component: () => import('./records/Health.vue') },
        {
          path: 'incoming/:fileId([0-9a-f]{12})',
          name: 'incoming',
          component: () => import('./records/IncomingFile.vue'),
          props: true,
        },
      ],
    },
    { path: '/settings', name: 'settings', component: () => import('./settings/Settings.vue') },
    { path: '/settings/rules', name: 'rules', component: () => import('./settings/rules/HouseRules.vue') },
    {
      path: '/guide/:page?',
      name: 'guide',
      component: () => import('./guide/GuidePage.vue'),
      props: (to) => ({ page: String(to.params.page || 'index') }),
    },
    { path: '/:rest(.*)', redirect: '/' },
  ],
})
router.beforeEach(noteFocus)

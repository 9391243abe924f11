import { createRouter, createWebHistory } from 'vue-router'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    {
      path: '/',
      name: 'bench',
      component: () => import('@/views/bench/BenchView.vue'),
      meta: { title: 'Bench' },
    },
    {
      path: '/cards',
      name: 'cards',
      component: () => import('@/views/cards/CardsView.vue'),
      meta: { title: 'Cards' },
    },
    {
      path: '/cards/import',
      name: 'import',
      component: () => import('@/views/cards/ImportView.vue'),
      meta: { title: 'Import a card' },
    },
    {
      path: '/shelf/:part?',
      name: 'shelf',
      component: () => import('@/views/shelf/ShelfView.vue'),
      meta: { title: 'Kitchen' },
    },
    {
      path: '/day/:date?',
      name: 'day',
      component: () => import('@/views/day/DayView.vue'),
      meta: { title: 'Day' },
    },
    {
      path: '/store/:part?',
      name: 'store',
      component: () => import('@/views/store/StoreView.vue'),
      meta: { title: 'Stock' },
    },
    {
      path: '/how-it-bakes',
      name: 'how',
      component: () => import('@/views/bench/bake/HowItBakes.vue'),
      meta: { title: 'How the bake is calculated' },
    },
    {
      path: '/watch',
      name: 'watch',
      component: () => import('@/views/watch/WatchView.vue'),
      meta: { title: 'Oven watch' },
    },
    { path: '/log', name: 'log', component: () => import('@/views/log/LogView.vue'), meta: { title: 'Log' } },
    {
      path: '/log/beside/:bake/:other',
      name: 'beside',
      component: () => import('@/views/log/SideBySide.vue'),
      meta: { title: 'Compare two bakes' },
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})

router.afterEach((to) => {
  document.title = `${String(to.meta.title)} · Mabbin`
})

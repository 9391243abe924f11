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
      path: '/kitchen/:part?',
      name: 'kitchen',
      component: () => import('@/views/kitchen/KitchenView.vue'),
      meta: { title: 'Kitchen' },
    },
    {
      path: '/day/:date?',
      name: 'day',
      component: () => import('@/views/day/DayView.vue'),
      meta: { title: 'Day' },
    },
    {
      path: '/stock/:part?',
      name: 'stock',
      component: () => import('@/views/stock/StockView.vue'),
      meta: { title: 'Stock' },
    },
    {
      path: '/how-it-bakes',
      name: 'how',
      component: () => import('@/views/bench/bake/BakeModelPage.vue'),
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
      path: '/log/compare/:bake/:other',
      name: 'compare',
      component: () => import('@/views/log/BakeComparison.vue'),
      meta: { title: 'Compare two bakes' },
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})

router.afterEach((to) => {
  document.title = `${String(to.meta.title)} · Mabbin`
})

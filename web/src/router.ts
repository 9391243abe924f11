import { createRouter, createWebHistory } from 'vue-router'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'bench', component: () => import('./bench/BenchView.vue'), meta: { title: 'Bench' } },
    {
      path: '/cards',
      name: 'cards',
      component: () => import('./cards/CardsView.vue'),
      meta: { title: 'Cards' },
    },
    {
      path: '/cards/import',
      name: 'import',
      component: () => import('./cards/ImportView.vue'),
      meta: { title: 'Import a card' },
    },
    {
      path: '/shelf/:part?',
      name: 'shelf',
      component: () => import('./shelf/ShelfView.vue'),
      meta: { title: 'Shelf' },
    },
    {
      path: '/how-it-bakes',
      name: 'how',
      component: () => import('./bench/HowItBakes.vue'),
      meta: { title: 'How the bake is calculated' },
    },
    {
      path: '/watch',
      name: 'watch',
      component: () => import('./watch/WatchView.vue'),
      meta: { title: 'Oven watch' },
    },
    { path: '/log', name: 'log', component: () => import('./log/LogView.vue'), meta: { title: 'Log' } },
    {
      path: '/log/beside/:bake/:other',
      name: 'beside',
      component: () => import('./log/SideBySide.vue'),
      meta: { title: 'Two bakes side by side' },
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})

router.afterEach((to) => {
  document.title = `${String(to.meta.title)} · Mabbin`
})

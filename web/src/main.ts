import { createPinia } from 'pinia'
import { createApp } from 'vue'
import '@fontsource/atkinson-hyperlegible-next/latin-400.css'
import '@fontsource/atkinson-hyperlegible-next/latin-600.css'
import '@fontsource/bricolage-grotesque/latin-700.css'
import 'element-plus/theme-chalk/dark/css-vars.css'
import '@/styles/base.css'
import App from './App.vue'
import { markIdle } from '@/api/pending'
import { router } from './router'

const app = createApp(App).use(createPinia()).use(router)
app.mount('#app')
// A page that is shown on loopback alone is safe enough for a browser's cache.
if ('serviceWorker' in navigator) {
  // what can be read without a line is fetched once the page stands
  const soonMs = 2000
  addEventListener('load', () =>
    setTimeout(() => void import('virtual:pwa-register').then((pwa) => pwa.registerSW()), soonMs),
  )
}
markIdle(Promise.all([router.isReady(), document.fonts.ready]))

import { createPinia } from 'pinia'
import { createApp } from 'vue'
import '@fontsource/atkinson-hyperlegible-next/latin-400.css'
import '@fontsource/atkinson-hyperlegible-next/latin-600.css'
import '@fontsource/atkinson-hyperlegible-next/latin-700.css'
import '@fontsource-variable/bricolage-grotesque/wght.css'
import 'element-plus/theme-chalk/dark/css-vars.css'
import '@/styles/base.css'
import { registerSW } from 'virtual:pwa-register'
import App from './App.vue'
import { markIdle } from '@/api/pending'
import { router } from './router'

const app = createApp(App).use(createPinia()).use(router)
app.mount('#app')
// A page that is shown on loopback alone is safe enough for a browser's cache.
if ('serviceWorker' in navigator) registerSW({ immediate: false })
markIdle(Promise.all([router.isReady(), document.fonts.ready]))

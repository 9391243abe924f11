<script setup lang="ts">
import { useDark, useElementSize, useToggle } from '@vueuse/core'
import { onMounted, useTemplateRef, watchEffect } from 'vue'
import { useRouter } from 'vue-router'
import { keepFocus } from '@/ui/focus'
import NumberPad from '@/ui/NumberPad.vue'
import OutboxNotice from '@/ui/OutboxNotice.vue'
import { later, onceTrue } from '@/ui/later'
import { bindKeys, everywhere, listen, sheetOpen } from '@/ui/useKeys'
import KitchenMenu from '@/views/kitchen/KitchenMenu.vue'
import { useClash } from '@/stores/useClash'
import { useKitchen } from '@/stores/useKitchen'
import { useOwnIngredient } from '@/stores/useOwnIngredient'
import DueNotice from '@/views/watch/DueNotice.vue'
import { useWatch } from '@/stores/useWatch'

const ClashDialog = later(() => import('@/ui/ClashDialog.vue'))
const KeySheet = later(() => import('@/ui/KeySheet.vue'))
const OwnIngredient = later(() => import('@/ui/OwnIngredient.vue'))
const clash = useClash()
const own = useOwnIngredient()
const keysAsked = onceTrue(() => sheetOpen.value)
const clashed = onceTrue(() => clash.open)
const ownAsked = onceTrue(() => own.asked)

const kitchen = useKitchen()
const watching = useWatch()
const router = useRouter()
const dark = useDark({ storageKey: 'mabbin.light', disableTransition: false })
const toggleDark = useToggle(dark)

/** What stands above a view: a view of the screen's height takes the rest (--above). */
const { height: above } = useElementSize(useTemplateRef('above'))
watchEffect(() => document.documentElement.style.setProperty('--above', `${above.value}px`))

listen()
bindKeys(everywhere, [
  { key: '?', label: 'these keys', does: () => (sheetOpen.value = !sheetOpen.value) },
  { key: 'b', label: 'the Bench', does: () => void router.push('/') },
  { key: '/', label: 'the cards', does: () => void router.push('/cards') },
  { key: 'y', label: 'the day', does: () => void router.push('/day') },
  { key: 'o', label: 'the oven watch', does: () => void router.push('/watch') },
  { key: 'l', label: 'the log', does: () => void router.push('/log') },
  { key: 'p', label: 'the stock', does: () => void router.push('/stock') },
  { key: 'h', label: 'the kitchen', does: () => void router.push('/kitchen') },
])
onMounted(() => void kitchen.load())
router.afterEach(() => setTimeout(keepFocus, 50))
</script>

<template>
  <a class="visually-hidden" href="#main">Skip to content</a>
  <div ref="above">
    <header class="no-print">
      <svg class="mark" viewBox="0 0 40 28" aria-hidden="true">
        <path d="M8 12h24l-3 12H11z" fill="#a8324a" />
        <path d="M8 12q3-7 6-4 3-6 6-2 4-4 6 0 4-2 6 6z" fill="var(--crust)" />
        <path
          d="M2 10.500h4l3.500 15h21l3.500-15h4"
          fill="none"
          stroke="var(--rim)"
          stroke-width="3"
          stroke-linejoin="round"
          stroke-linecap="round"
        />
      </svg>
      <span class="name">Mabbin</span>
      <nav aria-label="Screens">
        <RouterLink to="/">Bench</RouterLink>
        <RouterLink to="/cards">Cards</RouterLink>
        <RouterLink to="/day" :class="{ 'router-link-exact-active': $route.name === 'day' }">Day</RouterLink>
        <RouterLink to="/watch" data-testid="nav-watch"
          >Watch<span v-if="watching.desserts.length" class="in">{{
            watching.desserts.length
          }}</span></RouterLink
        >
        <RouterLink to="/log" :class="{ 'router-link-exact-active': $route.name === 'beside' }"
          >Log</RouterLink
        >
        <RouterLink to="/stock" :class="{ 'router-link-exact-active': $route.name === 'stock' }"
          >Stock</RouterLink
        >
        <RouterLink to="/kitchen" :class="{ 'router-link-exact-active': $route.name === 'kitchen' }"
          >Kitchen</RouterLink
        >
      </nav>
      <KitchenMenu />
      <button class="plain" :aria-pressed="dark" data-testid="light" @click="toggleDark()">
        {{ dark ? 'Light' : 'Dark' }}
      </button>
      <button class="plain keys" aria-label="Keys" data-testid="keys" @click="sheetOpen = true">Keys</button>
    </header>
    <OutboxNotice />
    <DueNotice />
  </div>
  <main id="main" tabindex="-1">
    <RouterView v-if="kitchen.larder" />
    <p v-else-if="kitchen.trouble" class="trouble" role="alert">
      {{ `${kitchen.trouble.title} Trying again every few seconds.` }}
    </p>
    <p v-else class="trouble quiet">Loading…</p>
  </main>
  <KeySheet v-if="keysAsked" />
  <ClashDialog v-if="clashed" />
  <OwnIngredient v-if="ownAsked" />
  <NumberPad />
</template>

<style scoped>
header {
  display: flex;
  align-items: center;
  gap: 10px;
  height: 52px;
  padding: 0 16px;
  background: var(--panel);
  border-bottom: 3px solid var(--rim);
}
.mark {
  width: 38px;
  height: 28px;
}
.name {
  font: 700 1.4375rem var(--title);
  letter-spacing: -0.01em;
}
nav {
  display: flex;
  gap: 2px;
  margin-left: 18px;
  align-self: stretch;
}
nav a {
  display: flex;
  align-items: center;
  padding: 0 14px;
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
}
nav a.router-link-exact-active {
  color: var(--rim-ink);
  box-shadow: inset 0 -5px 0 var(--rim);
}
.in {
  min-width: 22px;
  margin-left: 6px;
  padding: 0 6px;
  border-radius: 11px;
  background: var(--heat);
  color: var(--panel);
  text-align: center;
}
main {
  padding: 8px;
}
main:focus {
  outline: none;
}
.trouble {
  padding: 40px;
  text-align: center;
}
@media (max-width: 43.75em) {
  header {
    flex-wrap: wrap;
    justify-content: flex-end;
    height: auto;
    padding: 0 8px;
    gap: 0 4px;
  }
  .name,
  .mark {
    display: none;
  }
  nav {
    order: 1;
    flex: 1 0 100%;
    justify-content: space-between;
    gap: 0;
    margin-left: 0;
  }
  nav a {
    min-height: 44px;
    padding: 0 4px;
  }
  .in {
    margin-left: 3px;
  }
  header .plain {
    padding: 0 4px;
  }
}
@media (max-width: 32.5em), (hover: none) and (max-width: 43.75em) {
  .keys {
    display: none;
  }
}
</style>

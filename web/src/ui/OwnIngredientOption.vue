<script setup lang="ts">
import { useKitchen } from '@/stores/useKitchen'
import { useOwnIngredient } from '@/stores/useOwnIngredient'

/** At the end of a list of fruits or ingredients: what is not in it is taken in from here. */
defineProps<{
  among: readonly { key: string; name: string }[]
  take: (key: string) => void
  testid: string
  name?: string
}>()
const kitchen = useKitchen()
const own = useOwnIngredient()
</script>

<template>
  <button
    v-if="kitchen.kitchen"
    type="button"
    class="plain"
    :data-testid="testid"
    @click="own.ask({ name: name ?? '', among, then: take })"
  >
    Add your own…
  </button>
</template>

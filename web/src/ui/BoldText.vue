<script setup lang="ts">
import { computed } from 'vue'

/** A sentence as one text of the catalogue: what stands between two ** in it is bold. */
const props = defineProps<{ text: string }>()
const parts = computed(() => props.text.split('**'))
</script>

<template>
  <template v-for="(p, i) in parts" :key="i"
    ><strong v-if="i % 2">{{ p }}</strong
    ><template v-else>{{ p }}</template></template
  >
</template>

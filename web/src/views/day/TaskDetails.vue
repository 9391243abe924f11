<script setup lang="ts">
import { computed } from 'vue'
import type { DayBar, DayPin } from '@/api/client'
import { clockOf } from '@/format/minutes'

/** One thing of the day, and what can be done with it: kept where it is, moved, made longer, or done. */
const props = defineProps<{ bar: DayBar; now?: number }>()
const emit = defineEmits<{ pin: [label: string, where: Partial<DayPin>]; unpin: []; bench: [] }>()
const bakes = computed(() => ['bake', 'parbake'].includes(props.bar.kind))
const later = 10
const put = (what: string, where: Partial<DayPin>) => emit('pin', `${props.bar.text}, ${what}`, where)
const begun = computed(() => props.now !== undefined && !props.bar.can_move)
</script>

<template>
  <section class="panel thing" aria-label="Details" data-testid="one-thing">
    <p>
      <strong>{{ `${clockOf(bar.from_min)} to ${clockOf(bar.to_min)}` }}</strong>
      {{ bar.text }}<template v-if="bar.other_option">, not as on its card, to share the oven</template>.
    </p>
    <span class="acts">
      <button v-if="bar.pinned" class="push" data-testid="unpin" @click="emit('unpin')">
        Remove fixed time
      </button>
      <button v-else class="push" data-testid="pin" @click="put('fixed', {})">Fix this time</button>
      <button
        v-if="!begun"
        class="push"
        data-testid="later"
        @click="put(`${later} min later`, { start_min: bar.from_min + later })"
      >
        {{ `${later} min later` }}
      </button>
      <button
        class="push"
        data-testid="longer"
        @click="put(`${later} min longer`, { start_min: bar.from_min, end_min: bar.to_min + later })"
      >
        {{ `${later} min longer` }}
      </button>
      <button
        v-if="begun"
        class="push main"
        data-testid="done-now"
        @click="put('done', { start_min: bar.from_min, end_min: Math.max(bar.from_min, now!) })"
      >
        {{ bakes ? 'Out of the oven' : 'Done' }}
      </button>
      <button class="plain" data-testid="to-bench" @click="emit('bench')">Open the card</button>
    </span>
  </section>
</template>

<style scoped>
.thing {
  position: sticky;
  z-index: 5;
  bottom: 8px;
  box-shadow: 0 4px 20px rgb(0 0 0 / 25%);
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 6px 16px;
  padding: 8px 14px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>

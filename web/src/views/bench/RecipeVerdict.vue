<script setup lang="ts">
import { computed } from 'vue'
import type { BalanceRequest } from '@/api/client'
import { measured } from '@/format/amounts'
import { useDessert } from '@/stores/useDessert'

/** A card that came in from elsewhere: the smallest change that mends it, and Mabbin's own way, one touch each. */
const dessert = useDessert()
const written = computed(() => dessert.draft?.written)

function take(label: string, request: BalanceRequest) {
  dessert.change(label, (d) => {
    d.request = request
    delete d.written
  })
}
</script>

<template>
  <section v-if="written" class="written no-print" data-testid="written" aria-label="As written">
    <h3>
      {{ written.wrong ? 'As written. Smallest change that fixes it:' : 'As written; right for this dish.' }}
    </h3>
    <ul v-if="written.changes.length">
      <li v-for="c in written.changes" :key="c.code">
        <strong>{{ c.name }} {{ measured(c.from, c.unit) }} → {{ measured(c.to, c.unit) }}</strong>
        <span class="quiet small">{{ c.effect }}</span>
      </li>
    </ul>
    <p v-if="written.weighed" class="small">{{ `Mabbin’s version: ${written.weighed}.` }}</p>
    <span class="acts">
      <button
        v-if="written.changes.length"
        class="push main"
        data-testid="mend"
        @click="take('fixing the card', written.mended)"
      >
        Apply
      </button>
      <button class="push" data-testid="own-way" @click="take('Mabbin’s version', written.own)">
        Use Mabbin’s version
      </button>
      <button
        class="plain"
        data-testid="leave-written"
        @click="dessert.change('as written', (d) => delete d.written)"
      >
        Keep as written
      </button>
    </span>
  </section>
</template>

<style scoped>
.written {
  padding: 8px 12px;
  border-left: 5px solid var(--heat);
  background: var(--sunk);
}
ul {
  margin: 4px 0;
  padding: 0;
  list-style: none;
}
li span {
  margin-left: 8px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 6px;
}
</style>

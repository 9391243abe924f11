<script setup lang="ts">
import type { BakeChange, PlanAnswer, TwoSettings } from '@/api/client'
import VerdictText from '@/ui/VerdictText.vue'

/** A dessert that will not come out right is not put into the oven without a word, and none by a single key. */
defineProps<{ verdict?: PlanAnswer['verdict']; shared: TwoSettings[] }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ mend: [label: string, change: BakeChange]; oven: [] }>()
function mend(label: string, change: BakeChange) {
  open.value = false
  emit('mend', label, change)
}
function asItIs() {
  open.value = false
  emit('oven')
}
</script>

<template>
  <el-dialog v-model="open" title="Start the bake?" width="min(560px, 96vw)" data-testid="ask-oven">
    <p v-if="verdict" class="text"><VerdictText :verdict="verdict" /></p>
    <p v-for="t in shared" :key="t.text" class="wrong two" data-testid="two-settings-before">
      {{ `The oven is in use: ${t.text}.` }}
    </p>
    <template #footer>
      <span class="dialog-acts">
        <button :class="['push', { main: verdict?.right }]" data-testid="oven-anyway" @click="asItIs">
          {{ verdict?.right ? 'Start' : 'Start anyway' }}
        </button>
        <button
          v-if="verdict?.mend"
          :class="['push', { main: !verdict.right }]"
          data-testid="ask-mend"
          @click="mend(verdict.mend.text, verdict.mend.change)"
        >
          {{ `First: ${verdict.mend.text}` }}
        </button>
        <button v-else :class="['push', { main: !verdict?.right }]" @click="open = false">Cancel</button>
      </span>
    </template>
  </el-dialog>
</template>

<style scoped>
.two {
  margin: 10px 0 0;
  font-size: 1.0625rem;
}
.text {
  margin: 0;
  font-size: 1.1875rem;
  font-weight: 600;
}
</style>

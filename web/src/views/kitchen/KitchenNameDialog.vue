<script setup lang="ts">
import { ref, watch } from 'vue'
import { inWords } from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'
import UnitPresets from '@/ui/UnitPresets.vue'

/** Asks for the name of the kitchen: of this one, or of a new one, and then also how it measures. */
const props = defineProps<{ fresh: boolean }>()
const open = defineModel<boolean>({ required: true })
const kitchen = useKitchen()
const name = ref('')
const habit = ref<string>()
const refused = ref('')
watch(
  open,
  () => {
    name.value = props.fresh ? '' : (kitchen.kitchen?.name ?? '')
    refused.value = ''
  },
  { immediate: true },
)

async function take() {
  const got = props.fresh
    ? await kitchen.begin(name.value.trim(), habit.value)
    : { problem: await kitchen.rename(name.value.trim()), data: undefined }
  refused.value = got.problem ? inWords(got.problem) : ''
  if (got.problem) return
  open.value = false
  if (got.data) kitchen.choose(got.data.id)
}
</script>

<template>
  <el-dialog
    v-model="open"
    :title="fresh ? 'Add kitchen' : 'Rename kitchen'"
    width="min(620px, 96vw)"
    data-testid="name-kitchen"
  >
    <form class="ask" @submit.prevent="take">
      <el-input
        v-model="name"
        maxlength="80"
        placeholder="Name of the kitchen"
        aria-label="Name of the kitchen"
        data-testid="new-name"
      />
      <template v-if="fresh">
        <UnitPresets v-model="habit" />
        <p class="quiet">Each kitchen has its own cards, dishes, ovens, figures and log.</p>
      </template>
      <p v-if="refused" class="wrong" role="alert">{{ refused }}.</p>
      <div class="dialog-acts">
        <button type="button" class="push" @click="open = false">Cancel</button>
        <button class="push main" :disabled="!name.trim()" data-testid="name-it">
          {{ fresh ? 'Add kitchen' : 'Rename' }}
        </button>
      </div>
    </form>
  </el-dialog>
</template>

<style scoped>
.ask {
  display: grid;
  gap: 12px;
}
.ask p {
  margin: 0;
}
</style>

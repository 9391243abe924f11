<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, ask, inWords, withoutBody, type Kitchen } from '@/api/client'
import { useKitchen } from '@/stores/useKitchen'

/** Takes a kitchen away for good: its backup is offered, and its name asked for. */
const props = defineProps<{ kitchen: Kitchen }>()
const open = defineModel<boolean>({ required: true })
const store = useKitchen()
const name = ref('')
const refused = ref('')
const sure = computed(() => name.value.trim() === props.kitchen.name)

async function remove() {
  const got = await ask(
    withoutBody(
      api.DELETE('/api/v1/kitchens/{kitchen}', {
        params: { path: { kitchen: props.kitchen.id }, query: { name: name.value.trim() } },
      }),
    ),
  )
  refused.value = got.problem ? inWords(got.problem) : ''
  if (got.problem) return
  open.value = false
  name.value = ''
  await store.leave(props.kitchen.id)
}
</script>

<template>
  <el-dialog
    v-model="open"
    :title="`Delete ${kitchen.name}?`"
    width="min(560px, 96vw)"
    data-testid="remove-kitchen"
  >
    <div class="ask">
      <p>
        This deletes its cards and versions, log and pictures, Watch, dishes, ovens and figures for good. You
        can’t undo this.
      </p>
      <a
        class="push"
        :href="`/api/v1/kitchens/${kitchen.id}/backup.zip`"
        :download="`${kitchen.name}.zip`"
        data-testid="remove-backup"
        >Download a backup first</a
      >
      <label>
        {{ `To confirm, enter the name: ${kitchen.name}` }}
        <el-input v-model="name" maxlength="80" aria-label="The kitchen's name" data-testid="remove-name" />
      </label>
      <p v-if="refused" class="wrong" role="alert">{{ refused }}.</p>
    </div>
    <template #footer>
      <span class="dialog-acts">
        <button class="push" @click="open = false">Cancel</button>
        <button class="push main" :disabled="!sure" data-testid="remove-for-good" @click="remove">
          Delete kitchen
        </button>
      </span>
    </template>
  </el-dialog>
</template>

<style scoped>
.ask {
  display: grid;
  justify-items: start;
  gap: 12px;
  font-size: 1.0625rem;
}
.ask p {
  margin: 0;
}
label {
  display: grid;
  gap: 4px;
  width: 100%;
}
</style>

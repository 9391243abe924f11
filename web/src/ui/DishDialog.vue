<script setup lang="ts">
import DishChoice, { type Chosen } from './DishChoice.vue'

/** Asks for a dish wherever one is wanted: of the shelf, a typical one, or by its sizes. */
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ choose: [Chosen] }>()
function choose(d: Chosen) {
  open.value = false
  emit('choose', d)
}
</script>

<template>
  <el-dialog v-model="open" title="Which dish?" width="min(560px, 96vw)" top="6vh" append-to-body>
    <DishChoice class="choice-list" @choose="choose" />
  </el-dialog>
</template>

<style scoped>
.choice-list {
  overflow: auto;
  max-height: 70vh;
}
</style>

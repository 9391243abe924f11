<script setup lang="ts">
import { useClash } from '@/stores/useClash'

/** Somebody else has changed the same thing: what is there, what was to be, and which one stays. */
const clash = useClash()
</script>

<template>
  <el-dialog
    :model-value="!!clash.open"
    :title="clash.open ? `${clash.open.what} has been changed elsewhere` : ''"
    width="min(620px, 96vw)"
    data-testid="clash"
    @close="clash.open?.choose(false)"
  >
    <table v-if="clash.open">
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">Field</span></th>
          <th scope="col">Saved elsewhere</th>
          <th scope="col">Your version</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="d in clash.open.differences" :key="d.field">
          <th scope="row">{{ d.field }}</th>
          <td>{{ d.theirs }}</td>
          <td>{{ d.mine }}</td>
        </tr>
      </tbody>
    </table>
    <template #footer>
      <span class="dialog-acts">
        <button class="push" data-testid="keep-theirs" @click="clash.open?.choose(false)">
          Keep the saved version
        </button>
        <button class="push main" data-testid="keep-mine" @click="clash.open?.choose(true)">
          Save my version
        </button>
      </span>
    </template>
  </el-dialog>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 1.0625rem;
}
th,
td {
  padding: 8px 10px;
  border-bottom: 1px solid var(--line);
  text-align: left;
  overflow-wrap: anywhere;
}
</style>

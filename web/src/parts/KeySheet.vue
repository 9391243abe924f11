<script setup lang="ts">
import { allKeys, lettersOn, sheetOpen } from './useKeys'

const shown = (k: string) => (k === ' ' ? 'Space' : k.toUpperCase())
</script>

<template>
  <el-dialog v-model="sheetOpen" title="Keys" width="min(560px, 94vw)" data-testid="key-sheet">
    <section v-for="[part, keys] in allKeys" :key="part">
      <h3>{{ part }}</h3>
      <dl>
        <template v-for="k in keys" :key="k.key">
          <dt>
            <kbd>{{ shown(k.key) }}</kbd>
          </dt>
          <dd>{{ k.says }}</dd>
        </template>
      </dl>
    </section>
    <section>
      <h3>In a field</h3>
      <dl>
        <dt><kbd>↑</kbd> <kbd>↓</kbd></dt>
        <dd>step the amount, with Shift ten times</dd>
        <dt><kbd>Enter</kbd></dt>
        <dd>take what was typed</dd>
        <dt><kbd>Esc</kbd></dt>
        <dd>give back what was there</dd>
      </dl>
    </section>
    <label class="letters"
      ><input v-model="lettersOn" type="checkbox" /> Letters and digits work outside fields</label
    >
  </el-dialog>
</template>

<style scoped>
section {
  margin-bottom: 14px;
}
dl {
  display: grid;
  grid-template-columns: 92px 1fr;
  gap: 4px 10px;
  margin: 6px 0 0;
}
dd {
  margin: 0;
}
kbd {
  display: inline-block;
  min-width: 26px;
  padding: 1px 6px;
  border: 1px solid var(--line);
  border-bottom-width: 3px;
  border-radius: 4px;
  font: 600 14px var(--face);
  text-align: center;
}
.letters {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
}
.letters input {
  width: 20px;
  height: 20px;
}
</style>

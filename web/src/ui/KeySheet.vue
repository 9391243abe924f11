<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { ref, watch } from 'vue'
import { allKeys, anyOwn, asTheyWere, changeKey, keyOf, lettersOn, sheetOpen, shownKey } from './useKeys'

/** Every key that works now. A touch on one waits for another in its place. */
type Key = Parameters<typeof keyOf>[1]
const waits = ref<{ part: string; key: Key }>()
const wrong = ref('')
const isWaiting = (part: string, k: Key) => waits.value?.part === part && waits.value.key.label === k.label

// wherever the focus is meanwhile: the next key that is pressed is meant
useEventListener(
  'keydown',
  (e: KeyboardEvent) => {
    const w = waits.value
    if (!w || ['Shift', 'Tab'].includes(e.key)) return
    e.preventDefault()
    e.stopPropagation()
    waits.value = undefined
    if (e.key !== 'Escape') wrong.value = changeKey(w.part, w.key, e.key)
  },
  { capture: true },
)
watch(sheetOpen, () => (waits.value = undefined))
</script>

<template>
  <el-dialog v-model="sheetOpen" title="Keys" width="min(620px, 94vw)" data-testid="key-sheet">
    <section v-for="[part, keys] in allKeys" :key="part">
      <h3>{{ part }}</h3>
      <dl>
        <template v-for="k in keys" :key="k.label">
          <dt>
            <button
              class="key"
              :aria-label="`Key for ${k.label}: ${shownKey(keyOf(part, k))}. Press to change it.`"
              :data-testid="`key-${k.label}`"
              @click="waits = { part, key: k }"
            >
              <kbd>{{ isWaiting(part, k) ? 'press one' : shownKey(keyOf(part, k)) }}</kbd>
            </button>
          </dt>
          <dd>{{ k.label }}</dd>
        </template>
      </dl>
    </section>
    <p v-if="wrong" class="wrong" role="alert">{{ `${wrong} Nothing was changed.` }}</p>
    <p class="small quiet">
      To change a key, touch it and press another.
      <button v-if="anyOwn()" class="plain" data-testid="usual-keys" @click="asTheyWere()">
        Reset all keys
      </button>
    </p>
    <section>
      <h3>In a field</h3>
      <dl>
        <dt><kbd>↑</kbd> <kbd>↓</kbd></dt>
        <dd>change the amount by one step (with Shift: ten)</dd>
        <dt>
          <kbd>Enter</kbd>
        </dt>
        <dd>accept the entry</dd>
        <dt>
          <kbd>Esc</kbd>
        </dt>
        <dd>restore the previous value</dd>
      </dl>
    </section>
    <label class="letters"
      ><input v-model="lettersOn" type="checkbox" /> Use letter and digit keys outside fields</label
    >
  </el-dialog>
</template>

<style scoped>
.key {
  min-height: 36px;
  padding: 0;
  border: 0;
  background: none;
  cursor: pointer;
}
dl {
  align-items: center;
}
section {
  margin-bottom: 14px;
}
dl {
  display: grid;
  grid-template-columns: 92px 1fr;
  gap: 2px 10px;
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
  font: 600 0.875rem var(--face);
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

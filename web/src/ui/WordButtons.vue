<script setup lang="ts" generic="T extends string | boolean">
/** A question that is answered by one touch; touched again, it is not answered. */
defineProps<{ title: string; options: readonly (readonly [word: string, value: T])[]; testid: string }>()
const answer = defineModel<T | undefined>()
const touch = (v: T) => (answer.value = answer.value === v ? undefined : v)
</script>

<template>
  <div class="field">
    <span class="label">{{ title }}<slot /></span>
    <div class="choice" role="group" :aria-label="title">
      <button
        v-for="[word, v] in options"
        :key="word"
        type="button"
        :aria-pressed="answer === v"
        :data-testid="`${testid}-${word}`"
        @click="touch(v)"
      >
        {{ word }}
      </button>
    </div>
  </div>
</template>

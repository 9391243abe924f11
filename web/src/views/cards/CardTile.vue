<script setup lang="ts">
import VerdictText from '@/ui/VerdictText.vue'
import type { ListedCard } from '@/api/client'
import CutawayPicture from '@/ui/CutawayPicture.vue'
import DishOutline from '@/ui/DishOutline.vue'

/** A card in the gallery: its cutaway in small, its name, its dish. */
defineProps<{ card: ListedCard }>()
defineEmits<{ open: []; more: [] }>()
</script>

<template>
  <li class="panel" :data-testid="`card-${card.name}`">
    <button class="open" @click="$emit('open')">
      <span class="pic"><CutawayPicture v-if="card.brief" :cut="card.brief.cutaway" small /></span>
      <strong>{{ card.name }}</strong>
      <span class="quiet">{{ card.made_of }}</span>
      <span v-if="card.brief" class="brief">{{ card.brief.text }}</span>
      <VerdictText v-if="card.brief?.verdict" :verdict="card.brief.verdict" />
      <span v-if="!card.brief" class="wrong">can’t be calculated</span>
      <span v-if="card.tags.length" class="tags small">
        <span v-for="t in card.tags" :key="t" class="tag">{{ t }}</span>
      </span>
      <span class="dish quiet small"
        ><DishOutline :dish="card.newest.request.dish" />{{ card.dish_sizes }}</span
      >
    </button>
    <button class="plain" :data-testid="`more-${card.name}`" @click="$emit('more')">
      {{ `Version ${card.newest.number} · details` }}
    </button>
  </li>
</template>

<style scoped>
.brief {
  font-weight: 600;
}
li {
  display: flex;
  flex-direction: column;
  padding: 10px 12px 0;
}
.open {
  display: grid;
  align-content: start;
  gap: 3px;
  flex: 1;
  width: 100%;
  padding: 0;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
}
.pic {
  display: block;
  height: 84px;
}
.pic :deep(svg) {
  width: 100%;
  height: 84px;
}
strong {
  font: 700 1.1875rem/1.2 var(--title);
}
.dish {
  display: flex;
  align-items: center;
  gap: 8px;
}
.tags {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.tag {
  padding: 1px 8px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--sunk);
}
li > .plain {
  align-self: flex-start;
  padding: 0;
}
</style>

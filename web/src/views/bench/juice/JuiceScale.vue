<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Answer } from '@/api/client'
import { hold } from '@/stores/hold'
import { useSteps } from '@/ui/useSteps'
import { useForecast } from '../useForecast'
import { useKitchen } from '@/stores/useKitchen'

/** The set scale: the bands, the style's own, and this dessert's marker, which is also the handle. */
const kitchen = useKitchen()
const props = defineProps<{ set: Answer['set'] }>()
const emit = defineEmits<{ target: [score: number] }>()
const track = ref<HTMLElement>()
/** How far it may be off, by the log: with 90 % probability it stands within. */
const { data: told } = useForecast()
const range = computed(() => told.value?.forecast.set_score)
const end = computed(() => props.set.scale.at(-1)?.up_to ?? 10)
const bands = computed(() =>
  props.set.scale.map((b, i) => ({ ...b, from: props.set.scale[i - 1]?.up_to ?? 0 })),
)
const at = (score: number) => `${(100 * Math.min(end.value, score)) / end.value}%`

function drag(e: PointerEvent) {
  const box = track.value?.getBoundingClientRect()
  if (!box) return
  const put = (m: PointerEvent) => {
    const share = Math.min(1, Math.max(0, (m.clientX - box.left) / box.width))
    emit('target', Math.round(share * end.value * 20) / 20)
  }
  hold(e, put)
  put(e)
}
const step = useSteps()
function key(e: KeyboardEvent) {
  const by = { ArrowRight: 0.1, ArrowUp: 0.1, ArrowLeft: -0.1, ArrowDown: -0.1 }[e.key]
  if (by === undefined) return
  e.preventDefault()
  const next = Math.round(step(props.set.score, by * (e.shiftKey ? 10 : 1)) * 10) / 10
  emit('target', Math.min(end.value, Math.max(0, next)))
}
</script>

<template>
  <div class="scale">
    <div ref="track" class="track" @pointerdown="drag">
      <span
        v-for="b in bands"
        :key="b.band"
        :class="['band', { style: b.band === set.style_band, here: b.band === set.band }]"
        :style="{ left: at(b.from), width: `calc(${at(b.up_to)} - ${at(b.from)})` }"
        ><span>{{ b.band }}</span></span
      >
      <span
        v-if="range"
        class="range"
        data-testid="set-range"
        :style="{ left: at(range.p05), width: `calc(${at(range.p95)} - ${at(range.p05)})` }"
        ><span class="visually-hidden">{{ `Cold: ${told!.cold}` }}</span></span
      >
      <span
        class="handle"
        role="slider"
        tabindex="0"
        aria-label="Thickness of the juice when cold"
        aria-valuemin="0"
        :aria-valuemax="end"
        :aria-valuenow="Math.min(end, set.score)"
        :aria-valuetext="kitchen.word('band', set.band)"
        data-testid="set-handle"
        :style="{ left: at(set.score) }"
        @keydown="key"
      />
    </div>
    <p class="small quiet legend">
      <span><span class="swatch" /> usual for this style.</span>
      <span v-if="range"><span class="swatch may" /> 90 % of bakes set within this range.</span>
      <span>Drag or use arrow keys.</span>
    </p>
  </div>
</template>

<style scoped>
.scale {
  padding: 4px 14px 0;
}
.track {
  position: relative;
  height: 72px;
  cursor: ew-resize;
  touch-action: none;
  user-select: none;
}
.band {
  position: absolute;
  top: 16px;
  height: 22px;
  border: 1px solid var(--line);
  background: var(--sunk);
}
.band span {
  position: absolute;
  top: 22px;
  left: 50%;
  transform: translateX(-50%);
  font-size: 0.75rem;
  line-height: 15px;
  color: var(--ink-2);
}
.band:nth-child(even) span {
  top: 36px;
}
.band.style {
  background: repeating-linear-gradient(-45deg, var(--sunk) 0 5px, var(--line) 5px 7px);
  border: 2px solid var(--ink);
}
.band.here span {
  color: var(--ink);
  font-weight: 700;
}
.handle {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 44px;
  margin-left: -22px;
}
.handle::before {
  content: '';
  position: absolute;
  left: 12px;
  top: 0;
  border: 10px solid transparent;
  border-top: 14px solid var(--rim-ink);
  border-bottom: 0;
}
.handle::after {
  content: '';
  position: absolute;
  left: 20.5px;
  top: 10px;
  height: 30px;
  width: 3px;
  background: var(--rim-ink);
}
.range {
  position: absolute;
  top: 22px;
  height: 10px;
  border-radius: 5px;
  background: var(--rim);
  opacity: 0.55;
}
.swatch.may {
  height: 8px;
  border: 0;
  border-radius: 4px;
  background: var(--rim);
  opacity: 0.55;
}
.legend {
  flex-wrap: wrap;
  display: flex;
  align-items: center;
  gap: 0 14px;
}
.legend > span {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
.swatch {
  width: 22px;
  height: 12px;
  border: 2px solid var(--ink);
  background: repeating-linear-gradient(-45deg, var(--sunk) 0 3px, var(--line) 3px 5px);
}
</style>

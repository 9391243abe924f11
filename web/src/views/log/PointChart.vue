<script setup lang="ts">
import {
  Chart,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  ScatterController,
  Tooltip,
} from 'chart.js'
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useDark } from '@vueuse/core'

interface Point {
  x: number
  y: number
  label: string
}

/** Points in a field, each reported at the pointer and by the arrow keys. */
const props = defineProps<{
  title: string
  across: string
  up: string
  series: { name: string; points: Point[] }[]
  diagonal?: boolean
  testid: string
}>()
Chart.defaults.font.family = "'Atkinson Hyperlegible Next', system-ui, sans-serif"
Chart.register(ScatterController, LineController, LineElement, LinearScale, PointElement, Tooltip)
const dark = useDark({ storageKey: 'mabbin.light', disableTransition: false })
const canvas = useTemplateRef('canvas')
let chart: Chart<'scatter', { x: number; y: number }[]> | undefined
/** Which point the keys are at, by its place among all. */
const at = ref(-1)
const all = computed(() =>
  props.series.flatMap((s, datasetIndex) =>
    s.points.map((p, index) => ({ datasetIndex, index, label: p.label })),
  ),
)
const said = computed(() => all.value[at.value]?.label ?? '')
const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()
const looks = [
  { colour: '--rim', style: 'circle' as const },
  { colour: '--heat', style: 'rectRot' as const },
]
function draw() {
  if (!canvas.value) return
  chart?.destroy()
  const ink = colour('--ink-2')
  const line = colour('--line')
  const xs = props.series.flatMap((s) => s.points.map((p) => p.x))
  const low = Math.min(...xs)
  const high = Math.max(...xs)
  const axis = (text: string) => ({
    title: { display: true, text, color: ink, font: { size: 13 } },
    ticks: { color: ink, font: { size: 13 }, precision: 0 },
    grid: { color: line },
  })
  chart = new Chart<'scatter', { x: number; y: number }[]>(canvas.value, {
    type: 'scatter',
    data: {
      datasets: [
        ...props.series.map((s, i) => ({
          label: s.name,
          data: s.points,
          pointStyle: looks[i]!.style,
          pointRadius: 6,
          pointHoverRadius: 9,
          backgroundColor: colour(looks[i]!.colour),
          borderColor: colour('--panel'),
        })),
        ...(props.diagonal && xs.length
          ? [
              {
                label: 'as planned',
                data: [
                  { x: low, y: low },
                  { x: high, y: high },
                ],
                showLine: true,
                pointRadius: 0,
                pointHoverRadius: 0,
                borderColor: ink,
                borderDash: [6, 5],
                borderWidth: 2,
              },
            ]
          : []),
      ],
    },
    options: {
      animation: false,
      maintainAspectRatio: false,
      scales: { x: axis(props.across), y: axis(props.up) },
      plugins: {
        tooltip: { callbacks: { label: (c) => (c.raw as Partial<Point>).label ?? '' } },
      },
    },
  })
}
function go(by: number) {
  if (!all.value.length || !chart) return
  at.value = (at.value + by + all.value.length) % all.value.length
  const { datasetIndex, index } = all.value[at.value]!
  const point = chart.getDatasetMeta(datasetIndex).data[index]
  chart.setActiveElements([{ datasetIndex, index }])
  chart.tooltip?.setActiveElements([{ datasetIndex, index }], { x: point?.x ?? 0, y: point?.y ?? 0 })
  chart.update()
}
onMounted(draw)
watch(() => [props.series, dark.value], draw, { flush: 'post' })
onBeforeUnmount(() => chart?.destroy())
</script>

<template>
  <figure>
    <figcaption>
      <strong>{{ title }}</strong>
      <span v-for="(s, i) in series.length > 1 ? series : []" :key="s.name" class="key">
        <span
          :class="['mark', looks[i]!.style]"
          :style="{ background: `var(${looks[i]!.colour})` }"
          aria-hidden="true"
        />
        {{ s.name }}
      </span>
    </figcaption>
    <div class="field">
      <canvas
        ref="canvas"
        tabindex="0"
        role="img"
        :aria-label="`${title}. Arrow keys go from bake to bake.`"
        :data-testid="testid"
        @keydown.right.prevent="go(1)"
        @keydown.left.prevent="go(-1)"
      />
    </div>
    <p class="said" aria-live="polite" :data-testid="`${testid}-said`">{{ said }}</p>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
.key {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
.mark {
  width: 12px;
  height: 12px;
  border-radius: 50%;
}
.rectRot {
  border-radius: 0;
  transform: rotate(45deg) scale(0.85);
}
.field canvas {
  outline-offset: -3px;
}
.field {
  position: relative;
  height: 290px;
}
.said {
  min-height: 1.4em;
  font-size: 0.9375rem;
}
</style>

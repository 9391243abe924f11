<script setup lang="ts">
import { computed } from 'vue'
import AmountField from '@/ui/AmountField.vue'
import { useKitchen } from '@/stores/useKitchen'
import { grams } from '@/format/amounts'
import { useDessert } from '@/stores/useDessert'

/** What lies under the fruit: nothing, a shell up the sides, or a pressed base. */
const kitchen = useKitchen()
const dessert = useDessert()
const request = computed(() => dessert.draft!.request)
const row = computed(() => kitchen.base.get(request.value.base?.key ?? 'none'))
</script>

<template>
  <div class="base">
    <div class="field">
      <label for="base">Base under the fruit</label>
      <el-select
        id="base"
        :model-value="request.base?.key ?? 'none'"
        data-testid="base"
        @update:model-value="
          (key: string) =>
            dessert.change(
              'the base',
              (d) =>
                (d.request.base = key === 'none' ? undefined : { key, egg_seal: d.request.base?.egg_seal }),
            )
        "
      >
        <el-option
          v-for="b in kitchen.larder?.bases"
          :key="b.key"
          :value="b.key"
          :label="b.name"
          :data-testid="`base-${b.key}`"
        />
      </el-select>
    </div>
    <AmountField
      v-if="request.base"
      label="Thickness"
      kind="length"
      unit="cm"
      optional
      :step="0.05"
      :digits="2"
      :instead="(row?.raw_thickness_mm ?? 0) / 10"
      :model-value="request.base.thickness_mm ? request.base.thickness_mm / 10 : undefined"
      :problem="dessert.faultAt('/base/thickness_mm')"
      testid="base-thickness"
      @update:model-value="
        (v) =>
          dessert.change('the base', (d) => d.request.base && (d.request.base.thickness_mm = v && v * 10))
      "
    />
    <div v-if="request.base" class="ticks wide">
      <label class="tick"
        ><input
          type="checkbox"
          :checked="request.base.crisp"
          data-testid="base-crisp"
          @change="
            dessert.change(
              'the base',
              (d) => d.request.base && (d.request.base.crisp = !d.request.base.crisp || undefined),
            )
          "
        />
        The base must be crisp</label
      >
      <label class="tick"
        ><input
          type="checkbox"
          :checked="request.base.egg_seal"
          data-testid="egg-seal"
          @change="
            dessert.change(
              'the seal',
              (d) => d.request.base && (d.request.base.egg_seal = !d.request.base.egg_seal || undefined),
            )
          "
        />
        Brushed inside with egg (absorbs half as much)</label
      >
    </div>
    <p v-if="request.base && dessert.answer && row" class="small quiet wide">
      {{
        `${grams(dessert.answer.base_g)} in the dish${row.up_the_sides ? ', floor and walls' : ', pressed'}. From: ${kitchen.word('basis', row.basis)}.`
      }}
    </p>
  </div>
</template>

<style scoped>
.base {
  display: grid;
  grid-template-columns: 1fr 104px;
  gap: 4px 8px;
  align-items: end;
}
.wide {
  grid-column: 1 / -1;
}
</style>

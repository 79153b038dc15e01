<script setup lang="ts">
import TypedInput from '@/shared/ui/TypedInput.vue'
import { scaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'

/** What a millimetre does to the price of a slice, and what that makes of the piece at the one chosen. */
const props = defineProps<{ thickness: Schemas['ThicknessOut'] | null; inPack: string }>()
const chosen = defineModel<string>({ required: true })
const { weightText, money } = useUnits()
const [WIDE, TOP, LOW] = [360, 24, 96] as const
const points = computed(() => props.thickness?.points ?? [])
const shown = computed(() => points.value.filter((one) => Number(one.millimetres) <= 10))
const x = computed(() => scaleLinear([1.5, 10], [14, WIDE - 14]))
const y = computed(() =>
  scaleLinear([0, Math.max(...shown.value.map((one) => Number(one.slice_cost)), 0.01)], [LOW, TOP]),
)
const path = computed(
  () =>
    line<Schemas['ThicknessPoint']>(
      (one) => x.value(Number(one.millimetres)),
      (one) => y.value(Number(one.slice_cost)),
    )(shown.value) ?? '',
)
const now = computed(() => {
  const wanted = Number(chosen.value.replace(',', '.'))
  if (!wanted) return undefined
  const near = (one: Schemas['ThicknessPoint']) => Math.abs(Number(one.millimetres) - wanted)
  return [...shown.value].sort((one, other) => near(one) - near(other))[0]
})
const cents = (cost: string): string => money(Number(cost).toFixed(2))
</script>

<template>
  <section class="panel" aria-label="How thick">
    <h2>How thick</h2>
    <TypedInput v-model="chosen" label="Slicer set to, mm" inputmode="decimal" />
    <template v-if="shown.length">
      <svg :viewBox="`0 0 ${WIDE} 116`" role="img" aria-label="Price of a slice by its thickness">
        <line x1="14" :x2="WIDE - 14" :y1="LOW" :y2="LOW" stroke="#CBD2CE" />
        <path :d="path" fill="none" stroke="#B5304A" stroke-width="2.5" />
        <text
          v-for="tick in [2, 4, 6, 8, 10]"
          :key="tick"
          :x="x(tick)"
          y="112"
          text-anchor="middle"
          class="tick"
        >
          {{ tick }}
        </text>
        <template v-if="now">
          <circle :cx="x(Number(now.millimetres))" :cy="y(Number(now.slice_cost))" r="7" fill="#B5304A" />
          <text
            :x="Math.min(WIDE - 90, Math.max(70, x(Number(now.millimetres))))"
            :y="y(Number(now.slice_cost)) - 13"
            text-anchor="middle"
            class="now halo"
          >
            {{ cents(now.slice_cost) }} a slice
          </text>
        </template>
      </svg>
      <p v-if="now">
        At {{ now.millimetres }} mm: <b>{{ now.slices }} slices</b> of {{ weightText(now.slice_weight) }},
        <b>{{ now.packs }} packs</b> of {{ inPack || '10' }}{{ now.over ? `, ${now.over} over` : ''
        }}{{ now.portion_cost ? `; a portion ${money(now.portion_cost)}` : '' }}.
      </p>
    </template>
    <p v-else class="quiet small">
      {{ thickness?.missing ?? 'Cut and weigh a first pack to see what a millimeter does.' }}
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}

svg {
  width: 100%;
}

.tick {
  font-size: 12px;
  fill: var(--quiet);
}

.now {
  font-size: 13px;
  font-weight: 700;
  fill: var(--rose-deep);
}
</style>

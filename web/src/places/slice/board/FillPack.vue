<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import type { useScale } from '@/shared/scale/useScale'
import { useUnits } from '@/shared/quantity/useUnits'
import SimulatedScale from '@/shared/scale/SimulatedScale.vue'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import { forms, type Product } from './useBoard'

/** The pack being filled: of which product, slices by touch, its weight from the scale or typed; one touch closes it. */
const props = defineProps<{
  products: Product[]
  names: string[]
  stores: Schemas['StoreChoice'][]
  isCut: boolean
  pack: string
  code: string
  portionSlices: string
  scale: ReturnType<typeof useScale>
}>()
const slices = defineModel<number>('slices', { required: true })
const product = defineModel<number>('product', { required: true })
const inPack = defineModel<string>('inPack', { required: true })
const emit = defineEmits<{ close: [weight: string, store: string]; another: [] }>()
const { unit, like } = useUnits()
const typed = ref('')
const by = ref<'slices' | 'portions' | 'weight'>('slices')
const packBy = computed(() => [
  { value: 'slices' as const, word: 'slices' },
  ...(props.portionSlices
    ? [{ value: 'portions' as const, word: `portions of ${props.portionSlices}` }]
    : []),
  { value: 'weight' as const, word: unit.value },
])
const store = ref(props.stores.find((one) => one.sort === 'freezer')?.name ?? props.stores[0]?.name ?? '')
const isLive = computed(() => props.scale.state.value === 'live')
const onScale = computed(() =>
  isLive.value && props.scale.isTakeable.value ? (props.scale.event.value?.net?.[unit.value] ?? '') : '',
)
const weight = computed(() => typed.value || (onScale.value ? `${onScale.value} ${unit.value}` : ''))
const now = computed(() => props.products[product.value])
const isSliced = computed(() => now.value?.form === 'slices')
const isWhole = computed(() => Number.isInteger(slices.value))
/** So many slices, portions or such a weight make a pack full. */
const fullSlices = computed(() => {
  const count = Number(inPack.value) || 10
  return by.value === 'portions' ? Math.round(count * (Number(props.portionSlices) || 1)) : count
})
const toGo = computed(() => {
  const wanted = parseFloat(inPack.value)
  const has = parseFloat(onScale.value || typed.value)
  if (by.value !== 'weight' || !wanted || !has) return ''
  const left = wanted - has
  return left > 0 ? `${left.toFixed(2)} ${unit.value} to go` : 'full'
})
const word = computed(() => {
  if (!isWhole.value) return 'Half a slice is open: lay the other half in'
  if (!weight.value) return isLive.value ? 'Put the pack on the scale' : 'Enter what the pack weighs'
  const count = isSliced.value && slices.value ? `${slices.value} slices, ` : ''
  return `Close ${props.pack}: ${count}${weight.value}`
})
function close(): void {
  if (!weight.value || !isWhole.value) return
  emit('close', weight.value, store.value)
  typed.value = ''
  props.scale.took()
}
</script>

<template>
  <section class="panel" aria-label="The pack being filled">
    <div class="tabs" role="group" aria-label="Which product">
      <ActButton
        v-for="(one, at) in products"
        :key="one.mark"
        small
        :aria-pressed="at === product"
        @click="product = at"
      >
        {{ one.name || forms.find((form) => form.value === one.form)?.word }}
      </ActButton>
      <ActButton v-if="isCut" small @click="$emit('another')"> + another product </ActButton>
    </div>
    <div v-if="now" class="what">
      <TypedInput v-model="now.name" label="Product" :suggestions="names" />
      <ChoiceBar v-model="now.form" label="Form" :choices="forms" />
    </div>
    <div class="fill">
      <div v-if="isSliced" class="count">
        <span class="big" aria-live="polite">{{ slices }}</span>
        <ActButton first @click="slices++">+ 1 slice</ActButton>
        <ActButton aria-label="Half a slice more" @click="slices += 0.5">+ ½</ActButton>
        <ActButton v-if="by !== 'weight'" @click="slices = fullSlices"> full: {{ fullSlices }} </ActButton>
        <ActButton :disabled="!slices" aria-label="One slice fewer" @click="slices = Math.max(0, slices - 1)">
          −
        </ActButton>
        <TypedInput v-model="inPack" class="in" label="A pack is" inputmode="decimal" /><SelectBox
          v-model="by"
          class="by"
          label="Packs by"
          quiet-label
        >
          <option v-for="one in packBy" :key="one.value" :value="one.value">{{ one.word }}</option>
        </SelectBox>
      </div>
      <div class="weigh">
        <p class="big">
          {{ typed || onScale || '–' }} <small v-if="!typed">{{ unit }}</small>
        </p>
        <p class="quiet small">
          {{ toGo || (scale.isTaken.value ? 'taken: lift it off' : scale.words.value) }}
        </p>
        <TypedInput
          v-model="typed"
          label="Weight of the pack"
          quiet-label
          :placeholder="like('0.91 lb', '0.41 kg')"
        />
      </div>
      <div class="out">
        <SelectBox v-if="stores.length" v-model="store" label="Goes into">
          <option v-for="one in stores" :key="one.name" :value="one.name">{{ one.name }}</option>
          <option value="">not stored</option>
        </SelectBox>
        <ActButton class="close" first :disabled="!weight || !isWhole" @click="close">
          {{ word }}
        </ActButton>
      </div>
    </div>
    <div v-if="scale.event.value?.simulated" class="simulated">
      <SimulatedScale :code="code" :mark="''" kind="pack" :lay="scale.lay" />
    </div>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 12px;
}

.tabs,
.count {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}

[aria-pressed='true'] {
  outline: 3px solid var(--rose);
  outline-offset: -2px;
}

.what {
  display: grid;
  grid-template-columns: minmax(180px, 1fr) auto;
  gap: 12px;
  align-items: end;
}

.fill {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(120px, 0.8fr) minmax(190px, 1fr);
  gap: 14px;
  align-items: end;
}

.big {
  font-size: 40px;
  font-weight: 780;
  font-stretch: 112%;
  line-height: 1;
}

.big small {
  font-size: 18px;
  color: var(--quiet);
}

.count .big {
  min-width: 58px;
  color: var(--rose-deep);
}

.count .act {
  min-height: 56px;
}

.in {
  display: grid;
}

.in .field {
  width: 72px;
}

.by {
  width: auto;
  align-self: end;
}

.weigh,
.out {
  display: grid;
  gap: 6px;
}

.simulated {
  background: #14191b;
  padding: 0 12px 8px;
}

.close {
  min-height: 56px;
}

@media (max-width: 719px) {
  .what,
  .fill {
    grid-template-columns: minmax(0, 1fr);
  }

  .close {
    position: sticky;
    bottom: 8px;
  }
}
</style>

<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import TypedInput from '@/shared/ui/TypedInput.vue'

/** What the kitchen has: its scale, fridges, smoker and chamber. All of it can come later. */
type Store = NonNullable<Schemas['StartKitchenIn']['stores']>[number]
const props = defineProps<{ unit: 'lb' | 'kg' }>()
const scale = defineModel<string>('scale', { required: true })
const stores = defineModel<Store[]>('stores', { required: true })
const kinds = [
  { kind: 'fridge', word: 'Fridge', many: 'Fridges', name: 'Fridge' },
  { kind: 'smoker', word: 'Smoker', many: 'Smokers', name: 'Smoker' },
  { kind: 'chamber', word: 'Drying chamber', many: 'Drying chambers', name: 'Chamber' },
] as const
const counts = computed(() =>
  Object.fromEntries(kinds.map(({ kind }) => [kind, stores.value.filter((one) => one.kind === kind).length])),
)
const hint = computed(() => (props.unit === 'lb' ? '0.1 oz or 5 g' : '1 g or 5 g'))

function setCount(kind: Store['kind'], name: string, count: number): void {
  const others = stores.value.filter((one) => one.kind !== kind)
  const made = Array.from({ length: Math.max(0, Math.min(count, 4)) }, (_, at) => ({
    kind,
    name: count > 1 ? `${name} ${at + 1}` : name,
  }))
  stores.value = [...others, ...made]
}
</script>

<template>
  <section class="lines">
    <p class="quiet">What you leave out can be added later, on the map and in the settings.</p>
    <TypedInput v-model="scale" label="Your scale shows steps of" path="scale" :placeholder="hint" />
    <div v-for="one in kinds" :key="one.kind" class="count">
      <span>{{ one.many }}</span>
      <ActButton
        :aria-label="`One ${one.word.toLowerCase()} less`"
        :disabled="!counts[one.kind]"
        @click="setCount(one.kind, one.name, (counts[one.kind] ?? 0) - 1)"
      >
        −
      </ActButton>
      <output>{{ counts[one.kind] }}</output>
      <ActButton
        :aria-label="`One ${one.word.toLowerCase()} more`"
        @click="setCount(one.kind, one.name, (counts[one.kind] ?? 0) + 1)"
      >
        +
      </ActButton>
    </div>
    <p class="limits small">
      <b>Nitrite limits:</b> the US limits for inspected plants (9 CFR 424.21(c) and 424.22(b)) are shown
      beside each cure. Where your food authority says otherwise, enter its limits with their source under
      Bench, <i>Nitrite limits and spoon weights</i>; they count instead.
    </p>
  </section>
</template>

<style scoped>
.count {
  display: grid;
  grid-template-columns: 1fr 48px 40px 48px;
  align-items: center;
  text-align: center;
}

.count span {
  text-align: left;
  font-weight: 600;
}

.count output {
  font-weight: 700;
  font-size: 18px;
}

.count .act {
  padding: 0;
}

.limits {
  border-left: 6px solid var(--care);
  background: var(--care-ground);
  padding: 8px 12px;
}
</style>

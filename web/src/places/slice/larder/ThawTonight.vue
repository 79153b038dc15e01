<script setup lang="ts">
import SelectBox from '@/shared/ui/SelectBox.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref } from 'vue'
import { type Larder, useTaking } from '@/places/slice/useLarder'

/** What is to go from the freezer to the fridge tonight, in one touch. */
const props = defineProps<{ larder: Larder }>()
const { move } = useTaking()
const fridges = computed(() =>
  props.larder.shelves.filter((one) => one.sort === 'fridge').map((one) => one.store),
)
const fridge = ref('')
const isMoved = ref(false)
const heavy = computed(() => {
  const counts = new Map<string, number>()
  for (const one of props.larder.thaw) counts.set(one.product, (counts.get(one.product) ?? 0) + 1)
  return [...counts].map(([product, count]) => `${count} ${product}`).join(', ')
})
function thaw(): void {
  const store = fridge.value || fridges.value[0]
  if (!store) return
  for (const one of props.larder.thaw) move(one, { sort: 'placed', store })
  isMoved.value = true
}
</script>

<template>
  <section class="panel" aria-label="Thaw tonight">
    <p class="quiet">Thaw tonight</p>
    <template v-if="larder.thaw.length">
      <p class="heavy">{{ heavy }}</p>
      <p>{{ larder.thaw_why }}</p>
      <p class="small quiet">{{ larder.thaw.map((one) => `${one.code} ${one.mark}`).join(' · ') }}</p>
      <div v-if="fridges.length" class="row">
        <SelectBox
          v-if="fridges.length > 1"
          v-model="fridge"
          v-may:helper
          label="Into which fridge"
          quiet-label
        >
          <option value="">{{ fridges[0] }}</option>
          <option v-for="one in fridges.slice(1)" :key="one" :value="one">{{ one }}</option>
        </SelectBox>
        <ActButton v-may:helper :disabled="isMoved" @click="thaw">
          Move {{ larder.thaw.length === 1 ? 'it' : 'them' }} to {{ fridge || fridges[0] }}
        </ActButton>
      </div>
    </template>
    <p v-else class="heavy none">nothing</p>
    <p v-if="larder.past" class="care">
      ▲ {{ larder.past }} {{ larder.past === 1 ? 'pack is' : 'packs are' }} past
      {{ larder.past === 1 ? 'its' : 'their' }} best.
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 6px;
}

.heavy {
  font-size: 27px;
  font-weight: 780;
  font-stretch: 112%;
  line-height: 1.1;
  color: var(--rose-deep);
  overflow-wrap: anywhere;
}

.heavy.none {
  color: var(--quiet);
}

.row {
  display: flex;
  gap: 8px;
}

.row .field {
  width: auto;
}

.care {
  color: var(--care-ink);
  font-weight: 640;
}
</style>

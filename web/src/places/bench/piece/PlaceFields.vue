<script setup lang="ts">
import SelectBox from '@/shared/ui/SelectBox.vue'
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useMap } from '@/shared/api/useBench'
import { levelWords } from '@/places/bench/map/useStores'

/** Where a piece lies: left as it was, in a store on a shelf, or taken out. */
const place = defineModel<Schemas['PlaceIn'] | null>('place', { required: true })
const { data: map } = useMap()
const AS_IT_WAS = 'as it was'
const stores = computed(() => map.value?.stores ?? [])
const store = computed({
  get: () => place.value?.store ?? AS_IT_WAS,
  set: (name) => (place.value = name === AS_IT_WAS ? null : { store: name, level: 1, slot: 1 }),
})
const chosen = computed(() => stores.value.find((one) => one.name === place.value?.store))
</script>

<template>
  <div class="fields">
    <SelectBox v-model="store" label="Stored in">
      <option :value="AS_IT_WAS">as it was</option>
      <option v-for="one in stores" :key="one.name" :value="one.name">{{ one.name }}</option>
      <option value="">taken out</option>
    </SelectBox>
    <template v-if="place && chosen">
      <SelectBox v-model="place.level" :label="`${levelWords[chosen.sort]}, from the top`">
        <option v-for="level in chosen.levels" :key="level" :value="level">{{ level }}</option>
      </SelectBox>
      <SelectBox v-model="place.slot" label="Place, from the left">
        <option v-for="slot in chosen.slots" :key="slot" :value="slot">{{ slot }}</option>
      </SelectBox>
    </template>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 1fr) minmax(0, 1fr);
  gap: 4px 12px;
  align-items: end;
}

.field span::first-letter {
  text-transform: uppercase;
}
</style>

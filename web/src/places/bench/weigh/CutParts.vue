<script setup lang="ts">
import SelectBox from '@/shared/ui/SelectBox.vue'
import { computed, ref } from 'vue'
import { useOffcuts } from '@/shared/api/useBench'
import { named } from './useOnScale'
import type { Part } from './useWeighing'

/** What has been weighed of the piece that is cut, and what is to be weighed next. */
const props = defineProps<{
  parts: Part[]
  nextMark: string
  kind: string
  /** The pieces that may be cut, and the one that is unless another is chosen. */
  marks: string[]
  current: string
}>()
const piece = defineModel<string>('piece', { required: true })
/** The thing cut off that lies on the scale; null: a piece that stays. */
const off = defineModel<Part | null>('off', { required: true })
defineEmits<{ remove: [place: number] }>()

const usual: Record<string, Part[]> = {
  trim: [blank('skin', 'skin'), blank('lean trim', 'lean'), blank('fat', 'fat'), blank('bone', 'bone')],
  slice: [blank('ends', 'ends'), blank('pieces', 'ends'), blank('skin', 'skin')],
}
const { data: known } = useOffcuts()
/** The usual ones and those of this kitchen, worth what they were worth the last time. */
const kinds = computed(() => {
  const own = (known.value ?? []).map((one) => ({
    ...blank(one.name, one.material),
    worth: one.worth,
    price: one.price,
  }))
  const names = new Set(own.map((one) => one.name))
  return [...own, ...(usual[props.kind] ?? []).filter((one) => !names.has(one.name))]
})
const isOpen = ref(false)
function blank(name: string, material: string): Part {
  return { mark: '', name, material, weight: '', worth: 'nothing', price: '' }
}
function choose(one: Part | null): void {
  off.value = one
  isOpen.value = false
}
const worth = (one: Part): string =>
  one.worth === 'as_main' ? 'as the meat' : one.worth === 'price' ? one.price : 'worth nothing'
</script>

<template>
  <div class="parts">
    <SelectBox v-model="piece" class="cut" label="Which piece is cut" :disabled="parts.length > 0">
      <option v-if="!piece" value="">{{ named(current) }}</option>
      <option v-for="mark in marks" :key="mark" :value="mark">{{ named(mark) }}</option>
    </SelectBox>
    <ul v-if="parts.length" aria-label="Weighed so far">
      <li v-for="(part, place) in parts" :key="place">
        <b>{{ part.mark || part.name }}</b>
        <span>{{ part.mark ? '' : worth(part) }}</span>
        <span class="weight">{{ part.weight }}</span>
        <button
          type="button"
          :aria-label="`Weigh ${part.mark || part.name} again`"
          @click="$emit('remove', place)"
        >
          ✕
        </button>
      </li>
    </ul>
    <button type="button" class="kind" :class="{ here: off === null }" @click="choose(null)">
      Piece {{ nextMark }} <small>stays</small>
    </button>
    <button v-if="off" type="button" class="kind here">
      {{ off.name }} <small>{{ worth(off) }}</small>
    </button>
    <button type="button" class="more" :aria-expanded="isOpen" @click="isOpen = !isOpen">
      + add something cut off
    </button>
    <div v-if="isOpen" class="kinds" role="group" aria-label="What was cut off">
      <button v-for="one in kinds" :key="one.name" type="button" class="kind" @click="choose(one)">
        {{ one.name }} <small>{{ worth(one) }}</small>
      </button>
    </div>
  </div>
</template>

<style scoped>
.parts,
.kinds,
ul {
  display: grid;
  gap: 8px;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto auto;
  gap: 10px;
  align-items: center;
  padding: 2px 0 2px 12px;
  border-left: 3px solid #d9657a;
  font-size: 16px;
}

li span {
  color: #a9b4b0;
  font-size: 14px;
}

li .weight {
  color: #eef2ef;
  font-size: 17px;
  font-weight: 640;
}

button {
  min-height: 44px;
  border: 2px solid #3a4447;
  border-radius: 5px;
  background: #1d2528;
  color: #eef2ef;
  font: inherit;
  cursor: pointer;
}

li button {
  min-width: 44px;
}

.cut {
  display: flex;
  gap: 10px;
  align-items: center;
  color: #a9b4b0;
}

.kind {
  min-height: 56px;
  padding: 4px 16px;
  text-align: left;
  font-size: 18px;
  font-weight: 640;
}

.kind.here {
  border-color: #e0607b;
  background: #2c2428;
}

small {
  color: #a9b4b0;
  font-weight: 400;
}

.more {
  min-height: 54px;
  border-style: dashed;
  color: #b9c3bf;
}

.kinds {
  grid-template-columns: 1fr 1fr;
}
</style>

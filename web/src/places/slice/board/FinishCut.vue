<script setup lang="ts">
import { useUnits } from '@/shared/quantity/useUnits'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import RemoveButton from '@/shared/ui/RemoveButton.vue'
import type { Cutting } from './useBoard'

/** What the slicing left beside packs: ends and skin with their worth, loose slices, work and bags. */
const draft = defineModel<Cutting>('draft', { required: true })
const { like, unitWord, unit, sign } = useUnits()
const worths: { value: 'nothing' | 'price' | 'as_main'; word: string }[] = [
  { value: 'nothing', word: 'Nothing' },
  { value: 'price', word: 'A price' },
  { value: 'as_main', word: 'As the meat' },
]
const add = (name: string): void => {
  draft.value.cutOff.push({ name, weight: '', worth: 'nothing', price: '' })
}
</script>

<template>
  <h2>When it is cut</h2>
  <div v-for="(one, at) in draft.cutOff" :key="at" class="off">
    <label class="named"
      ><span>What came off</span><input v-model="one.name" class="box" maxlength="40"
    /></label>
    <label class="named"
      ><span>Weight</span><input v-model="one.weight" class="box" :placeholder="like('0.3 lb', '0.14 kg')"
    /></label>
    <RemoveButton :label="`Remove ${one.name}`" @remove="draft.cutOff.splice(at, 1)" />
    <ChoiceBar v-model="one.worth" class="wide" :label="`${one.name || 'It'} is worth`" :choices="worths" />
    <label v-if="one.worth === 'price'" class="named wide"
      ><span>Price of a {{ unitWord }}</span
      ><input v-model="one.price" class="box" :placeholder="`2.40/${unit}`"
    /></label>
  </div>
  <div class="adds">
    <button
      v-for="name in ['ends', 'skin', 'dark edge', 'silver skin', 'fat cap', 'pieces']"
      :key="name"
      type="button"
      class="act small"
      @click="add(name)"
    >
      + {{ name }}
    </button>
  </div>
  <div v-for="(one, at) in draft.products" :key="one.mark" class="whole">
    <label class="named"
      ><span>{{ draft.products.length > 1 ? one.name : 'All slices' }} weigh</span
      ><input
        v-model="one.weight"
        class="box"
        placeholder="as its packs"
        :aria-label="`Weight of all of product ${at + 1}`"
    /></label>
    <label v-if="one.form === 'slices'" class="named"
      ><span>and are, slices</span
      ><input v-model="one.slices" class="box" inputmode="numeric" placeholder="as in its packs"
    /></label>
  </div>
  <div class="whole">
    <label class="named"
      ><span>Minutes of work</span><input v-model="draft.minutes" class="box" inputmode="decimal"
    /></label>
    <label class="named"
      ><span>A bag costs ({{ sign.trim() }})</span
      ><input v-model="draft.bagPrice" class="box" inputmode="decimal" placeholder="0.35"
    /></label>
  </div>
</template>

<style scoped>
.off,
.whole {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 8px;
  align-items: end;
}

.whole {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}

.wide {
  grid-column: 1 / -1;
}

.adds {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>

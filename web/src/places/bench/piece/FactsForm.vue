<script setup lang="ts">
import SelectBox from '@/shared/ui/SelectBox.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { reactive, ref } from 'vue'
import { type Schemas } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import SaveBar from '@/shared/ui/SaveBar.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { provideFormFacts } from '@/shared/writing/formFacts'
import PlaceFields from './PlaceFields.vue'
import { productWords } from '@/places/bench/productWords'

/** How large a piece is, whether it has its skin on, and where it lies; what is left out stays as it was. */
const props = defineProps<{ code: string; mark: string }>()
const emit = defineEmits<{ kept: [] }>()
const kitchen_slug = useSlug()
const queries = useQueryClient()
const facts = reactive<Schemas['FactsIn']>({ length: '', width: '', thickness: '', skin: '', product: '' })
const place = ref<Schemas['PlaceIn'] | null>(null)
const { state, problem, write, retry } = useKitchenWrite(
  `${props.code}:${props.mark}:size`,
  '/batches/{code}/pieces/{mark}/facts',
  { path: () => ({ code: props.code, mark: props.mark }) },
)
provideFormFacts({ preview: ref(null), problem })
function send(): void {
  void write({ ...facts, place: place.value }, (pieces) => {
    queries.setQueryData(['pieces', kitchen_slug.value, props.code], pieces)
    for (const name of ['diary', 'map', 'plan', 'cure-desk'])
      void queries.invalidateQueries({ queryKey: [name] })
    emit('kept')
  })
}
</script>

<template>
  <form v-may:cook @submit.prevent="send">
    <TypedInput v-model="facts.length" label="Length" path="length" placeholder="14 in" />
    <TypedInput v-model="facts.width" label="Width" path="width" placeholder="9 in" />
    <TypedInput
      v-model="facts.thickness"
      label="Thickness of the thickest part"
      path="thickness"
      placeholder="1.6 in"
    />
    <SelectBox v-model="facts.skin" label="Skin">
      <option value="">as it was</option>
      <option value="on">on</option>
      <option value="off">off</option>
    </SelectBox>
    <SelectBox v-model="facts.product" label="Cured as">
      <option value="">as it was</option>
      <option v-for="(word, product) in productWords" :key="product" :value="product">{{ word }}</option>
    </SelectBox>
    <PlaceFields v-model:place="place" class="wide" />
    <SaveBar class="wide" word="Save" :state="state" :problem="problem" @retry="retry" />
  </form>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 4px 12px;
}

.wide {
  grid-column: 1 / -1;
}
</style>

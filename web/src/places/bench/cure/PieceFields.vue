<script setup lang="ts">
import DateBox from '@/shared/ui/DateBox.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import { computed } from 'vue'
import { productWords } from '@/places/bench/productWords'
import type { PieceFacts, Schemas } from '@/shared/api/client'
import { courses } from '@/shared/parts/courseWords'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { type CuredPiece, shows } from './recipes'
import type { DeskFacts } from './useDesk'
import WishFields from './WishFields.vue'

/** What becomes of the piece, on which scale its cure is weighed, and how the days are wanted. */
const props = defineProps<{
  facts: DeskFacts
  skin: string
  /** What the piece is known to be cured as. */
  product: PieceFacts['product'] | undefined
  /** What the piece is to become, as was said before; empty: not said. */
  course: string
  path: string
}>()
const piece = defineModel<CuredPiece>('piece', { required: true })
const scale = defineModel<string>('scale', { required: true })
const inAt = defineModel<string>('inAt', { required: true })
const wishes = defineModel<Schemas['WishesIn']>('wishes', { required: true })
const has = (field: Parameters<typeof shows>[2]): boolean =>
  shows(props.facts.schools, piece.value.recipe.school, field)
const mixes = computed(() => props.facts.mixes.filter((mix) => Number(mix.left_grams) > 0))
</script>

<template>
  <div class="fields">
    <SelectBox v-model="piece.product" label="It will be">
      <option value="">
        {{ product ? `as known: ${productWords[product]}` : 'as known of the piece' }}
      </option>
      <option v-for="(word, one) in productWords" :key="one" :value="one">{{ word }}</option>
    </SelectBox>
    <SelectBox v-model="piece.course" label="Then">
      <option value="">{{ course ? `as said: ${course}` : 'not said' }}</option>
      <option v-for="one in courses" :key="one.value" :value="one.value">{{ one.word }}</option>
    </SelectBox>
    <SelectBox v-model="piece.skin" label="Skin">
      <option value="">{{ skin ? `as known: ${skin}` : 'not given' }}</option>
      <option value="off">off</option>
      <option value="on">on</option>
    </SelectBox>
    <TypedInput
      v-model="scale"
      label="Scale reads in steps of"
      path="scale"
      :placeholder="facts.scale ? `${facts.scale} g` : '0.1 g'"
    />
    <SelectBox v-if="mixes.length" v-model="piece.mix" class="wide" label="Use a mix made ahead">
      <option :value="null">weigh each ingredient</option>
      <option v-for="mix in mixes" :key="mix.id" :value="mix.id">
        {{ mix.recipe }}, {{ mix.left_grams }} g left: {{ mix.words }}
      </option>
    </SelectBox>
    <TypedInput
      v-if="has('tub')"
      v-model="piece.tub"
      class="wide"
      label="Tub"
      :path="`${path}tub`"
      placeholder="alone"
      hint="Pieces with the same tub name share one brine."
    />
    <TickBox v-model="piece.is_kept_warm" class="wide"
      >Rests warm after the salt (66–68 °F, 19–20 °C, for a day or two)</TickBox
    >
    <WishFields
      v-model="wishes"
      class="wide"
      :two-stage="has('spices_later') || piece.recipe.extras.some((one) => one.stage === 2)"
    />
    <DateBox v-model="inAt" class="wide" label="Put in earlier?" kind="datetime-local" />
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 12px;
}

.wide {
  grid-column: 1 / -1;
}
</style>

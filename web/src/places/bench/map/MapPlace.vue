<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import NumberBox from '@/shared/ui/NumberBox.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useMap } from '@/shared/api/useBench'
import { useUnits } from '@/shared/quantity/useUnits'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useDraft } from '@/shared/writing/useDraft'
import StoreDrawing from './StoreDrawing.vue'
import { type Lying, useStores } from './useStores'

/** Which piece is where, drawn as the fridges and racks are: tap a piece, then where it goes. */
const { data: map, error, refetch } = useMap()
const { weightText } = useUnits()
const { lay, save, layProblem, saveProblem } = useStores()
const held = ref<Lying | null>(null)
const blank = (): Schemas['StoreIn'] => ({ name: '', sort: 'fridge', levels: 3, slots: 2, put_away: false })
const isAdding = ref(false)
const { draft: store, clear } = useDraft('store', blank)

function hold(piece: Lying): void {
  held.value = held.value?.code === piece.code && held.value.mark === piece.mark ? null : piece
}
/** A place that holds something already: two pieces there are asked about. */
const asked = ref<{ place: Schemas['PlaceIn']; there: string } | null>(null)
function put(place: Schemas['PlaceIn'], isSure = false): void {
  if (!held.value) return
  const there = (map.value?.stores ?? [])
    .filter((one) => one.name === place.store)
    .flatMap((one) => one.lying)
    .filter((one) => one.level === place.level && one.slot === place.slot)
    .map((one) => `${one.code} ${one.mark}`)
  if (there.length && !isSure) {
    asked.value = { place, there: there.join(', ') }
    return
  }
  asked.value = null
  lay(held.value, place, () => (held.value = null))
}
function change(shown: Schemas['StoreOut']): void {
  Object.assign(store, {
    name: shown.name,
    sort: shown.sort,
    levels: shown.levels,
    slots: shown.slots,
    put_away: false,
  })
  isAdding.value = true
}
function keep(): void {
  save({ ...store }, () => {
    clear()
    isAdding.value = false
  })
}
</script>

<template>
  <div class="head">
    <h1>Map</h1>
    <span class="quiet">{{
      held ? `${held.code} ${held.mark}: tap where it goes` : 'tap a piece, then where it goes'
    }}</span>
    <div class="acts">
      <ActButton v-may:cook :aria-expanded="isAdding" @click="isAdding = !isAdding">
        Add a fridge or rack
      </ActButton>
    </div>
  </div>
  <LoadState v-if="!map" :error="error" what="what lies where" @retry="refetch()" />
  <template v-else>
    <form v-if="isAdding" class="panel adding" @submit.prevent="keep">
      <TypedInput v-model="store.name" label="Name" maxlength="40" placeholder="Fridge 3" />
      <SelectBox v-model="store.sort" label="What it is">
        <option v-for="sort in ['fridge', 'smoker', 'chamber', 'freezer']" :key="sort" :value="sort">
          {{ sort }}
        </option>
      </SelectBox>
      <NumberBox v-model="store.levels" label="Shelves or racks" :min="1" :max="20" />
      <NumberBox v-model="store.slots" label="Places on each" :min="1" :max="20" />
      <TickBox v-model="store.put_away">no longer in use</TickBox>
      <ActButton first submit>Save</ActButton>
      <ProblemNote v-if="saveProblem" :problem="saveProblem" class="wide" />
    </form>
    <p v-if="asked && held" class="panel asked" role="alert">
      {{ asked.there }} is in that place. Put {{ held.code }} {{ held.mark }} there too?
      <ActButton small @click="put(asked.place, true)">Put it there too</ActButton>
      <ActButton small @click="asked = null">Choose another place</ActButton>
    </p>
    <ProblemNote v-if="layProblem" :problem="layProblem" />
    <section v-if="map.nowhere.length || held" class="panel nowhere" aria-label="Not placed yet">
      <b>Not placed yet</b>
      <ActButton
        v-for="piece in map.nowhere"
        :key="piece.code + piece.mark"
        :aria-pressed="held?.code === piece.code && held.mark === piece.mark"
        @click="hold(piece)"
      >
        {{ piece.code }} {{ piece.mark === 'lot' ? 'whole' : piece.mark }}&nbsp;<span class="quiet">{{
          weightText(piece.weight)
        }}</span>
      </ActButton>
      <ActButton v-if="held && held.level" @click="put({ store: '', level: 1, slot: 1 })">
        Take {{ held.code }} {{ held.mark }} out
      </ActButton>
    </section>
    <p v-if="!map.stores.length" class="panel">No fridge, smoker or chamber yet. Add the first one.</p>
    <div class="stores">
      <StoreDrawing
        v-for="one in map.stores"
        :key="one.name"
        :store="one"
        :held="held"
        @hold="hold"
        @change="change(one)"
        @put="(level, slot) => put({ store: one.name, level, slot })"
      />
    </div>
  </template>
</template>

<style scoped>
.stores {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(330px, 1fr));
  gap: 16px;
  align-items: start;
}

.adding {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(140px, 1fr));
  gap: 10px;
  align-items: end;
  margin-bottom: 12px;
}

.wide {
  grid-column: 1 / -1;
}

.nowhere {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-bottom: 12px;
}

.nowhere [aria-pressed='true'] {
  outline: 3px solid var(--rose);
}

@media (max-width: 719px) {
  .stores {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

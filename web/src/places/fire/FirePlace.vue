<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { momentText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'
import CookerCard from './CookerCard.vue'
import { useFires } from './useFires'

/** Fires that burn or cool, the cookers, and fires lately done. */
const { data: fires, error, refetch } = useFires()
</script>

<template>
  <div class="head">
    <h1>Fire</h1>
    <span v-if="fires" class="quiet">{{
      fires.burning.length === 1 ? 'one fire' : `${fires.burning.length || 'no'} fires`
    }}</span>
    <div class="acts">
      <ActLink v-may:cook first :to="{ name: 'fire-new' }">Into the smoke</ActLink>
    </div>
  </div>
  <LoadState v-if="!fires" :error="error" what="the fires" @retry="refetch()" />
  <div v-else class="two">
    <section aria-label="Fires">
      <ul v-if="fires.burning.length" class="rows">
        <li v-for="one in fires.burning" :key="one.id">
          <RouterLink class="panel row" :to="{ name: 'fire-live', params: { id: one.id } }">
            <b>{{ one.name }}</b>
            <span class="quiet">{{ one.pieces.join(', ') }}</span>
            <span class="quiet small"
              >{{ one.cooker || 'without a cooker' }}, since {{ momentText(one.begun_at) }}</span
            >
          </RouterLink>
        </li>
      </ul>
      <p v-else class="panel">
        No fire is going. Choose <b>Into the smoke</b> for pieces that are ready: which cooker, which probe in
        which piece, which program.
      </p>
      <template v-if="fires.done.length">
        <h2>Recent fires</h2>
        <ul class="rows">
          <li v-for="one in fires.done" :key="one.id">
            <RouterLink class="panel row" :to="{ name: 'fire-live', params: { id: one.id } }">
              <b>{{ one.name }}</b>
              <span class="quiet">{{ one.pieces.join(', ') }}</span>
              <span class="quiet small">{{ momentText(one.begun_at) }}</span>
            </RouterLink>
          </li>
        </ul>
      </template>
    </section>
    <section aria-label="Cookers" class="rows">
      <CookerCard v-for="one in fires.cookers" :key="one.name" :cooker="one" :unit="fires.unit" />
      <p v-if="!fires.cookers.length" class="panel">
        No cooker is connected. Readings can be typed in by hand during a fire.
      </p>
    </section>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(300px, 400px);
  gap: 16px;
  align-items: start;
}

.rows {
  display: grid;
  gap: 10px;
}

h2 {
  margin: 16px 0 8px;
}

.row {
  display: grid;
  gap: 2px;
  text-decoration: none;
}

@media (max-width: 979px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

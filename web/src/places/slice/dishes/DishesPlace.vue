<script setup lang="ts">
import ChooseFile from '@/shared/ui/ChooseFile.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, reactive, ref } from 'vue'
import { useSlug } from '@/shared/api/useSlug'
import { useUnits } from '@/shared/quantity/useUnits'
import DropPanel from '@/shared/ui/DropPanel.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import SaveBar from '@/shared/ui/SaveBar.vue'
import { readFile } from '@/shared/writing/readFile'
import DishForm from './DishForm.vue'
import { useDishes, useDishWrites } from './useDishes'

/** Every dish: what a plate costs at today's prices, what it leaves, and which have moved. */
const { data: dishes, error, refetch } = useDishes()
const { money, percent } = useUnits()
const kitchen_slug = useSlug()
const isAdding = ref(false)
const aims = reactive({ low: '', high: '', threshold: '' })
const { aiming, importing, renew } = useDishWrites(() => aims)
async function bringIn(file: File): Promise<void> {
  void importing.write(await readFile(file), renew)
}
const moved = computed(() => (dishes.value?.dishes ?? []).filter((one) => one.moved))
const inAim = (cost: string | null): string => {
  const now = dishes.value?.aims
  if (!now || cost === null) return ''
  if (Number(cost) > Number(now.high)) return 'over'
  return Number(cost) < Number(now.low) ? 'under' : 'in'
}
const signed = (moved: string): string => (moved.startsWith('-') ? `−${moved.slice(1)}` : `+${moved}`)
const files = (form: string): string => `/api/kitchens/${kitchen_slug.value}/dishes/files/${form}`
</script>

<template>
  <div class="head">
    <h1>Dishes</h1>
    <span v-if="dishes?.aims" class="quiet"
      >food cost to be {{ Number(dishes.aims.low) }} to {{ percent(Number(dishes.aims.high)) }}</span
    >
    <div class="acts">
      <DropPanel word="Export, import">
        <div class="lines">
          <ActButton v-for="form in ['csv', 'xlsx', 'json']" :key="form" :href="files(form)">{{
            form.toUpperCase()
          }}</ActButton>
          <ChooseFile word="Import dishes (CSV, XLSX, JSON)" accept=".csv,.xlsx,.json" @choose="bringIn" />
          <ProblemNote v-if="importing.problem.value" :problem="importing.problem.value" />
          <p v-if="importing.state.value === 'saved'" class="good" role="status">✓ saved as new versions</p>
        </div>
      </DropPanel>
      <DropPanel word="Aims">
        <form v-may:cook class="lines" @submit.prevent="aiming.write({ ...aims }, renew)">
          <TypedInput
            v-model="aims.low"
            label="Food cost from (%)"
            inputmode="decimal"
            :placeholder="dishes?.aims?.low ?? '28'"
          />
          <TypedInput
            v-model="aims.high"
            label="to (%)"
            inputmode="decimal"
            :placeholder="dishes?.aims?.high ?? '35'"
          />
          <TypedInput
            v-model="aims.threshold"
            label="Say when a plate moved by more than (%)"
            inputmode="decimal"
            :placeholder="dishes?.aims?.threshold ?? '5'"
          />
          <SaveBar
            word="Save the aims"
            :state="aiming.state.value"
            :problem="aiming.problem.value"
            @retry="aiming.retry()"
          />
        </form>
      </DropPanel>
      <ActButton v-may:cook first :aria-expanded="isAdding" @click="isAdding = !isAdding">
        New dish
      </ActButton>
    </div>
  </div>
  <LoadState v-if="!dishes" :error="error" what="the dishes" @retry="refetch()" />
  <template v-else>
    <DishForm v-if="isAdding" :dishes="dishes" @done="isAdding = false" />
    <p v-if="moved.length" class="moved" role="status">
      ▲ {{ moved.length === 1 ? 'One dish has' : `${moved.length} dishes have` }} moved:
      <template v-for="(one, at) in moved" :key="one.name"
        ><template v-if="at">, </template
        ><RouterLink :to="{ name: 'dish', params: { name: one.name } }">{{ one.name }}</RouterLink>
        {{ signed(one.moved ?? '') }} %</template
      >
    </p>
    <ul v-if="dishes.dishes.length" class="dishes" aria-label="Dishes">
      <li v-for="one in dishes.dishes" :key="one.name" class="panel">
        <h2>
          <RouterLink :to="{ name: 'dish', params: { name: one.name } }">{{ one.name }}</RouterLink>
        </h2>
        <dl>
          <div>
            <dt>A plate costs</dt>
            <dd>{{ money(one.cost) }}</dd>
          </div>
          <div>
            <dt>Menu</dt>
            <dd>{{ money(one.price) }}</dd>
          </div>
          <div>
            <dt>Food cost</dt>
            <dd :class="inAim(one.food_cost)">
              {{ percent(one.food_cost) }}
            </dd>
          </div>
          <div>
            <dt>Leaves</dt>
            <dd>{{ money(one.leaves) }}</dd>
          </div>
          <div>
            <dt>Plates, 30 days</dt>
            <dd>{{ one.plates }}</dd>
          </div>
        </dl>
        <p v-if="inAim(one.food_cost) === 'over'" class="dear small">▲ over the aim</p>
        <p v-if="one.missing.length" class="quiet small">no price: {{ one.missing.join(', ') }}</p>
      </li>
    </ul>
    <p v-else-if="!isAdding" class="panel">
      No dish yet. A dish is made of slices from the larder, lines of the price list, other dishes, and what
      you name yourself; it costs itself anew with every batch and every price.
    </p>
  </template>
</template>

<style scoped>
.dishes {
  display: grid;
  gap: 10px;
}

.dishes li {
  display: grid;
  grid-template-columns: minmax(160px, 1fr) auto;
  gap: 4px 24px;
  align-items: center;
}

h2 a {
  display: inline-flex;
  min-height: 44px;
  align-items: center;
}

dl {
  display: grid;
  grid-template-columns: repeat(5, minmax(86px, auto));
  gap: 4px 18px;
  text-align: right;
}

dt {
  font-size: 13px;
  color: var(--quiet);
}

dd {
  font-weight: 700;
  text-align: right;
}

.in {
  color: var(--good);
}

.over {
  color: var(--rose-deep);
}

.moved {
  padding: 8px 12px;
  margin-bottom: 10px;
  border-left: 6px solid var(--care);
  background: var(--care-ground);
}

@media (max-width: 719px) {
  .dishes li,
  dl {
    grid-template-columns: minmax(0, 1fr);
  }

  dl {
    grid-template-columns: repeat(3, auto);
    text-align: left;
  }

  dd {
    text-align: left;
  }
}
</style>

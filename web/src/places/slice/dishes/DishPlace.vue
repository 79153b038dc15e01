<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, reactive, ref, toRef } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import TwoColumns from '@/shared/ui/TwoColumns.vue'
import ChargeCurve from './ChargeCurve.vue'
import DishForm from './DishForm.vue'
import PlateBars from './PlateBars.vue'
import PlatesServed from './PlatesServed.vue'
import { useDish, useDishes, useDishWrites } from './useDishes'

/** One dish: its plate as a bar of parts beside the shop's, what to charge, what it left, and serving it. */
const props = defineProps<{ name: string }>()
const { data: page, error, refetch } = useDish(toRef(props, 'name'))
const { data: dishes } = useDishes()
const { money, percent, weightText } = useUnits()
const isChanging = ref(false)
/** Meat of the plate that has to be cooked first. */
const raw = computed(() =>
  page.value?.parts
    .filter((part) => part.is_raw)
    .map((part) => part.name)
    .join(', '),
)
const served = reactive({ plates: '1', price: '', is_free: false, use_past: false })
const { serving, looking, renew } = useDishWrites(() => served)
const shop = computed(
  () => page.value?.bars.slice(1).find((bar) => bar.leaves && /good/i.test(bar.name)) ?? page.value?.bars[1],
)
const against = computed(() => {
  const [own, other] = [page.value?.bars[0]?.leaves, shop.value?.leaves]
  if (!own || !other) return null
  const cents = Math.round(100 * Number(own)) - Math.round(100 * Number(other))
  return { more: cents >= 0, cents: (Math.abs(cents) / 100).toFixed(2) }
})
function serve(): void {
  void serving.write({ name: props.name, body: { ...served } }, () => {
    Object.assign(served, { plates: '1', price: '', is_free: false, use_past: false })
    done()
  })
}
function done(): void {
  renew()
  void refetch()
}
const signed = (moved: string): string => (moved.startsWith('-') ? `−${moved.slice(1)}` : `+${moved}`)
</script>

<template>
  <LoadState v-if="!page" :error="error" what="the dish" @retry="refetch()" />
  <template v-else>
    <div class="head">
      <h1>{{ page.dish.name }}</h1>
      <span class="badge">dish</span>
      <span class="quiet"
        >{{ page.menu ? `sold at ${money(page.menu.price)}, ` : '' }}{{ page.month_plates }} in 30 days</span
      >
      <div class="acts">
        <ActButton v-may:cook :aria-expanded="isChanging" @click="isChanging = !isChanging">
          Change the dish
        </ActButton>
      </div>
    </div>
    <DishForm
      v-if="isChanging && dishes"
      :dishes="dishes"
      :input="page.input"
      @done="
        () => {
          isChanging = false
          done()
        }
      "
    />
    <p v-if="page.dish.moved" class="moved" role="status">
      ▲ A plate has moved by {{ percent(signed(page.dish.moved)) }}, from {{ money(page.dish.cost_then) }} to
      {{ money(page.dish.cost) }}.
      <ActButton v-may:cook small @click="looking.write(name, done)">Seen</ActButton>
    </p>
    <TwoColumns side-first>
      <section class="panel" aria-label="One plate">
        <h2>One plate</h2>
        <PlateBars :bars="page.bars" :parts="page.parts" />
        <p v-if="raw" class="care" role="note">{{ raw }}: raw, cook before eating.</p>
      </section>
      <section v-if="page.curve.length" class="panel" aria-label="What to charge">
        <h2>What to charge</h2>
        <ChargeCurve :page="page" />
        <p v-if="page.charge.length">
          For {{ Number(page.aims?.high) }} to {{ Number(page.aims?.low) }} % food cost:
          <b>{{ page.charge.map((one) => money(one)).join(' to ') }}</b>.
        </p>
        <p v-else class="quiet">Set the kitchen's aim under Dishes to see what to charge.</p>
      </section>
      <PlatesServed :served="page.served" @changed="done" />
      <template #side>
        <section class="panel" aria-label="What a plate leaves">
          <p class="quiet">Left per plate, after food</p>
          <p class="heavy" :class="{ dear: page.menu?.leaves?.startsWith('-') }">
            {{ money(page.menu?.leaves ?? null) }}
          </p>
          <p v-if="against && shop">
            With {{ shop.name }} it would leave <b>{{ money(shop.leaves) }}</b>: ours
            {{ against.more ? 'earns' : 'costs' }} <b>{{ money(against.cents) }}</b> more a plate.
          </p>
          <p v-if="page.month_plates">
            {{ page.month_plates }} plates in 30 days brought in <b>{{ money(page.month_income) }}</b>, and
            left <b>{{ money(page.month_left) }}</b> at today's cost.
          </p>
          <p v-if="!page.menu" class="quiet">It has no price on the menu yet.</p>
        </section>
        <form v-may:cook class="panel lines" aria-label="Serve plates" @submit.prevent="serve">
          <h2>Serve plates</h2>
          <div class="serve">
            <ActButton
              aria-label="One plate fewer"
              @click="served.plates = String(Math.max(1, Number(served.plates) - 1))"
            >
              −
            </ActButton>
            <TypedInput v-model="served.plates" label="Plates" quiet-label inputmode="numeric" />
            <ActButton aria-label="One plate more" @click="served.plates = String(Number(served.plates) + 1)">
              +
            </ActButton>
          </div>
          <TypedInput
            v-model="served.price"
            label="At another price"
            inputmode="decimal"
            :placeholder="page.menu?.price ?? ''"
          />
          <TickBox v-model="served.is_free">no charge</TickBox>
          <TickBox v-if="page.past.length" v-model="served.use_past"
            >serve what is past its date too, knowingly</TickBox
          >
          <ProblemNote v-if="serving.problem.value" :problem="serving.problem.value" />
          <ActButton first submit :disabled="serving.isSaving.value">
            Plate {{ served.plates }} out of the larder
          </ActButton>
        </form>
        <section v-if="page.enough !== null" class="panel" aria-label="In the larder">
          <h2>In the larder</h2>
          <p v-for="one in page.past" :key="one.code + one.mark" class="care">
            Not counted: {{ weightText(one.left) }} of
            <RouterLink :to="{ name: 'pack', params: { code: one.code, mark: one.mark } }"
              >{{ one.code }} {{ one.mark }}</RouterLink
            >, past its use-by date, {{ dayText(one.keep_until ?? '') }}.
          </p>
          <p>
            Enough for <b>{{ page.enough }} {{ page.enough === 1 ? 'plate' : 'plates' }}</b
            >{{ page.until ? `, until ${dayText(page.until)} at the current pace` : '' }}.
          </p>
        </section>
        <section v-if="page.next.length" class="panel" aria-label="At today's prices">
          <h2>The next batch, at today's prices</h2>
          <template v-for="one in page.next" :key="one.name">
            <dl v-if="one.low">
              <dt>{{ one.name }}</dt>
              <dd>{{ money(one.low) }} to {{ money(one.high) }}</dd>
              <dt>a plate then</dt>
              <dd>{{ money(one.plate_low) }} to {{ money(one.plate_high) }}</dd>
            </dl>
            <p v-else class="quiet small">{{ one.name }}: {{ one.why }}</p>
          </template>
          <p class="quiet small">eight times out of ten</p>
        </section>
        <section class="panel" aria-label="Versions">
          <h2>Versions</h2>
          <ol class="lines">
            <li v-for="one in page.versions" :key="one.version" class="small">
              {{ one.version }}, {{ dayText(one.on) }}, {{ one.by }}: a plate {{ money(one.cost)
              }}{{ one.price ? `, sold at ${money(one.price)}` : '' }}
            </li>
          </ol>
        </section>
      </template>
    </TwoColumns>
  </template>
</template>

<style scoped>
h2 {
  margin-bottom: 8px;
}

.heavy {
  font-size: 44px;
  font-weight: 780;
  font-stretch: 112%;
  line-height: 1.1;
  color: var(--good);
}

.heavy.dear {
  color: var(--rose-deep);
}

.serve {
  display: grid;
  grid-template-columns: 56px minmax(0, 1fr) 56px;
  gap: 8px;
}

.serve .field {
  text-align: center;
  font-size: 20px;
}

dl {
  display: grid;
  grid-template-columns: 1fr auto;
}

dd {
  font-weight: 680;
  text-align: right;
}

.moved {
  padding: 8px 12px;
  margin-bottom: 10px;
  border-left: 6px solid var(--care);
  background: var(--care-ground);
}
</style>

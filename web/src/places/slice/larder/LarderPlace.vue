<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useLarder } from '@/shared/api/useLarder'
import { useSlug } from '@/shared/api/useSlug'
import { useUnits } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'
import DropPanel from '@/shared/ui/DropPanel.vue'
import TwoColumns from '@/shared/ui/TwoColumns.vue'
import BringPacksIn from './BringPacksIn.vue'
import CountShelves from './CountShelves.vue'
import StackColumn from './StackColumn.vue'
import ThawTonight from './ThawTonight.vue'
import WentBar from '@/shared/parts/WentBar.vue'

/** What lies in which fridge and freezer, oldest first to leave: what to thaw, what runs out, where it went. */
const { data: larder, error, refetch } = useLarder()
const { weightText, money } = useUnits()
const kitchen_slug = useSlug()
const router = useRouter()
const isCounting = ref(false)
const wanted = ref('')
const fault = ref('')
const packs = computed(() =>
  (larder.value?.shelves ?? []).flatMap((shelf) => shelf.stacks.flatMap((one) => one.packs)),
)
const summary = computed(() => {
  const now = larder.value
  if (!now) return ''
  if (!now.packs) return 'nothing in it'
  const own = `${now.packs} ${now.packs === 1 ? 'pack' : 'packs'}, ${weightText(now.weight)}, ${money(now.cost)} of meat`
  return now.their_packs ? `${own}; ${now.their_packs} of customers, ${weightText(now.their_weight)}` : own
})
/** "J-01 P3", as on the label, in whatever case. */
function openPack(): void {
  const [code, mark] = wanted.value.trim().split(/[\s/]+/)
  if (!code || !mark) {
    fault.value = 'Type the code as on the label: J-01 P3.'
    return
  }
  void router.push({ name: 'pack', params: { code: code.toUpperCase(), mark: mark.toUpperCase() } })
}
const files = (form: string): string => `/api/kitchens/${kitchen_slug.value}/larder/files/${form}`
</script>

<template>
  <div class="head">
    <h1>Larder</h1>
    <span class="quiet">{{ summary }}</span>
    <div class="acts">
      <DropPanel word="Export, import">
        <div class="lines">
          <ActButton v-for="form in ['csv', 'xlsx', 'json']" :key="form" :href="files(form)">{{
            form.toUpperCase()
          }}</ActButton>
          <BringPacksIn />
        </div>
      </DropPanel>
      <ActButton
        v-if="packs.length"
        v-may:helper
        :aria-expanded="isCounting"
        @click="isCounting = !isCounting"
      >
        Count the shelves
      </ActButton>
      <form class="find" @submit.prevent="openPack">
        <TypedInput
          v-model="wanted"
          label="Code of a pack"
          quiet-label
          placeholder="J-01 P3"
          autocapitalize="characters"
          @update:model-value="fault = ''"
        />
        <ActButton first submit>Take a pack</ActButton>
      </form>
    </div>
  </div>
  <p v-if="fault" class="dear" role="alert">▲ {{ fault }}</p>
  <LoadState v-if="!larder" :error="error" what="the larder" @retry="refetch()" />
  <template v-else>
    <CountShelves v-if="isCounting" :larder="larder" @done="isCounting = false" />
    <section v-if="larder.unpacked.length" v-may:cook class="panel ready" aria-label="To slice and pack">
      <h2>To slice and pack</h2>
      <ul>
        <li v-for="one in larder.unpacked" :key="one.code">
          <ActLink :to="{ name: 'board', params: { code: one.code } }"
            ><b>{{ one.code }}</b
            >&nbsp;{{ one.name }}, {{ weightText(one.weight)
            }}{{ one.is_finished ? ', not packed' : '' }}</ActLink
          >
        </li>
      </ul>
    </section>
    <TwoColumns side-first>
      <section
        v-for="shelf in larder.shelves"
        :key="shelf.store"
        class="shelf"
        :aria-label="shelf.store || 'Not placed'"
      >
        <h2 :class="shelf.sort || 'nowhere'">
          {{ shelf.store || 'Not placed' }}
          <span v-if="shelf.sort">{{ shelf.sort === 'freezer' ? 'frozen' : 'chilled' }}</span>
        </h2>
        <div v-if="shelf.stacks.length" class="stacks">
          <StackColumn v-for="stack in shelf.stacks" :key="stack.product" :stack="stack" />
        </div>
        <p v-else class="quiet empty">empty</p>
      </section>
      <p v-if="!larder.shelves.length" class="panel">
        No fridge or freezer yet. <RouterLink :to="{ name: 'map' }">Add one on the map</RouterLink>, then
        packs have a place.
      </p>
      <p v-if="packs.length" class="legend">
        <span v-for="state in ['open', 'thawed', 'chilled', 'frozen']" :key="state" :class="state">{{
          state
        }}</span>
        <span class="past">past its best</span>
        <span class="quiet">oldest on top, oldest leaves first</span>
      </p>
      <template #side>
        <ThawTonight :larder="larder" />
        <WentBar :went="larder.went" />
        <section v-if="larder.runs_out.length" class="panel" aria-label="Runs out">
          <h2>Runs out</h2>
          <ul class="lines">
            <li v-for="one in larder.runs_out" :key="one.product" class="line">
              <span
                >{{ one.product }} <span class="quiet small">{{ weightText(one.a_day) }} a day lately</span
                >{{ ' ' }}
                <RouterLink class="small" :to="{ name: 'plan-new', query: { product: one.product } }"
                  >Plan more</RouterLink
                ></span
              >
              <b :class="{ dear: one.is_soon }">{{ dayText(one.day) }}</b>
            </li>
          </ul>
        </section>
        <p v-else-if="packs.length" class="panel quiet">
          How long it lasts is said once something was taken on two days.
        </p>
      </template>
    </TwoColumns>
  </template>
</template>

<style scoped>
.find {
  display: flex;
  gap: 8px;
}

.find .field {
  width: 110px;
}

.ready {
  margin-bottom: 16px;
}

.ready ul {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
}

.shelf {
  background: var(--panel);
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 14px 16px 16px;
}

.shelf h2 {
  display: flex;
  justify-content: space-between;
  padding: 5px 14px;
  font-size: 15px;
  color: #ffffff;
  background: var(--rail);
}

.shelf h2.freezer {
  background: #3f5d72;
}

.shelf h2.nowhere {
  background: var(--quiet);
}

.shelf h2 span {
  font-weight: 400;
}

.stacks {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(172px, 1fr));
  gap: 14px 20px;
  padding: 12px 14px 0;
}

.empty {
  padding: 12px 14px 0;
}

.line {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  font-size: 13px;
}

.legend span:not(.quiet)::before {
  content: '';
  display: inline-block;
  width: 11px;
  height: 11px;
  margin-right: 5px;
  background: var(--ground);
}

.open {
  --ground: var(--rose);
}

.thawed {
  --ground: #e9b3bd;
}

.chilled {
  --ground: #d9657a;
}

.frozen {
  --ground: #8fb8d6;
}

.past {
  --ground: var(--care);
}
</style>

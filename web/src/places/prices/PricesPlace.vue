<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useSlug } from '@/shared/api/useBatch'
import { dayText } from '@/shared/quantity/when'
import ChoiceBar from '@/shared/ui/ChoiceBar.vue'
import DropPanel from '@/shared/ui/DropPanel.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import NotePrice from './NotePrice.vue'
import SparkLine from './SparkLine.vue'
import { type Item, type Sort, sorts, sortWords, usePer, usePrices } from './usePrices'

/** The price list: latest, lowest and usual price of everything, with a line of its history. */
const PAGE = 60
const slug = useSlug()
const sort = ref<Sort>('meat')
const find = ref('')
const sought = refDebounced(find, 250)
const page = ref(0)
const noting = ref(false)
watch([sort, sought], () => (page.value = 0))
const { data: prices, error, refetch } = usePrices(sort, sought, page)
const { perText, otherText } = usePer()
const choices = computed(() =>
  sorts.map(({ value, word }) => ({ value, word: `${word} ${prices.value?.counts[value] ?? ''}`.trim() })),
)
/** "11 slices, up to 10 % water" */
const aboutText = (item: Item): string =>
  [item.slices ? `${item.slices} slices` : '', item.solution ? `up to ${Number(item.solution)} % water` : '']
    .filter(Boolean)
    .join(', ')
const isShop = computed(() => sort.value === 'shop_pack')
const last = computed(() => Math.max(0, Math.ceil((prices.value?.total ?? 0) / PAGE) - 1))
const address = (form: string): string => `/api/kitchens/${slug.value}/prices/files/${form}`
const dry = computed(() =>
  sought.value ? `Nothing here is called “${sought.value}”.` : 'No price yet. Note one, or bring in a list.',
)
</script>

<template>
  <div class="head">
    <h1>Price list</h1>
    <div class="acts">
      <RouterLink class="act" :to="{ name: 'price-import' }">Bring in a list</RouterLink>
      <DropPanel word="Take it away">
        <ul class="files">
          <li><a class="act" :href="address('csv')" download>As CSV</a></li>
          <li><a class="act" :href="address('xlsx')" download>As a workbook (XLSX)</a></li>
        </ul>
      </DropPanel>
      <button type="button" class="act first" :aria-expanded="noting" @click="noting = !noting">
        Note a price
      </button>
    </div>
  </div>
  <section v-if="noting" class="panel noting" aria-label="Note a price">
    <NotePrice
      :key="sort"
      :sort="sort"
      :sources="prices?.sources ?? []"
      @noted="refetch()"
      @close="noting = false"
    />
  </section>
  <div class="filter">
    <ChoiceBar v-model="sort" label="Sort" quiet-label :choices="choices" />
    <label class="find">
      <span class="unseen">Find by name</span>
      <input v-model="find" class="box" type="search" placeholder="find by name" maxlength="80" />
    </label>
  </div>
  <LoadState v-if="!prices" :error="error" what="the price list" @retry="refetch()" />
  <template v-else>
    <div v-if="prices.items.length" class="panel list">
      <table>
        <caption class="unseen">
          {{
            sortWords[sort]
          }}
        </caption>
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col" class="right">Latest</th>
            <th scope="col">Seen</th>
            <th scope="col" class="right">Usual</th>
            <th scope="col" class="right">Lowest</th>
            <th v-if="isShop" scope="col">Fried</th>
            <th scope="col">History</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="item in prices.items" :key="item.id">
            <th scope="row">
              <RouterLink :to="{ name: 'price', params: { id: item.id } }">{{ item.name }}</RouterLink>
              <span v-if="item.kind && item.kind !== item.name" class="badge">{{ item.kind }}</span>
              <span v-if="item.slices || item.solution" class="sub">
                {{ aboutText(item) }}
              </span>
            </th>
            <td class="right">
              <b>{{ perText(item.latest) }}</b><span class="sub">{{ otherText(item.latest) }}</span>
            </td>
            <td>
              {{ item.source }}<span class="sub">{{ dayText(item.latest_on) }}, {{ item.latest_typed }}</span>
            </td>
            <td class="right">{{ perText(item.usual) }}</td>
            <td class="right">
              {{ perText(item.lowest) }}<span class="sub">{{ dayText(item.lowest_on) }}</span>
            </td>
            <td v-if="isShop">
              <template v-if="item.fry?.mean"
                >{{ item.fry.mean }} % left<span class="sub"
                  ><template v-if="item.fry.spread">± {{ item.fry.spread }}, </template>{{ item.fry.tests }}
                  {{ item.fry.tests === 1 ? 'test' : 'tests' }}</span
                ></template
              ><span v-else class="quiet">not yet</span>
            </td>
            <td class="line">
              <SparkLine v-if="item.history.length > 1" :history="item.history" />
              <span v-else class="quiet small">seen once</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-else class="panel empty quiet">{{ dry }}</p>
    <nav v-if="last > 0" class="pages" aria-label="Pages">
      <button type="button" class="act small" :disabled="page === 0" @click="page -= 1">Before</button>
      <span>{{ page + 1 }} of {{ last + 1 }}, {{ prices.total }} lines</span>
      <button type="button" class="act small" :disabled="page >= last" @click="page += 1">Next</button>
    </nav>
  </template>
</template>

<style scoped>
.noting {
  margin-bottom: 12px;
}

.filter {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  margin-bottom: 12px;
}

.find {
  margin-left: auto;
  flex: 0 1 220px;
}

.list {
  padding: 0 16px;
  overflow-x: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
}

thead th {
  font-size: 13px;
  font-weight: 500;
  font-stretch: 88%;
  color: var(--quiet);
  padding-top: 10px;
}

th,
td {
  text-align: left;
  padding: 8px 14px 8px 0;
  vertical-align: top;
  border-bottom: 1px solid #e4e8e6;
}

tbody tr:last-child > * {
  border-bottom: 0;
}

tbody th {
  font-weight: 680;
  font-size: 16px;
}

.badge {
  margin-left: 8px;
  font-size: 12px;
  padding: 1px 8px;
}

.sub {
  display: block;
  font-size: 13px;
  font-weight: 450;
  font-stretch: 90%;
  color: var(--quiet);
}

.right {
  text-align: right;
  white-space: nowrap;
}

.files {
  display: grid;
  gap: 8px;
}

.pages {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-top: 12px;
}

.empty {
  padding: 40px 16px;
  text-align: center;
}

@media (max-width: 719px) {
  .find {
    margin-left: 0;
    flex: 1 1 100%;
  }

  .list {
    padding: 0 12px;
  }

  table,
  tbody,
  tr {
    display: block;
  }

  thead {
    display: none;
  }

  tr {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 12px;
    padding: 10px 0;
    border-bottom: 1px solid #e4e8e6;
  }

  th,
  td {
    border: 0;
    padding: 0;
  }

  td:nth-child(4)::before {
    content: 'usual ';
    color: var(--quiet);
  }

  td:nth-child(5) {
    display: none;
  }
}
</style>

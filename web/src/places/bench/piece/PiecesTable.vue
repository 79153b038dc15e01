<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { computed, reactive, ref, toRef } from 'vue'
import { useBatch } from '@/shared/api/useBatch'
import { useSlug } from '@/shared/api/useSlug'
import { useUnits } from '@/shared/quantity/useUnits'
import BatchHead from '@/shared/ui/BatchHead.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import OwnerForm from './OwnerForm.vue'
import OwnerPages from './OwnerPages.vue'

/** All pieces of a batch at once: whose each is, its weights by step, pump gain, yield and place. */
const props = defineProps<{ code: string }>()
const slug = useSlug()
const { inUnit, unit, costText, unitWord } = useUnits()
const { data: batch } = useBatch(toRef(props, 'code'))
const { data, error, refetch, put } = useKitchenQuery('pieces-table', '/batches/{code}/pieces-table', () => ({
  path: { code: props.code },
  key: [props.code, batch.value?.seen],
}))
const words = ref('')
const owner = ref('')
const NOBODY = '–'
const shown = computed(() => {
  const sought = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  return (data.value?.rows ?? []).filter((row) => {
    const text = `${row.mark} ${row.owner} ${row.place ?? ''}`.toLowerCase()
    const isTheirs = !owner.value || (owner.value === NOBODY ? !row.owner : row.owner === owner.value)
    return isTheirs && sought.every((word) => text.includes(word))
  })
})
const picked = reactive(new Set<string>())
const isAll = computed(() => shown.value.length > 0 && shown.value.every((row) => picked.has(row.mark)))
function pick(mark: string): void {
  if (!picked.delete(mark)) picked.add(mark)
}
function pickAll(): void {
  const marks = shown.value.map((row) => row.mark)
  if (isAll.value) marks.forEach((mark) => picked.delete(mark))
  else marks.forEach((mark) => picked.add(mark))
}
const owning = useKitchenWrite('owner', '/batches/{code}/owners', { path: () => ({ code: props.code }) })
function setOwner(name: string): void {
  void owning.write({ owner: name, marks: [...picked] }, (table) => {
    put(table)
    picked.clear()
  })
}
const root = computed(() => `/api/kitchens/${slug.value}/batches/${props.code}`)
</script>

<template>
  <LoadState v-if="!data || !batch" :error="error" what="the pieces" @retry="refetch()" />
  <template v-else>
    <BatchHead :batch="batch">
      <ActButton :href="`${root}/pieces-table.csv`" download="">CSV</ActButton>
      <ActButton :href="`${root}/pieces-table.xlsx`" download="">XLSX</ActButton>
    </BatchHead>
    <form class="filter" role="search" @submit.prevent>
      <TypedInput v-model="words" label="Piece, owner or place" maxlength="80" type="search" />
      <SelectBox v-if="data.owners.length" v-model="owner" label="Owner">
        <option value="">all</option>
        <option v-for="one in data.owners" :key="one" :value="one">{{ one }}</option>
        <option :value="NOBODY">nobody noted</option>
      </SelectBox>
      <p class="quiet" role="status">{{ shown.length }} of {{ data.rows.length }} pieces</p>
    </form>
    <div class="panel scroll" tabindex="0" role="region" aria-label="All pieces">
      <LedgerTable>
        <thead>
          <tr>
            <th scope="col">
              <TickBox :model-value="isAll" @update:model-value="pickAll"
                ><span class="unseen">Choose all shown</span></TickBox
              >
            </th>
            <th scope="col">Piece</th>
            <th scope="col">Owner</th>
            <th v-for="step in data.steps" :key="step.kind" scope="col" class="right">
              {{ step.label }}, {{ unit }}
            </th>
            <th scope="col" class="right">Gain, %</th>
            <th scope="col" class="right">Kept, %</th>
            <th scope="col" class="right">A {{ unitWord }}</th>
            <th scope="col">Place</th>
            <th scope="col"><span class="unseen">Weigh</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in shown" :key="row.mark" :class="{ picked: picked.has(row.mark) }">
            <td>
              <TickBox :model-value="picked.has(row.mark)" @update:model-value="pick(row.mark)"
                ><span class="unseen">Choose {{ row.mark }}</span></TickBox
              >
            </td>
            <th scope="row">
              <RouterLink :to="{ name: 'piece', params: { code, mark: row.mark } }">{{
                row.mark
              }}</RouterLink>
            </th>
            <td>{{ row.owner }}</td>
            <td v-for="(weight, at) in row.weights" :key="at" class="right">
              {{ weight ? inUnit(weight) : '–' }}
            </td>
            <td class="right">{{ row.gain ?? '–' }}</td>
            <td class="right">
              <b>{{ row.kept }}</b>
            </td>
            <td class="right">{{ row.price ? costText(row.price) : '–' }}</td>
            <td>{{ row.place ?? '' }}</td>
            <td>
              <RouterLink
                class="weigh"
                :to="{ name: 'weigh', params: { code }, query: { piece: row.mark } }"
                :aria-label="`Weigh ${row.mark}`"
                >Weigh</RouterLink
              >
            </td>
          </tr>
        </tbody>
      </LedgerTable>
    </div>
    <p class="quiet small">
      Kept: of the first weight as a piece of its own. Gain: in the cure, of the weight before it.
    </p>
    <div class="two">
      <OwnerForm
        :count="picked.size"
        :owners="data.owners"
        :state="owning.state.value"
        :problem="owning.problem.value"
        @set="setOwner"
        @retry="owning.retry()"
      />
      <OwnerPages v-if="data.owners.length" :owners="data.owners" :root="root" />
    </div>
  </template>
</template>

<style scoped>
.filter {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: end;
  margin-bottom: 10px;
}

.scroll {
  overflow: auto;
  max-height: 70vh;
  padding: 0;
}

table {
  border-collapse: collapse;
  width: 100%;
}

th,
td {
  text-align: left;
  padding: 2px 10px;
  border-bottom: 1px solid #e4e8e6;
  white-space: nowrap;
}

thead th {
  position: sticky;
  top: 0;
  background: var(--panel);
  font-size: 13px;
  font-weight: 500;
  color: var(--quiet);
  z-index: 1;
}

.right {
  text-align: right;
}

.picked {
  background: #fbe9ec;
}

.pick,
.weigh {
  min-height: 44px;
  min-width: 44px;
  display: inline-grid;
  place-items: center;
}

th:first-child,
td:first-child {
  width: 1px;
  padding: 0 4px;
}

.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 340px), 1fr));
  gap: 14px;
  margin-top: 14px;
}
</style>

<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { type Schemas } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import LoadState from '@/shared/ui/LoadState.vue'
import { longDayText, timeText } from '@/shared/quantity/when'

/** Who did what, the latest first, day by day; refusals and sign-ins too. */
type Row = Schemas['AuditOut']
const slug = useSlug()
const words = ref('')
const asked = refDebounced(words, 250)
const page = ref(1)
watch(asked, () => (page.value = 1))
const { data, error, refetch } = useKitchenQuery(
  'audit',
  '/audit',
  () => ({ query: { words: asked.value, page: page.value } }),
  { placeholderData: (before) => before, gcTime: 0 },
)
const days = computed(() => {
  const found = new Map<string, Row[]>()
  for (const row of data.value?.rows ?? []) {
    const day = longDayText(new Date(row.at))
    found.set(day, [...(found.get(day) ?? []), row])
  }
  return [...found]
})
const fileOf = (form: string): string =>
  `/api/kitchens/${slug.value}/audit.${form}?words=${encodeURIComponent(asked.value)}`
const recordOf = (row: Row): string =>
  [row.made, row.before && `in place of ${row.before}`].filter(Boolean).join(', ')
</script>

<template>
  <div class="head">
    <h1>Who did what</h1>
  </div>
  <div class="asking">
    <TypedInput v-model="words" label="Find" placeholder="a name, B-02, refused, corrected" maxlength="80" />
    <ActButton small :href="fileOf('csv')">Export as CSV</ActButton>
    <ActButton small :href="fileOf('xlsx')">Export as XLSX</ActButton>
  </div>
  <LoadState v-if="!data" :error="error" what="the audit" @retry="refetch()" />
  <section v-else class="panel">
    <p v-if="!data.rows.length" class="quiet">
      {{ asked ? 'Nothing holds these words.' : 'Nothing was recorded yet.' }}
    </p>
    <template v-for="[day, rows] in days" :key="day">
      <h2>{{ day }}</h2>
      <ol>
        <li v-for="row in rows" :key="row.id" :class="{ refused: row.outcome === 'refused' }">
          <time :datetime="row.at">{{ timeText(row.at) }}</time>
          <span class="what">
            <b>{{ row.who }}</b> {{ row.words }}
            <span v-if="row.outcome === 'refused'" class="badge">refused</span>
            <span class="quiet small">{{ recordOf(row) }}</span>
          </span>
          <span class="quiet small device">{{ [row.device, row.address].filter(Boolean).join(' · ') }}</span>
          <RouterLink v-if="row.page" class="see" :to="row.page">See it</RouterLink>
        </li>
      </ol>
    </template>
    <div class="pages">
      <ActButton v-if="page > 1" small @click="page -= 1">Previous</ActButton>
      <span v-if="page > 1 || data.has_more" class="quiet">page {{ page }}</span>
      <ActButton v-if="data.has_more" small @click="page += 1">Next</ActButton>
    </div>
  </section>
</template>

<style scoped>
.asking {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: end;
  margin-bottom: 12px;
}

.asking .field {
  flex: 1 1 240px;
  max-width: 420px;
}

h2 {
  margin-top: 12px;
}

li {
  display: grid;
  grid-template-columns: 76px minmax(0, 1fr) minmax(0, 260px) 64px;
  gap: 4px 10px;
  align-items: baseline;
  padding: 7px 0 7px 8px;
  border-bottom: 1px solid var(--edge);
  border-left: 4px solid transparent;
}

li.refused {
  border-left-color: var(--care);
  background: var(--care-ground);
}

.what {
  overflow-wrap: anywhere;
}

.see {
  grid-column: 4;
  justify-self: end;
  padding: 4px 0;
}

.pages {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-top: 12px;
}

@media (max-width: 719px) {
  li {
    grid-template-columns: 68px minmax(0, 1fr) 56px;
  }

  .device {
    grid-area: 2 / 2 / 3 / 4;
  }

  .see {
    grid-area: 1 / 3;
  }
}
</style>

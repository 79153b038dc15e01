<script setup lang="ts">
import { dayText } from '@/shared/quantity/when'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useKitchenQuery } from '@/shared/api/useKitchenQuery'
import { refDebounced } from '@vueuse/core'
import { computed } from 'vue'
import type { RouteLocationRaw } from 'vue-router'
import { type Schemas } from '@/shared/api/client'
import { useInAddress } from '@/shared/ui/useInAddress'

/** One field that finds batches, pieces, packs, notes, prices, dishes, plans and people. */
type Found = Schemas['FoundOut']
const words = useInAddress('find', '')
const sought = refDebounced(words, 200)
const asked = computed(() => sought.value.trim())
const { data, error } = useKitchenQuery('find', '/find', () => ({ query: { words: asked.value } }), {
  enabled: () => asked.value !== '',
  placeholderData: (before) => before,
})
const names: Record<Found['kind'], string> = {
  batch: 'Batches',
  piece: 'Pieces',
  pack: 'Packs',
  note: 'Notes',
  price: 'Prices',
  dish: 'Dishes',
  plan: 'Plans',
  person: 'People',
}
const groups = computed(() => {
  const found = asked.value ? (data.value?.found ?? []) : []
  return [...new Set(found.map((one) => one.kind))].map((kind) => ({
    kind,
    found: found.filter((one) => one.kind === kind),
    isMore: data.value?.more.includes(kind) ?? false,
  }))
})
/** Where it is looked at; nobody has a page of their own yet. */
function placeOf({ kind, code, mark, name, id }: Found): RouteLocationRaw | null {
  switch (kind) {
    case 'batch':
      return { name: 'log', params: { code } }
    case 'piece':
    case 'pack':
      return { name: kind, params: { code, mark } }
    case 'note':
      return { name: 'diary', params: { code } }
    case 'price':
      return { name: 'price', params: { id: String(id) } }
    case 'dish':
    case 'plan':
      return { name: kind, params: { name } }
    default:
      return null
  }
}
</script>

<template>
  <section class="panel find" role="search" aria-label="Find">
    <TypedInput
      v-model="words"
      label="Find"
      maxlength="80"
      :placeholder="`a word, a code like B-02 A, a day like ${dayText('2026-11-22')}`"
      type="search"
    />
    <p v-if="error" class="care">{{ error.problem.detail }}</p>
    <p v-else-if="asked && data && !groups.length" class="quiet" role="status">No match.</p>
    <div v-for="{ kind, found, isMore } in groups" :key="kind">
      <h2>{{ names[kind] }}</h2>
      <ul>
        <li v-for="(one, at) in found" :key="at">
          <RouterLink v-if="placeOf(one)" :to="placeOf(one)!">{{ one.title }}</RouterLink>
          <b v-else>{{ one.title }}</b>
          <span class="quiet small">{{ one.detail }}</span>
        </li>
      </ul>
      <p v-if="isMore" class="quiet small">
        These are the latest; there are more.
        <RouterLink v-if="kind === 'batch'" :to="{ name: 'batches', query: { find: asked } }"
          >All of them</RouterLink
        >
      </p>
    </div>
  </section>
</template>

<style scoped>
.find {
  display: grid;
  gap: 12px;
  margin-bottom: 16px;
}

h2 {
  margin-bottom: 4px;
  font-size: 15px;
}

ul {
  display: grid;
  gap: 2px;
}

li {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 12px;
  padding: 4px 0;
}
</style>

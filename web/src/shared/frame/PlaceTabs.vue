<script setup lang="ts">
import { NTab, NTabs } from 'naive-ui'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useSession } from '@/shared/api/useSession'
import { moneyPlaces } from './places'
import { aboutMoney, forOwners, isOf, viewsBeside } from './views'

/**
 * The views of a place, or of a batch, one beside the other: links, so that each opens in a window of its own.
 * Those of a batch take its code from the address, as the router does for what is named alone.
 */
const route = useRoute()
const { may, seesMoney } = useSession()
const beside = computed(() => viewsBeside(route.name))
const views = computed(() =>
  seesMoney.value || !moneyPlaces.has(route.meta.place)
    ? (beside.value?.views ?? []).filter(
        ({ name }) => (may('owner') || !forOwners.has(name)) && (seesMoney.value || !aboutMoney.has(name)),
      )
    : [],
)
const current = computed(() => views.value.find((view) => isOf(view, route.name))?.name)
</script>

<template>
  <nav v-if="views.length > 1" :aria-label="beside?.label" class="tabs">
    <NTabs :value="current ?? ''" type="line" size="small" animated>
      <NTab v-for="view in views" :key="view.name" :name="view.name">
        <RouterLink :to="{ name: view.name }" :aria-current="view.name === current ? 'page' : undefined">{{
          view.word
        }}</RouterLink>
      </NTab>
    </NTabs>
  </nav>
</template>

<style scoped>
.tabs {
  margin-bottom: 12px;
}

a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  padding: 0 9px;
  color: var(--quiet);
  font-weight: 640;
  text-decoration: none;
}

[aria-current='page'] {
  color: var(--ink);
}
</style>

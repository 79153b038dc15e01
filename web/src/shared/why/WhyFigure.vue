<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import ActButton from '@/shared/ui/ActButton.vue'
import { NButton, NModal } from 'naive-ui'
import { computed, ref } from 'vue'
import type { Entry } from '@/shared/api/client'
import { useWhy } from './why'

/** A figure that can be asked where it came from: its inputs, the formula in words, the entries behind it. */
const props = defineProps<{
  figure: string
  /** Which shop's, where it is one of a shop. */
  shop?: number
}>()
const shown = ref(false)
const why = useWhy()
const derivation = computed(() =>
  why?.verdict.value?.derivations.find(
    (one) => one.figure === props.figure && (one.shop ?? undefined) === props.shop,
  ),
)
const batch = computed(() => why?.batch.value)
const entriesOf = (ids: number[]): Entry[] =>
  (batch.value?.log ?? []).filter((entry) => ids.includes(entry.id))
</script>

<template>
  <NButton
    v-if="derivation"
    text
    attr-type="button"
    class="why"
    :aria-label="`${derivation.title}: where it comes from`"
    @click="shown = true"
  >
    <slot />
  </NButton>
  <slot v-else />
  <NModal v-if="derivation" v-model:show="shown">
    <div class="panel detail" role="dialog" aria-modal="true" :aria-label="derivation.title">
      <h2>{{ derivation.title }}</h2>
      <p class="value">{{ derivation.value }}</p>
      <p class="formula"><span class="quiet">It is</span> {{ derivation.formula }}.</p>
      <LedgerTable>
        <thead class="unseen">
          <tr>
            <th scope="col">What</th>
            <th scope="col">How much</th>
            <th scope="col">From</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in derivation.inputs" :key="line.label">
            <th scope="row">{{ line.label }}</th>
            <td>{{ line.value }}</td>
            <td class="from">
              <template v-if="line.entries.length > 3"> {{ line.entries.length }} entries </template>
              <template v-else>
                <RouterLink
                  v-for="entry in entriesOf(line.entries)"
                  :key="entry.id"
                  :to="{ name: 'log', params: { code: batch?.code } }"
                  >entry {{ entry.sequence }}, {{ entry.label.toLowerCase() }}</RouterLink
                >
              </template>
            </td>
          </tr>
        </tbody>
      </LedgerTable>
      <ActButton small @click="shown = false">Close</ActButton>
    </div>
  </NModal>
</template>

<style scoped>
.why {
  border: 0;
  background: none;
  padding: 0;
  font: inherit;
  letter-spacing: inherit;
  color: inherit;
  cursor: pointer;
  text-align: inherit;
  border-bottom: 1px dotted currentcolor;
  line-height: inherit;
}

.detail {
  display: grid;
  gap: 10px;
  width: min(640px, calc(100vw - 20px));
  max-height: calc(100vh - 40px);
  overflow-y: auto;
}

.value {
  font-size: 26px;
  font-weight: 780;
  line-height: 1.15;
}

table {
  width: 100%;
  border-collapse: collapse;
}

tbody th,
td {
  text-align: left;
  vertical-align: top;
  padding: 5px 12px 5px 0;
  border-top: 1px solid #e4e8e6;
  font-weight: 450;
}

td {
  font-weight: 620;
}

.from {
  font-size: 13px;
  font-weight: 450;
}

.from a {
  display: block;
}
</style>

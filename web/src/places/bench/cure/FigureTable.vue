<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { useKitchenWrite } from '@/shared/api/useKitchenWrite'
import { vMay } from '@/shared/kitchen/vMay'
import { computed } from 'vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'
import { useDraft } from '@/shared/writing/useDraft'
import type { DeskFacts } from './useDesk'

type Row = { key: string; label: string; value: string; reference: string; source: string; is_own: boolean }
/** Reference figures, each replaceable by the kitchen's own with its source. */
const props = defineProps<{ sort: 'limit' | 'spoon'; unit: string; rows: Row[] }>()
const emit = defineEmits<{ kept: [facts: DeskFacts] }>()
/** A figure half typed is still there after a reload. */
const { draft: own, clear } = useDraft(`figure-${props.sort}`, () => ({ open: '', value: '', source: '' }))
const open = computed(() => own.open)
const { state, problem, write, reset } = useKitchenWrite(`figure-${props.sort}`, '/cure-figures')
function change(row: Row): void {
  reset()
  if (open.value === row.key) return clear()
  const { key, value, source } = row
  Object.assign(own, { open: key, ...(row.is_own ? { value, source } : { value: '', source: '' }) })
}
function keep(value: string): void {
  void write({ sort: props.sort, name: open.value, value, source: value ? own.source : '' }, (facts) => {
    clear()
    emit('kept', facts)
  })
}
</script>

<template>
  <ul>
    <li v-for="row in rows" :key="row.key">
      <span class="label">{{ row.label }}</span>
      <b
        >{{ Number(row.value) }} <small>{{ unit }}</small></b
      >
      <ActButton
        small
        :aria-expanded="open === row.key"
        :aria-label="`Own figure for ${row.label}`"
        @click="change(row)"
      >
        own
      </ActButton>
      <p v-if="row.is_own" class="small quiet wide">
        {{ row.source }}; the reference has {{ Number(row.reference) }}.
      </p>
      <form v-if="open === row.key" v-may:owner class="wide" @submit.prevent="keep(own.value)">
        <TypedInput v-model="own.value" :label="`Our figure, ${unit}`" inputmode="decimal" />
        <TypedInput v-model="own.source" label="Where it is from" maxlength="200" />
        <ActButton submit :disabled="state === 'saving'">Save</ActButton>
        <ActButton v-if="row.is_own" @click="keep('')">Use the reference</ActButton>
        <ProblemNote v-if="problem" :problem="problem" class="wide" />
      </form>
    </li>
  </ul>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 2px 14px;
  align-items: center;
  border-top: 1px solid var(--edge);
  min-height: 46px;
}

small {
  font-weight: 400;
  color: var(--quiet);
}

.wide {
  grid-column: 1 / -1;
}

form {
  display: grid;
  grid-template-columns: 130px minmax(0, 1fr) auto auto;
  gap: 8px;
  align-items: end;
  padding-bottom: 8px;
}

@media (max-width: 719px) {
  form {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

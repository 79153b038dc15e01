<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useSlug } from '@/shared/api/useSlug'
import { useWays } from '@/shared/api/useWays'
import { useUnits } from '@/shared/quantity/useUnits'
import { dayText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'
import WayForm from './WayForm.vue'

/** The kitchen's ways of making things: steps, what each uses, minutes, days. */
type Ways = Schemas['WaysOut']
const slug = useSlug()
const queries = useQueryClient()
const { costText, money, unitWord } = useUnits()
const queryKey = computed(() => ['ways', slug.value])
const { data, error, refetch } = useWays()
/** The way being changed; '' for a new one. */
const editing = ref<string | null>(null)
const edited = computed(() => data.value?.ways.find((way) => way.name === editing.value)?.input ?? null)
/** "10 min + 0.5 min/lb, 8 days" */
function stepText(step: Schemas['WayStepIn']): string {
  const minutes = [
    step.batch_minutes && `${step.batch_minutes} min`,
    step.pound_minutes && `${step.pound_minutes} min/lb`,
    step.kilo_minutes && `${step.kilo_minutes} min/kg`,
  ]
  const days = step.days ? `${step.days} ${step.days === 1 ? 'day' : 'days'}` : ''
  return [minutes.filter(Boolean).join(' + '), days].filter(Boolean).join(', ')
}
const label = (key: string): string => key.replace('_', ' ')

function saved(ways: Ways): void {
  queries.setQueryData(queryKey.value, ways)
  void queries.invalidateQueries({ queryKey: ['case'] })
  editing.value = null
}
</script>

<template>
  <div class="head">
    <h1>Methods</h1>
    <span class="quiet">how you make things: steps, ingredients, time</span>
    <div class="acts">
      <ActButton v-may:cook first @click="editing = ''">New method</ActButton>
    </div>
  </div>
  <LoadState v-if="!data" :error="error" what="the methods" @retry="refetch()" />
  <template v-else>
    <section v-if="editing !== null" class="panel" :aria-label="editing || 'New method'">
      <WayForm
        :key="editing"
        :input="edited"
        :methods="data.methods"
        @saved="saved"
        @close="editing = null"
      />
    </section>
    <p v-if="!data.ways.length && editing === null" class="panel empty quiet">
      No methods yet. A method has steps, what each step uses and how long it takes.
    </p>
    <ul class="ways">
      <li v-for="way in data.ways" :key="way.name" class="panel">
        <div class="top">
          <h2>{{ way.name }}</h2>
          <span class="quiet small">
            {{ way.days }} days<template v-if="way.portion">, a portion is {{ way.portion }}</template
            >, version {{ way.version }} of {{ dayText(way.recorded_at) }}, {{ way.by }}
          </span>
          <ActButton v-may:cook small @click="editing = way.name">
            Change<span class="unseen"> {{ way.name }}</span>
          </ActButton>
        </div>
        <p v-if="way.missing.length" class="care">
          Not in the price list: {{ way.missing.join(', ') }}. Left out of the cost until there is a price.
        </p>
        <ol>
          <li v-for="(step, at) in way.input.steps" :key="at">
            <b>{{ label(step.method) }}</b>
            <span class="small">
              {{ stepText(step) }}
            </span>
            <span v-for="use in step.used" :key="use.what" class="small use">
              {{ use.what }}, {{ use.amount }}
              {{
                use.amount.endsWith('%')
                  ? 'of the meat'
                  : use.per === 'batch'
                    ? 'per batch'
                    : `per ${use.per}`
              }}
            </span>
            <span v-if="step.worth" class="small use">trim is worth {{ step.worth }}</span>
          </li>
        </ol>
        <p class="quiet small">
          <template v-for="(use, at) in way.priced" :key="use.what"
            ><template v-if="at">; </template>{{ use.what }}
            {{ use.cost ? `${costText(use.cost)} a ${unitWord} of meat` : `${money(use.batch)} a batch` }} ({{
              use.origin
            }})</template
          >
        </p>
      </li>
    </ul>
  </template>
</template>

<style scoped>
section {
  margin-bottom: 12px;
}

.ways {
  display: grid;
  gap: 12px;
}

.ways > li {
  display: grid;
  gap: 10px;
}

.top {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
}

ol {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 0;
}

ol li {
  display: grid;
  align-content: start;
  border-left: 3px solid var(--lean);
  padding: 2px 12px;
  min-height: 62px;
}

ol b::first-letter {
  text-transform: uppercase;
}

.use {
  color: var(--quiet);
}

.care {
  border-left: 6px solid var(--care);
  background: var(--care-ground);
  padding: 6px 12px;
}

.empty {
  padding: 40px 16px;
  text-align: center;
}
</style>

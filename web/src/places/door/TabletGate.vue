<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, type Problem, type ProblemError, refusal, type Schemas, take } from '@/shared/api/client'
import { useSession } from '@/shared/api/useSession'
import LoadState from '@/shared/ui/LoadState.vue'
import ProblemNote from '@/shared/ui/ProblemNote.vue'

/** The kitchen's tablet: who are you? By name and a short code. */
const { become } = useSession()
const { data, error, refetch } = useQuery<Schemas['TabletOut'], ProblemError>({
  queryKey: ['tablet'],
  queryFn: () => take(api.GET('/api/tablet')),
  gcTime: 0,
})
type Person = Schemas['TabletPerson']
const person = ref<Person | null>(null)
const typed = ref('')
const problem = ref<Problem | null>(null)
const keys = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '⌫', '0', '✓']
const spoken: Record<string, string> = { '⌫': 'Delete the last digit', '✓': 'Open' }

function choose(one: Person): void {
  person.value = one
  typed.value = ''
  problem.value = null
}
async function press(key: string): Promise<void> {
  if (key === '⌫') typed.value = typed.value.slice(0, -1)
  else if (key !== '✓') typed.value = (typed.value + key).slice(0, 8)
  else await open()
}
async function open(): Promise<void> {
  const who = person.value
  if (!who || !typed.value) return
  problem.value = await refusal(async () => {
    await take(api.GET('/api/session'))
    become(await take(api.POST('/api/tablet', { body: { person: who.id, code: typed.value } })))
  })
  typed.value = ''
}
</script>

<template>
  <div class="tablet">
    <LoadState v-if="!data" :error="error" what="the tablet" @retry="refetch()" />
    <section v-else class="panel lines">
      <h1>{{ data.kitchen }}</h1>
      <template v-if="!person">
        <p>Who are you?</p>
        <div class="names">
          <ActButton v-for="one in data.people" :key="one.id" :disabled="!one.has_code" @click="choose(one)">
            {{ one.name }}<small v-if="!one.has_code">&nbsp;(no code yet)</small>
          </ActButton>
        </div>
        <p class="small quiet">You set your code on your own page, on a device of your own.</p>
      </template>
      <form v-else class="lines" @submit.prevent="open">
        <p>
          Your code, <b>{{ person.name }}</b>
        </p>
        <p class="typed" aria-live="polite" :aria-label="`${typed.length} digits typed`">
          {{ '●'.repeat(typed.length) || '–' }}
        </p>
        <div class="pad">
          <ActButton v-for="key in keys" :key="key" :aria-label="spoken[key] ?? key" @click="press(key)">
            {{ key }}
          </ActButton>
        </div>
        <ProblemNote v-if="problem" :problem="problem" />
        <ActButton @click="person = null">I am someone else</ActButton>
      </form>
    </section>
  </div>
</template>

<style scoped>
.tablet {
  width: min(420px, 100%);
}

.names {
  display: grid;
  gap: 8px;
}

.typed {
  font-size: 28px;
  text-align: center;
  letter-spacing: 0.2em;
}

.pad {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
}

.pad .act {
  min-height: 60px;
  font-size: 22px;
}
</style>

<script setup lang="ts">
import ActLink from '@/shared/ui/ActLink.vue'
import { computed, toRef } from 'vue'
import { useSlug } from '@/shared/api/useSlug'
import { timeText } from '@/shared/quantity/when'
import LoadState from '@/shared/ui/LoadState.vue'
import { useEvents, useLive } from '@/places/fire/useFires'
import { useReadings, withReading } from '@/places/fire/useReadings'
import FireBody from './FireBody.vue'
import TakeInLog from './TakeInLog.vue'
import { useUnits } from '@/shared/quantity/useUnits'

/** A fire as it is now, what to weigh when it is out, and its log to take away or in. */
const props = defineProps<{ id: number }>()
const { figure } = useUnits()
const id = toRef(props, 'id')
const { data: followed, error, refetch } = useLive(id)
const heard = useReadings(computed(() => (followed.value?.done_at ? '' : (followed.value?.cooker ?? ''))))
const live = computed(() => followed.value && withReading(followed.value, heard.value))
const { record, problem, isSaving, retry } = useEvents(id)
/** The batches in the fire, each with the kind of step it is weighed for. */
const toWeigh = computed(() => new Map((live.value?.hanging ?? []).map((one) => [one.code, one.step_kind])))
const kitchen_slug = useSlug()
const file = (form: string): string => `/api/kitchens/${kitchen_slug.value}/fires/${props.id}/files/${form}`
</script>

<template>
  <LoadState v-if="!live" :error="error" what="the fire" @retry="refetch()" />
  <FireBody
    v-else
    :live="live"
    :is-saving="isSaving"
    :problem="problem"
    @happened="record($event)"
    @retry="retry"
  >
    <template #side>
      <section v-if="live.out_at" class="panel out" aria-label="Weigh it">
        <p>
          Out at {{ timeText(live.out_at)
          }}<template v-if="live.peak">, at most {{ figure(live.peak) }} °{{ live.unit }} inside</template>.
          Weigh each piece: its step takes along the hours, its share of fuel and work.
        </p>
        <ActLink
          v-for="[code, kind] in toWeigh"
          :key="code"
          :to="{ name: 'weigh', params: { code }, query: { kind } }"
          >Weigh {{ code }}</ActLink
        >
      </section>
    </template>
    <template #files>
      <p class="small">
        Export: <a :href="file('json')" download>cook log</a>,
        <a :href="file('csv')" download>readings as CSV</a>
      </p>
      <TakeInLog :live="live" />
    </template>
  </FireBody>
</template>

<style scoped>
.out {
  display: grid;
  gap: 8px;
}
</style>

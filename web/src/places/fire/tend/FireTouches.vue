<script setup lang="ts">
import { useDraft } from '@/shared/writing/useDraft'
import ActButton from '@/shared/ui/ActButton.vue'
import SelectBox from '@/shared/ui/SelectBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref, toRefs } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import { probePlaces } from '@/places/fire/pieces'
import type { EventIn, Live } from '@/places/fire/useFires'

/** What a cook does beside a fire, one touch each; what needs a word or a number opens a line for it. */
const props = defineProps<{ live: Live; isSaving: boolean; plain?: boolean }>()
const emit = defineEmits<{ happened: [event: Partial<EventIn> & { kind: EventIn['kind'] }] }>()
type Asking = 'instant' | 'fuel' | 'probe' | 'swap' | 'note' | null
const { draft, clear } = useDraft(`fire:${props.live.id}`, () => ({
  asking: null as Asking,
  text: '',
  amount: '',
  price: '',
  minutes: '',
}))
const { asking, text, amount, price, minutes } = toRefs(draft)
const piece = ref('')
const probe = ref('1')
const other = ref('2')
const where = ref('')
const { unit } = useUnits()
const example = computed(() =>
  unit.value === 'lb' ? { amount: '3 lb', price: '0.90/lb' } : { amount: '1.4 kg', price: '2.00/kg' },
)
const pieces = computed(() => [...new Set(props.live.hanging.map((one) => one.label))])
if (asking.value) piece.value = pieces.value[0] ?? ''
const probes = computed(() => props.live.curves.filter((one) => one.is_now).map((one) => one.probe))

const asked = [
  ['instant', 'Instant reading'],
  ['fuel', 'Fuel'],
  ['probe', 'Probe moved'],
  ['swap', 'Swap probes'],
  ['note', 'Note'],
] as const
function ask(kind: Asking): void {
  if (props.plain && kind) return once(kind)
  const next = asking.value === kind ? null : kind
  clear()
  asking.value = next
  piece.value ||= pieces.value[0] ?? ''
  if (kind === 'swap') [probe.value, other.value] = [probes.value[0] ?? '1', probes.value[1] ?? '2']
}
function send(): void {
  if (!asking.value) return
  const about = {
    instant: { piece: piece.value, temp: text.value, where: where.value },
    fuel: { text: text.value, amount: amount.value, price: price.value, minutes: minutes.value },
    note: { text: text.value },
    probe: { probe: probe.value, piece: piece.value, where: where.value },
    swap: { probe: probe.value, other: other.value },
  }[asking.value]
  emit('happened', { kind: asking.value, ...about })
  clear()
}
const once = (kind: EventIn['kind'], words = ''): void => emit('happened', { kind, text: words })
</script>

<template>
  <section v-may:helper class="panel" aria-label="What happens">
    <div class="touches">
      <ActButton
        v-for="[kind, word] in plain ? asked.slice(0, 3) : asked"
        :key="kind"
        small
        :aria-expanded="plain ? undefined : asking === kind"
        @click="ask(kind)"
      >
        {{ word }}
      </ActButton>
      <ActButton small :disabled="isSaving" @click="once('spritz')">Spritzed</ActButton>
      <ActButton small :disabled="isSaving" @click="once('wrap')">Wrapped</ActButton>
      <ActButton small :disabled="isSaving" @click="once('taste')">Tasted</ActButton>
      <span class="tender" role="group" aria-label="Tender yet?">
        <span class="small">Tender yet?</span>
        <ActButton
          v-for="word in ['no', 'nearly', 'yes']"
          :key="word"
          small
          :disabled="isSaving"
          @click="once('tender', word)"
        >
          {{ word }}
        </ActButton>
      </span>
    </div>
    <form v-if="asking" @submit.prevent="send">
      <SelectBox v-if="asking === 'instant' || asking === 'probe'" v-model="piece" label="Piece">
        <option v-for="one in pieces" :key="one" :value="one">{{ one }}</option>
      </SelectBox>
      <TypedInput
        v-if="asking === 'instant'"
        v-model="text"
        :label="`Reading, °${live.unit}`"
        inputmode="decimal"
        required
      />
      <SelectBox v-if="asking === 'probe' || asking === 'swap'" v-model="probe" label="Probe">
        <option v-for="number in 8" :key="number" :value="String(number)">{{ number }}</option>
      </SelectBox>
      <SelectBox v-if="asking === 'swap'" v-model="other" label="and probe">
        <option v-for="number in 8" :key="number" :value="String(number)">{{ number }}</option>
      </SelectBox>
      <TypedInput
        v-if="asking === 'probe' || asking === 'instant'"
        v-model="where"
        label="Where in it"
        maxlength="40"
        placeholder="thick end"
        :suggestions="probePlaces"
      />

      <TypedInput
        v-if="asking === 'fuel' || asking === 'note'"
        v-model="text"
        class="wide"
        :label="asking === 'fuel' ? 'What was added' : 'Note'"
        maxlength="200"
        :placeholder="asking === 'fuel' ? 'oak pellets' : ''"
        required
      />
      <template v-if="asking === 'fuel'">
        <TypedInput v-model="amount" label="How much" maxlength="40" :placeholder="example.amount" />
        <TypedInput v-model="price" label="At" maxlength="40" :placeholder="example.price" />
        <TypedInput v-model="minutes" label="Minutes of work" inputmode="numeric" maxlength="5" />
        <p class="small quiet wide">
          Once the pieces are weighed, each bears its share of it; it is not typed again.
        </p>
      </template>
      <ActButton small first submit :disabled="isSaving">Record it</ActButton>
    </form>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
}

.touches,
.tender {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}

form {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}

form .field {
  flex: 1 1 130px;
}

form .wide {
  flex-basis: 240px;
}

form p.wide {
  flex: 1 0 100%;
}
</style>

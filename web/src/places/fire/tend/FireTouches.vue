<script setup lang="ts">
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref } from 'vue'
import { useUnits } from '@/shared/quantity/useUnits'
import type { EventIn, Live } from '@/places/fire/useFires'

/** What a cook does beside a fire, one touch each; what needs a word or a number opens a line for it. */
const props = defineProps<{ live: Live; isSaving: boolean; plain?: boolean }>()
const emit = defineEmits<{ happened: [event: Partial<EventIn> & { kind: EventIn['kind'] }] }>()
type Asking = 'instant' | 'fuel' | 'probe' | 'swap' | 'note' | null
const asking = ref<Asking>(null)
const piece = ref('')
const text = ref('')
const probe = ref('1')
const other = ref('2')
const where = ref('')
const amount = ref('')
const price = ref('')
const minutes = ref('')
const { unit } = useUnits()
const example = computed(() =>
  unit.value === 'lb' ? { amount: '3 lb', price: '0.90/lb' } : { amount: '1.4 kg', price: '2.00/kg' },
)
const pieces = computed(() => [...new Set(props.live.hanging.map((one) => one.label))])
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
  asking.value = asking.value === kind ? null : kind
  piece.value ||= pieces.value[0] ?? ''
  for (const one of [text, amount, price, minutes]) one.value = ''
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
  asking.value = null
}
const once = (kind: EventIn['kind'], words = ''): void => emit('happened', { kind, text: words })
</script>

<template>
  <section v-may:helper class="panel" aria-label="What happens">
    <div class="touches">
      <button
        v-for="[kind, word] in plain ? asked.slice(0, 3) : asked"
        :key="kind"
        type="button"
        class="act small"
        :aria-expanded="plain ? undefined : asking === kind"
        @click="ask(kind)"
      >
        {{ word }}
      </button>
      <button type="button" class="act small" :disabled="isSaving" @click="once('spritz')">Spritzed</button>
      <button type="button" class="act small" :disabled="isSaving" @click="once('wrap')">Wrapped</button>
      <button type="button" class="act small" :disabled="isSaving" @click="once('taste')">Tasted</button>
      <span class="tender" role="group" aria-label="Tender yet?">
        <span class="small">Tender yet?</span>
        <button
          v-for="word in ['no', 'nearly', 'yes']"
          :key="word"
          type="button"
          class="act small"
          :disabled="isSaving"
          @click="once('tender', word)"
        >
          {{ word }}
        </button>
      </span>
    </div>
    <form v-if="asking" @submit.prevent="send">
      <label v-if="asking === 'instant' || asking === 'probe'" class="named"
        ><span>Piece</span
        ><select v-model="piece" class="box">
          <option v-for="one in pieces" :key="one" :value="one">{{ one }}</option>
        </select></label
      >
      <label v-if="asking === 'instant'" class="named"
        ><span>It read, °{{ live.unit }}</span
        ><input v-model="text" class="box" inputmode="decimal" required
      /></label>
      <label v-if="asking === 'probe' || asking === 'swap'" class="named"
        ><span>Probe</span
        ><select v-model="probe" class="box">
          <option v-for="number in 8" :key="number" :value="String(number)">{{ number }}</option>
        </select></label
      >
      <label v-if="asking === 'swap'" class="named"
        ><span>and probe</span
        ><select v-model="other" class="box">
          <option v-for="number in 8" :key="number" :value="String(number)">{{ number }}</option>
        </select></label
      >
      <label v-if="asking === 'probe' || asking === 'instant'" class="named"
        ><span>Where in it</span
        ><input v-model="where" class="box" maxlength="40" placeholder="thick end" list="places-in-meat"
      /></label>
      <datalist id="places-in-meat">
        <option value="thick end"></option>
        <option value="thin end"></option>
      </datalist>
      <label v-if="asking === 'fuel' || asking === 'note'" class="named wide"
        ><span>{{ asking === 'fuel' ? 'What was added' : 'Note' }}</span
        ><input
          v-model="text"
          class="box"
          maxlength="200"
          :placeholder="asking === 'fuel' ? 'oak pellets' : ''"
          required
      /></label>
      <template v-if="asking === 'fuel'">
        <label class="named"
          ><span>How much</span
          ><input v-model="amount" class="box" maxlength="40" :placeholder="example.amount"
        /></label>
        <label class="named"
          ><span>At</span><input v-model="price" class="box" maxlength="40" :placeholder="example.price"
        /></label>
        <label class="named"
          ><span>Minutes of work</span><input v-model="minutes" class="box" inputmode="numeric" maxlength="5"
        /></label>
        <p class="small quiet wide">
          Once the pieces are weighed, each bears its share of it; it is not typed again.
        </p>
      </template>
      <button type="submit" class="act first small" :disabled="isSaving">Record it</button>
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

form .named {
  flex: 1 1 130px;
}

form .wide {
  flex-basis: 240px;
}

form p.wide {
  flex: 1 0 100%;
}
</style>

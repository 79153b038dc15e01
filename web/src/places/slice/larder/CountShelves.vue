<script setup lang="ts">
import TickBox from '@/shared/ui/TickBox.vue'
import TypedInput from '@/shared/ui/TypedInput.vue'
import { vMay } from '@/shared/kitchen/vMay'
import { computed, ref } from 'vue'
import { type Larder, useLarderWrites } from '@/places/slice/useLarder'
import { useUnits } from '@/shared/quantity/useUnits'
import SaveBar from '@/shared/ui/SaveBar.vue'

/** Counting: every pack that should be there, ticked off; what is there beside the book is typed in. */
const props = defineProps<{ larder: Larder }>()
const emit = defineEmits<{ done: [] }>()
const { weightText } = useUnits()
const { counting, renew } = useLarderWrites()
const gone = ref(new Set<string>())
const found = ref('')
const shelves = computed(() =>
  props.larder.shelves.map((shelf) => ({
    store: shelf.store || 'Not placed',
    packs: shelf.stacks.flatMap((stack) => stack.packs),
    more: shelf.stacks.reduce((sum, stack) => sum + stack.more, 0),
  })),
)
const name = (pack: { code: string; mark: string }): string => `${pack.code} ${pack.mark}`
function toggle(which: string): void {
  if (!gone.value.delete(which)) gone.value.add(which)
  gone.value = new Set(gone.value)
}
const asName = (text: string) => {
  const [code, mark] = text
    .trim()
    .toUpperCase()
    .split(/[\s/]+/)
  return { code: code ?? '', mark: mark ?? '' }
}
function count(): void {
  const body = {
    expected: props.larder.packs,
    missing: [...gone.value].map(asName),
    found_again: found.value
      .split(/[,;]+/)
      .filter((one) => one.trim())
      .map(asName),
  }
  void counting.write(body, () => {
    renew()
    emit('done')
  })
}
const word = computed(() => {
  const missing = gone.value.size
  return missing ? `Record the count: ${missing} missing` : 'Record the count: all there'
})
</script>

<template>
  <form v-may:helper class="panel" aria-label="Count the shelves" @submit.prevent="count">
    <p>Untick what is not there. It is recorded as thrown away, “not found when the shelves were counted”.</p>
    <div class="shelves">
      <fieldset v-for="shelf in shelves" :key="shelf.store">
        <legend>{{ shelf.store }}</legend>
        <TickBox
          v-for="pack in shelf.packs"
          :key="name(pack)"
          :model-value="!gone.has(name(pack))"
          @update:model-value="toggle(name(pack))"
          >{{ name(pack) }}
          <span class="quiet small">{{ pack.product }}, {{ weightText(pack.left) }}</span></TickBox
        >
        <p v-if="shelf.more" class="quiet small">{{ shelf.more }} more are not listed here.</p>
      </fieldset>
    </div>
    <TypedInput v-model="found" label="There, but gone by the book" placeholder="J-01 P3, L-02 P1" />
    <SaveBar
      :word="word"
      :state="counting.state.value"
      :problem="counting.problem.value"
      cancel-word="Do not count"
      @retry="counting.retry()"
      @cancel="$emit('done')"
    />
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
  margin-bottom: 16px;
}

.shelves {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: 8px 20px;
}

fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
}

legend {
  font-weight: 700;
}
</style>

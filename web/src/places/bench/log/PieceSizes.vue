<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { ref, toRef } from 'vue'
import type { Batch } from '@/shared/api/client'
import { usePieces } from '@/shared/api/useBench'
import { useUnits } from '@/shared/quantity/useUnits'
import LoadState from '@/shared/ui/LoadState.vue'
import FactsForm from '@/places/bench/piece/FactsForm.vue'
import { useSizes } from '@/places/bench/piece/useSizes'

/** Every piece with its size, skin and place, each shown beside it: what the cure's days go by. */
const props = defineProps<{ batch: Batch }>()
const { data: pieces, error, refetch } = usePieces(toRef(() => props.batch.code))
const { weightText } = useUnits()
const { sizeText } = useSizes()
const open = ref('')
</script>

<template>
  <LoadState v-if="!pieces" :error="error" what="the pieces" @retry="refetch()" />
  <ul v-else aria-label="Pieces">
    <li v-for="piece in pieces.pieces" :key="piece.mark">
      <RouterLink class="mark" :to="{ name: 'piece', params: { code: batch.code, mark: piece.mark } }">{{
        piece.mark === 'lot' ? 'whole' : piece.mark
      }}</RouterLink>
      <div>
        <p>
          <b>{{ weightText(piece.weight) }}</b>, {{ sizeText(piece)
          }}<template v-if="piece.skin">, skin {{ piece.skin }}</template>
        </p>
        <p class="quiet small">{{ piece.place?.text ?? 'no place yet' }}</p>
      </div>
      <ActButton
        small
        :aria-expanded="open === piece.mark"
        :aria-label="`Measure ${piece.mark === 'lot' ? 'the whole piece' : piece.mark}`"
        @click="open = open === piece.mark ? '' : piece.mark"
      >
        Measure
      </ActButton>
      <FactsForm
        v-if="open === piece.mark"
        class="wide"
        :code="batch.code"
        :mark="piece.mark"
        @kept="open = ''"
      />
    </li>
  </ul>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 56px minmax(0, 1fr) auto;
  gap: 4px 12px;
  align-items: center;
  padding: 8px 0;
  border-top: 1px solid var(--edge);
}

.mark {
  font-size: 26px;
  font-weight: 760;
  color: inherit;
  overflow-wrap: anywhere;
  line-height: 1.05;
}

.wide {
  grid-column: 1 / -1;
}
</style>

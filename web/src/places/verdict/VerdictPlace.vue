<script setup lang="ts">
import { toRef } from 'vue'
import { useRouter } from 'vue-router'
import { useBatch } from '@/shared/api/useBatch'
import Strip from '@/shared/strip/Strip.vue'
import BatchHead from '@/shared/ui/BatchHead.vue'
import LoadState from '@/shared/ui/LoadState.vue'
import { useKeys } from '@/shared/ui/useKeys'
import AgainstShop from './AgainstShop.vue'
import BillParts from './BillParts.vue'
import HeadlinePrice from './HeadlinePrice.vue'

const props = defineProps<{ code: string }>()
const router = useRouter()
const { data: batch, error, refetch } = useBatch(toRef(props, 'code'))
const openLog = (): void => void router.push({ name: 'log', params: { code: props.code } })
useKeys({ l: openLog, w: openLog })
</script>

<template>
  <LoadState v-if="!batch" :error="error" :what="`batch ${code}`" @retry="refetch()" />
  <template v-else>
    <BatchHead :batch="batch">
      <RouterLink class="act" :to="{ name: 'log', params: { code } }">Open the log</RouterLink>
      <RouterLink v-if="!batch.is_finished" class="act first" :to="{ name: 'log', params: { code } }">
        Weigh next
      </RouterLink>
    </BatchHead>
    <div class="verdict">
      <HeadlinePrice class="headline" :batch="batch" />
      <div class="strip">
        <Strip :batch="batch" />
        <p class="keys quiet small">← → walk the steps · W weigh · L log · ? all keys</p>
      </div>
      <div class="side">
        <AgainstShop :batch="batch" />
        <BillParts :batch="batch" />
      </div>
    </div>
  </template>
</template>

<style scoped>
.verdict {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 284px;
  grid-template-areas: 'strip headline' 'strip side';
  grid-template-rows: auto 1fr;
  gap: 12px 16px;
}

.headline {
  grid-area: headline;
}

.strip {
  grid-area: strip;
  align-self: start;
}

.side {
  grid-area: side;
  display: grid;
  gap: 12px;
  align-content: start;
}

.keys {
  margin-top: 12px;
}

@media (max-width: 979px) {
  .verdict {
    grid-template-columns: minmax(0, 1fr);
    grid-template-areas: 'headline' 'strip' 'side';
    grid-template-rows: none;
  }

  .keys {
    display: none;
  }
}
</style>

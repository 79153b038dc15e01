<script setup lang="ts">
import { toRef } from 'vue'
import { useVerdict } from '@/shared/api/useBatch'
import LoadState from '@/shared/ui/LoadState.vue'
import HouseOrShop from './HouseOrShop.vue'

const props = defineProps<{ code: string }>()
const { data: verdict, error, refetch } = useVerdict(toRef(props, 'code'))
</script>

<template>
  <LoadState v-if="!verdict" :error="error" :what="`the verdict of ${code}`" @retry="refetch()" />
  <HouseOrShop v-else :key="verdict.code" :verdict="verdict" @kept="refetch()" />
</template>

<script setup lang="ts">
import type { RouteLocationRaw } from 'vue-router'
import ActButton from './ActButton.vue'

/** A link to another view that looks like a button. */
defineOptions({ inheritAttrs: false })
defineProps<{ to: RouteLocationRaw }>()
</script>

<template>
  <RouterLink v-slot="{ href, navigate }" :to="to" custom>
    <ActButton v-bind="$attrs" :href="href" @click="navigate"><slot /></ActButton>
  </RouterLink>
</template>

<script setup lang="ts">
/** A box of the form, its word above, and what is wrong with it below. */
defineProps<{ word: string; fault?: string }>()
</script>

<template>
  <label class="named"
    ><span>{{ word }}</span
    ><slot /><i v-if="fault" class="dear">▲ {{ fault }}</i></label
  >
</template>

<style scoped>
i {
  font-style: normal;
  font-size: 13px;
}
</style>

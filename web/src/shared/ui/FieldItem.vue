<script setup lang="ts">
import { NFormItem } from 'naive-ui'
import { computed } from 'vue'

/** A field under its label; below it what is wrong with what was typed, else how it was read, else a hint. */
const props = defineProps<{
  label: string
  /** Of the control: its label's is `<id>-label`, that of the line below `<id>-detail`. */
  id: string
  /** Hide the label from sight, not from hearing; for rows under a shared heading. */
  quietLabel?: boolean | undefined
  fault?: string | null | undefined
  detail?: string | null | undefined
  /** Keep room for the line below, so that nothing moves when it comes. */
  roomy?: boolean
}>()
const labelProps = computed(() => ({ for: props.id, id: `${props.id}-label` }))
</script>

<template>
  <NFormItem
    class="field"
    size="small"
    :label="label"
    :label-props="labelProps"
    :show-label="!quietLabel"
    :show-require-mark="false"
    :validation-status="fault ? 'error' : undefined"
    :show-feedback="roomy || Boolean(fault || detail)"
  >
    <label v-if="quietLabel" v-bind="labelProps" class="unseen">{{ label }}</label>
    <slot />
    <template #feedback>
      <span :id="`${id}-detail`">
        <template v-if="fault"><span aria-hidden="true">▲</span> {{ fault }}</template>
        <template v-else>{{ detail }}</template>
      </span>
    </template>
  </NFormItem>
</template>

<style scoped>
.field {
  --n-label-text-color: currentcolor !important;
  min-width: 0;
}
</style>

<script setup lang="ts">
import ActButton from '@/shared/ui/ActButton.vue'
import { NModal } from 'naive-ui'
import TickBox from '@/shared/ui/TickBox.vue'
import { areLettersKeys } from './useKeys'

const shown = defineModel<boolean>('shown', { required: true })
const keys = [
  ['N', 'start a batch'],
  ['T', 'go to Today'],
  ['A', 'add an offer, at the case'],
  ['W', 'record the next step, in a batch'],
  [
    'G',
    'weigh, in a batch: arrows choose a piece, digits type, Enter records, U undoes, S swaps the last two',
  ],
  ['C', 'the cure desk of the batch'],
  ['D', 'the diary of the batch'],
  ['L', 'open the log of the batch'],
  ['V', 'open the verdict of the batch'],
  ['H', 'house or shop, in a verdict'],
  ['S', 'one slice more, at Slice and pack'],
  ['← →', 'move along the steps of the strip'],
  ['Esc', 'go back, or close what is open; nothing you typed is lost'],
  ['?', 'show these shortcuts'],
]
</script>

<template>
  <NModal v-model:show="shown">
    <div class="panel keys" role="dialog" aria-modal="true" aria-labelledby="keys-title">
      <h2 id="keys-title">Keyboard shortcuts</h2>
      <dl>
        <template v-for="[key, act] in keys" :key="key">
          <dt>
            <kbd>{{ key }}</kbd>
          </dt>
          <dd>{{ act }}</dd>
        </template>
      </dl>
      <TickBox v-model="areLettersKeys">Letters act by themselves on this device</TickBox>
      <p class="small">
        None of them leaves a page with something typed that is not saved.
        {{ areLettersKeys ? '' : 'Only ?, Esc and the arrows act now.' }}
      </p>
      <ActButton small @click="shown = false">Close</ActButton>
    </div>
  </NModal>
</template>

<style scoped>
.keys {
  display: grid;
  gap: 12px;
  width: min(420px, calc(100vw - 24px));
}

dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 6px 14px;
}

kbd {
  font: inherit;
  font-weight: 700;
  border: 1px solid var(--ink);
  border-radius: 3px;
  padding: 1px 8px;
}
</style>

<script setup lang="ts">
import { NModal } from 'naive-ui'

const shown = defineModel<boolean>('shown', { required: true })
const keys = [
  ['N', 'start a batch'],
  ['T', 'go to Today'],
  ['A', 'add an offer, at the case'],
  ['W', 'weigh next, in a batch'],
  ['G', 'the weigh view, in a batch; there arrows choose a piece, figures type, Enter takes, U undoes'],
  ['C', 'the cure desk of the batch'],
  ['D', 'the diary of the batch'],
  ['L', 'open the log of the batch'],
  ['V', 'open the verdict of the batch'],
  ['H', 'house or shop, in a verdict'],
  ['← →', 'walk the steps of the strip'],
  ['Esc', 'go back, or close what is open; nothing typed is lost'],
  ['?', 'show these keys'],
]
</script>

<template>
  <NModal v-model:show="shown">
    <div class="panel keys" role="dialog" aria-modal="true" aria-labelledby="keys-title">
      <h2 id="keys-title">Keys</h2>
      <dl>
        <template v-for="[key, act] in keys" :key="key">
          <dt>
            <kbd>{{ key }}</kbd>
          </dt>
          <dd>{{ act }}</dd>
        </template>
      </dl>
      <button type="button" class="act small" @click="shown = false">Close</button>
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

<script setup lang="ts">
import LedgerTable from '@/shared/ui/LedgerTable.vue'
import TickBox from '@/shared/ui/TickBox.vue'
import { ref } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useUnits } from '@/shared/quantity/useUnits'
import FindingList from '@/shared/ui/FindingList.vue'

/** What to weigh out for one piece, in figures to be read from the scale; or what was, once it is done. */
defineProps<{ piece: Schemas['DeskPieceOut']; isDone?: boolean }>()
const { weightText, money, percent } = useUnits()
const bySpoon = ref(false)
const whole = (grams: string): string => Number(grams).toLocaleString('en-GB').replace(/,/g, '\u202f')
</script>

<template>
  <div class="out">
    <div class="head-line">
      <h2>{{ isDone ? 'Weighed out' : 'Weigh out' }} for {{ piece.mark }}</h2>
      <span class="quiet">{{ weightText(piece.weight) }}, {{ whole(piece.grams) }} g</span>
    </div>
    <LedgerTable v-if="piece.lines.length">
      <thead class="unseen">
        <tr>
          <th>What</th>
          <th>Share</th>
          <th>How much</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="line in piece.lines"
          :key="line.name + line.role"
          :class="{ later: line.stage === 2 || line.text === 'in the mix' }"
        >
          <th scope="row">
            {{ line.name }}<small v-if="line.role === 'box'"> for the box</small
            ><small v-if="line.stage === 2"> second stage</small>
          </th>
          <td class="share">{{ line.text }}</td>
          <td class="grams">
            <template v-if="line.spoons && (bySpoon || line.is_spooned)">
              <b class="spoon">{{ line.spoons }}</b>
              <small
                >{{ line.spoons_grams }} g as measured, {{ line.spoons_from }} to
                {{ line.spoons_to }} g</small
              >
              <small v-if="line.spoons_grams !== line.grams">{{ line.grams }} g on a scale</small>
            </template>
            <template v-else
              ><b>{{ line.grams }}</b> <span>g</span></template
            >
            <small v-if="line.own_grams">{{ line.own_grams }} g of it for {{ piece.mark }}</small>
          </td>
        </tr>
      </tbody>
    </LedgerTable>
    <p v-if="piece.tub && piece.tub_weight" class="small">
      One brine for tub <b>{{ piece.tub }}</b>, {{ weightText(piece.tub_weight) }} of meat in all: mix it
      once.
    </p>
    <p v-if="piece.lines.length" class="quiet small">Percent of the meat’s weight.</p>
    <p v-else class="quiet">Nothing can be weighed out yet: see the fields marked above.</p>
    <div v-if="piece.brine" class="brine">
      <p>
        <b>{{ whole(piece.brine.grams) }} g of brine</b>, {{ percent(piece.brine.strength) }} salt.
        <template v-if="Number(piece.brine.injector_grams)">
          Inject <b>{{ whole(piece.brine.injector_grams) }} g</b>, the rest
          <template v-if="Number(piece.brine.tub_grams)"
            >{{ whole(piece.brine.tub_grams) }} g into the tub.</template
          >
          <template v-else>{{ whole(piece.brine.spare_grams) }} g extra.</template>
        </template>
      </p>
      <p>
        Dissolve in {{ whole(piece.brine.hot_grams) }} g hot water, add {{ whole(piece.brine.cold_grams) }} g
        cold: <b>{{ piece.brine.mixed_f }} °F</b> ({{ piece.brine.mixed_c }} °C).
        <span :class="{ care: !piece.brine.may_go_in }"
          ><span v-if="!piece.brine.may_go_in" aria-hidden="true">▲</span> {{ piece.brine.water_note }}</span
        >
      </p>
    </div>
    <p v-if="piece.lines.some((line) => line.spoons && !line.is_spooned)">
      <TickBox v-model="bySpoon">Spoon measures if you have no scale (within 10 %)</TickBox>
    </p>
    <p>{{ piece.how }} {{ piece.stage_note }}</p>
    <p v-if="piece.salt_in_slice">
      Expected in the finished slice: <b>{{ piece.salt_in_slice.split(',')[0] }}</b> salt,{{
        piece.salt_in_slice.split(',')[1]
      }}.
    </p>
    <p v-else-if="piece.lines.length" class="quiet">
      Salt in the finished slice: not known for this method; taste before smoking.
    </p>
    <FindingList :findings="piece.cautions" label="Cautions" />
    <p v-if="Number(piece.cost)" class="quiet small">
      {{ isDone ? 'What was weighed out cost' : 'What is weighed out costs' }} {{ money(piece.cost) }}.
    </p>
  </div>
</template>

<style scoped>
.out {
  display: grid;
  gap: 10px;
}

.head-line {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 2px 12px;
}

h2 {
  font-size: 19px;
}

table {
  width: 100%;
  border-collapse: collapse;
}

tr {
  border-top: 1px solid var(--edge);
}

th[scope] {
  text-align: left;
  font-weight: 400;
  font-size: 17px;
  padding: 7px 0;
}

td {
  text-align: right;
  white-space: nowrap;
}

.share {
  color: var(--quiet);
  padding: 0 16px;
  font-stretch: 88%;
}

.grams b {
  font-size: 30px;
  font-weight: 780;
  line-height: 1.1;
}

.grams small {
  display: block;
}

.grams .spoon {
  font-size: 18px;
  display: block;
}

.later th,
.later b {
  color: var(--quiet);
}

.brine {
  display: grid;
  gap: 4px;
  padding: 8px 12px;
  background: #eaf1f6;
  border-left: 6px solid #8fb8d6;
}

.care {
  color: var(--care-ink);
  font-weight: 600;
}

@media (max-width: 719px) {
  .share {
    padding: 0 8px;
    font-size: 13px;
    white-space: normal;
  }

  .grams b {
    font-size: 26px;
  }
}
</style>

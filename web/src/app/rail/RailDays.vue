<script setup lang="ts">
import { useDocument } from "@/document/store";
import { MONTHS } from "@/units/units";
import { useView } from "@/view/store";
import { computed } from "vue";

/** @property peak - the month of the peak of what is selected, 1 to 12, or of the dehumidification day, 13 */
defineProps<{ peak: number | undefined }>();
const doc = useDocument();
const view = useView();
/** Twelve months, and the dehumidification day where the site has one. */
const days = computed(() => MONTHS.slice(0, doc.site?.dehumidification_month ? 13 : 12));
</script>

<template>
  <div class="days">
    <span class="soft">Day shown</span>
    <div class="months" role="group" aria-label="Day">
      <v-btn
        variant="text"
        :aria-pressed="view.month === 0"
        class="winter"
        :class="{ on: view.month === 0, short: days.length > 12 }"
        title="Winter day"
        @click="view.month = 0"
      >
        W
      </v-btn>
      <v-btn
        variant="text"
        v-for="(month, index) in days"
        :key="month"
        :aria-pressed="view.month === index + 1"
        :class="{
          on: view.month === index + 1,
          peak: peak === index + 1,
          dew: index === 12,
        }"
        :title="index === 12 ? 'Dehumidification day' : undefined"
        @click="view.month = index + 1"
      >
        {{ month.split(" ")[0] }}
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.days {
  padding: 8px 10px;
  border-right: 1px solid var(--line);
}
.months {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
  gap: 4px;
  margin-top: 5px;
}
.months button {
  border: 1px solid var(--line);
  padding: 2px 0;
  font-size: 12px;
}
.months .peak {
  border-color: var(--tide);
}
.months .on {
  background: var(--tide);
  color: #fff;
}
.months .winter {
  border-color: var(--ember);
  grid-row: span 2;
}
.months .winter.short {
  grid-row: 1;
}
.months .dew {
  grid-row: 2;
  grid-column: 1;
}
.months .winter.on {
  background: var(--ember);
}
</style>

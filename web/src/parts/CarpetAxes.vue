<script setup lang="ts">
import { MONTHS } from "@/units/units";
import { computed } from "vue";

/** Axes of a carpet: days of a year across, hours of the day upwards. */
const props = defineProps<{ year: number; days: number }>();
const HOURS = [0, 6, 12, 18, 24];
const starts = computed(() =>
  MONTHS.slice(0, 12).map((name, month) => ({
    name,
    at: (Date.UTC(props.year, month, 1) - Date.UTC(props.year, 0, 1)) / 864e5 / props.days,
  })),
);
</script>

<template>
  <div class="axes">
    <div class="hours" aria-hidden="true">
      <span v-for="hour in HOURS" :key="hour" :style="{ bottom: `${(hour / 24) * 100}%` }">{{ hour }}</span>
    </div>
    <div class="cloth"><slot /></div>
    <div class="months" aria-hidden="true">
      <span v-for="month in starts" :key="month.name" :style="{ left: `${month.at * 100}%` }">{{
        month.name
      }}</span>
    </div>
  </div>
</template>

<style scoped>
.axes {
  display: grid;
  grid-template-columns: 22px 1fr;
  font-size: 10px;
  color: var(--soft);
  margin-top: 6px;
}
.hours,
.months {
  position: relative;
}
.hours span {
  position: absolute;
  right: 4px;
  transform: translateY(50%);
  line-height: 1;
}
.cloth {
  min-width: 0;
}
.months {
  grid-column: 2;
  height: 15px;
}
.months span {
  position: absolute;
  padding-left: 2px;
  border-left: 1px solid var(--line);
}
</style>

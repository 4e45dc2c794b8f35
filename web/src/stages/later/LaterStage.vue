<script setup lang="ts">
import { useRoute } from "vue-router";
const route = useRoute();
const WHAT: Record<string, string> = {
  compare:
    "two to four options of a project beside each other: what differs in inputs, peaks, airflow and kit.",
  issue: "issue sheets: a report chosen, previewed, numbered and dated, that never changes afterwards.",
};
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>{{ String(route.name) === "compare" ? "Compare" : "Issue" }}</h1>
      <span class="tag">not there yet</span>
    </div>
    <p class="empty">
      This stage will hold {{ WHAT[String(route.name)] }} Until then the kit list can be taken along as CSV
      from Kit.
    </p>
  </div>
</template>

<script setup lang="ts">
import { useView } from "@/view/store";

/** Opens and closes what is shown below a sheet. */
const view = useView();
</script>

<template>
  <Act
    :active="view.detailsOpen"
    :aria-pressed="view.detailsOpen"
    title="What belongs to the selection, below; closed, more rows are seen"
    @click="view.detailsOpen = !view.detailsOpen"
  >
    Details
  </Act>
</template>

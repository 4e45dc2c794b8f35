<script setup lang="ts">
/** The account of a piece: what is asked of it and when, its margin, what is chosen and what is left over. */
import Figure from "@/parts/Figure.vue";
import type { KitLine } from "@/results/types";
import { isBill, type Piece } from "./pieces";

defineProps<{ piece: Piece }>();
const NAMES = { margin: "+ margin", pinned: "pinned", chosen: "chosen" } as const;
function named(line: KitLine): string {
  if (line.role === "asked") return line.what;
  if (line.role === "margin") return line.what.toLowerCase();
  if (line.role === "left over") return line.value < 0 ? "short by" : "left over";
  return NAMES[line.role];
}
</script>

<template>
  <aside class="account" aria-label="Account of the piece">
    <h2>{{ piece.tag }}</h2>
    <p class="soft">
      {{ piece.item
      }}<template v-if="piece.together.length"
        >, {{ isBill(piece) ? "all of them" : "the largest of them" }}</template
      >
    </p>
    <v-table class="plain" density="compact" aria-label="Duties">
      <tbody>
        <tr
          v-for="(line, at) in piece.account"
          :key="at"
          :class="[line.role.replace(' ', '-'), { short: line.role === 'left over' && line.value < 0 }]"
        >
          <td>{{ named(line) }}</td>
          <td class="num"><Figure :value="line.value" :quantity="line.quantity" /></td>
          <td class="soft">{{ line.note }}</td>
        </tr>
      </tbody>
    </v-table>
    <dl>
      <template v-if="piece.size">
        <dt>Size</dt>
        <dd>{{ piece.size }}</dd>
      </template>
      <template v-if="piece.why">
        <dt>Why</dt>
        <dd>{{ piece.why }}</dd>
      </template>
      <template v-if="piece.together.length">
        <dt>Pieces</dt>
        <dd>{{ piece.together.join(", ") }}</dd>
      </template>
      <template v-if="piece.remark">
        <dt>Remark</dt>
        <dd>{{ piece.remark }}</dd>
      </template>
    </dl>
  </aside>
</template>

<style scoped>
.account {
  flex: 0 0 330px;
  min-width: 0;
  overflow: auto;
  padding: 8px 12px 14px;
  border-left: 1px solid var(--line);
}
h2 {
  margin: 0;
}
p {
  margin: 0 0 8px;
}
tr.asked:not(:first-child) td {
  border-top: 1px solid var(--line);
}
tr:not(.asked) td:first-child {
  padding-left: 18px;
}
tr.left-over td.num {
  font-weight: 600;
}
tr.short td {
  color: var(--ember);
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 3px 10px;
  margin: 10px 0 0;
}
dt {
  color: var(--soft);
}
dd {
  margin: 0;
}
</style>

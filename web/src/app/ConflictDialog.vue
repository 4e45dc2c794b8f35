<script setup lang="ts">
import { useDocument, type Conflict } from "@/document/store";
import { labelOf, quantityOf, targetOf } from "@/document/fields";
import type { Change, Kind } from "@/document/types";
import { format, unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";

/** Fields that somebody else changed meanwhile, both values beside each other. */
interface Line {
  path: string;
  kind: Kind;
  id: string;
  field: string;
  thing: string;
  label: string;
  mine: string;
  theirs: string;
}

const doc = useDocument();
const view = useView();
const chosen = ref<Record<string, "mine" | "theirs">>({});
const open = computed({
  get: () => doc.conflict !== null,
  set: (is) => {
    if (!is) doc.conflict = null;
  },
});

function thing(kind: Kind, id: string): string {
  const row = doc.get(kind, id) as { number?: string; name?: string } | undefined;
  return [row?.number, row?.name].filter(Boolean).join(" ") || "Gone meanwhile";
}

function text(kind: string, field: string, value: unknown): string {
  if (value === null || value === undefined || value === "") return "none of its own";
  const target = targetOf(kind, field);
  if (target) return thing(target, String(value));
  if (typeof value === "number") {
    const quantity = quantityOf(kind, field);
    return `${format(value, quantity, view.system)} ${unitOf(quantity, view.system)}`.trim();
  }
  if (typeof value === "boolean") return value ? "yes" : "no";
  return typeof value === "string" ? value : "another content";
}

function lines(of: Conflict): Line[] {
  return of.faults.map((fault) => {
    const [kind, id, field = ""] = fault.path.split("/") as [Kind, string, string?];
    const gone = !field;
    return {
      path: fault.path,
      kind,
      id,
      field,
      thing: thing(kind, id),
      label: gone ? "Whether it stays" : labelOf(kind, field),
      mine: gone ? "delete it" : text(kind, field, fault.value),
      theirs: gone ? fault.message : text(kind, field, fault.now),
    };
  });
}
const shown = computed(() => (doc.conflict ? lines(doc.conflict) : []));
watch(shown, (now) => {
  chosen.value = Object.fromEntries(now.map((line) => [line.path, "theirs"]));
});

/** What is left of the edit: without what is to stay as the others have it. */
function remaining(of: Conflict): Change[] {
  return of.changes.flatMap((change) => {
    if (change.op === "delete")
      return chosen.value[`${change.kind}/${change.id}`] === "theirs" ? [] : [change];
    if (change.op !== "set") return [change];
    const fields = Object.fromEntries(
      Object.entries(change.fields ?? {}).filter(
        ([field]) => chosen.value[`${change.kind}/${change.id}/${field}`] !== "theirs",
      ),
    );
    return Object.keys(fields).length ? [{ ...change, fields }] : [];
  });
}

async function settle(): Promise<void> {
  const conflict = doc.conflict;
  if (!conflict) return;
  const changes = remaining(conflict);
  doc.conflict = null;
  if (changes.length) await doc.attempt(conflict.label, changes);
}
function all(whose: "mine" | "theirs"): void {
  chosen.value = Object.fromEntries(shown.value.map((line) => [line.path, whose]));
}
</script>

<template>
  <v-dialog v-model="open" max-width="720" aria-label="Changed meanwhile">
    <v-card title="Changed by somebody else meanwhile">
      <v-card-text>
        <p>
          “{{ doc.conflict?.label }}” was not saved: the same was changed in another window or by somebody
          else. Choose what is to stand.
        </p>
        <v-table density="compact">
          <thead>
            <tr>
              <th>Of</th>
              <th>What</th>
              <th>Yours</th>
              <th>Theirs, as it is now</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in shown" :key="line.path">
              <td>{{ line.thing }}</td>
              <td>{{ line.label }}</td>
              <td>
                <v-radio-group v-model="chosen[line.path]" hide-details density="compact">
                  <v-radio :label="line.mine" value="mine" :aria-label="`Yours: ${line.mine}`" />
                </v-radio-group>
              </td>
              <td>
                <v-radio-group v-model="chosen[line.path]" hide-details density="compact">
                  <v-radio :label="line.theirs" value="theirs" :aria-label="`Theirs: ${line.theirs}`" />
                </v-radio-group>
              </td>
            </tr>
          </tbody>
        </v-table>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="all('mine')">All mine</v-btn>
        <v-btn @click="all('theirs')">All theirs</v-btn>
        <v-spacer />
        <v-btn variant="flat" color="primary" @click="settle">Save this choice</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

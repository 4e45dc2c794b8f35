<script setup lang="ts">
/** Lays ducts or pipes anew along the plan, from the room in which the unit stands. */
import { client, Refusal, unwrap } from "@/api/client";
import { useDocument } from "@/document/store";
import { counted } from "@/units/units";
import { computed, ref } from "vue";
import Choice from "./Choice.vue";
import DialogBox from "./DialogBox.vue";

const props = defineProps<{
  kind: "duct_section" | "pipe_section";
  owner: string;
  rooms: string[];
  coils: string[];
  /** Of ducts: which of the system's networks. */
  network?: "supply" | "return";
  /** How many sections are there already. */
  drawn: number;
}>();
const emit = defineEmits<{ close: [] }>();
const doc = useDocument();
const placed = computed(() => doc.rows("room").filter((room) => room.level && room.outline_m?.length));
const onPlan = computed(() => new Set(placed.value.map((room) => room.id)));
const off = computed(() =>
  props.rooms.filter((room) => !onPlan.value.has(room)).map((room) => doc.get("room", room)?.number ?? ""),
);
const start = ref(placed.value.find((room) => /plant/i.test(room.name))?.id ?? placed.value[0]?.id ?? "");
const fault = ref("");
const choices = computed(() =>
  placed.value.map((room) => ({ value: room.id, label: `${room.number} ${room.name}` })),
);

async function propose(): Promise<void> {
  try {
    await doc.applied(
      async () =>
        unwrap(
          await client.POST("/api/projects/{project_id}/plan/route", {
            params: { path: { project_id: doc.projectId } },
            body: {
              base_version: doc.version,
              kind: props.kind,
              owner: props.owner,
              start_room: start.value,
              rooms: props.rooms.filter((room) => onPlan.value.has(room)),
              coils: props.coils,
              network: props.network ?? "supply",
            },
          }),
        ) as never,
    );
    emit("close");
  } catch (error) {
    fault.value = error instanceof Refusal ? error.message : String(error);
  }
}
</script>

<template>
  <DialogBox title="Route from the plan" :width="520" @close="emit('close')">
    <p>
      A riser where the unit stands, on every level a straight main through the middle of the rooms, and
      branches at right angles. Lengths are measured on the plan, bends and branches are counted; change them
      where the building wants it otherwise.
    </p>
    <p v-if="!placed.length" class="fault" role="alert">No room is on the plan of a level yet.</p>
    <p v-else class="start">
      Unit stands in <Choice v-model="start" label="Unit stands in" :choices="choices" />
    </p>
    <p v-if="off.length" class="soft">
      Not on the plan, left out: {{ off.slice(0, 12).join(", ") }}{{ off.length > 12 ? " …" : "" }}
    </p>
    <p v-if="drawn" class="soft">
      It takes the place of {{ counted(drawn, "section") }} that are there; undo brings them back.
    </p>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <template #actions>
      <v-spacer />
      <Act @click="emit('close')">Cancel</Act>
      <Act class="on" :disabled="!start" @click="propose">Lay the route</Act>
    </template>
  </DialogBox>
</template>

<style scoped>
.start {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>

<script setup lang="ts">
import Choice from "@/parts/Choice.vue";
import FileButton from "@/parts/FileButton.vue";
import { useDocument } from "@/document/store";
import type { Level, Room } from "@/document/types";
import Field from "@/parts/Field.vue";
import { choicesOf, fieldSaver } from "@/parts/saving";
import { useView } from "@/view/store";
import { computed, ref } from "vue";
import { addLevel } from "../levels";
import { useDrawings } from "./drawings";
import { length, rectangle, type Outline, type Point } from "./outline";

const newUse = defineModel<string>("newUse", { required: true });
const props = defineProps<{
  level: Level | undefined;
  room: Room | undefined;
  /** Rooms of the level that are not drawn. */
  loose: Room[];
  /** Whether the drawing below is being dealt with. */
  underlay: boolean;
  /** Two places pressed on the drawing, to scale it. */
  picked: Point[];
}>();
const emit = defineEmits<{ add: [outline: Outline]; outline: [room: string, outline: Outline]; pick: [] }>();
const doc = useDocument();
const uses = computed(() => [{ value: "", label: "chosen later" }, ...choicesOf(doc.rows("use"))]);
const view = useView();
const drawings = useDrawings();
const metres = { type: "number" as const, quantity: "length" };
const typed = ref({ x: 0, y: 0, width: 5, depth: 4 });
const corners = computed(() => (props.room?.outline_m ?? []) as Outline);
const drawing = computed(() => drawings.of(props.level?.id ?? ""));

function setCorner(index: number, axis: 0 | 1) {
  return async (value: unknown): Promise<void> => {
    const outline = corners.value.map((corner): Point => [...corner]);
    outline[index]![axis] = value as number;
    await doc.commit("Corner typed", [
      { op: "set", kind: "room", id: props.room!.id, fields: { outline_m: outline } },
    ]);
  };
}

function saveTyped(key: keyof typeof typed.value) {
  return (value: unknown): Promise<void> => {
    typed.value = { ...typed.value, [key]: value as number };
    return Promise.resolve();
  };
}

function draw(): void {
  const { x, y, width, depth } = typed.value;
  emit("add", rectangle([x, y], [x + width, y + depth]));
}

async function takeFile(file: File): Promise<void> {
  if (props.level) await drawings.put(props.level.id, file);
}

/** The distance between the two places pressed makes the scale; the first of them stays where it is. */
async function scaleTo(value: unknown): Promise<void> {
  const [a, b] = props.picked;
  const now = drawing.value;
  if (!a || !b || !now) return;
  const factor = (value as number) / length(a, b);
  const stay = (place: number, corner: number) => place - (place - corner) * factor;
  await drawings.place(now.level, {
    m_per_unit: now.m_per_unit * factor,
    x_m: stay(a[0], now.x_m),
    y_m: stay(a[1], now.y_m),
  });
}
const shift = (key: "x_m" | "y_m") => (value: unknown) =>
  drawings.place(props.level!.id, { [key]: value as number });
function showLayer(layer: string, shown: boolean): void {
  const others = drawing.value!.hidden_layers.filter((name) => name !== layer);
  void drawings.place(props.level!.id, { hidden_layers: shown ? others : [...others, layer] });
}
const saveLevel = (key: "name" | "floor_m" | "height_m", label: string) =>
  fieldSaver("level", () => props.level!.id, key, label);
</script>

<template>
  <aside class="side">
    <template v-if="underlay && level">
      <h2>Drawing below {{ level.name }}</h2>
      <p>
        <FileButton
          label="Drawing file"
          text="PNG, JPEG or DXF …"
          accept=".png,.jpg,.jpeg,.dxf"
          @file="takeFile"
        />
      </p>
      <p v-if="drawings.fault" class="fault" role="alert">{{ drawings.fault }}</p>
      <template v-if="drawing">
        <p class="soft">{{ drawing.name }}</p>
        <Act @click="emit('pick')">Scale by two points</Act>
        <p v-if="picked.length < 2" class="soft">
          Then press two points of the drawing whose distance you know.
        </p>
        <Field
          v-else
          label="their distance is"
          :value="length(picked[0]!, picked[1]!)"
          :editor="metres"
          :save="scaleTo"
        />
        <Field label="left edge at" :value="drawing.x_m" :editor="metres" :save="shift('x_m')" />
        <Field label="lower edge at" :value="drawing.y_m" :editor="metres" :save="shift('y_m')" />
        <v-list v-if="drawing.layers.length > 1" density="compact" aria-label="Layers of the drawing">
          <v-list-subheader>Layers shown</v-list-subheader>
          <v-checkbox
            v-for="layer in drawing.layers"
            :key="layer"
            :model-value="!drawing.hidden_layers.includes(layer)"
            :label="layer"
            density="compact"
            color="primary"
            hide-details
            @update:model-value="showLayer(layer, !!$event)"
          />
        </v-list>
        <Act @click="drawings.remove(level.id)">Take it away</Act>
      </template>
    </template>
    <template v-else-if="level">
      <details :open="!room">
        <summary>{{ level.name }}</summary>
        <Field
          label="Name"
          :value="level.name"
          :editor="{ type: 'text' }"
          :save="saveLevel('name', 'Level name')"
        />
        <Field
          label="floor at"
          :value="level.floor_m"
          :editor="metres"
          :save="saveLevel('floor_m', 'Elevation of the floor')"
        />
        <Field
          label="height"
          :value="level.height_m"
          :inherited="doc.project?.height_m"
          :editor="metres"
          :save="saveLevel('height_m', 'Height of the level')"
        />
        <Field
          label="plan north is turned by"
          :value="doc.site?.rotation_deg"
          :editor="{ type: 'number', quantity: 'angle' }"
          :save="fieldSaver('site', () => doc.site!.id, 'rotation_deg', 'Rotation of the plan')"
        />
        <Act @click="addLevel()">Add level</Act>
      </details>
      <h2>New rectangle</h2>
      <p v-if="!room && doc.rows('use').length > 1" class="soft">
        Use of new rooms
        <Choice v-model="newUse" label="Use of new rooms" :choices="uses" />
      </p>
      <div class="pair">
        <Field label="left" :value="typed.x" :editor="metres" :save="saveTyped('x')" />
        <Field label="lower" :value="typed.y" :editor="metres" :save="saveTyped('y')" />
        <Field label="width" :value="typed.width" :editor="metres" :save="saveTyped('width')" />
        <Field label="depth" :value="typed.depth" :editor="metres" :save="saveTyped('depth')" />
      </div>
      <Act @click="draw">Draw it</Act>
      <template v-if="room?.outline_m && room.level === level.id">
        <h2>{{ room.number }} {{ room.name }}, corners</h2>
        <v-table class="plain">
          <tbody>
            <tr v-for="(corner, i) in corners" :key="i">
              <td class="soft">{{ i + 1 }}</td>
              <td>
                <Field
                  bare
                  :label="`Corner ${i + 1}, x`"
                  :value="corner[0]"
                  :editor="metres"
                  :save="setCorner(i, 0)"
                />
              </td>
              <td>
                <Field
                  bare
                  :label="`Corner ${i + 1}, y`"
                  :value="corner[1]"
                  :editor="metres"
                  :save="setCorner(i, 1)"
                />
              </td>
            </tr>
          </tbody>
        </v-table>
        <p class="soft">Alt and arrows move the room by the grid.</p>
        <TextAct @click="emit('outline', room.id, null as unknown as Outline)"> remove from plan </TextAct>
      </template>
      <template v-if="loose.length">
        <h2>Not drawn</h2>
        <p class="soft">Choose one, then draw it.</p>
        <TextAct v-for="row in loose" :key="row.id" class="loose" @click="view.selectRoom(row.id)">
          {{ row.number }} {{ row.name }}
        </TextAct>
      </template>
    </template>
  </aside>
</template>

<style scoped>
.side {
  border-left: 1px solid var(--line);
  padding: 8px 12px;
  overflow: auto;
  font-family: var(--narrow);
}
.side h2 {
  margin: 10px 0 4px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  column-gap: 8px;
}
.side :deep(.field:not(.bare)) {
  grid-template-columns: minmax(0, 1fr) 72px 16px;
}
.side :deep(.field.wide:not(.bare)) {
  grid-template-columns: 62px minmax(0, 1fr);
}
.pair :deep(.field:not(.bare)) {
  grid-template-columns: minmax(0, 1fr) 44px 12px;
  gap: 3px;
}
.side .plain {
  width: 100%;
}
.loose {
  display: block;
}
.fault {
  color: var(--ember);
}
@media (max-width: 1099px) {
  .side {
    display: none;
  }
}
</style>

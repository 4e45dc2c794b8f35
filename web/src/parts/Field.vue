<script setup lang="ts">
import { unitOf } from "@/units/units";
import { useView } from "@/view/store";
import { computed, ref, watch } from "vue";
import { faultText, fromText, toText, type Editor } from "./edit";

const props = defineProps<{
  label: string;
  /** Stored value, SI. */
  value: unknown;
  /** What counts where there is no value; it shows in italics. */
  inherited?: unknown;
  editor: Editor;
  /** Saves the value; throws when it is refused. */
  save: (value: unknown) => Promise<void>;
  /** Only the input, the label stays for readers. */
  bare?: boolean;
  /** Within a sentence: the input and its unit, as wide as they need be; the label stays for readers. */
  inline?: boolean;
}>();
const view = useView();
const typed = ref<string | null>(null);
const fault = ref("");
const effective = computed(() => props.value ?? props.inherited);
const shown = computed(() => typed.value ?? toText(effective.value, props.editor, view.system));

watch(
  () => [effective.value, view.system],
  () => {
    if (!fault.value) typed.value = null;
  },
);

async function keep(text: string): Promise<void> {
  typed.value = text;
  if (text === toText(effective.value, props.editor, view.system)) {
    typed.value = null;
    fault.value = "";
    return;
  }
  // What is inherited can be stepped back to by emptying the field.
  const editor = props.inherited == null ? props.editor : { ...props.editor, clearable: true };
  const read = fromText(text, editor, view.system);
  fault.value = read.fault;
  if (read.fault) return;
  try {
    await props.save(read.value);
    typed.value = null;
  } catch (error) {
    fault.value = faultText(error, props.editor, view.system);
  }
}

function drop(): void {
  typed.value = null;
  fault.value = "";
}
</script>

<template>
  <label class="field" :class="{ bare, inline, bad: fault }">
    <span class="label" :class="{ hidden: bare || inline }">{{ label }}</span>
    <select
      v-if="editor.type === 'choice'"
      :value="value ?? ''"
      :aria-label="label"
      @change="keep(($event.target as HTMLSelectElement).value)"
    >
      <option v-if="editor.clearable" value="">{{ editor.empty ?? "–" }}</option>
      <option v-for="choice in editor.choices" :key="choice.value" :value="choice.value">
        {{ choice.label }}
      </option>
    </select>
    <input
      v-else-if="editor.type === 'yesno'"
      type="checkbox"
      :checked="Boolean(value)"
      :aria-label="label"
      @change="keep(($event.target as HTMLInputElement).checked ? 'yes' : 'no')"
    />
    <input
      v-else
      :value="shown"
      :aria-label="label"
      :aria-invalid="Boolean(fault)"
      :class="{ num: editor.type === 'number', inherited: value == null && inherited != null }"
      :title="value == null && inherited != null ? 'the building\'s' : undefined"
      @input="typed = ($event.target as HTMLInputElement).value"
      @change="keep(($event.target as HTMLInputElement).value)"
      @keydown.enter="keep(($event.target as HTMLInputElement).value)"
      @keydown.esc="drop"
    />
    <span v-if="editor.quantity && !bare" class="unit">{{ unitOf(editor.quantity, view.system) }}</span>
    <span v-if="fault" class="fault" role="alert">{{ fault }}</span>
  </label>
</template>

<style scoped>
.field {
  /* The hidden label stays by its field, so that it never stretches the page. */
  position: relative;
  display: grid;
  grid-template-columns: minmax(120px, 1fr) 92px 62px;
  align-items: center;
  gap: 6px;
  min-height: 28px;
}
.field.bare {
  display: block;
}
.field.inline,
.field.inline:has(select),
.field.inline:has(input:not(.num):not([type="checkbox"])) {
  display: inline;
  white-space: nowrap;
}
.field.inline input.num {
  width: 58px;
  text-align: right;
}
.field.inline select {
  width: auto;
  max-width: 190px;
}
.field.inline input[type="checkbox"] {
  vertical-align: -2px;
}
.field.inline .unit {
  margin: 0 1px 0 3px;
}
.field.inline .fault {
  white-space: normal;
}
.label {
  color: var(--soft);
}
.inherited {
  font-style: italic;
  color: var(--soft);
}
.hidden {
  position: absolute;
  clip-path: inset(50%);
  width: 1px;
  height: 1px;
  overflow: hidden;
}
input:not([type="checkbox"]),
select {
  border: 1px solid var(--line);
  background: var(--field);
  padding: 2px 5px;
  width: 100%;
  height: 25px;
}
.field:has(select) {
  grid-template-columns: minmax(84px, 1fr) 160px;
}
.field:has(input:not(.num):not([type="checkbox"])) {
  grid-template-columns: minmax(90px, 1fr) 160px;
}
.field.bare,
.field.bare:has(select) {
  display: block;
}
.bad input {
  border-color: var(--ember);
  border-style: dashed;
}
.fault {
  grid-column: 1 / -1;
  display: block;
}
input[type="checkbox"] {
  justify-self: start;
  width: 15px;
  height: 15px;
  accent-color: var(--accent);
}
</style>
